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
	[ -n "${server:-}" ] && kill "$server" 2>/dev/null && wait "$server" 2>/dev/null || true
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
bin/epitrope serve --address "127.0.0.1:$port" 2>"${EPITROPE_LOG:-/dev/null}" &
server=$!
wait "$server"
