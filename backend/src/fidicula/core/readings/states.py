"""Which readings hold: the last word on each measure, its repeats, and what later work made stale."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from statistics import median
from typing import Literal

from fidicula.core.errors import TOLERANCE

MeasurementKey = tuple[str, int | None]
"""A measure and, where it is one for each string, the string's position from the lowest."""

CellState = Literal["current", "doubted", "stale"]


@dataclass(frozen=True)
class LoggedReading:
    """One line of the log.

    number : order of arrival.  after_work : number of the last work known when it was taken, 0 before any.
    value : [mm].  repeats : it is one more of the reading before it.  doubted : and not yet confirmed.
    resolution : how well the tool knows it. [mm]
    """

    number: int
    place: MeasurementKey
    value: float
    after_work: int
    repeats: bool
    doubted: bool
    resolution: float


@dataclass(frozen=True)
class LoggedWork:
    """One work done. number : order of arrival."""

    number: int
    work: str


@dataclass(frozen=True)
class ReadingState:
    """What the log says of one place.

    state : current, doubted (its last reading waits for a word), or stale (later work touched it).
    value : median of the repeats that are not doubted; None where all are. [mm]
    repeat_spread : largest less smallest of them. [mm]  count : how many they are.
    resolution : of the coarsest tool among them. [mm]
    reading : the last reading of the place.  stale_because : the work's reason, where stale.
    """

    state: CellState
    value: float | None
    repeat_spread: float
    count: int
    resolution: float
    reading: LoggedReading
    stale_because: str | None = None

    @property
    def is_wide(self) -> bool:
        """Whether the repeats lie further apart than the tool's own ± accounts for."""
        return self.count > 1 and self.repeat_spread > 2 * self.resolution + TOLERANCE

    @property
    def usable(self) -> float | None:
        """The value that may be computed with: None where stale or doubted through and through. [mm]"""
        return None if self.state == "stale" else self.value


def reading_states(
    *,
    readings: Iterable[LoggedReading],
    works: Iterable[LoggedWork],
    invalidations: Mapping[str, Mapping[str, str]],
) -> dict[MeasurementKey, ReadingState]:
    """What every read place holds now.

    readings, works : the log without what was taken back, in any order.
    invalidations : for each measure, the works that make it stale and why.
    Order is causal: a reading stands against works by the work it was taken after, not by clocks.
    """
    by_place: dict[MeasurementKey, list[LoggedReading]] = {}
    for reading in readings:
        by_place.setdefault(reading.place, []).append(reading)
    done = sorted(works, key=lambda work: work.number)
    return {
        place: _stand(sorted(log, key=lambda r: (r.after_work, r.number)), done, invalidations.get(place[0], {}))
        for place, log in by_place.items()
    }


def _stand(log: list[LoggedReading], works: list[LoggedWork], stale_after: Mapping[str, str]) -> ReadingState:
    last = log[-1]
    group = [last]
    for earlier in reversed(log[:-1]):
        if not group[-1].repeats or earlier.after_work != last.after_work:
            break
        group.append(earlier)
    sound = [reading for reading in group if not reading.doubted]
    values = [reading.value for reading in sound]
    because = next(
        (stale_after[work.work] for work in works if work.number > last.after_work and work.work in stale_after),
        None,
    )
    state: CellState = "doubted" if last.doubted else "current"
    if because is not None:
        state = "stale"
    return ReadingState(
        state=state,
        value=median(values) if values else None,
        repeat_spread=max(values) - min(values) if values else 0.0,
        count=len(values),
        resolution=max((reading.resolution for reading in sound), default=last.resolution),
        reading=last,
        stale_because=because,
    )
