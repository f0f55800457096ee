#!/usr/bin/env bash
# Makes sure that Debian packages are there: need.sh COMMAND=PACKAGE …
# Installs what is missing as root or with sudo; otherwise prints the one command that does.
set -euo pipefail

missing=()
for pair in "$@"; do
	name=${pair%%=*} package=${pair#*=}
	case $name in
	postgres) compgen -G '/usr/lib/postgresql/*/bin/postgres' >/dev/null || missing+=("$package") ;;
	*) command -v "$name" >/dev/null || missing+=("$package") ;;
	esac
done
[ ${#missing[@]} -eq 0 ] && exit 0

install="apt-get update && apt-get install -y --no-install-recommends ${missing[*]}"
if [ "$(id -u)" = 0 ]; then
	as=""
elif sudo -n true 2>/dev/null; then
	as="sudo -n"
else
	echo "Missing: ${missing[*]}. Install them once with:" >&2
	echo "  sudo sh -c '$install'" >&2
	exit 1
fi
echo "Installing ${missing[*]} …" >&2
log=$(mktemp)
if ! $as env DEBIAN_FRONTEND=noninteractive sh -c "$install" >"$log" 2>&1; then
	cat "$log" >&2
	echo "Could not install ${missing[*]}; see above." >&2
	exit 1
fi
rm -f "$log"
