#!/bin/sh
# Complains when a gauge has not spoken for twenty minutes.
set -eu
for station in thornsea old-pier north-basin skerry-lodge; do
    age=$(curl -fsS "https://tidewatch.quillhaven.example/v2/age/$station") || age=9999
    [ "$age" -le 1200 ] || echo "gauge $station: last reading ${age}s ago"
done

# The pilots want to hear it when the north basin is too shallow for the big ferries.
depth=$(curl -fsS "${CALLS:-http://localhost:8080/v2/call}/depth_feet?station=north-basin") || depth=0
[ "${depth%.*}" -ge 16 ] || echo "north-basin: $depth ft"
