"""What comes off a bridge, from how its strings stand to how they are wanted."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.core.errors import TOLERANCE, MismatchError
from fidicula.core.geometry.board import HeightDirection
from fidicula.core.geometry.bridge import BridgePlan, StringGoal, StringTarget
from fidicula.core.geometry.string_lines import (
    Board,
    StringLine,
    end_height_upright,
    mark_height,
    nut_height_upright,
)


@dataclass(frozen=True)
class StringState:
    """One string as it is now: heights at nut and board's end, and its slot's depth where known. [mm]"""

    nut_height: float
    end_height: float
    slot_depth: float | None = None


@dataclass(frozen=True)
class StringCut:
    """What has to happen at one string. [mm]

    cut : how far the string must come down at the bridge; negative where the bridge is too low.
    crown_cut : the wood to take off; None without the present slot's depth.
    old_slot_left : what remains of the old slot below the new crown; None where there is none to speak of. It is
        shallower than the slot that is wanted: the string would stay where it is until the slot is filed deeper.
    slot_to_file : how much deeper the slot is filed once the wood is off; None without the present slot's depth, and
        where the string must not come down.
    """

    cut: float
    crown_cut: float | None = None
    old_slot_left: float | None = None
    slot_to_file: float | None = None


def present_mark(
    *, board: Board, line: StringLine, state: StringState, height_direction: HeightDirection = "vertical"
) -> float:
    """Height of a string as it is now, over the board's line, along the bridge. [mm]

    board, line : the board and the string's way over it.  state : the heights as measured.
    height_direction : how they were measured. Raises DoesNotFitError.
    """
    return mark_height(
        board=board,
        nut_height=nut_height_upright(height=state.nut_height, direction=height_direction, board=board, line=line),
        end_height=end_height_upright(height=state.end_height, direction=height_direction, board=board, line=line),
    )


def string_cut(
    *,
    board: Board,
    target: StringTarget,
    state: StringState,
    diameter: float,
    slot_depth_ratio: float = 1 / 3,
    height_direction: HeightDirection = "vertical",
) -> StringCut:
    """What to take off at one string. [mm]

    board : the measured board.  target : the string at the wanted bridge.  state : as it is now.
    diameter : of the string, above 0. [mm]  slot_depth_ratio : of the slot wanted, 0 to 1.
    height_direction : how the state's heights were measured. Raises DoesNotFitError.
    """
    now = present_mark(board=board, line=target.line, state=state, height_direction=height_direction)
    cut = now - target.mark_height
    if state.slot_depth is None:
        return StringCut(cut=cut)
    wanted_slot = slot_depth_ratio * diameter
    crown_cut = cut + state.slot_depth - wanted_slot
    counts = state.slot_depth > TOLERANCE and crown_cut >= -TOLERANCE
    return StringCut(
        cut=cut,
        crown_cut=crown_cut,
        old_slot_left=max(0.0, wanted_slot - cut) if counts else None,
        slot_to_file=slot_to_file(cut=cut, crown_cut=crown_cut, slot_depth=state.slot_depth),
    )


def slot_to_file(*, cut: float, crown_cut: float, slot_depth: float) -> float | None:
    """How much deeper a slot is filed, once the wood beside it is off, for the string to come down. [mm]

    cut : the string's way down. [mm]  crown_cut : the wood to take; negative where a shallow slot only wants
    deepening. [mm]  slot_depth : at present, 0 or more. [mm]
    None where the string must not come down. Source: as long as some of the old slot is left, its floor stays where it
    is; wood that goes deeper than the old slot takes the string along.
    """
    if cut < -TOLERANCE:
        return None
    wood = max(0.0, crown_cut)
    return cut if slot_depth >= wood - TOLERANCE else slot_depth + cut - wood


def cuts_of_all(
    *,
    board: Board,
    plan: BridgePlan,
    goals: Sequence[StringGoal],
    current: Sequence[StringState],
    slot_depth_ratio: float = 1 / 3,
    height_direction: HeightDirection = "vertical",
) -> tuple[StringCut, ...]:
    """`string_cut` of every string, low string first. [mm]

    board, plan, goals : as planned.  current : shape (n_strings,), as measured now.
    slot_depth_ratio : 0 to 1.  height_direction : of the current heights.
    Raises MismatchError naming `current`, and DoesNotFitError.
    """
    if len(current) != len(goals):
        raise MismatchError(
            "current",
            sentence=f"{len(current)} strings were measured, but the instrument has {len(goals)}",
            value=len(current),
        )
    return tuple(
        string_cut(
            board=board,
            target=target,
            state=state,
            diameter=goal.diameter,
            slot_depth_ratio=slot_depth_ratio,
            height_direction=height_direction,
        )
        for target, state, goal in zip(plan.strings, current, goals, strict=True)
    )
