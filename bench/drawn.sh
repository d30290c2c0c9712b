#!/bin/sh
# Holds every hit of 300 texts and 100 regular expressions drawn from the Linux tree, in the three case modes, against grep's.
# Takes hours, because grep looks at all of the tree for each. With "--texts 30" a tenth of them.
exec "$(dirname "$0")/../oddbeacon" bench --only drawn "$@"
