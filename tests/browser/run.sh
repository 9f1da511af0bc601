#!/usr/bin/env bash
# run.sh UBBO: holds the tool's curves against a real browser, and plays a mouse in it; fetches the browser's driver once.
set -euo pipefail
ubbo=$(realpath "$1")
cd "$(dirname "$0")"
[ -d node_modules/playwright-core ] || npm ci --no-audit --no-fund
node easing.mjs "$ubbo"
exec node pointer.mjs "$ubbo"
