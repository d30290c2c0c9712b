"""Surges: water that the tide alone does not explain."""
from dataclasses import dataclass

from tidewatch import predict

# A gauge that jumps more than this between two readings is broken, not flooded.
IMPOSSIBLE_JUMP = 1.2


@dataclass(frozen=True)
class Surge:
    station: str
    when: object
    residual: float

    @property
    def severity(self):
        return "severe" if self.residual > 0.8 else "moderate"


def residual(station, reading):
    """What is left of a reading after the prediction is taken away."""
    return reading.level - predict.level(station, reading.when)


def detect(station, readings):
    """Yields a surge for each reading whose residual is above the station's surge threshold."""
    before = None
    for reading in readings:
        if before is not None and abs(reading.level - before.level) > IMPOSSIBLE_JUMP:
            continue
        before = reading
        extra = residual(station, reading)
        if extra >= station.surge_threshold:
            yield Surge(station.name, reading.when, extra)
