#!/bin/sh
# Builds the console into target/classes/static. Packages are installed from the lock file, and only when it changed.
set -e
cd "$(dirname "$0")"
if [ ! -f node_modules/.package-lock.json ] || [ package-lock.json -nt node_modules/.package-lock.json ]; then
    npm ci --no-audit --no-fund --loglevel=error
    touch node_modules/.package-lock.json
fi
npm run --silent build
