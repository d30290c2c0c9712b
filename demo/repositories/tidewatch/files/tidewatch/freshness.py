"""How old a reading may be."""
from datetime import timedelta

LIMIT = timedelta(minutes=20)


def is_fresh(reading, now):
    return now - reading.when <= LIMIT


def latest(readings, now):
    """The newest fresh reading, or None: nobody should decide on an old one."""
    fresh = [reading for reading in readings if is_fresh(reading, now)]
    return max(fresh, key=lambda reading: reading.when, default=None)
