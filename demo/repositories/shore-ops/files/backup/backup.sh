#!/bin/sh
# Dumps the office database and keeps thirty days. Runs at 03:10 from cron.
set -eu
target=/srv/backup/office-$(date +%F).sql.gz
mariadb-dump --single-transaction office | gzip > "$target.part"
mv "$target.part" "$target"
find /srv/backup -name 'office-*.sql.gz' -mtime +30 -delete
