"""What readings say together, as findings: where the neck points, how the strings are spaced."""

from __future__ import annotations

from dataclasses import dataclass

from fidicula.core.errors import CoreError
from fidicula.core.geometry.neck import neck_off_middle
from fidicula.core.geometry.spacing import SpacingJudgement, judge_spacing, string_offsets
from fidicula.judgement.assessment.derived import Where, spaced
from fidicula.judgement.assessment.state import BenchState


@dataclass(frozen=True)
class Spacing:
    """Where the strings sit, as read. [mm]

    offsets : of their middles from the wood's middle; from the middle of the group where no edge was read.
    by_edge : whether the wood's edge was read too, so that a sway can be told.  judged : against the shop's rule.
    """

    offsets: tuple[float, ...]
    by_edge: bool
    judged: SpacingJudgement


WHERE: tuple[Where, Where] = ("nut", "bridge")


def off_middle(state: BenchState) -> float | None:
    """How far the board's line passes the middle of the nicks, positive on the bass side; None unread. [mm]"""
    bass, treble = state.held("neck_to_nick", 0), state.held("neck_to_nick", 1)
    if bass is None or treble is None:
        return None
    return neck_off_middle(bass_to_nick=bass.value, treble_to_nick=treble.value)


def spacing(state: BenchState, where: Where) -> Spacing | None:
    """where : nut or bridge.  None where it was not read string by string."""
    found = spaced(where, state.reading_states, state.diameters, state.count)
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
