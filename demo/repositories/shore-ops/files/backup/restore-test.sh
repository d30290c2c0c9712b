#!/bin/sh
# A backup that nobody has restored is a hope. Restores the newest one into a scratch database and counts tickets.
set -eu
newest=$(ls -1t /srv/backup/office-*.sql.gz | head -n 1)
mariadb -e 'drop database if exists office_scratch; create database office_scratch'
gzip -dc "$newest" | mariadb office_scratch
mariadb -N -e 'select count(*) from office_scratch.ticket'
