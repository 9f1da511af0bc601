#!/usr/bin/env bash
# run.sh UBBO DEMO: holds the schema of scene files against a validator and an editor; fetches both once.
set -euo pipefail
ubbo=$(realpath "$1")
demo=$(realpath "$2")
cd "$(dirname "$0")"
[ -d node_modules/ajv ] || npm ci --no-audit --no-fund
exec node schema.mjs "$ubbo" "$demo"
