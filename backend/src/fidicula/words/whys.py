"""Behind each figure: the formula with this instrument's numbers, the school, and who set it."""

from __future__ import annotations

from fidicula.core.bands import Band
from fidicula.core.geometry.string_lines import Board
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.computing import Computed, StringResult
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.measures import MEASURES, places
from fidicula.numerals import number, of_unit, short
from fidicula.words.model import Why
from fidicula.words.names import derived_by
from fidicula.words.numbers import give_or_take, told_within


def _n(value: float) -> str:
    return f"{number(value, 2)}"


def _band(band: Band) -> str:
    return f"{short(band.low)} to {short(band.high)}, aim {short(band.aim)}"


def whys(state: BenchState, computed: Computed | None) -> dict[str, Why]:
    """One entry for every figure on the sheet that can be opened."""
    found = _figures(state)
    if computed is None:
        return found
    for i, result in enumerate(computed.results):
        found[f"wanted:{i}"] = _wanted(state, computed, i)
        if result is not None:
            found[f"down:{i}"] = _down(state, computed, i, result)
            found[f"wood:{i}"] = _wood(state, computed, i, result)
    found["crown_radius"] = _crown(state, computed)
    found["bow"] = _bow(computed)
    return found


def _figures(state: BenchState) -> dict[str, Why]:
    found = {}
    for place in places(state.instrument):
        position = "" if place[1] is None else f":{place[1]}"
        untouched = state.is_untouched(place)
        if untouched and MEASURES[place[0]].form is not None:
            # One of several ways to read something, which nobody has taken: there is nothing behind it yet.
            continue
        found[f"{place[0]}{position}"] = _untouched_figure(state, place) if untouched else _figure(state, place)
    return found


def _untouched_figure(state: BenchState, place: MeasurementKey) -> Why:
    """The same for every sheet under these targets, and most of them are: made once."""
    key = ("why", place, state.instrument.string_names)
    found: Why | None = state.targets.untouched.get(key)
    if found is None:
        found = state.targets.untouched[key] = _figure(state, place)
    return found


def _figure(state: BenchState, place: MeasurementKey) -> Why:
    wanted, stand = state.wanted_as_read(place), state.reading_states.get(place)
    row = MEASURES[place[0]]
    unit, told = row.unit, state.derived(place) if stand is None else None
    lines = [f"{row.how[0].upper()}{row.how[1:]}."]
    if told is not None:
        lines.append(f"By {derived_by(told.by)}: {of_unit(told_within(told.value, told.known_to), unit)}.")
    if stand is not None and stand.value is not None:
        lines.append(f"Measured {of_unit(told_within(stand.value, stand.known_to), unit)}.")
        if stand.count > 1:
            more = ": more than chance, so look which is right" if stand.is_wide else ""
            middle = "Median" if stand.is_wide else "Mean"
            lines.append(f"{middle} of {stand.count} readings, {of_unit(_n(stand.repeat_spread), unit)} apart{more}.")
    if wanted is not None:
        lines.append(f"Wanted {of_unit(_band(wanted.band), unit)}.")
    elif place[0] == "end_height":
        lines.append("The inner strings' heights follow from the crown's arc through the outer two.")
    elif place[0] == "slot_depth" and state.string_set is not None and place[1] is not None:
        diameter, ratio = state.string_set.strings[place[1]].diameter, state.targets.slot_depth_ratio or 0.0
        lines.append(f"Wanted {number(ratio, 2)} of the string's {short(diameter)} mm: {_n(ratio * diameter)} mm.")
    elif row.card is not None or row.figure_at(place[1]) is not None:
        lines.append("No figure: enter the shop's own.")
    follows = wanted.source if wanted is not None else ""
    if place[0] == "slot_depth":
        follows = state.targets.slot_depth_source
    return Why(title=_titled(state, place), lines=lines, follows=follows)


def _titled(state: BenchState, place: MeasurementKey) -> str:
    name = state.name(place) if place[1] is not None else MEASURES[place[0]].label
    return name[0].upper() + name[1:]


def _mark_line(what: str, nut: float, end: float, computed: Computed, mark: float) -> str:
    board = computed.board
    square = f"{_n(nut)} + ({_n(end)} − {_n(nut)}) × {short(board.string_length)} ÷ {short(board.fingerboard_length)}"
    if board.angle:
        return f"{what}: ({square}) ÷ {number(board.squareness, 3)} = {_n(mark)} over the board's line at the bridge."
    return f"{what}: {square} = {_n(mark)} over the board's line at the bridge."


def _slope_line(board: Board) -> list[str]:
    """Why a mark is longer along the bridge than it stands off the board."""
    if not board.angle:
        return []
    return [f"÷ {number(board.squareness, 3)}: the board slopes by {number(board.angle)}° to the bridge's square."]


def _facet_lines(state: BenchState, i: int) -> list[str]:
    """Both heights are told over the round where a flat lies under the string."""
    drop = state.facet_at(i)
    return [f"Both are over the board's round: {_n(drop)} less than over the flat under it."] if drop else []


def _down(state: BenchState, computed: Computed, i: int, result: StringResult) -> Why:
    goal, target = computed.goals[i], computed.plan.strings[i]
    now = target.mark_height + result.cut.cut
    board = computed.board
    nut_part = (result.present.nut_height - goal.nut_height) * (1 - board.carry) / board.squareness
    lines = [
        f"{_n(result.present.end_height)} → {_n(target.end_height)} at the board's end is "
        f"{_n(result.present.end_height - target.end_height)}.",
        *_facet_lines(state, i),
        _mark_line("Now", result.present.nut_height, result.present.end_height, computed, now),
        _mark_line("Wanted", goal.nut_height, target.end_height, computed, target.mark_height),
        *_slope_line(board),
        f"String drop: {_n(now)} − {_n(target.mark_height)} = {_n(result.cut.cut)}.",
    ]
    if abs(nut_part) >= 0.005:
        lines.append(
            f"Filing the nut {_n(result.present.nut_height)} → {_n(goal.nut_height)} is counted: "
            f"it changes the cut by {_n(nut_part)}."
        )
    lines.append(_leave(result))
    return Why(title=f"Why {goal.name} comes down {_n(result.cut.cut)}", lines=lines, follows=_height_source(state))


def _wood(state: BenchState, computed: Computed, i: int, result: StringResult) -> Why:
    goal = computed.goals[i]
    slot_wanted = (state.targets.slot_depth_ratio or 0.0) * goal.diameter
    slot = result.present.slot_depth or 0.0
    held = state.held("slot_depth", i)
    assumed = " (assumed)" if held is not None and held.assumed else ""
    wood = result.cut.crown_cut or 0.0
    lines = _down(state, computed, i, result).lines[:-1]
    lines.append(
        f"The slot is {_n(slot)} deep now{assumed}, {_n(slot_wanted)} after: "
        f"wood {_n(result.cut.cut)} + {_n(slot)} − {_n(slot_wanted)} = {_n(wood)}."
    )
    lines.append(_leave(result))
    return Why(
        title=f"Why {_n(wood)} of wood at {goal.name}",
        lines=lines,
        follows=f"{_height_source(state)} · {state.targets.slot_depth_source}",
    )


def _leave(result: StringResult) -> str:
    what = "The tools, and what is assumed," if result.provisional else "The tools"
    return f"{what} leave ±{give_or_take(result.uncertainty, 2)}."


def _height_source(state: BenchState) -> str:
    wanted = state.wanted(("end_height", 0))
    return wanted.source if wanted else ""


def _wanted(state: BenchState, computed: Computed, i: int) -> Why:
    target = computed.plan.strings[i]
    outer, known = state.wanted_upright(("end_height", i)), computed.known_to[i]
    stated = state.wanted(("end_height", i))
    if outer is not None and stated is not None:
        lines = [f"Wanted {_band(outer.band)} mm, straight up at the board's end."]
        if stated.direction == "shortest":
            lines.append(f"The figure is meant the shortest way: {_band(stated.band)} mm.")
        if state.targets.marks is not None:
            mark = state.targets.marks[0 if i == 0 else 1]
            lines.append(f"The figure is stated over the bridge's mark: {_band(mark.band)} mm.")
        follows = outer.source
    else:
        lines = [
            f"The crown is an arc of {number(computed.plan.crown.radius)} mm through the outer strings.",
            f"Under it the {target.name} string stands {_n(target.mark_height)} over the board's line at the bridge,",
            f"which is {_n(target.end_height)} at the board's end.",
        ]
        if state.targets.curve == "heights":
            lines = ["Every string has a height of its own; the crown goes through them as nearly as an arc can."]
        follows = state.targets.crown_radius.source if state.targets.crown_radius else ""
    lines.append(
        f"At the bridge that is {_n(target.mark_height)} over the straightedge's mark, known to "
        f"±{give_or_take(known.mark, 2)} from what was measured or assumed of nut and board."
    )
    return Why(title=f"Why {_n(target.end_height)} is wanted at {target.name}", lines=lines, follows=follows)


def _crown(state: BenchState, computed: Computed) -> Why:
    wanted = state.targets.crown_radius
    lines = [] if wanted is None else [f"Wanted {_band(wanted.band)} mm."]
    lines.append("The arc goes through the outer strings' crown points; the inner strings follow it.")
    if state.targets.curve == "heights":
        lines = ["The arc that comes nearest to the strings' own heights, each as it was read."]
    return Why(
        title=f"Why a crown of {number(computed.plan.crown.radius)}",
        lines=lines,
        follows=wanted.source if wanted else "",
    )


def _bow(computed: Computed) -> Why:
    inner = [s for s in computed.plan.strings if s.bow_separation is not None]
    lines = [
        f"{s.name}: the line to its bass neighbour and the line to its treble neighbour meet at "
        f"{number(s.bow_separation or 0.0)}°; it stands {_n(s.bow_rise or 0.0)} mm over the line through the two."
        for s in inner
    ]
    lines.append("That is the room in which the bow touches this string alone.")
    return Why(
        title="Bow clearance on the inner strings",
        lines=lines,
        follows="strings' centres at the wanted crown",
    )
