"""spacing: where strings sit across a nut or a bridge."""

from __future__ import annotations

from fidicula.contract.quantities import Answer, Diameter, Length, Offset, Strings, Wire
from fidicula.core.geometry.spacing import SpacingRule, edge_gaps, judge_spacing, margins, string_offsets


class SpacingRequest(Wire):
    spread: Length
    diameters: Strings[Diameter]
    rule: SpacingRule = "equal_gaps"
    centre: Offset = 0.0
    width: Length | None = None
    measured: list[Offset] | None = None


class SpacingAnswer(Answer):
    offsets: list[float]
    gaps: list[float]
    marks: list[float] | None = None
    margin_bass: float | None = None
    margin_treble: float | None = None
    deviations: list[float] | None = None
    measured_gaps: list[float] | None = None
    gap_unevenness: float | None = None
    sway: float | None = None


def compute_spacing(request: SpacingRequest) -> SpacingAnswer:
    offsets = string_offsets(
        spread=request.spread, diameters=request.diameters, rule=request.rule, centre=request.centre
    )
    answer = SpacingAnswer(offsets=list(offsets), gaps=list(edge_gaps(offsets=offsets, diameters=request.diameters)))
    if request.width is not None:
        sides = margins(offsets=offsets, diameters=request.diameters, width=request.width)
        answer.marks = list(sides.marks)
        answer.margin_bass = sides.bass
        answer.margin_treble = sides.treble
    if request.measured is not None:
        judged = judge_spacing(offsets=offsets, diameters=request.diameters, measured=request.measured)
        answer.deviations = list(judged.deviations)
        answer.measured_gaps = list(judged.gaps)
        answer.gap_unevenness = judged.unevenness
        answer.sway = judged.sway
    return answer
