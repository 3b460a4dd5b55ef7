"""The amounts of each instruction, from the facts; and what has to be measured where they cannot be told."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from functools import partial
from itertools import pairwise

from fidicula.codes import InstructionCode, MeasureCode
from fidicula.core.errors import TOLERANCE, CoreError
from fidicula.core.fitting.post import BlankChoice, bar_insets, nearest_blank
from fidicula.core.fitting.tailpiece import StringChange, adjuster_legs, wheel_turns
from fidicula.core.geometry.spacing import string_offsets
from fidicula.core.readings.states import MeasurementKey
from fidicula.core.rounding import rounded_down
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.computing import Computed
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.assessment.thresholds import (
    FIRST_STOP,
    FIRST_STOP_FROM,
    WORTH_FILING,
    WORTH_LOWERING,
    WORTH_TAKING,
)
from fidicula.judgement.instruction.model import Amount
from fidicula.judgement.instruction.neck_and_board import (
    dress_board,
    fit_wedge,
    reset_neck,
)
from fidicula.judgement.instruction.placing import move_bridge, move_tailpiece, set_post
from fidicula.judgement.instruction.told import SIDES, Told, known_within, unread_of
from fidicula.tables.workflow import instructions

SMALLEST_MOVE = 0.5
"""A tailpiece that is nearer than this to its place is left. [mm]"""


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
    keys = unread_of(a, ("adjuster_spread", None), ("thread_pitch", None), ("end_height", 0), ("end_height", last))
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


def mark_line(a: Assessment) -> Told:
    """Over the board's line at the bridge, each string as its target has it."""
    marks = [string.target_mark for string in a.cut.strings]
    if a.computed is not None:
        marks = [target.mark_height for target in a.computed.plan.strings]
    return Told(tuple(Amount("mark_height", mark, i) for i, mark in enumerate(marks) if mark is not None))


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
