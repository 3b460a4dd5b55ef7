"""What stands on the bench card, and what the shop's figures stand in for."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime, timedelta
from functools import cached_property, partial

from fidicula.codes import FigureCode, MeasureCode, WorkCode
from fidicula.core.errors import CoreError
from fidicula.core.geometry.board import HeightDirection, UprightHeight
from fidicula.core.geometry.facet import facet_drop
from fidicula.core.geometry.string_lines import Board, end_height_of_mark
from fidicula.core.readings.estimate import Estimate
from fidicula.core.readings.states import LoggedReading, MeasurementKey, ReadingState
from fidicula.domain.damage import DamageLook
from fidicula.domain.instruments import Instrument
from fidicula.domain.lessons import NOTHING_LEARNT, Learnt
from fidicula.domain.readings import LastTime, Reading
from fidicula.domain.strings import StringSet
from fidicula.domain.visits import CourseMark, Decision, Seen
from fidicula.domain.works import WorkDone
from fidicula.judgement.assessment.derived import TOLD_BY_OTHERS, Derived, derived_at
from fidicula.judgement.assessment.estimating import heights_of_all, roughness_of
from fidicula.judgement.assessment.geometry import SINGLES, Geometry, board_of, geometry_of
from fidicula.judgement.assessment.held import Origin, ResolvedValue, of_tool, single_known_to, values_of
from fidicula.judgement.assessment.leaning import board_angle_of, tilt_of
from fidicula.judgement.assessment.memoized import memoized
from fidicula.judgement.assessment.slots import slot_told
from fidicula.judgement.measures import CARD, MEASURES, name_of
from fidicula.judgement.targets.gauges import UNCHECKED, Gauges
from fidicula.judgement.targets.wanted import Targets, Wanted
from fidicula.tables.work import invalidations


@dataclass(frozen=True)
class BenchState:
    """Everything known of one instrument at the bench.

    every : readings of the projection and the strings' heights at this visit, corrected ones too.
    log : the standing readings as the core judges them.  learnt : what earlier visits showed.
    planned : works, in their order.  gauges : what the tools are off.
    tried : what a page tries instead of a reading. [mm]  bridge_shift : of the strings at the bridge, + to the treble.
    """

    instrument: Instrument
    string_set: StringSet | None
    readings: Sequence[Reading]
    works: Sequence[WorkDone]
    targets: Targets
    reading_states: Mapping[MeasurementKey, ReadingState]
    now: datetime
    decisions: Sequence[Decision] = ()
    last_time: Mapping[MeasurementKey, LastTime] = field(default_factory=dict)
    seen: Sequence[Seen] = ()
    marks: Sequence[CourseMark] = ()
    every: Sequence[Reading] = ()
    tried: Mapping[MeasurementKey, float] = field(default_factory=dict)
    bridge_shift: float = 0.0
    log: Sequence[LoggedReading] = ()
    learnt: Learnt = NOTHING_LEARNT
    planned: Sequence[WorkCode] = ()
    damage: Sequence[DamageLook] = ()
    gauges: Gauges = UNCHECKED

    @property
    def standing_works(self) -> list[WorkDone]:
        return [work for work in self.works if not work.taken_back]

    @property
    def last_work(self) -> int:
        """Number of the newest work, 0 before any: a reading taken now is taken after it."""
        return max((work.number for work in self.standing_works), default=0)

    @property
    def projections(self) -> list[Reading]:
        """Every reading of the projection at this visit: they say whether it moved."""
        return [reading for reading in self.every if reading.measure == "projection"]

    @property
    def count(self) -> int:
        return len(self.instrument.string_names)

    def name(self, place: MeasurementKey) -> str:
        return name_of(MEASURES[place[0]], self.instrument.string_names, place[1])

    @cached_property
    def keeps_spacing(self) -> bool:
        """Whether somebody decided that strings that stand close together stay so."""
        made = [one for one in self.decisions if one.question == "narrow_spacing" and not one.taken_back]
        return bool(made) and made[-1].outcome == "leave"

    @cached_property
    def board(self) -> Board | None:
        """The board alone, which needs no strings; None where something is missing or cannot be."""
        if self.singles is None:
            return None
        try:
            return board_of(values_of(self.singles), values_of(self.leaning))
        except CoreError:
            return None

    @cached_property
    def geometry(self) -> Geometry | None:
        """Board and strings' lines from what is held; None where something is missing or cannot be."""
        singles = self.singles
        if self.string_set is None or singles is None:
            return None
        try:
            return geometry_of(
                singles=values_of(singles),
                diameters=self.diameters,
                targets=self.targets,
                leaning=values_of(self.leaning),
            )
        except CoreError:
            return None

    @cached_property
    def lean(self) -> ResolvedValue | None:
        """How far the board leans across, where it was read or follows from what was."""
        return tilt_of(self)

    @cached_property
    def leaning(self) -> Mapping[MeasureCode, ResolvedValue]:
        """What is known of how the board lies that a bridge can do without, by measure."""
        found: dict[MeasureCode, ResolvedValue | None] = {
            "board_tilt": self.lean,
            "board_angle": board_angle_of(self),
            "fingerboard_radius_nut": self.held("fingerboard_radius_nut"),
        }
        return {measure: held for measure, held in found.items() if held is not None}

    @cached_property
    def singles(self) -> dict[MeasureCode, ResolvedValue] | None:
        """The single measures that a bridge needs; None where one has neither reading nor figure."""
        found = {measure: self.held(measure) for measure in SINGLES}
        known = {measure: held for measure, held in found.items() if held is not None}
        return known if len(known) == len(found) else None

    @cached_property
    def diameters(self) -> list[float]:
        return [] if self.string_set is None else [string.diameter for string in self.string_set.strings]

    def direction(self, measure: MeasureCode, position: int | None) -> HeightDirection:
        """How the height that is held was read; what is assumed is meant straight up."""
        stand = self.reading_states.get((measure, position))
        if stand is None or stand.usable is None:
            earlier = self.last_visit((measure, position))
            return (earlier.direction if earlier is not None else None) or "vertical"
        return self.by_number[stand.reading.number].direction or "vertical"

    @cached_property
    def by_number(self) -> dict[int, Reading]:
        return {reading.number: reading for reading in self.readings}

    def upright(self, place: MeasurementKey, value: float, direction: HeightDirection) -> UprightHeight:
        """A height straight up; as it is where nothing is known of the board yet. [mm]"""
        measure, position = place
        if direction == "vertical" or self.geometry is None or position is None:
            return UprightHeight(value)
        return self.geometry.upright(measure, position, value, direction)

    @memoized
    def wanted(self, place: MeasurementKey) -> Wanted | None:
        """What is wanted at a place; inner strings' end heights that follow the crown have none of their own.

        Heights stated at the bridge's mark are given at the board's end, over the nut's aim.
        """
        marks, position = self.targets.marks, place[1]
        if place[0] not in CARD:
            figure = MEASURES[place[0]].figure_at(position)
            return None if figure is None else self.targets.figure(figure)
        if place[0] != "end_height" or marks is None or position not in (0, self.count - 1):
            return self.targets[place]
        stated = marks[0 if position == 0 else 1]
        nut = self.targets[("nut_height", position)]
        if self.geometry is None or nut is None:
            return None
        board, aim = self.geometry.board, self.upright(("nut_height", position), nut.band.aim, nut.direction)
        return replace(
            stated,
            band=stated.band.through(lambda mark: end_height_of_mark(nut_height=aim, mark_height=mark, board=board)),
        )

    @memoized
    def wanted_upright(self, place: MeasurementKey) -> Wanted | None:
        """What is wanted at a place, straight up."""
        wanted = self.wanted(place)
        if wanted is None or wanted.direction == "vertical":
            return wanted
        return replace(
            wanted,
            direction="vertical",
            band=wanted.band.through(lambda value: self.upright(place, value, wanted.direction)),
        )

    def as_read(self, place: MeasurementKey, upright: float) -> float:
        """A height straight up, the way its reading was taken. [mm]"""
        if place[1] is None or self.direction(*place) == "vertical" or self.geometry is None:
            return upright
        return self.geometry.shortest(place[0], place[1], UprightHeight(upright))

    @memoized
    def wanted_as_read(self, place: MeasurementKey) -> Wanted | None:
        """What is wanted at a place, the way its reading was taken: like is compared with like."""
        return self.turned_as_read(place, self.wanted_upright(place))

    def turned_as_read(self, place: MeasurementKey, upright: Wanted | None) -> Wanted | None:
        """A target straight up, the way the reading of its place was taken."""
        if upright is None or place[1] is None or self.direction(*place) == "vertical" or self.geometry is None:
            return upright
        return replace(
            upright,
            direction="shortest",
            band=upright.band.through(partial(self.geometry.shortest, place[0], place[1])),
        )

    def usual(self, place: MeasurementKey) -> float | None:
        """About what such a reading is on this instrument, for doubting slips. [mm]"""
        measure, position = place
        if measure == "end_height" and position is not None:
            return self.targets.usual_height(position, self.count)
        if measure == "slot_depth" and position is not None:
            if self.string_set is None or self.targets.slot_depth_ratio is None:
                return None
            return self.targets.slot_depth_ratio * self.string_set.strings[position].diameter
        wanted = self.wanted(place)
        return None if wanted is None else wanted.band.aim

    def assumed(self, place: MeasurementKey) -> float | None:
        """What stands in for a reading that is not there. Present string heights are never assumed. [mm]"""
        if place[0] == "end_height" or place[0] not in CARD:
            return None
        upright = self.wanted_upright(place) if place[0] == "nut_height" else None
        return self.usual(place) if upright is None else upright.band.aim

    def is_untouched(self, place: MeasurementKey) -> bool:
        """Whether nothing but the figures says anything of a place that only a full measuring takes."""
        return (
            place[0] not in CARD
            and place not in self.reading_states
            and place not in self.last_time
            and self.derived(place) is None
        )

    def last_visit(self, place: MeasurementKey) -> LastTime | None:
        """What was read at an earlier visit and neither work nor time has made void."""
        earlier, stand = self.last_time.get(place), self.reading_states.get(place)
        if earlier is None or (stand is not None and stand.state == "stale"):
            return None
        keeps = MEASURES[place[0]].keeps_days
        if keeps is not None and self.now - earlier.taken_at > timedelta(days=keeps):
            return None
        touched = invalidations().get(place[0], {}).keys()
        done = earlier.works_since | {work.work for work in self.standing_works}
        return None if touched & done else earlier

    def derived(self, place: MeasurementKey) -> Derived | None:
        """What other readings tell of a place."""
        if place[0] == "slot_depth" and place[1] is not None:
            return slot_told(self, place[1])
        if place[0] not in TOLD_BY_OTHERS:
            return None
        return derived_at(place, self.reading_states, self.diameters, self.count)

    @memoized
    def held(self, measure: MeasureCode, position: int | None = None) -> ResolvedValue | None:
        """The value to compute with: the reading, what other readings tell, the last visit's, the figure, else None."""
        if measure not in MEASURES:
            raise KeyError(measure)
        place = (measure, position)
        if place in self.tried:
            return ResolvedValue(self.tried[place], False, 0.0, "tried")
        stand = self.reading_states.get(place)
        if stand is not None and stand.usable is not None:
            is_simulated = self.by_number[stand.reading.number].simulated
            origin: Origin = "simulated" if is_simulated else "read"
            weighed = self.weighed.get(position) if measure == "end_height" and position is not None else None
            if weighed is not None:
                return of_tool(stand, weighed.value, weighed.known_to, weighed.deviation, is_simulated, origin)
            by_chance = stand.scatter / math.sqrt(max(1, stand.count))
            return of_tool(stand, stand.usable, stand.known_to, by_chance, is_simulated, origin)
        told = self.derived(place)
        if told is not None:
            return ResolvedValue(told.value, False, told.known_to, "derived")
        earlier = self.last_visit(place)
        if earlier is not None:
            return ResolvedValue(earlier.value, False, single_known_to(place[0], earlier.tool), "last_visit")
        stand_in = self.assumed(place)
        return None if stand_in is None else ResolvedValue(stand_in, True, self._leeway(place), "figure")

    def to_read(self, places: Iterable[MeasurementKey]) -> tuple[MeasurementKey, ...]:
        """Those of some places with no reading of this visit, or one that holds no more."""
        states = self.reading_states
        return tuple(one for one in places if (stand := states.get(one)) is None or stand.state != "current")

    def known(self, measure: MeasureCode, position: int | None = None) -> ResolvedValue | None:
        """What was read, or follows from what was read; never a figure that stands in."""
        held = self.held(measure, position)
        return None if held is None or held.assumed else held

    @cached_property
    def facet(self) -> float:
        """How far the flat under the lowest string lies below the board's round; 0 for none or unread. [mm]

        Heights there are read and wanted over the flat; the crown is computed over the round.
        """
        width, string = self.held("facet_width"), self.held("facet_string")
        board = self.read_or_figure("fingerboard_width", 1, figure="fingerboard_width_end")
        radius = self.held("fingerboard_radius")
        if width is None or string is None or board is None or radius is None:
            return 0.0
        try:
            return facet_drop(radius=radius.value, board_width=board.value, width=width.value, from_ridge=string.value)
        except CoreError:
            return 0.0

    def facet_at(self, position: int) -> float:
        return self.facet if position == 0 else 0.0

    @cached_property
    def weighed(self) -> Mapping[int, Estimate]:
        """Strings' heights at the board's end by all their readings and slot filings, each as it was last read.

        Not there where the last readings do not hold, or contradict each other.
        """
        return heights_of_all(self)

    @cached_property
    def roughness(self) -> float:
        """How much more the hand at work scatters than a practised one, 1 or more."""
        return roughness_of(self.log)

    def read_or_figure(
        self, measure: MeasureCode, position: int | None = None, *, figure: FigureCode | None = None
    ) -> ResolvedValue | None:
        """A reading where it holds, else the shop's figure, even where no cut may rest on that."""
        held = self.held(measure, position)
        if held is not None:
            return held
        wanted = self.targets.figure(figure or measure)
        half = None if wanted is None else (wanted.band.high - wanted.band.low) / 2
        return None if wanted is None or half is None else ResolvedValue(wanted.band.aim, True, half, "figure")

    def _leeway(self, place: MeasurementKey) -> float:
        """How far off an assumed value may well be: half its band; a slot may be anything up to half a string. [mm]"""
        if place[0] == "slot_depth" and self.string_set is not None and place[1] is not None:
            return self.string_set.strings[place[1]].diameter / 4
        wanted = self.targets[place]
        return 0.0 if wanted is None else (wanted.band.high - wanted.band.low) / 2
