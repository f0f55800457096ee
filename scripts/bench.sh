#!/usr/bin/env bash
# Speed: how long a decision takes, a change on the screen, and how large the first load is.
set -euo pipefail
cd "$(dirname "$0")/.."
scripts/need.sh postgres=postgresql chromium=chromium ngspice=ngspice pdftotext=poppler-utils
go test -run '^$' -bench . -benchmem ./core/... ./internal/spice ./internal/export | grep -E '^(Benchmark|pkg:)' || true
(cd e2e && npx playwright test -c bench.config.ts --reporter=list)
