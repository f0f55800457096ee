#!/usr/bin/env bash
# Runs Epitrope with demo data on this machine, and keeps running until stopped.
set -euo pipefail
cd "$(dirname "$0")/.."

scripts/need.sh postgres=postgresql

# The database lies where the user "postgres" can reach it too, one for each checkout.
state=${EPITROPE_STATE:-/var/tmp/epitrope-$(id -u)-$(pwd | cksum | cut -d' ' -f1)}
owner=no
[ -s "$state/data/postmaster.pid" ] || owner=yes
finish() {
	trap - EXIT INT TERM HUP
	for process in "${server:-}" "${vehicle:-}" "${mailbox:-}"; do
		[ -n "$process" ] && kill "$process" 2>/dev/null && wait "$process" 2>/dev/null || true
	done
	[ "$owner" = yes ] && scripts/postgres.sh stop "$state"
	exit "${1:-0}"
}
trap 'finish 0' INT TERM HUP
trap 'finish $?' EXIT

EPITROPE_DATABASE=$(scripts/postgres.sh start "$state")
export EPITROPE_DATABASE
bin/epitrope seed 2>/dev/null || bin/epitrope seed

port=${PORT:-8080}
for try in $(seq "$port" $((port + 20))); do
	if ! (exec 3<>"/dev/tcp/127.0.0.1/$try") 2>/dev/null; then
		port=$try
		break
	fi
done
# A vehicle that is not there, for sheet 7; where its port is taken, another demo's answers.
bin/epitrope standin testdata/demo/3-sound-recordist.json --seed 4 --port 15025 >/dev/null 2>&1 &
vehicle=$!
# A mail server and a webhook that are not there: what would be sent is in a file, and nothing leaves the machine.
mkdir -p .demo
bin/epitrope mailbox --mail 15825 --webhook 15880 >.demo/messages.log 2>/dev/null &
mailbox=$!
export EPITROPE_SMTP=smtp://127.0.0.1:15825
bin/epitrope serve --demo --inner-webhooks --address "127.0.0.1:$port" 2>"${EPITROPE_LOG:-/dev/null}" &
server=$!
wait "$server"
