#!/usr/bin/env bash
# Runs the demo and starts it anew when Go or demo files change; the front end
# reloads by itself. Ctrl-C ends both.
set -u
cd "$(dirname "$0")/.."
mark=$(mktemp)
server=
trap 'kill $front 2>/dev/null; [ -n "$server" ] && kill -INT "$server" && wait "$server"; rm -f "$mark"; exit 0' INT TERM
(cd web && exec npm run -s dev) &
front=$!
while true; do
  touch "$mark"
  if go build -o bin/ladder ./cmd/ladder; then
    ./bin/ladder demo &
    server=$!
  fi
  until [ -n "$(find cmd core demo server store studio internal -newer "$mark" -type f -print -quit)" ]; do sleep 1; done
  [ -n "$server" ] && kill -INT "$server" && wait "$server"
  server=
done
