#!/usr/bin/env bash
# demo_inputs.sh FOLDER: what the demo's build reads, and what its packages bring, has nothing of the page's server, the
# face for C or the search for curves.
set -euo pipefail
folder=$1
cd "$(dirname "$0")/../.."
rm -rf "$folder"
env -u CC -u CXX cmake --preset demo -B "$folder" -DUBBO_LIGHT=OFF >/dev/null  # each source by its own name
inputs=$(cd "$folder" && ninja -t inputs ubbo_command)
# It reads what it should, or nothing below would mean anything.
for source in core/src/parts/slider.cpp paint/src/svg.cpp tool/src/film.cpp; do
  grep -q "/$source\$" <<<"$inputs"
done
packages=$(sed '/^# Besides, for/,$d' packages.txt)
grep -q '^libcairo2-dev$' <<<"$packages"
if grep -E '(^|/)(live|c|fit)/|libubbo_(live|c|fit|page)\.|libboost|/boost/|libssl|libcrypto|openssl|nlopt|spdlog|qrencode' \
  <<<"$inputs"$'\n'"$packages" | sed 's/^/the demo reaches /' >&2; then
  exit 1
fi
