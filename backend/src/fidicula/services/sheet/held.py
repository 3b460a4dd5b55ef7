"""What stands on the bench card, and what the shop's figures stand in for."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from fidicula.core.readings.standing import LoggedReading, LoggedWork, Place, Standing, standings
from fidicula.db.records import Instrument, Reading, StringSet, WorkDone
from fidicula.services.measures import MEASURES, name_of
from fidicula.services.targets import Targets, Wanted
from fidicula.tables.work import invalidations, tools


@dataclass(frozen=True)
class Held:
    """A value to compute with. [mm]

    assumed : it is a figure, not a reading.
    resolution : ± of the tool or of the repeats; of a figure, half of what it may well be.
    """

    value: float
    assumed: bool
    resolution: float


@dataclass(frozen=True)
class BenchState:
    """Everything known of one instrument at the bench."""

    instrument: Instrument
    string_set: StringSet | None
    readings: Sequence[Reading]
    works: Sequence[WorkDone]
    targets: Targets
    standings: Mapping[Place, Standing]

    @property
    def standing_works(self) -> list[WorkDone]:
        return [work for work in self.works if not work.taken_back]

    @property
    def last_work(self) -> int:
        """Number of the newest work, 0 before any: a reading taken now is taken after it."""
        return max((work.number for work in self.standing_works), default=0)

    @property
    def count(self) -> int:
        return len(self.instrument.string_names)

    def name(self, place: Place) -> str:
        return name_of(MEASURES[place[0]], self.instrument.string_names, place[1])

    def wanted(self, place: Place) -> Wanted | None:
        """What is wanted at a place; inner strings' end heights follow the crown and have none of their own."""
        measure, position = place
        if measure == "end_height":
            if position == 0:
                return self.targets.end_bass
            return self.targets.end_treble if position == self.count - 1 else None
        if measure == "nut_height":
            return self.targets.nut_heights[position or 0] if self.targets.nut_heights else None
        return self.targets.singles.get(measure)

    def usual(self, place: Place) -> float | None:
        """About what such a reading is on this instrument, for doubting slips. [mm]"""
        measure, position = place
        if measure == "end_height" and position is not None:
            bass, treble = self.targets.end_bass, self.targets.end_treble
            if bass is None or treble is None:
                return None
            return bass.band.aim + (treble.band.aim - bass.band.aim) * position / (self.count - 1)
        if measure == "slot_depth" and position is not None:
            if self.string_set is None:
                return None
            return self.targets.slot_depth_ratio * self.string_set.strings[position].diameter
        wanted = self.wanted(place)
        return None if wanted is None else wanted.band.aim

    def assumed(self, place: Place) -> float | None:
        """What stands in for a reading that is not there. Present string heights are never assumed. [mm]"""
        return None if place[0] == "end_height" else self.usual(place)

    def held(self, measure: str, position: int | None = None) -> Held | None:
        """The value to compute with: the reading where it holds, else the figure, else None."""
        place = (measure, position)
        stand = self.standings.get(place)
        if stand is not None and stand.usable is not None:
            return Held(stand.usable, False, max(stand.resolution, stand.repeat_spread / 2))
        stand_in = self.assumed(place)
        return None if stand_in is None else Held(stand_in, True, self._leeway(place))

    def _leeway(self, place: Place) -> float:
        """How far off an assumed value may well be: half its band; a slot may be anything up to half a string. [mm]"""
        if place[0] == "slot_depth" and self.string_set is not None and place[1] is not None:
            return self.string_set.strings[place[1]].diameter / 4
        wanted = self.wanted(place)
        return 0.0 if wanted is None else (wanted.band.high - wanted.band.low) / 2


def bench_state(
    *,
    instrument: Instrument,
    string_set: StringSet | None,
    readings: Sequence[Reading],
    works: Sequence[WorkDone],
    targets: Targets,
) -> BenchState:
    """The log judged: which readings hold, which are doubted, which went stale."""
    kept_works = [LoggedWork(number=work.number, work=work.work) for work in works if not work.taken_back]
    kept = [
        LoggedReading(
            number=reading.number,
            place=(reading.measure, reading.position),
            value=reading.value,
            after_work=reading.after_work or 0,
            repeats=reading.repeats,
            doubted=reading.doubt is not None and not reading.confirmed,
            resolution=tools()[reading.tool].resolution,
        )
        for reading in readings
        if not reading.taken_back
    ]
    return BenchState(
        instrument=instrument,
        string_set=string_set,
        readings=readings,
        works=works,
        targets=targets,
        standings=standings(readings=kept, works=kept_works, invalidations=invalidations()),
    )


def places(string_count: int) -> list[Place]:
    """Every place of the bench card, in the course of measuring."""
    found: list[Place] = []
    for measure in MEASURES.values():
        positions: Sequence[int | None] = range(string_count) if measure.for_each_string else [None]
        found += [(measure.key, position) for position in positions]
    return found
