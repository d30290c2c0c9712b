"""Readings as the gauges send them."""
import struct
from dataclasses import dataclass
from datetime import datetime, timezone

# station number, seconds since 1970, level in millimetres, checksum
FRAME = struct.Struct(">HIhB")


class BrokenFrame(ValueError):
    """What arrived is not a frame."""


@dataclass(frozen=True)
class Reading:
    station: int
    when: datetime
    level: float


def checksum(data):
    total = 0
    for byte in data:
        total = (total + byte) & 0xFF
    return total ^ 0x5A


def parse(data):
    if len(data) != FRAME.size:
        raise BrokenFrame(f"{len(data)} bytes instead of {FRAME.size}")
    station, seconds, millimetres, check = FRAME.unpack(data)
    if checksum(data[:-1]) != check:
        raise BrokenFrame("checksum")
    return Reading(station, datetime.fromtimestamp(seconds, timezone.utc), millimetres / 1000)
