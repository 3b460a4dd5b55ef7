"""The cut: the core's bridge, fed with what is held, string by string."""

from __future__ import annotations

import math
from collections.abc import Hashable, Mapping, Sequence
from dataclasses import dataclass, replace

from fidicula.core.bands import standing
from fidicula.core.errors import CoreError
from fidicula.core.geometry.bridge import (
    BridgePlan,
    StringCut,
    StringGoal,
    StringState,
    Waist,
    plan_bridge,
    string_cut,
)
from fidicula.core.geometry.string_lines import Board
from fidicula.core.geometry.uncertainty import uncertainties
from fidicula.core.readings.standing import Place
from fidicula.core.work.creeping import first_pass
from fidicula.services.sheet.findings import tilt
from fidicula.services.sheet.geometry import SINGLES, Geometry, geometry_of
from fidicula.services.sheet.held import BenchState, Held
from fidicula.services.sheet.model import CutState, CutView, ProblemView, StringCutView

_PLACE_OF_FIELD = {"fingerboard_radius_nut": "fingerboard_radius"}

_MOST_PLANNED = 400
"""Plans kept for one set of targets; beyond that they are begun anew."""


@dataclass(frozen=True)
class StringResult:
    """One string of the computed cut, with what went into it. Heights straight up. [mm]"""

    cut: StringCut
    present: StringState
    provisional: bool
    plus_minus: float


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
    singles: Mapping[str, Held]
    results: tuple[StringResult | None, ...]
    known_to: tuple[KnownTo, ...]


def compute(state: BenchState) -> Computed | ProblemView | None:
    """The cut from what is held; a problem where the shape cannot be; None where something is still missing."""
    targets = state.targets
    if state.string_set is None or state.singles is None or targets.blocked:
        return None
    try:
        return _Cut(state, state.singles).computed()
    except CoreError as error:
        return _problem(state, error, state.singles)


class _Cut:
    """One computation of the whole bridge, repeated with each input moved by its ± to see what it is worth."""

    def __init__(self, state: BenchState, singles: Mapping[str, Held]) -> None:
        self._state, self._singles = state, singles
        self._count = state.count
        self._tilt = tilt(state) or 0.0
        wide, over = state.held("waist_width"), state.held("waist_height")
        self._waist = None if wide is None or over is None else Waist(wide.value, over.value)
        self._held: dict[Place, Held] = {(measure, None): held for measure, held in singles.items()}
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
            self._tilt,
            self._waist,
        )

    def computed(self) -> Computed:
        values = {place: held.value for place, held in self._held.items()}
        geometry, goals, plan = self._planned(values)
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
            results.append(
                StringResult(
                    cut=cut,
                    present=present,
                    provisional=shared_assumed or any(held.assumed for held in own),
                    plus_minus=math.hypot(known_to[3 * i + 2], self._own_leeway(geometry, goals, plan, i)),
                )
            )
        return Computed(
            board=geometry.board,
            nut_centre=geometry.nut_centre,
            plan=plan,
            goals=goals,
            singles=self._singles,
            results=tuple(results),
            known_to=tuple(KnownTo(*known_to[3 * i : 3 * i + 2]) for i in range(self._count)),
        )

    def _moves_plan(self, place: Place) -> bool:
        """Whether what is wanted over the board follows an input.

        A string's other readings move its own cut alone; the projection moves belly and board together.
        """
        measure, position = place
        if position is None:
            return measure != "projection"
        return measure == "nut_height" and self._nut_stays[position]

    def _own_leeway(self, geometry: Geometry, goals: Sequence[StringGoal], plan: BridgePlan, i: int) -> float:
        """± of the wood at one string from those readings. [mm]"""
        own = {place: held for place, held in self._held.items() if place[1] == i and not self._moves_plan(place)}
        held_here = {place: held.value for place, held in self._held.items() if place[1] == i}

        def wood(values: Mapping[Place, float]) -> Sequence[float]:
            cut = self._cut(geometry, values, goals, plan, i)
            return (0.0 if cut is None or cut[0].crown_cut is None else cut[0].crown_cut,)

        known_to = {place: held.resolution for place, held in own.items()}
        return uncertainties(outcome=wood, values=held_here, known_to=known_to)[0]

    def _outcome(self, values: Mapping[Place, float]) -> Sequence[float]:
        """Of each string: mark, height at the board's end, and wood."""
        geometry, goals, plan = self._planned(values)
        found: list[float] = []
        for i, target in enumerate(plan.strings):
            cut = self._cut(geometry, values, goals, plan, i)
            wood = 0.0 if cut is None or cut[0].crown_cut is None else cut[0].crown_cut
            found += (target.mark_height, target.end_height, wood)
        return found

    def _planned(self, values: Mapping[Place, float]) -> tuple[Geometry, tuple[StringGoal, ...], BridgePlan]:
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

    def _geometry(self, values: Mapping[Place, float]) -> Geometry:
        return geometry_of(
            singles={measure: values[measure, None] for measure in SINGLES},
            diameters=self._state.diameters,
            targets=self._state.targets,
            tilt=self._tilt,
            shift=self._state.bridge_shift,
        )

    def _nut_is_in_band(self, geometry: Geometry, i: int) -> bool:
        """A nut height in band is left as it is: nobody files it."""
        held, wanted = self._held["nut_height", i], self._state.wanted_upright(("nut_height", i))
        if held.assumed or wanted is None:
            return False
        return standing(value=self._upright(geometry, "nut_height", i, held.value), band=wanted.band) == "in_band"

    def _upright(self, geometry: Geometry, measure: str, i: int, value: float) -> float:
        direction = self._directions[measure, i]
        return value if direction == "vertical" else geometry.upright(measure, i, value, direction)

    def _goals(self, values: Mapping[Place, float], geometry: Geometry) -> tuple[StringGoal, ...]:
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

    def _nut_goal(self, values: Mapping[Place, float], geometry: Geometry, i: int) -> float:
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
        return None if wanted is None else geometry.upright("end_height", i, wanted.band.aim, wanted.direction)

    def _plan(self, geometry: Geometry, values: Mapping[Place, float], goals: Sequence[StringGoal]) -> BridgePlan:
        targets = self._state.targets
        assert targets.crown_radius is not None
        assert targets.slot_depth_ratio is not None
        return plan_bridge(
            board=geometry.board,
            goals=goals,
            nut_spread=values["nut_spread", None],
            bridge_spread=values["bridge_spread", None],
            nut_centre=geometry.nut_centre,
            bridge_centre=self._state.bridge_shift,
            lines=geometry.lines,
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
        values: Mapping[Place, float],
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
            end_height=self._upright(geometry, "end_height", i, values["end_height", i]),
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


def _problem(state: BenchState, error: CoreError, singles: Mapping[str, Held]) -> ProblemView:
    """Say which reading makes the shape impossible."""
    field = next(part for part in error.path if isinstance(part, str))
    measure = _PLACE_OF_FIELD.get(field, field)
    sentence = error.sentence[0].upper() + error.sentence[1:] + "."
    if measure in singles:
        origin = "assumed from the shop's figures" if singles[measure].assumed else "measured"
        sentence += f" Look again at the {state.name((measure, None))}: {singles[measure].value:g} mm, {origin}."
        return ProblemView(sentence=sentence, measure=measure, position=None)
    if field == "crown_radius":
        sentence += " Look again at the spread at the bridge and the board's radius, or choose another crown."
        return ProblemView(sentence=sentence, measure="bridge_spread", position=None)
    return ProblemView(sentence=sentence, measure=None, position=None)


def cut_view(state: BenchState, computed: Computed | None) -> CutView:
    """The cut as the sheet shows it."""
    if computed is None:
        empty = [_open_cut(name) for name in state.instrument.string_names]
        return CutView(state="none", strings=empty, assumed=[])
    last_woods = _last_woods(state)
    strings = []
    for i, (target, result, known) in enumerate(
        zip(computed.plan.strings, computed.results, computed.known_to, strict=True)
    ):
        view = replace(
            _open_cut(target.name),
            wanted_end_height=target.end_height,
            wanted_mark=target.mark_height,
            wanted_known_to=known.end_height,
            mark_known_to=known.mark,
        )
        if result is None:
            strings.append(view)
            continue
        wood = result.cut.crown_cut
        nut = state.standings.get(("nut_height", i))
        nut_over = result.present.nut_height - computed.goals[i].nut_height
        strings.append(
            replace(
                view,
                state="provisional" if result.provisional else "firm",
                down=result.cut.cut,
                wood=wood,
                plus_minus=result.plus_minus,
                first_pass=None if wood is None else first_pass(max(0.0, wood)),
                old_slot_left=result.cut.old_slot_left,
                nut_to_file=max(0.0, nut_over) if nut is not None and nut.usable is not None else None,
                last_wood=last_woods.get(i),
            )
        )
    states: list[CutState] = [string.state for string in strings if string.state != "none"]
    if not states:
        overall: CutState = "none"
    elif len(states) < len(strings) or "provisional" in states:
        overall = "provisional"
    else:
        overall = "firm"
    return CutView(state=overall, strings=strings, assumed=assumed_words(state, computed) if states else [])


def _open_cut(name: str) -> StringCutView:
    """A string of which nothing is known yet."""
    return StringCutView(
        name=name,
        state="none",
        wanted_end_height=None,
        wanted_known_to=None,
        wanted_mark=None,
        mark_known_to=None,
        down=None,
        wood=None,
        plus_minus=None,
        first_pass=None,
        old_slot_left=None,
        nut_to_file=None,
        last_wood=None,
    )


def _last_woods(state: BenchState) -> dict[int, float]:
    """What the last cut set out to take, string by string."""
    cuts = [work for work in state.standing_works if work.work == "crown_cut"]
    if not cuts:
        return {}
    woods = cuts[-1].detail.get("wood", [])
    return {i: wood for i, wood in enumerate(woods) if wood is not None}


def assumed_words(state: BenchState, computed: Computed) -> list[str]:
    """What the cut rests on that was not measured, each with why."""
    said = []
    for measure, held in computed.singles.items():
        if held.assumed:
            said.append(f"{state.name((measure, None))} {held.value:g}{_because(state, (measure, None))}")
    for measure, what in (("nut_height", "at the nut"), ("slot_depth", "slot depth")):
        names = []
        for i, result in enumerate(computed.results):
            held_now = state.held(measure, i)
            if result is not None and held_now is not None and held_now.assumed:
                names.append(f"{computed.goals[i].name} {held_now.value:.2f}{_because(state, (measure, i))}")
        if names:
            said.append(f"{what}: {', '.join(names)}")
    return said


def _because(state: BenchState, place: tuple[str, int | None]) -> str:
    stand = state.standings.get(place)
    if stand is None:
        return ""
    return f" (the reading is {stand.state})"
