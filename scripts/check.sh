#!/usr/bin/env bash
# The long version of the tests: check.sh [PART…], all of them where none is named.
#   circuits  20,000 random circuits, each switched on from rest
#   spice     600 random circuits and every demo job in ngspice
#   jobs      1,000 jobs drawn from the whole range that validation lets through
#   fuzz      ten minutes of circuits made to break the solver
set -euo pipefail
cd "$(dirname "$0")/.."
scripts/need.sh ngspice=ngspice
export EPITROPE_CHECK=all

part() {
	echo "== $1"
	case $1 in
	circuits) go test -count=1 -timeout 60m -v -run 'TestSolvedWhereItComesToFromRest' ./core/network ;;
	spice) go test -count=1 -timeout 60m -v -run 'Agree' ./internal/spice ;;
	jobs) go test -count=1 -timeout 60m -v -run 'TestEveryStateIsSolvedOrNamed|TestEveryJobIsAnswered|TestMomentsAgreeWithStates' ./core/plan ./core/study ./core/rig ;;
	fuzz) go test -run '^$' -fuzz FuzzSolve -fuzztime "${FUZZ_TIME:-10m}" -fuzzminimizetime 1x ./core/network ;;
	*) echo "check.sh: $1 is not circuits, spice, jobs or fuzz" >&2 && exit 2 ;;
	esac
}
[ $# -gt 0 ] || set -- circuits spice jobs fuzz
for name in "$@"; do
	part "$name"
done
