"""The core's bridge, fed with what is held of one instrument, string by string."""

from __future__ import annotations

import math
from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass

from fidicula.codes import MeasureCode
from fidicula.core.bands import side_of_band
from fidicula.core.errors import TOLERANCE, CoreError
from fidicula.core.geometry.board import UprightHeight
from fidicula.core.geometry.bow import Waist
from fidicula.core.geometry.bridge import BridgePlan, StringGoal, plan_bridge
from fidicula.core.geometry.cuts import StringCut, StringState, string_cut
from fidicula.core.geometry.string_lines import Board, mark_height
from fidicula.core.geometry.uncertainty import uncertainties
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.geometry import LEANING, SINGLES, Geometry, geometry_of
from fidicula.judgement.assessment.held import ResolvedValue
from fidicula.judgement.assessment.leaning import unread_leaning
from fidicula.judgement.assessment.state import BenchState

_PLACE_OF_FIELD: Mapping[str, MeasureCode] = {"fingerboard_radius_nut": "fingerboard_radius"}
"""A board whose radius at the nut is not read counts as equally round all along."""

_EACH = 4
"""Results for each string: mark, height at the board's end, wood and way down."""
_MOST_PLANNED = 400
"""Plans kept for one set of targets; beyond that they are begun again."""


@dataclass(frozen=True)
class StringResult:
    """One string of the computed cut, with what went into it. Heights straight up. [mm]

    uncertainty, drop_known_to : ± of the wood, and of the string's way down at the bridge.
    """

    cut: StringCut
    present: StringState
    provisional: bool
    uncertainty: float
    drop_known_to: float


@dataclass(frozen=True)
class Impossibility:
    """A shape that cannot be. says : as the core said it.  measure, value : the single reading at fault. [mm]"""

    says: str
    measure: MeasureCode | None
    value: float | None
    is_assumed: bool = False


@dataclass(frozen=True)
class KnownTo:
    """± of one string's targets, from the readings that they rest on. [mm]"""

    mark: float
    end_height: float


@dataclass(frozen=True)
class Computed:
    """The computed bridge. results : None for a string whose height at the board's end is not known."""

    board: Board
    nut_centre: float
    plan: BridgePlan
    goals: tuple[StringGoal, ...]
    singles: Mapping[MeasureCode, ResolvedValue]
    results: tuple[StringResult | None, ...]
    known_to: tuple[KnownTo, ...]


def compute(state: BenchState) -> Computed | Impossibility | None:
    """The cut from what is held; a problem where the shape cannot be; None where something is still missing."""
    targets = state.targets
    if state.string_set is None or state.singles is None or targets.blocked:
        return None
    try:
        return _Cut(state, state.singles).computed()
    except CoreError as error:
        return _impossible(error, {**state.singles, **state.leaning})


class _Cut:
    """One computation of the whole bridge, repeated with each input moved by its ± to see what it is worth."""

    def __init__(self, state: BenchState, singles: Mapping[MeasureCode, ResolvedValue]) -> None:
        self._state, self._singles = state, singles
        self._count = state.count
        wide, over = state.held("waist_width"), state.held("waist_height")
        self._waist = None if wide is None or over is None else Waist(wide.value, over.value)
        known = {**unread_leaning(singles), **singles, **state.leaning}
        self._held: dict[MeasurementKey, ResolvedValue] = {(measure, None): held for measure, held in known.items()}
        for i in range(self._count):
            for measure in ("end_height", "nut_height", "slot_depth"):
                held = state.held(measure, i)
                if held is not None:
                    self._held[measure, i] = held
        self._directions = {
            (measure, i): state.direction(measure, i)
            for measure in ("end_height", "nut_height")
            for i in range(self._count)
        }
        geometry = self._geometry({place: held.value for place, held in self._held.items()})
        self._nut_stays = [self._nut_is_in_band(geometry, i) for i in range(self._count)]
        self._plan_places = tuple(place for place in self._held if self._moves_plan(place) or place[0] == "projection")
        self._plan_rests_on = (
            tuple(state.diameters),
            state.instrument.string_names,
            self._plan_places,
            tuple(self._directions["nut_height", i] for i in range(self._count)),
            self._waist,
            state.keeps_spacing,
            state.facet,
            ("bridge_spread", None) in state.tried,
        )

    def computed(self) -> Computed:
        values = {place: held.value for place, held in self._held.items()}
        geometry, goals, plan = self._planned(values)
        self._aims = [UprightHeight(target.end_height) for target in plan.strings]
        known_to = uncertainties(
            outcome=self._outcome,
            values=values,
            known_to={place: held.resolution for place, held in self._held.items() if self._moves_plan(place)},
        )
        shared_assumed = any(held.assumed for held in self._singles.values())
        results: list[StringResult | None] = []
        for i in range(self._count):
            found = self._cut(geometry, values, goals, plan, i)
            if found is None:
                results.append(None)
                continue
            cut, present = found
            own = (self._held["nut_height", i], self._held["slot_depth", i])
            wood, drop = self._own_leeway(geometry, goals, plan, i)
            results.append(
                StringResult(
                    cut=cut,
                    present=present,
                    provisional=shared_assumed or any(held.assumed for held in own),
                    uncertainty=math.hypot(known_to[_EACH * i + 2], wood),
                    drop_known_to=math.hypot(known_to[_EACH * i + 3], drop),
                )
            )
        return Computed(
            board=geometry.board,
            nut_centre=geometry.nut_centre,
            plan=plan,
            goals=goals,
            singles=self._singles,
            results=tuple(results),
            known_to=tuple(KnownTo(*known_to[_EACH * i : _EACH * i + 2]) for i in range(self._count)),
        )

    def _moves_plan(self, place: MeasurementKey) -> bool:
        """Whether what is wanted over the board follows an input.

        A string's other readings move its own cut alone; the projection moves belly and board together.
        """
        measure, position = place
        if position is None:
            return measure != "projection"
        return measure == "nut_height" and self._nut_stays[position]

    def _own_leeway(
        self, geometry: Geometry, goals: Sequence[StringGoal], plan: BridgePlan, i: int
    ) -> tuple[float, float]:
        """± of the wood at one string and of its way down, from those readings. [mm]

        What they are off by chance counts for each; what a gauge is off, it is off at all that it read.
        """
        own = {place: held for place, held in self._held.items() if place[1] == i and not self._moves_plan(place)}
        held_here = {place: held.value for place, held in self._held.items() if place[1] == i}

        def outcome(values: Mapping[MeasurementKey, float]) -> Sequence[float]:
            return _wood_and_drop(self._cut(geometry, values, goals, plan, i))

        wood, drop = uncertainties(
            outcome=outcome,
            values=held_here,
            known_to={place: held.alone for place, held in own.items()},
            together=[
                {place: held.gauge for place, held in own.items() if held.tool == tool}
                for tool in {held.tool: None for held in own.values()}
            ],
        )
        return wood, drop

    def _outcome(self, values: Mapping[MeasurementKey, float]) -> Sequence[float]:
        """Of each string: mark, height at the board's end, wood and way down.

        Its way is to the height that it is to have; how well that is known itself stands beside it.
        """
        geometry, goals, plan = self._planned(values)
        found: list[float] = []
        for i, target in enumerate(plan.strings):
            cut = self._cut(geometry, values, goals, plan, i)
            wood, drop = _wood_and_drop(cut)
            if cut is not None:
                nut = UprightHeight(goals[i].nut_height)
                here = mark_height(nut_height=nut, end_height=self._aims[i], board=geometry.board)
                moved = target.mark_height - here
                wood, drop = wood + moved, drop + moved
            found += (target.mark_height, target.end_height, wood, drop)
        return found

    def _planned(self, values: Mapping[MeasurementKey, float]) -> tuple[Geometry, tuple[StringGoal, ...], BridgePlan]:
        """Geometry, goals and plan; kept with the targets, for most readings move none of what they rest on."""
        known: dict[Hashable, tuple[Geometry, tuple[StringGoal, ...], BridgePlan]] = self._state.targets.planned
        key = (self._plan_rests_on, tuple(values[place] for place in self._plan_places))
        found = known.get(key)
        if found is None:
            geometry = self._geometry(values)
            goals = self._goals(values, geometry)
            found = geometry, goals, self._plan(geometry, values, goals)
            if len(known) >= _MOST_PLANNED:
                known.clear()
            known[key] = found
        return found

    def _geometry(self, values: Mapping[MeasurementKey, float]) -> Geometry:
        return geometry_of(
            singles={measure: values[measure, None] for measure in SINGLES},
            diameters=self._state.diameters,
            targets=self._state.targets,
            leaning={measure: values[measure, None] for measure in LEANING if (measure, None) in values},
            shift=self._state.bridge_shift,
        )

    def _nut_is_in_band(self, geometry: Geometry, i: int) -> bool:
        """A nut height in band is left as it is: nobody files it."""
        held, wanted = self._held["nut_height", i], self._state.wanted_upright(("nut_height", i))
        if held.assumed or wanted is None:
            return False
        return side_of_band(value=self._upright(geometry, "nut_height", i, held.value), band=wanted.band) == "in_band"

    def _upright(self, geometry: Geometry, measure: MeasureCode, i: int, value: float) -> float:
        direction = self._directions[measure, i]
        return value if direction == "vertical" else geometry.upright(measure, i, value, direction)

    def _goals(self, values: Mapping[MeasurementKey, float], geometry: Geometry) -> tuple[StringGoal, ...]:
        return tuple(
            StringGoal(
                name=name,
                diameter=diameter,
                nut_height=self._nut_goal(values, geometry, i),
                height=self._height(geometry, i),
            )
            for i, (name, diameter) in enumerate(
                zip(self._state.instrument.string_names, self._state.diameters, strict=True)
            )
        )

    def _nut_goal(self, values: Mapping[MeasurementKey, float], geometry: Geometry, i: int) -> float:
        if self._nut_stays[i]:
            return self._upright(geometry, "nut_height", i, values["nut_height", i])
        wanted = self._state.targets[("nut_height", i)]
        assert wanted is not None
        return geometry.upright("nut_height", i, wanted.band.aim, wanted.direction)

    def _height(self, geometry: Geometry, i: int) -> float | None:
        """The wanted height of a string, straight up, where its target is stated."""
        marks = self._state.targets.marks
        if marks is not None:
            return {0: marks[0].band.aim, self._count - 1: marks[1].band.aim}.get(i)
        wanted = self._state.targets[("end_height", i)]
        if wanted is None:
            return None
        return geometry.upright("end_height", i, wanted.band.aim, wanted.direction) - self._state.facet_at(i)

    def _planned_spread(self, values: Mapping[MeasurementKey, float]) -> float:
        """Strings that stand too close together are planned as wanted, unless somebody decided to leave them. [mm]"""
        read, wanted = values["bridge_spread", None], self._state.targets[("bridge_spread", None)]
        is_meant = self._state.keeps_spacing or ("bridge_spread", None) in self._state.tried
        if wanted is None or is_meant or read >= wanted.band.low - TOLERANCE:
            return read
        return wanted.band.aim

    def _plan(
        self, geometry: Geometry, values: Mapping[MeasurementKey, float], goals: Sequence[StringGoal]
    ) -> BridgePlan:
        targets = self._state.targets
        assert targets.crown_radius is not None
        assert targets.slot_depth_ratio is not None
        spread, lines = self._planned_spread(values), geometry.lines
        if spread != values["bridge_spread", None]:
            lines = self._geometry({**values, ("bridge_spread", None): spread}).lines
        return plan_bridge(
            board=geometry.board,
            goals=goals,
            nut_spread=values["nut_spread", None],
            bridge_spread=spread,
            nut_centre=geometry.nut_centre,
            bridge_centre=self._state.bridge_shift,
            lines=lines,
            rule=targets.spacing,
            slot_depth_ratio=targets.slot_depth_ratio,
            curve=targets.curve,
            crown_radius=targets.crown_radius.band.aim,
            height_at="fingerboard_end" if targets.marks is None else "bridge_mark",
            waist=self._waist,
        )

    def _cut(
        self,
        geometry: Geometry,
        values: Mapping[MeasurementKey, float],
        goals: Sequence[StringGoal],
        plan: BridgePlan,
        i: int,
    ) -> tuple[StringCut, StringState] | None:
        if not {("end_height", i), ("nut_height", i), ("slot_depth", i)} <= self._held.keys():
            return None
        ratio = self._state.targets.slot_depth_ratio
        assert ratio is not None
        present = StringState(
            nut_height=self._upright(geometry, "nut_height", i, values["nut_height", i]),
            end_height=self._upright(geometry, "end_height", i, values["end_height", i]) - self._state.facet_at(i),
            slot_depth=values["slot_depth", i],
        )
        cut = string_cut(
            board=geometry.board,
            target=plan.strings[i],
            state=present,
            diameter=goals[i].diameter,
            slot_depth_ratio=ratio,
        )
        return cut, present


def _wood_and_drop(found: tuple[StringCut, StringState] | None) -> tuple[float, float]:
    if found is None:
        return 0.0, 0.0
    return found[0].crown_cut or 0.0, found[0].cut


def _impossible(error: CoreError, known: Mapping[MeasureCode, ResolvedValue]) -> Impossibility:
    """Which reading makes the shape impossible."""
    field = next(part for part in error.path if isinstance(part, str))
    measure = next((one for one in known if one == field), _PLACE_OF_FIELD.get(field))
    if measure is not None and measure in known:
        return Impossibility(error.sentence, measure, known[measure].value, is_assumed=known[measure].assumed)
    return Impossibility(error.sentence, "bridge_spread" if field == "crown_radius" else None, None)
