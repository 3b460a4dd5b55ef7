"""What the core says of the projection that was measured."""

from __future__ import annotations

from dataclasses import dataclass

from fidicula.core.bands import Band, outside_by
from fidicula.core.errors import CoreError
from fidicula.core.geometry.neck import ProjectionJudgement, judge_projection
from fidicula.judgement.assessment.state import BenchState


def accepted_of(state: BenchState) -> tuple[float | None, float | None]:
    """How low and how high a projection may be accepted with a reason; None on a side where it may not. [mm]"""
    accepted = state.targets.figure("projection_accepted_high")
    return None, accepted.band.aim if accepted is not None and state.instrument.is_new else None


@dataclass(frozen=True)
class JudgedProjection:
    """A projection out of its band. value : as read. [mm]"""

    value: float
    band: Band
    judged: ProjectionJudgement


READ_SO_OFTEN = 4
"""A projection at the edge of its band is read up to so many times."""


def is_unsure(state: BenchState) -> bool:
    """Whether it was read out of its band by less than its readings tell, and not often yet: another one says more."""
    held, wanted = state.held("projection"), state.wanted(("projection", None))
    stand = state.reading_states.get(("projection", None))
    if held is None or held.assumed or wanted is None or stand is None or stand.state != "current":
        return False
    return 0 < abs(outside_by(value=held.value, band=wanted.band)) <= held.resolution and stand.count < READ_SO_OFTEN


def judged_projection(state: BenchState) -> JudgedProjection | None:
    """None where it is in band as far as its readings tell, not known, or cannot be judged."""
    held, wanted = state.held("projection"), state.wanted(("projection", None))
    if held is None or held.assumed or wanted is None or state.singles is None:
        return None
    if abs(outside_by(value=held.value, band=wanted.band)) <= held.resolution:
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
