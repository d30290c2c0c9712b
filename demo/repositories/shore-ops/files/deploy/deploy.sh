#!/bin/sh
# Brings a release to the shore machines, one after the other, and stops at the first that does not answer.
set -eu

release=${1:?usage: deploy.sh RELEASE}
hosts=$(cat "$(dirname "$0")/hosts.txt")

for host in $hosts; do
    echo "deploying $release to $host"
    rsync -a --delete "releases/$release/" "$host:/srv/quillhaven/"
    ssh "$host" 'systemctl restart quillhaven && sleep 5 && curl -fsS http://localhost:8080/health' ||
        { echo "$host does not answer after the restart; stopping here" >&2; exit 1; }
done
