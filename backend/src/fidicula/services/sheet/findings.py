"""What readings say together, as findings: how the board leans, where the neck points, how the strings are spaced."""

from __future__ import annotations

import math
from dataclasses import dataclass

from fidicula.core.errors import CoreError
from fidicula.core.geometry.neck import board_tilt, neck_off_middle, width_drawn_out
from fidicula.core.geometry.spacing import SpacingJudgement, judge_spacing, string_offsets
from fidicula.services.sheet.derived import spaced
from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.model import FoundView

AS_GOOD_AS_NONE = 0.05
"""Less than this is said to be none. [mm]"""


@dataclass(frozen=True)
class Spacing:
    """Where the strings sit, as read. [mm]

    offsets : of their middles from the wood's middle; from the middle of the group where no edge was read.
    by_edge : whether the wood's edge was read too, so that a sway can be told.  judged : against the shop's rule.
    """

    offsets: tuple[float, ...]
    by_edge: bool
    judged: SpacingJudgement


def findings(state: BenchState) -> list[FoundView]:
    """One for each that was read, with the measures that it rests on."""
    return [found for found in (_tilt(state), _direction(state), *(_spaced(state, where) for where in WHERE)) if found]


WHERE = ("nut", "bridge")


def tilt(state: BenchState) -> float | None:
    """How far the board leans, positive where it is up on the treble side; None where its edges are not read. [°]"""
    bass, treble = state.held("edge_projection", 0), state.held("edge_projection", 1)
    if bass is None or treble is None:
        return None
    width = _width_at_bridge(state)
    if width is None:
        return None
    try:
        return board_tilt(bass_edge=bass.value, treble_edge=treble.value, width=width)
    except CoreError:
        return None


def off_middle(state: BenchState) -> float | None:
    """How far the board's line passes the middle of the nicks, positive on the bass side; None unread. [mm]"""
    bass, treble = state.held("neck_to_nick", 0), state.held("neck_to_nick", 1)
    if bass is None or treble is None:
        return None
    return neck_off_middle(bass_to_nick=bass.value, treble_to_nick=treble.value)


def spacing(state: BenchState, where: str) -> Spacing | None:
    """where : nut or bridge.  None where it was not read string by string."""
    found = spaced(where, state.standings, state.diameters, state.count)
    if found is None or not state.diameters:
        return None
    lowest, by_edge = -found.steps[-1] / 2, False
    width = state.read_or_figure("fingerboard_width", 0, figure="fingerboard_width_nut")
    margin = state.held("nut_margin", 0)
    if where == "nut" and width is not None:
        mark = found.mark if found.mark is not None else (None if margin is None else margin.value)
        if mark is not None:
            lowest, by_edge = mark - width.value / 2, True
    offsets = tuple(lowest + step for step in found.steps)
    try:
        wanted = string_offsets(
            spread=found.steps[-1],
            diameters=state.diameters,
            rule=state.targets.spacing,
            centre=(offsets[0] + offsets[-1]) / 2,
        )
        judged = judge_spacing(offsets=wanted, diameters=state.diameters, measured=offsets)
    except CoreError:
        return None
    return Spacing(offsets, by_edge, judged)


def _width_at_bridge(state: BenchState) -> float | None:
    nut = state.read_or_figure("fingerboard_width", 0, figure="fingerboard_width_nut")
    end = state.read_or_figure("fingerboard_width", 1, figure="fingerboard_width_end")
    board, length = state.held("fingerboard_length"), state.held("string_length")
    if nut is None or end is None or board is None or length is None:
        return None
    return width_drawn_out(
        at_nut=nut.value, at_end=end.value, fingerboard_length=board.value, string_length=length.value
    )


def _side(value: float, positive: str, negative: str) -> str:
    return positive if value > 0 else negative


def _tilt(state: BenchState) -> FoundView | None:
    leans = tilt(state)
    width = None if leans is None else _width_at_bridge(state)
    if leans is None or width is None:
        return None
    over = abs(math.tan(math.radians(leans)) * width)
    says = "The board lies level across."
    if over >= AS_GOOD_AS_NONE:
        side = _side(leans, "treble", "bass")
        says = (
            f"The board leans up on the {side} side: {over:.1f} mm over {width:.0f} mm at the bridge, {abs(leans):.1f}°"
            ". The crown follows it."
        )
    return FoundView("edge_projection", says)


def _direction(state: BenchState) -> FoundView | None:
    off = off_middle(state)
    if off is None:
        return None
    says = "The neck points to the middle between the nicks."
    if abs(off) >= AS_GOOD_AS_NONE:
        side = _side(off, "bass", "treble")
        says = (
            f"The neck points {abs(off):.1f} mm to the {side} side of the middle between the nicks: "
            "the bridge stands there, or the strings run off the board's middle."
        )
    return FoundView("neck_to_nick", says)


def _spaced(state: BenchState, where: str) -> FoundView | None:
    found = spacing(state, where)
    if found is None:
        return None
    gaps = ", ".join(f"{gap:.1f}" for gap in found.judged.gaps)
    says = f"Air between the strings at the {where}: {gaps}, uneven by {found.judged.unevenness:.1f}."
    worst = max(range(len(found.judged.deviations)), key=lambda i: abs(found.judged.deviations[i]))
    off = found.judged.deviations[worst]
    rule = "equal air" if state.targets.spacing == "equal_gaps" else "equal centres"
    if abs(off) >= AS_GOOD_AS_NONE:
        name = state.instrument.string_names[worst]
        says += f" For {rule}, {name} sits {abs(off):.1f} too far to the {_side(off, 'treble', 'bass')} side."
    if found.by_edge and abs(found.judged.sway) >= AS_GOOD_AS_NONE:
        side = _side(found.judged.sway, "treble", "bass")
        says += f" The group stands {abs(found.judged.sway):.1f} to the {side} side."
    return FoundView(f"spacing_{where}", says)
