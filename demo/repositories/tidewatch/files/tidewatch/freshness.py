"""How old a reading may be."""
from datetime import timedelta

LIMIT = timedelta(minutes=20)


def is_fresh(reading, now):
    return now - reading.when <= LIMIT


def latest(readings, now):
    """The newest fresh reading, or None: nobody should decide on an old one."""
    fresh = [reading for reading in readings if is_fresh(reading, now)]
    return max(fresh, key=lambda reading: reading.when, default=None)


def depth_metres(readings, now, chart_depth):
    """How much water stands over a place, by the newest reading; None without a fresh one."""
    reading = latest(readings, now)
    return None if reading is None else chart_depth + reading.level


def depth_feet(readings, now, chart_depth):
    """Retired: signs and screens tell metres. Call depth_metres."""
    depth = depth_metres(readings, now, chart_depth)
    return None if depth is None else depth / 0.3048


# What can be called by its name, as /v2/call/NAME.
CALLS = {"depth_feet": depth_feet, "depth_metres": depth_metres}
