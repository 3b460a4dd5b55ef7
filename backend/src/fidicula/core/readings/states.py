"""Which readings hold: the last word on each measure, its repeats, and what later work made stale."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from statistics import fmean, median
from typing import Literal

from fidicula.codes import MeasureCode, ToolCode, WorkCode
from fidicula.core.errors import TOLERANCE
from fidicula.core.readings.estimate import APART, APART_OF_MORE, known_within

MeasurementKey = tuple[MeasureCode, int | None]
"""A measure and, where it is one for each string, the string's position from the lowest."""

CellState = Literal["current", "doubted", "stale"]


@dataclass(frozen=True)
class LoggedReading:
    """One line of the log.

    number : order of arrival.  after_work : number of the last work known when it was taken, 0 before any.
    value : [mm].  repeats : it is one more of the reading before it.  doubted : and not yet confirmed.
    scatter : standard deviation of such readings, by this hand with this tool, above 0. [mm]
    rounding, gauge : of the tool, as in `known_within`. [mm]  tool : what it was read with.
    """

    number: int
    place: MeasurementKey
    value: float
    after_work: int
    repeats: bool
    doubted: bool
    scatter: float
    rounding: float = 0.0
    gauge: float = 0.0
    tool: ToolCode | Literal[""] = ""


@dataclass(frozen=True)
class LoggedWork:
    """One work done. number : order of arrival.

    positions : the strings that it touched, low string 0; None for one that touches every place.
    """

    number: int
    work: WorkCode
    positions: frozenset[int] | None = None

    def touches(self, position: int | None) -> bool:
        return self.positions is None or position is None or position in self.positions


@dataclass(frozen=True)
class ReadingState:
    """What the log says of one place.

    state : current, doubted (its last reading waits for a word), or stale (later work touched it).
    value : mean of the repeats that are not doubted, their median where they contradict each other; None where all
    are doubted. [mm]  repeat_spread : largest less smallest of them. [mm]  count : how many they are.
    scatter : of one of them, standard deviation. [mm]  rounding, gauge : the largest of their tools'. [mm]
    reading : the last reading of the place.  stale_because : the work's reason, where stale.
    """

    state: CellState
    value: float | None
    repeat_spread: float
    count: int
    scatter: float
    reading: LoggedReading
    stale_because: str | None = None
    rounding: float = 0.0
    gauge: float = 0.0

    @property
    def is_wide(self) -> bool:
        """Whether the repeats lie further apart than readings of this hand do by chance."""
        return self.count > 1 and contradict(self.repeat_spread, self.scatter, self.count)

    @property
    def known_to(self) -> float:
        """What covers 95 % of the mean of the repeats; half of how far they lie apart where they contradict. [mm]"""
        by_chance = self.scatter / math.sqrt(max(1, self.count))
        known = known_within(chance=by_chance, rounding=self.rounding, gauge=self.gauge)
        return max(known, self.repeat_spread / 2) if self.is_wide else known

    @property
    def usable(self) -> float | None:
        """The value that may be computed with: None where stale or doubted through and through. [mm]"""
        return None if self.state == "stale" else self.value


def contradict(spread: float, scatter: float, count: int) -> bool:
    """Whether repeats lie too far apart for chance: about one group in a thousand does.

    spread : largest less smallest. [mm]  scatter : of one, standard deviation. [mm]  count : how many they are.
    Source: the range of normal values, at 99.9 %.
    """
    if count < 2:
        return False
    return spread > (APART + APART_OF_MORE * math.log(count / 2)) * scatter + TOLERANCE


def groups_of(
    log: Iterable[LoggedReading], *, touching: Iterable[LoggedWork] | None = None
) -> list[list[LoggedReading]]:
    """The readings of one place, repeats together, in the order of the works.

    log : of one place, in any order.
    touching : the works after which a repeat is none of the readings before it; None for every work.
    """
    numbers = None if touching is None else [work.number for work in touching]

    def is_other(before: LoggedReading, after: LoggedReading) -> bool:
        if numbers is None:
            return before.after_work != after.after_work
        return any(before.after_work < number <= after.after_work for number in numbers)

    groups: list[list[LoggedReading]] = []
    for reading in sorted(log, key=lambda r: (r.after_work, r.number)):
        if groups and reading.repeats and not is_other(groups[-1][-1], reading):
            groups[-1].append(reading)
        else:
            groups.append([reading])
    return groups


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
    states = {}
    for place, log in by_place.items():
        stale_after = invalidations.get(place[0], {})
        touching = [work for work in done if work.work in stale_after and work.touches(place[1])]
        states[place] = _stand(groups_of(log, touching=touching)[-1], touching, stale_after)
    return states


def _stand(group: list[LoggedReading], touching: list[LoggedWork], stale_after: Mapping[str, str]) -> ReadingState:
    last = group[-1]
    sound = [reading for reading in group if not reading.doubted]
    values = [reading.value for reading in sound]
    because = next((stale_after[work.work] for work in touching if work.number > last.after_work), None)
    spread = max(values) - min(values) if values else 0.0
    scatter = max((reading.scatter for reading in sound), default=last.scatter)
    middle = median if contradict(spread, scatter, len(values)) else fmean
    state: CellState = "doubted" if last.doubted else "current"
    if because is not None:
        state = "stale"
    return ReadingState(
        state=state,
        value=middle(values) if values else None,
        repeat_spread=spread,
        count=len(values),
        scatter=scatter,
        reading=last,
        stale_because=because,
        rounding=max((reading.rounding for reading in sound), default=last.rounding),
        gauge=max((reading.gauge for reading in sound), default=last.gauge),
    )
