#!/usr/bin/env bash
# Runs every check and test: checks and the front end's own tests beside the Go tests, those
# with one database server for all packages.
set -eu
cd "$(dirname "$0")/.."
timeout=${TIMEOUT:-25m}

log=$(mktemp)
trap 'rm -f "$log"' EXIT
{ make -s check && (cd web && npm run -s test); } >"$log" 2>&1 &
beside=$!

# The browser's package goes first: it takes longest. vet is run once, by the checks.
status=0
go run ./internal/testserver go test -vet=off -ldflags=-w -timeout "$timeout" -parallel 4 ./e2e ./server ./demo ./... || status=$?

wait "$beside" || { status=1; }
cat "$log"
exit "$status"
