#!/usr/bin/env bash
# Builds the core as WebAssembly, for devices that are away from the server, with what Go runs it by: scripts/along.sh FOLDER
set -euo pipefail
to=$(realpath -m "$1")
cd "$(dirname "$0")/.."
mkdir -p "$to"

# Calls written out in place make it a fifth larger. They stay where a plan's time is spent.
flags=(-gcflags=all=-l)
for hot in epitrope/core/{network,circuit,day,battery,alternator} gonum.org/... math slices runtime encoding/json; do
	flags+=("-gcflags=$hot=")
done
GOOS=js GOARCH=wasm go build -trimpath -ldflags="-s -w" "${flags[@]}" -o "$to/along.wasm" ./cmd/along
install -m 644 "$(go env GOROOT)/lib/wasm/wasm_exec.js" "$to/wasm_exec.js"
