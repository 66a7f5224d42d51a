#!/usr/bin/env bash
# Checks Go and Node, and installs what is missing from Debian.
# usage: need.sh run|test|cluster
set -eu

fail() { echo "$1" >&2; exit 1; }
older() { [ "$(printf '%s\n%s\n' "$1" "$2" | sort -V | head -n 1)" != "$2" ]; }

command -v go >/dev/null || fail "Go is not installed; Patient Ladder needs Go 1.26 or newer."
go_version=$(GOTOOLCHAIN=local go env GOVERSION | sed 's/^go//')
older "$go_version" 1.26 && fail "Go $go_version is too old; Patient Ladder needs Go 1.26 or newer."
command -v node >/dev/null || fail "Node is not installed; Patient Ladder needs Node 20.19 or newer."
node_version=$(node --version | sed 's/^v//')
older "$node_version" 20.19 && fail "Node $node_version is too old; Patient Ladder needs Node 20.19 or newer."

# The -core packages hold the server without a system service.
missing=()
want() { [ -e "$1" ] || command -v "$(basename "$1")" >/dev/null || missing+=("$2"); }
want /usr/sbin/mariadbd mariadb-server-core
want /usr/bin/my_print_defaults mariadb-client-core
if [ "${1:-run}" = test ]; then
  want /usr/bin/chromium-headless-shell chromium-headless-shell
  want /usr/bin/abc2midi abcmidi
  want /usr/bin/abcm2ps abcm2ps # its examples are read
  want /usr/bin/pdftotext poppler-utils
fi
if [ "${1:-run}" = cluster ]; then # its services are not wanted: stop and disable them where they start by themselves
  want /usr/lib/galera/libgalera_smm.so galera-4
  want /usr/bin/wsrep_sst_rsync mariadb-server
  want /usr/bin/rsync rsync
  want /usr/bin/socat socat
  want /usr/bin/lsof lsof
  want /usr/sbin/haproxy haproxy
fi
[ ${#missing[@]} -eq 0 ] && exit 0

command -v apt-get >/dev/null || fail "Missing: ${missing[*]}; this is not Debian, so install them by hand."
as_root=()
if [ "$(id -u)" -ne 0 ]; then
  command -v sudo >/dev/null || fail "Missing: ${missing[*]}; install them as root with: apt-get install ${missing[*]}"
  as_root=(sudo)
fi
echo "Installing from Debian: ${missing[*]}"
"${as_root[@]}" apt-get update -qq
"${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
