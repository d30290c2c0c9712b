from datetime import datetime, timezone

from tidewatch.gauge import Reading
from tidewatch.stations import Station
from tidewatch.surge import detect

STILL = Station("still", "Still water", mean_level=2.0, surge_threshold=0.4)
NOON = datetime(2024, 1, 1, 12, tzinfo=timezone.utc)


def test_water_above_the_surge_threshold_is_a_surge():
    (surge,) = detect(STILL, [Reading(1, NOON, 2.5)])
    assert surge.severity == "moderate"


def test_a_gauge_that_jumps_is_broken():
    assert not list(detect(STILL, [Reading(1, NOON, 2.0), Reading(1, NOON, 9.9)]))
