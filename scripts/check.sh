#!/usr/bin/env bash
# The long version of the tests: check.sh [PART…], all of them where none is named.
#   circuits  20,000 random circuits, each switched on from rest
#   spice     600 random circuits and every demo job in ngspice
#   jobs      1,000 jobs drawn from the whole range that validation lets through, held against their days
#   answers   each field of a job changes something that the job is told
#   trace     2,000 vehicles with a fault each, 200 with two, 200 with one that is not known
#   valid     an hour (VALID_TIME) of such jobs, driven through every answer
#   fuzz      ten minutes (FUZZ_TIME) of circuits made to break the solver
#   parsers   ten minutes (FUZZ_TIME) of each parser
set -euo pipefail
cd "$(dirname "$0")/.."
scripts/need.sh ngspice=ngspice
export EPITROPE_CHECK=all

fuzz() { # fuzz NAME PACKAGE
	go test -run '^$' -fuzz "^$1\$" -fuzztime "${FUZZ_TIME:-10m}" -fuzzminimizetime 1x "$2"
}
part() {
	echo "== $1"
	case $1 in
	circuits) go test -count=1 -timeout 60m -v -run 'TestSolvedWhereItComesToFromRest' ./core/network ;;
	spice) go test -count=1 -timeout 60m -v -run 'Agree' ./internal/spice ;;
	jobs) go test -count=1 -timeout 60m -v -run 'TestTheWeekIsSaid|TestMomentsAgreeWithStates' ./core/study ./core/rig ;;
	answers) go test -count=1 -timeout 20m -v -run TestNoAnswerIsIgnored ./internal/export ;;
	trace) go test -count=1 -timeout 5h -v -run 'TestOneFault|TestTwoFaults|TestWhat|TestASlip' ./core/trace ;;
	valid) EPITROPE_VALID=${VALID_TIME:-1h} go test -count=1 -timeout 3h -v -coverpkg=epitrope/core/... -run TestWhateverIsLetThrough ./internal/hardy ;;
	fuzz) fuzz FuzzSolve ./core/network ;;
	parsers)
		grep -rhoE --include='*_test.go' 'func Fuzz[A-Za-z]+' core internal cmd | awk '{print $2}' | sort -u | grep -v FuzzSolve | while read -r name; do
			echo "-- $name"
			fuzz "$name" "./$(dirname "$(grep -rlE --include='*_test.go' "func $name\(" core internal cmd)")"
		done
		;;
	*) echo "check.sh: $1 is not circuits, spice, jobs, answers, trace, valid, fuzz or parsers" >&2 && exit 2 ;;
	esac
}
[ $# -gt 0 ] || set -- circuits spice jobs answers trace valid fuzz parsers
for name in "$@"; do
	part "$name"
done
