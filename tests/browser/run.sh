#!/usr/bin/env bash
# run.sh UBBO [1]: holds the tool's curves against a real browser, and plays a mouse in it; fetches the browser's driver once.
set -euo pipefail
ubbo=$(realpath "$1")
cd "$(dirname "$0")"
[ -d node_modules/playwright-core ] && [ -d node_modules/ws ] || npm ci --no-audit --no-fund
node easing.mjs "$ubbo"
node pointer.mjs "$ubbo"
# What only a build that carries the page can show.
[ "${2:-0}" = 0 ] || UBBO=$ubbo exec node --test --test-concurrency=1 page.test.mjs server.test.mjs
