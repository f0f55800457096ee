#!/usr/bin/env bash
# Fails where the client's types are not those of the API's document. (The document
# and the schemas are compared with the code by the Go tests.)
set -euo pipefail
cd "$(dirname "$0")/../web"
now=$(mktemp)
trap 'rm -f "$now"' EXIT
npx openapi-typescript ../docs/openapi.json --default-non-nullable=false -o "$now" >/dev/null
diff -u src/api/schema.gen.ts "$now" || { echo "run make generate" && exit 1; }
