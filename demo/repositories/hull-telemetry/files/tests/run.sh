#!/bin/sh
# Runs the controller for a minute of simulated time and looks at the frames.
set -e
out=$(mktemp)
./build/hullt > "$out"
test "$(head -c 1 "$out" | od -An -tx1 | tr -d ' ')" = 7e
rm -f "$out"
echo ok
