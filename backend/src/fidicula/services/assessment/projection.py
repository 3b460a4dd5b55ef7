"""What the core says of the projection that was measured."""

from __future__ import annotations

from dataclasses import dataclass

from fidicula.core.bands import Band, side_of_band
from fidicula.core.errors import CoreError
from fidicula.core.geometry.neck import ProjectionJudgement, judge_projection
from fidicula.services.assessment.state import BenchState


def accepted_of(state: BenchState) -> tuple[float | None, float | None]:
    """How low and how high a projection may be accepted with a reason; None on a side where it may not. [mm]"""
    accepted = state.targets.others.get("projection_accepted_high")
    return None, accepted.band.aim if accepted is not None and state.instrument.is_new else None


@dataclass(frozen=True)
class JudgedProjection:
    """A projection out of its band. value : as read. [mm]"""

    value: float
    band: Band
    judged: ProjectionJudgement


def judged_projection(state: BenchState) -> JudgedProjection | None:
    """None where it is in band, not known, or cannot be judged."""
    held, wanted = state.held("projection"), state.wanted(("projection", None))
    if held is None or held.assumed or wanted is None or state.singles is None:
        return None
    if side_of_band(value=held.value, band=wanted.band) == "in_band":
        return None
    others = state.targets.others
    neck = state.read_or_figure("neck_length")
    if neck is None:
        return None
    thickest = others.get("max_wedge_at_heel")
    accept_low, accept_high = accepted_of(state)
    try:
        judged = judge_projection(
            measured=held.value,
            band=wanted.band,
            string_length=state.singles["string_length"].value,
            neck_length=neck.value,
            fingerboard_length=state.singles["fingerboard_length"].value,
            accept_low=accept_low,
            accept_high=accept_high,
            **({} if thickest is None else {"max_wedge": thickest.band.aim}),
        )
    except CoreError:
        return None
    return JudgedProjection(held.value, wanted.band, judged)
