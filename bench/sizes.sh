#!/usr/bin/env bash
# Sizes, each file of core compiled by itself, and whole-command times that no loop can show; medians of 21
# runs.
set -euo pipefail
cd "$(dirname "$0")/.."
median() {
  for _ in $(seq 21); do
    local begin=$EPOCHREALTIME
    "$@" >/dev/null
    local end=$EPOCHREALTIME
    echo $((${end/./} - ${begin/./}))
  done | sort -n | sed -n 11p
}
scratch=$(mktemp -d)
trap 'rm -rf "$scratch"' EXIT
[ -f build/plain/build.ninja ] || cmake --preset plain >/dev/null
cmake --build --preset plain --target honey_slider own_part >/dev/null
for example in honey_slider own_part; do
  strip -o "$scratch/$example" "build/plain/examples/$example"
  echo "$example stripped: $(stat -c %s "$scratch/$example") bytes"
done
echo "ubbo --help:           $(median build/release/tool/ubbo --help) us"
echo "film of 12 frames:     $(median build/release/tool/ubbo film demo/inspection.scene.toml \
  demo/inspection.drag.take.csv -o "$scratch/film.png") us"
