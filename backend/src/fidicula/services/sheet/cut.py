"""The cut: the core's bridge, fed with what is held, string by string."""

from __future__ import annotations

from dataclasses import dataclass

from fidicula.core.bands import standing
from fidicula.core.errors import CoreError
from fidicula.core.geometry.board import HeightDirection
from fidicula.core.geometry.bridge import (
    BridgePlan,
    StringCut,
    StringGoal,
    StringState,
    plan_bridge,
    string_cut,
)
from fidicula.core.geometry.string_lines import (
    Board,
    StringLine,
    end_height_upright,
    nut_height_upright,
    string_lines,
)
from fidicula.core.geometry.uncertainty import cut_uncertainty
from fidicula.core.work.creeping import first_pass
from fidicula.db.records import StringSet
from fidicula.services.sheet.held import BenchState, Held
from fidicula.services.sheet.model import CutState, CutView, ProblemView, StringCutView

SINGLES = (
    "string_length",
    "fingerboard_length",
    "fingerboard_radius",
    "projection",
    "nut_spread",
    "bridge_spread",
)

_PLACE_OF_FIELD = {"fingerboard_radius_nut": "fingerboard_radius"}


@dataclass(frozen=True)
class StringResult:
    """One string of the computed cut, with what went into it. Heights straight up. [mm]"""

    cut: StringCut
    present: StringState
    provisional: bool
    plus_minus: float


@dataclass(frozen=True)
class Computed:
    """The computed bridge. results : None for a string whose height at the board's end is not known."""

    board: Board
    plan: BridgePlan
    goals: tuple[StringGoal, ...]
    singles: dict[str, Held]
    results: tuple[StringResult | None, ...]


def compute(state: BenchState) -> Computed | ProblemView | None:
    """The cut from what is held; a problem where the shape cannot be; None where something is still missing."""
    targets = state.targets
    if state.string_set is None or targets.end_bass is None or targets.end_treble is None:
        return None
    if targets.nut_heights is None or targets.crown_radius is None:
        return None
    singles: dict[str, Held] = {}
    for measure in SINGLES:
        held = state.held(measure)
        if held is None:
            return None
        singles[measure] = held
    try:
        return _compute(state, state.string_set, singles)
    except CoreError as error:
        return _problem(state, error, singles)


def _compute(state: BenchState, string_set: StringSet, singles: dict[str, Held]) -> Computed:
    targets = state.targets
    assert targets.end_bass and targets.end_treble and targets.nut_heights and targets.crown_radius  # noqa: PT018
    board = Board(
        string_length=singles["string_length"].value,
        fingerboard_length=singles["fingerboard_length"].value,
        radius_end=singles["fingerboard_radius"].value,
        projection=singles["projection"].value,
    )
    diameters = [string.diameter for string in string_set.strings]
    lines = string_lines(
        board=board,
        diameters=diameters,
        nut_spread=singles["nut_spread"].value,
        bridge_spread=singles["bridge_spread"].value,
        rule=targets.spacing,
    )
    last = state.count - 1
    heights = {0: targets.end_bass.band.aim, last: targets.end_treble.band.aim}
    goals = tuple(
        StringGoal(
            name=name,
            diameter=diameter,
            nut_height=_nut_goal(state, board, lines[i], i),
            height=heights.get(i),
        )
        for i, (name, diameter) in enumerate(zip(state.instrument.string_names, diameters, strict=True))
    )
    plan = plan_bridge(
        board=board,
        goals=goals,
        nut_spread=singles["nut_spread"].value,
        bridge_spread=singles["bridge_spread"].value,
        rule=targets.spacing,
        slot_depth_ratio=targets.slot_depth_ratio,
        crown_radius=targets.crown_radius.band.aim,
    )
    shared_assumed = any(held.assumed for held in singles.values())
    results: list[StringResult | None] = []
    for i, (goal, target) in enumerate(zip(goals, plan.strings, strict=True)):
        end, nut, slot = state.held("end_height", i), state.held("nut_height", i), state.held("slot_depth", i)
        if end is None or nut is None or slot is None:
            results.append(None)
            continue
        present = StringState(
            nut_height=nut_height_upright(
                height=nut.value,
                direction=_direction(state, "nut_height", i),
                board=board,
                line=lines[i],
            ),
            end_height=end_height_upright(
                height=end.value, direction=_direction(state, "end_height", i), board=board, line=lines[i]
            ),
            slot_depth=slot.value,
        )
        results.append(
            StringResult(
                cut=string_cut(
                    board=board,
                    target=target,
                    state=present,
                    diameter=goal.diameter,
                    slot_depth_ratio=targets.slot_depth_ratio,
                ),
                present=present,
                provisional=shared_assumed or nut.assumed or slot.assumed,
                plus_minus=cut_uncertainty(
                    nut_resolution=nut.resolution,
                    end_resolution=end.resolution,
                    carry=board.carry,
                    slot_resolution=slot.resolution,
                ),
            )
        )
    return Computed(board=board, plan=plan, goals=goals, singles=singles, results=tuple(results))


def _direction(state: BenchState, measure: str, position: int) -> HeightDirection:
    """How the height that is held was read; figures are meant straight up."""
    stand = state.standings.get((measure, position))
    if stand is None or stand.usable is None:
        return "vertical"
    reading = next(r for r in state.readings if r.number == stand.reading.number)
    return "shortest" if reading.direction == "shortest" else "vertical"


def _nut_goal(state: BenchState, board: Board, line: StringLine, position: int) -> float:
    """The nut height to plan with: as it is where it is in band, for then nobody files it; else the aim."""
    assert state.targets.nut_heights is not None
    band = state.targets.nut_heights[position].band
    held = state.held("nut_height", position)
    if held is None or held.assumed:
        return band.aim
    upright = nut_height_upright(
        height=held.value, direction=_direction(state, "nut_height", position), board=board, line=line
    )
    return upright if standing(value=upright, band=band) == "in_band" else band.aim


def _problem(state: BenchState, error: CoreError, singles: dict[str, Held]) -> ProblemView:
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
        empty = [
            StringCutView(name, "none", None, None, None, None, None, None, None, None)
            for name in state.instrument.string_names
        ]
        return CutView(state="none", strings=empty, assumed=[])
    last_woods = _last_woods(state)
    strings = []
    for i, (target, result) in enumerate(zip(computed.plan.strings, computed.results, strict=True)):
        if result is None:
            strings.append(
                StringCutView(target.name, "none", target.end_height, None, None, None, None, None, None, None)
            )
            continue
        wood = result.cut.crown_cut
        nut = state.standings.get(("nut_height", i))
        nut_over = result.present.nut_height - computed.goals[i].nut_height
        strings.append(
            StringCutView(
                name=target.name,
                state="provisional" if result.provisional else "firm",
                wanted_end_height=target.end_height,
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
