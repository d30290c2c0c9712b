from datetime import datetime, timedelta, timezone

from tidewatch.freshness import latest
from tidewatch.gauge import Reading

NOW = datetime(2024, 5, 1, 12, tzinfo=timezone.utc)


def test_an_old_reading_is_not_used():
    assert latest([Reading(1, NOW - timedelta(minutes=21), 1.0)], NOW) is None
