#!/usr/bin/env bash
# run.sh UBBO: holds the tool's curves against a real browser; fetches the browser's driver once.
set -euo pipefail
ubbo=$(realpath "$1")
cd "$(dirname "$0")"
[ -d node_modules/playwright-core ] || npm ci --no-audit --no-fund
exec node easing.mjs "$ubbo"
