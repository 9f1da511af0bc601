#!/usr/bin/env bash
# run.sh UBBO: holds the tool's curves against a real browser, and plays a mouse in it; fetches the browser's driver once.
set -euo pipefail
ubbo=$(realpath "$1")
cd "$(dirname "$0")"
[ -d node_modules/playwright-core ] && [ -d node_modules/ws ] || npm ci --no-audit --no-fund
node easing.mjs "$ubbo"
node pointer.mjs "$ubbo"
UBBO=$ubbo exec node --test --test-concurrency=1 page.test.mjs server.test.mjs
