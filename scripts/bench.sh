#!/usr/bin/env bash
# Speed: how long a decision takes, the lists of a workshop with many jobs, a change on the screen, and how large the first load is.
set -euo pipefail
cd "$(dirname "$0")/.."
scripts/need.sh postgres=postgresql chromium=chromium ngspice=ngspice pdftotext=poppler-utils
go test -run '^$' -bench . -benchmem ./core/... ./internal/spice ./internal/export | grep -E '^(Benchmark|pkg:)' || true
state=$(mktemp -d /var/tmp/epitrope-bench-XXXXXX)
trap 'scripts/postgres.sh stop "$state/pg"; rm -rf "$state"' EXIT
chmod 755 "$state"
EPITROPE_TEST_DATABASE=$(scripts/postgres.sh start "$state/pg") go test -run "^$" -bench Lists -benchtime 200x ./internal/server 2>/dev/null | grep -E "^Benchmark"
EPITROPE_LOAD=${LOAD_TIME:-1m} go test -count=1 -v -run TwoHundred ./internal/load | grep -E "requests|memory"
(cd e2e && npx playwright test -c bench.config.ts --reporter=list)
