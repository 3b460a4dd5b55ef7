"""How the strings fall on both sides of the bridge, by what is read of the body, or by the angle over the bridge."""

from __future__ import annotations

from dataclasses import dataclass

from fidicula.core.mechanics.load import BodyGeometry, BridgeAngles, angles_of
from fidicula.judgement.assessment.computing import Computed, compute
from fidicula.judgement.assessment.held import ResolvedValue
from fidicula.judgement.assessment.state import BenchState


@dataclass(frozen=True)
class Body:
    """What is read of the body for the angles, over the plane of the ribs. [mm]"""

    arch: ResolvedValue
    board_at_edge: ResolvedValue
    saddle: ResolvedValue
    bridge_to_saddle: ResolvedValue
    stop: ResolvedValue


def body_of(state: BenchState) -> Body | None:
    """None where one of the heights is not read."""
    read = [state.held(measure) for measure in ("arch_height", "board_at_edge", "saddle_height", "bridge_to_saddle")]
    stop = state.read_or_figure("stop_length", 0, figure="stop_length")
    known = [one for one in (*read, stop) if one is not None]
    return Body(*known) if len(known) == 5 else None


def body_geometry(
    body: Body,
    computed: Computed,
    *,
    crown_heights: tuple[float, ...],
    mark_heights: tuple[float, ...],
    projection: float | None = None,
    saddle: float | None = None,
) -> BodyGeometry:
    """crown_heights, mark_heights : of the inner strings, as they are or as they are wanted. [mm]

    projection, saddle : tried instead of what is read. [mm]
    """
    at = computed.board.projection if projection is None else projection
    raised = at - computed.board.projection
    return BodyGeometry(
        arch_height=body.arch.value,
        projection=at,
        board_height_at_edge=body.board_at_edge.value,
        stop_length=body.stop.value,
        clearance_at_bridge=sum(mark_heights) / len(mark_heights),
        nut_height=sum(goal.nut_height for goal in computed.goals) / len(computed.goals),
        crown_height=max(crown_heights) + raised,
        saddle_height=body.saddle.value if saddle is None else saddle,
        bridge_to_saddle=body.bridge_to_saddle.value,
    )


def present_or_wanted(computed: Computed) -> tuple[tuple[float, ...], tuple[float, ...], bool]:
    """Crown and mark heights of the inner strings, and whether they are those of the crown that is there. [mm]

    What presses on the top now follows from the crown as it is; only where that is not read, from the wanted one.
    """
    middle = len(computed.plan.strings) // 2
    pairs = list(zip(computed.plan.strings, computed.results, strict=True))[middle - 1 : middle + 1]
    present = [
        (target.crown_height + result.cut.crown_cut, target.mark_height + result.cut.cut)
        for target, result in pairs
        if result is not None and result.cut.crown_cut is not None
    ]
    if len(present) == len(pairs):
        return tuple(crown for crown, _ in present), tuple(mark for _, mark in present), True
    wanted = [(target.crown_height, target.mark_height) for target, _ in pairs]
    return tuple(crown for crown, _ in wanted), tuple(mark for _, mark in wanted), False


def present_angles(state: BenchState, computed: Computed | None) -> BridgeAngles | None:
    """The strings' angles on both sides of the bridge as it is; None where nothing of it is read. [degrees]"""
    body = None if computed is None else body_of(state)
    if computed is not None and body is not None:
        crowns, marks, _ = present_or_wanted(computed)
        geometry = body_geometry(body, computed, crown_heights=crowns, mark_heights=marks)
        return angles_of(geometry=geometry, string_length=computed.board.string_length)
    over = state.held("break_angle")
    return None if over is None else BridgeAngles.halved(over.value)


def halving_lean(state: BenchState) -> float | None:
    """How far a bridge leans that halves the strings' angle, toward the tailpiece positive; None unread. [degrees]"""
    if body_of(state) is None:
        return None
    found = compute(state)
    angles = present_angles(state, found if isinstance(found, Computed) else None)
    return None if angles is None else angles.halving_lean
