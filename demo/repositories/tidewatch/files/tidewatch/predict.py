"""Harmonic prediction of the tide."""
import math
from datetime import datetime, timedelta, timezone

EPOCH = datetime(2000, 1, 1, tzinfo=timezone.utc)
STEP = timedelta(minutes=10)


def level(station, when):
    """The level that the tide alone would give, in metres above chart datum."""
    hours = (when - EPOCH).total_seconds() / 3600
    return station.mean_level + sum(
        part.amplitude * math.cos(math.radians(part.speed * hours - part.phase)) for part in station.constituents
    )


def table(station, days, start=None):
    """Times and levels, one every ten minutes."""
    when = start or datetime.now(timezone.utc).replace(minute=0, second=0, microsecond=0)
    end = when + timedelta(days=days)
    while when < end:
        yield when, level(station, when)
        when += STEP


def lowest(station, start, end):
    """The lowest predicted level between two times; berth-planner asks for it."""
    when, least = start, level(station, end)
    while when < end:
        least = min(least, level(station, when))
        when += STEP
    return least
