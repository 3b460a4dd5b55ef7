"""The amounts of each instruction, from the facts; and what has to be measured where they cannot be told."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import partial
from itertools import pairwise
from typing import Literal

from fidicula.codes import InstructionCode, MeasureCode
from fidicula.core.errors import TOLERANCE, CoreError
from fidicula.core.fitting.bridge_place import PlaceSchool
from fidicula.core.fitting.post import POST_SIDES, BlankChoice, PostSide, bar_insets, nearest_blank, stated_to
from fidicula.core.fitting.tailpiece import StringChange, adjuster_legs, plan_afterlength, wheel_turns
from fidicula.core.geometry.spacing import string_offsets
from fidicula.core.geometry.uncertainty import uncertainties
from fidicula.core.readings.states import MeasurementKey
from fidicula.core.rounding import rounded_down
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.computing import Computed
from fidicula.judgement.assessment.placing import SCHOOLS, placed
from fidicula.judgement.assessment.post import post_target
from fidicula.judgement.assessment.scoop import dressings
from fidicula.judgement.assessment.state import BenchState, single_known_to
from fidicula.judgement.assessment.thresholds import (
    FIRST_STOP,
    FIRST_STOP_FROM,
    WORTH_FILING,
    WORTH_LOWERING,
    WORTH_TAKING,
)
from fidicula.judgement.instruction.model import Amount
from fidicula.tables.course import instructions

SMALLEST_MOVE = 0.5
"""A tailpiece that is nearer than this to its place is left. [mm]"""
FREE_AT_SADDLE = 1.0
"""What stays free between tailpiece and saddle. [mm]"""
SIDES: tuple[Literal["bass", "treble"], ...] = ("bass", "treble")


@dataclass(frozen=True)
class Told:
    """amounts : that can be told.  keys : what has to be measured first, where something is missing."""

    amounts: tuple[Amount, ...] = ()
    keys: tuple[MeasurementKey, ...] = ()


def _unread(a: Assessment, *keys: MeasurementKey) -> tuple[MeasurementKey, ...]:
    """Those that nobody read at this visit or the last, or that hold no more."""
    held = [(key, a.state.held(*key)) for key in keys]
    return tuple(key for key, value in held if value is None or value.assumed)


def known_within(
    state: BenchState, keys: Sequence[MeasurementKey], outcome: Callable[[BenchState], Sequence[float]]
) -> tuple[float, ...]:
    """What covers 95 % of amounts that follow from some readings; of each, what every reading's own ± changes.

    outcome : the amounts as they would be by other readings. Raises CoreError where they cannot be told by these.
    """
    held = {key: one for key in keys if (one := state.held(*key)) is not None}

    def moved(values: Mapping[MeasurementKey, float]) -> Sequence[float]:
        return outcome(replace(state, tried={**state.tried, **values}))

    return uncertainties(
        outcome=moved,
        values={key: one.value for key, one in held.items()},
        known_to={key: one.resolution for key, one in held.items()},
    )


def cut_crown(a: Assessment) -> Told:
    """What the rough crown takes beside each string, over the whole bridge."""
    amounts = []
    for i, string in enumerate(a.cut.strings):
        if string.wood is None or string.next_pass is None or string.next_pass < WORTH_TAKING:
            continue
        known_to = string.uncertainty or 0.0
        amounts.append(Amount("take", rounded_down(string.next_pass), i, uncertainty=known_to))
        amounts.append(Amount("of_wood", string.wood, i, uncertainty=known_to))
    again: tuple[MeasurementKey, ...] = tuple(
        ("end_height", i)
        for i, string in enumerate(a.cut.strings)
        if string.wood is not None and string.wood >= WORTH_TAKING and string.next_pass is None
    )
    return Told(tuple(amounts), again)


def lower_crown(a: Assessment) -> Told:
    """The wood beside strings that lie too deep; the string stays where it is.

    Where nothing can be told of one, its height and the depth of its slot are read first.
    """
    amounts, unknown = [], []
    for i, (string, diameter) in enumerate(zip(a.cut.strings, a.state.diameters, strict=False)):
        slot = a.state.held("slot_depth", i)
        if slot is None or string.beside is None or string.drop is None:
            unknown += [i] if slot is None or slot.value > diameter / 2 else []
            continue
        least = WORTH_LOWERING if a.cut.begun or slot.value <= diameter / 2 else slot.resolution
        if string.beside >= least and (a.cut.begun or slot.value > diameter / 2):
            amounts.append(Amount("beside", rounded_down(string.beside, 2), i, uncertainty=slot.resolution))
    both: tuple[MeasureCode, ...] = ("end_height", "slot_depth")
    places = [(measure, i) for i in unknown for measure in both]
    return Told(tuple(amounts), () if amounts else a.state.to_read(places))


def file_slots(a: Assessment) -> Told:
    """How much deeper each slot is filed, for its string to come down."""
    amounts = []
    for i, string in enumerate(a.cut.strings):
        by = rounded_down(string.slot_by or 0.0, 2)
        if by > 0:
            amounts.append(Amount("slot_by", by, i, uncertainty=string.drop_known_to or 0.0))
    return Told(tuple(amounts))


def file_nut(a: Assessment) -> Told:
    """By how much and to which height each slot is filed; first to a stop above that, if it is far."""
    amounts = []
    for i, string in enumerate(a.cut.strings):
        if string.nut_to_file is None or string.nut_target is None or string.nut_to_file < WORTH_FILING:
            continue
        far = string.nut_to_file > FIRST_STOP_FROM
        known = string.nut_known_to or 0.0
        amounts.append(Amount("file_by", string.nut_to_file, i, uncertainty=known))
        amounts.append(Amount("file_first", string.nut_to_file - (FIRST_STOP if far else 0.0), i, uncertainty=known))
        amounts.append(Amount("file_to", string.nut_target, i))
    return Told(tuple(amounts))


def turn_wheels(a: Assessment) -> Told:
    """Turns of each wheel that bring the outer strings to their aims at the board's end."""
    state, last = a.state, a.state.count - 1
    keys = _unread(a, ("adjuster_spread", None), ("thread_pitch", None), ("end_height", 0), ("end_height", last))
    spread, thread = state.held("adjuster_spread"), state.held("thread_pitch")
    if keys or a.computed is None or spread is None or thread is None:
        return Told(keys=keys)
    read: list[MeasurementKey] = [
        ("adjuster_spread", None),
        ("thread_pitch", None),
        ("end_height", 0),
        ("end_height", last),
    ]
    by = partial(_legs_and_turns, a.computed)
    try:
        found, known = by(state), known_within(state, read, by)
    except CoreError:
        return Told()
    amounts: list[Amount] = []
    for i, side in enumerate(SIDES):
        leg = found[i]
        amounts.append(Amount("turns", found[2 + i], side=side, uncertainty=known[2 + i]))
        amounts.append(Amount("leg", leg, side=side, uncertainty=known[i]))
        room = state.held("wheel_room", i)
        if room is not None and not room.assumed and -leg > room.value + TOLERANCE:
            amounts.append(Amount("room", room.value, side=side))
    return Told(tuple(amounts))


def _legs_and_turns(computed: Computed, state: BenchState) -> list[float]:
    """How far each leg goes, then the turns of each wheel, bass side first. Raises CoreError where they cannot be."""
    spread, thread = state.held("adjuster_spread"), state.held("thread_pitch")
    changes = []
    for position in (0, state.count - 1):
        held, wanted = state.held("end_height", position), state.wanted_as_read(("end_height", position))
        if held is None or wanted is None:
            raise CoreError("end_height", sentence="the outer strings' heights are needed")
        off = (wanted.band.aim - held.value) * computed.board.carry / computed.board.squareness
        changes.append(StringChange(computed.plan.strings[position].line.bridge_offset, off))
    if spread is None or thread is None:
        raise CoreError("adjuster_spread", sentence="the wheels' spread and thread are needed")
    legs = adjuster_legs(bass_string=changes[0], treble_string=changes[1], adjuster_spread=spread.value)
    return [*legs, *(wheel_turns(leg=leg, thread_pitch=thread.value) for leg in legs)]


def fit_wedge(a: Assessment) -> Told:
    """How thick at the heel, and what that brings; each known as well as the projection is."""
    if a.projection is None:
        return Told(keys=_unread(a, ("projection", None)))
    judged, known = a.projection.judged, _share_of_projection(a)
    return Told(
        (
            Amount("at_heel", judged.change_at_heel, uncertainty=abs(judged.change_at_heel) * known),
            Amount("at_board_end", judged.change_at_board_end, uncertainty=abs(judged.change_at_board_end) * known),
            Amount("at_bridge", judged.change_at_bridge, uncertainty=abs(judged.change_at_bridge) * known),
        )
    )


def reset_neck(a: Assessment) -> Told:
    if a.projection is None:
        return Told()
    judged, known = a.projection.judged, _share_of_projection(a)
    return Told(
        (
            Amount("at_bridge", judged.change_at_bridge, uncertainty=abs(judged.change_at_bridge) * known),
            Amount("angle", judged.reset_angle, uncertainty=abs(judged.reset_angle) * known),
        )
    )


def _share_of_projection(a: Assessment) -> float:
    """What the projection is known to, as a share of the change that it wants: what follows from it has the same."""
    held = a.state.held("projection")
    change = 0.0 if a.projection is None else abs(a.projection.judged.change_at_bridge)
    return 0.0 if held is None or not change else held.resolution / change


def dress_board(a: Assessment) -> Told:
    """The most that comes off on each side."""
    planned = dressings(a.state)
    sides = planned or range(2)
    read: list[MeasurementKey] = [("relief", side * 3 + i) for side in sides for i in range(3)]
    known = known_within(a.state, read, _most_off) if planned else ()
    return Told(
        tuple(
            Amount("most_off", plan.max_removal, side=SIDES[side], uncertainty=known_to)
            for (side, plan), known_to in zip(planned.items(), known, strict=True)
        ),
        () if planned else _unread(a, *read),
    )


def _most_off(state: BenchState) -> list[float]:
    return [plan.max_removal for plan in dressings(state).values()]


def new_bridge(a: Assessment) -> Told:
    """The width of blank whose foot comes best over the bar."""
    bar, foot = a.state.known("bar_inset"), a.state.known("bridge_foot_width")
    wanted, widths = a.state.targets.figure("bar_inset"), sorted(a.blanks)
    if bar is None or foot is None or wanted is None or not widths:
        return Told()
    insets = bar_insets(foot_width=foot.value, bar_inset=bar.value, widths=widths)
    choices = [BlankChoice(width, inset) for width, inset in zip(widths, insets, strict=True)]
    best = nearest_blank(choices=choices, bar_inset_target=wanted.band.aim)
    return Told() if best is None else Told((Amount("width", best.width),))


def recut_slots(a: Assessment) -> Told:
    """How much closer the strings stand on each side than wanted, and the new marks from the lowest string."""
    spread, wanted = a.state.held("bridge_spread"), a.state.wanted(("bridge_spread", None))
    if spread is None or wanted is None or not a.state.diameters:
        return Told()
    target = wanted.band.aim if spread.value < wanted.band.low else spread.value
    try:
        offsets = string_offsets(spread=target, diameters=a.state.diameters, rule=a.state.targets.spacing)
    except CoreError:
        return Told()
    marks = [0.0]
    for left, right in pairwise(offsets):
        marks.append(marks[-1] + right - left)
    return Told(
        (
            Amount("closer", max(0.0, (target - spread.value) / 2), uncertainty=spread.resolution / 2),
            *(Amount("mark", mark, i) for i, mark in enumerate(marks)),
        )
    )


def move_bridge(a: Assessment) -> Told:
    """How far, toward the tailpiece positive: by the school that was chosen, or back to last time's string length."""
    asked = a.question("bridge_place")
    if asked is not None and asked.outcome is not None:
        school = next((one for one in SCHOOLS if one == asked.outcome.outcome), None)
        place = None if school is None else placed(a.state).get(school)
        if school is None or place is None:
            return Told()
        (known,) = known_within(a.state, _TELL_PLACE, partial(_shift_by, school, place.shift))
        return Told((Amount("move", place.shift, uncertainty=known),))
    length, before = a.state.held("string_length"), a.state.last_time.get(("string_length", None))
    if length is None or length.assumed or before is None or "bridge_walked" not in a.signs:
        return Told()
    known = math.hypot(length.resolution, single_known_to("string_length", before.tool))
    return Told((Amount("move", before.value - length.value, uncertainty=known),))


_TELL_PLACE: tuple[MeasurementKey, ...] = (
    *((measure, None) for measure in ("old_footprint", "string_length", "neck_length")),
    *(("stop_length", 0), ("nick_stop", 0), ("nick_stop", 1)),
)
"""The readings that a bridge's place follows from, whichever the school."""


def _shift_by(school: PlaceSchool, otherwise: float, state: BenchState) -> list[float]:
    place = placed(state).get(school)
    return [otherwise if place is None else place.shift]


def move_tailpiece(a: Assessment) -> Told:
    """How far, toward the saddle positive, by the school that was chosen."""
    keys = _unread(a, ("afterlength", None), ("saddle_gap", None))
    length, after, gap = a.state.held("string_length"), a.state.held("afterlength"), a.state.held("saddle_gap")
    asked = a.question("afterlength")
    if keys or length is None or after is None or gap is None:
        return Told(keys=keys)
    chosen = None if asked is None or asked.outcome is None else asked.outcome.outcome
    divisor = a.state.targets.figure("afterlength_divisor")
    plan = plan_afterlength(
        string_length=length.value,
        measured=after.value,
        saddle_gap=gap.value,
        min_saddle_gap=FREE_AT_SADDLE,
        divisor=None if chosen == "to_saddle" or divisor is None else divisor.band.aim,
    )
    whole = 1.0 if chosen == "to_saddle" or divisor is None else divisor.band.aim
    of_length = 0.0 if chosen == "to_saddle" else length.resolution / whole
    known = math.hypot(gap.resolution if chosen == "to_saddle" else after.resolution, of_length)
    return Told((Amount("move", plan.best - after.value, uncertainty=known),))


def mark_line(a: Assessment) -> Told:
    """Over the board's line at the bridge, each string as its target has it."""
    marks = [string.target_mark for string in a.cut.strings]
    if a.computed is not None:
        marks = [target.mark_height for target in a.computed.plan.strings]
    return Told(tuple(Amount("mark_height", mark, i) for i, mark in enumerate(marks) if mark is not None))


def set_post(a: Assessment) -> Told:
    """Where the school wants its top."""
    target = post_target(a.state)
    if target is None:
        return Told()
    diameter = a.state.targets.figure("post_diameter")
    stated: PostSide = next((side for side in POST_SIDES if side == a.chosen["post_statement"]), "near")
    to = partial(stated_to, side=stated, post_diameter=0.0 if diameter is None else diameter.band.aim)
    return Told((Amount("setback", to(near=target.setback)), Amount("inset", to(near=target.inset))))


def fill_slot(a: Assessment) -> Told:
    """How much is missing under each string that is too low at the nut."""
    amounts = []
    for i in range(a.state.count):
        held, wanted = a.state.held("nut_height", i), a.state.wanted_as_read(("nut_height", i))
        if held is not None and not held.assumed and wanted is not None and held.value < wanted.band.low:
            amounts.append(Amount("height_added", wanted.band.aim - held.value, i, uncertainty=held.resolution))
    return Told(tuple(amounts))


AMOUNTS: Mapping[InstructionCode, Callable[[Assessment], Told]] = {
    "cut_crown": cut_crown,
    "lower_crown": lower_crown,
    "file_slots": file_slots,
    "file_nut": file_nut,
    "turn_wheels": turn_wheels,
    "fit_wedge": fit_wedge,
    "reset_neck": reset_neck,
    "dress_board": dress_board,
    "new_bridge": new_bridge,
    "recut_slots": recut_slots,
    "move_tailpiece": move_tailpiece,
    "move_bridge": move_bridge,
    "mark_line": mark_line,
    "set_post": set_post,
    "refit_post": set_post,
    "fill_slot": fill_slot,
    "new_nut": fill_slot,
}


def told(a: Assessment, code: InstructionCode) -> Told:
    """The amounts of an instruction; empty for one that has none."""
    if code not in instructions():
        raise KeyError(code)
    find = AMOUNTS.get(code)
    return Told() if find is None else find(a)


def keys_of_card(a: Assessment, measures: Sequence[MeasureCode]) -> list[MeasurementKey]:
    """Every place of some measures, low string first."""
    found: list[MeasurementKey] = []
    for measure in measures:
        if measure in ("end_height", "nut_height", "slot_depth"):
            found += [(measure, i) for i in range(a.state.count)]
        else:
            found.append((measure, None))
    return found
