#!/usr/bin/env bash
# Everything that is tested. Ends with the Go tests' closing lines and a plain count.
set -uo pipefail
cd "$(dirname "$0")/.."

scripts/need.sh postgres=postgresql chromium=chromium certutil=libnss3-tools openssl=openssl ngspice=ngspice pdftotext=poppler-utils || exit 1
state=$(mktemp -d /var/tmp/epitrope-test-XXXXXX)
work=$(mktemp -d)
cleanup() {
	scripts/postgres.sh stop "$state/pg"
	rm -rf "$state" "$work"
}
trap cleanup EXIT
trap 'exit 130' INT TERM
chmod 755 "$state"
# What is tested here outlives processes that are killed, not power cuts.
export EPITROPE_PG_OPTIONS="-c fsync=off"
EPITROPE_TEST_DATABASE=$(scripts/postgres.sh start "$state/pg") || exit 1
export EPITROPE_TEST_DATABASE

passed=0 failed=0
step() { # step NAME COMMAND…: one check that passes or fails as a whole
	local name=$1
	shift
	if "$@" >"$work/out" 2>&1; then
		passed=$((passed + 1)) && echo "ok    $name"
	else
		failed=$((failed + 1)) && echo "FAIL  $name" && cat "$work/out"
		echo "FAILED: $name" >>"$work/failed"
	fi
}
count() { # count FILE: adds the passed and failed of a JSON report, and keeps the names of the failed
	read -r p f < <(node -e '
		const r = JSON.parse(require("fs").readFileSync(process.argv[1], "utf8"));
		const s = r.stats ? [r.stats.expected + r.stats.flaky, r.stats.unexpected] : [r.numPassedTests, r.numFailedTests];
		console.log(s.join(" "));' "$1" 2>/dev/null || echo "0 1")
	passed=$((passed + p)) failed=$((failed + f))
	[ "$f" -eq 0 ] || scripts/failed.mjs "$1" >>"$work/failed"
}

# Memory is cheaper here than time.
export GOGC=400

# The Go tests run beside the linters and the web's own tests, which wait for nothing.
go test ./... >"$work/go" 2>&1 &
gotests=$!

step "Go formatting" test -z "$(gofmt -l cmd core internal testdata web/*.go)"
step "Go lint" go tool -modfile=tools/go.mod golangci-lint run ./...
step "generated files are current" scripts/drift.sh
step "web lint" npm --prefix web run --silent lint
step "web types" npm --prefix web run --silent types
step "browser test types" npm --prefix e2e run --silent types

echo "web tests"
(cd web && npx vitest run --reporter=default --reporter=json --outputFile="$work/web.json")
count "$work/web.json"

gofailed=0
wait "$gotests" || gofailed=1

echo "browser tests"
(cd e2e && PLAYWRIGHT_JSON_OUTPUT_NAME="$work/e2e.json" npx playwright test --reporter=list,json)
count "$work/e2e.json"

echo "Go tests"
cat "$work/go"

cat "$work/failed" 2>/dev/null
echo "$passed passed, $failed failed"
[ "$failed" -eq 0 ] && [ "$gofailed" -eq 0 ]
