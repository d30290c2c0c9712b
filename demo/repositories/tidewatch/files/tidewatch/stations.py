"""The gauges, and what makes their tides."""
from dataclasses import dataclass, field
from pathlib import Path

DATA = Path(__file__).parent.parent / "data" / "stations"


@dataclass(frozen=True)
class Constituent:
    """One harmonic part of a tide: speed in degrees an hour, amplitude in metres, phase in degrees."""

    name: str
    speed: float
    amplitude: float
    phase: float


@dataclass(frozen=True)
class Station:
    name: str
    title: str
    mean_level: float
    surge_threshold: float
    constituents: tuple = field(default_factory=tuple)


def load(path):
    """Reads a station from its file of `key: value` lines and a table of constituents."""
    values, constituents = {}, []
    for number, line in enumerate(path.read_text(encoding="utf-8").splitlines(), start=1):
        line = line.split("#")[0].strip()
        if not line:
            continue
        if ":" in line:
            key, value = line.split(":", 1)
            values[key.strip()] = value.strip()
            continue
        parts = line.split()
        if len(parts) != 4:
            raise ValueError(f"{path}, line {number}: a constituent needs name, speed, amplitude and phase")
        constituents.append(Constituent(parts[0], *map(float, parts[1:])))
    return Station(
        name=path.stem,
        title=values["title"],
        mean_level=float(values["mean level"]),
        surge_threshold=float(values["surge threshold"]),
        constituents=tuple(constituents),
    )


BY_NAME = {path.stem: load(path) for path in sorted(DATA.glob("*.station"))}
