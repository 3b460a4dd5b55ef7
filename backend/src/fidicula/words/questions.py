"""What is said of the questions that somebody has to decide."""

from __future__ import annotations

from fidicula.core.geometry.neck import ProjectionJudgement
from fidicula.judgement.assessment.projection import JudgedProjection
from fidicula.numerals import number, signed
from fidicula.words.numbers import band


def projection_title(title: str, out: JudgedProjection) -> str:
    side = "below" if out.judged.state == "low" else "above"
    return f"{title} {number(out.value)}, {side} {band(out.band.low, out.band.high)}"


def remedy(outcome: str, judged: ProjectionJudgement | None) -> str:
    """What a remedy at the projection takes."""
    if judged is None:
        return ""
    if outcome == "wedge":
        return (
            f"{number(judged.change_at_heel)} at the heel, {number(judged.change_at_board_end)} at the board's end; "
            f"the board turns by {number(judged.wedge_angle, 2)}°"
        )
    if outcome == "reset":
        return f"{signed(judged.change_at_bridge)} at the bridge; the neck turns by {number(judged.reset_angle, 2)}°"
    return ""
