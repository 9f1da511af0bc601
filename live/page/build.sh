#!/usr/bin/env bash
# build.sh OUT: builds the module with emscripten and puts the page together in the folder OUT; not again while what these
# are made of is the same.
set -euo pipefail
out=$(realpath -m "$1")
cd "$(dirname "$0")"
root=$(realpath ../..)
inputs=$({ cd "$root" && find core words skin io check c npm/src live/page cmake CMakeLists.txt CMakePresets.json -type f \
  -not -path '*/node_modules/*' -print0 | sort -z | xargs -0 sha256sum; emcc --version | head -n 1; } | sha256sum)
if [ -f "$out/inputs" ] && [ "$inputs" = "$(cat "$out/inputs")" ]; then
  touch "$out"/*
  exit 0
fi
# A build that calls another one tells it nothing of its own.
unset MAKEFLAGS NINJA_STATUS CC CXX
[ -f "$root/build/wasm/build.ninja" ] || (cd "$root" && cmake --preset wasm >/dev/null)
(cd "$root" && cmake --build --preset wasm --target ubbo_module)
[ -d node_modules/esbuild ] || npm ci --no-audit --no-fund --loglevel=error
node build.mjs "$out" "$root/build/wasm/c/ubbo.wasm" \
  /usr/share/fonts/opentype/inter/Inter-Regular.otf /usr/share/fonts/opentype/inter/Inter-SemiBold.otf
echo "$inputs" >"$out/inputs"
