#!/bin/sh
# Goes back to the release before.
set -eu
previous=$(ls -1t releases | sed -n 2p)
test -n "$previous" || { echo 'there is no release before this one' >&2; exit 1; }
exec "$(dirname "$0")/deploy.sh" "$previous"
