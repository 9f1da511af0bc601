#!/usr/bin/env bash
# build.sh OUT: builds the module with emscripten and puts the page together in the folder OUT.
set -euo pipefail
out=$(realpath -m "$1")
cd "$(dirname "$0")"
root=$(realpath ../..)
# A build that calls another one tells it nothing of its own.
unset MAKEFLAGS NINJA_STATUS CC CXX
[ -f "$root/build/wasm/build.ninja" ] || (cd "$root" && cmake --preset wasm >/dev/null)
(cd "$root" && cmake --build --preset wasm --target ubbo_module)
[ -d node_modules/esbuild ] || npm ci --no-audit --no-fund --loglevel=error
node build.mjs "$out" "$root/build/wasm/c/ubbo.wasm" \
  /usr/share/fonts/opentype/inter/Inter-Regular.otf /usr/share/fonts/opentype/inter/Inter-SemiBold.otf
