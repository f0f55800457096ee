#!/usr/bin/env bash
# A private PostgreSQL server on loopback: postgres.sh start|stop|address DIR
# start prints the address of the database "epitrope" in it. DIR holds the data; it
# is made where it is missing and kept. Started as root, the server runs as the user
# "postgres", as it refuses root. EPITROPE_PG_OPTIONS are options of the server besides.
set -euo pipefail

verb=${1:?start, stop or address} dir=${2:?a directory}
bin=$(ls -d /usr/lib/postgresql/*/bin | sort -V | tail -n 1)
data=$dir/data

as_server() { # runs a command as the user that owns the server
	if [ "$(id -u)" = 0 ]; then
		(cd "$dir" && setpriv --reuid=postgres --regid=postgres --init-groups "$@")
	else
		(cd "$dir" && "$@")
	fi
}

running() { as_server "$bin/pg_ctl" -D "$data" status >/dev/null 2>&1; }

port_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

address() { # the port stands in the server's own file
	local port
	port=$(sed -n 4p "$data/postmaster.pid")
	echo "postgres://epitrope:$(cat "$dir/password")@127.0.0.1:$port/epitrope?sslmode=disable"
}

create() {
	mkdir -p "$dir"
	[ "$(id -u)" = 0 ] && chown postgres:postgres "$dir"
	chmod 700 "$dir"
	[ -s "$data/PG_VERSION" ] && [ -s "$dir/password" ] && return
	rm -rf "$data"
	(umask 077 && od -An -N16 -tx1 /dev/urandom | tr -d ' \n' >"$dir/password")
	[ "$(id -u)" = 0 ] && chown postgres:postgres "$dir/password"
	as_server "$bin/initdb" -D "$data" -U epitrope --pwfile="$dir/password" --auth=scram-sha-256 \
		--encoding=UTF8 --locale=C.UTF-8 --no-instructions >"$dir.initdb.log" 2>&1 || { cat "$dir.initdb.log" >&2; exit 1; }
	rm -f "$dir.initdb.log"
}

start() {
	create
	if running; then
		address
		return
	fi
	local first=${EPITROPE_PG_PORT:-$((20000 + RANDOM % 20000))} log=$dir/server.log
	for port in $(seq "$first" $((first + 20))); do
		port_free "$port" || continue
		if as_server "$bin/pg_ctl" -D "$data" -w -t 60 -l "$log" -o "-h 127.0.0.1 -p $port -k '' -c timezone=UTC ${EPITROPE_PG_OPTIONS:-}" start >/dev/null 2>&1; then
			PGPASSWORD=$(cat "$dir/password") "$bin/psql" -h 127.0.0.1 -p "$port" -U epitrope -d postgres -qtAc \
				"SELECT 'CREATE DATABASE epitrope' WHERE NOT EXISTS (SELECT FROM pg_database WHERE datname = 'epitrope')" |
				PGPASSWORD=$(cat "$dir/password") "$bin/psql" -h 127.0.0.1 -p "$port" -U epitrope -d postgres -qf -
			address
			return
		fi
	done
	echo "PostgreSQL did not start:" >&2
	as_server tail -n 20 "$log" >&2
	exit 1
}

case $verb in
start) start ;;
stop) running && as_server "$bin/pg_ctl" -D "$data" -w -m fast stop >/dev/null || true ;;
address) address ;;
*) echo "postgres.sh: $verb is not start, stop or address" >&2 && exit 2 ;;
esac
