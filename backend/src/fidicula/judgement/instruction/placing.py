"""Amounts of works that move something."""

from __future__ import annotations

import math
from functools import partial

from fidicula.core.fitting.bridge_place import PlaceSchool
from fidicula.core.fitting.post import POST_SIDES, PostSide, stated_to
from fidicula.core.fitting.tailpiece import plan_afterlength
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.held import single_known_to
from fidicula.judgement.assessment.placing import SCHOOLS, placed
from fidicula.judgement.assessment.post import post_target
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.instruction.model import Amount
from fidicula.judgement.instruction.told import Told, known_within, unread_of


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


def _shift_by(school: PlaceSchool, otherwise: float, state: BenchState) -> list[float]:
    place = placed(state).get(school)
    return [otherwise if place is None else place.shift]


def move_tailpiece(a: Assessment) -> Told:
    """How far, toward the saddle positive, by the school that was chosen."""
    keys = unread_of(a, ("afterlength", None), ("saddle_gap", None))
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


def set_post(a: Assessment) -> Told:
    """Where the school wants its top."""
    target = post_target(a.state)
    if target is None:
        return Told()
    diameter = a.state.targets.figure("post_diameter")
    stated: PostSide = next((side for side in POST_SIDES if side == a.chosen["post_statement"]), "near")
    to = partial(stated_to, side=stated, post_diameter=0.0 if diameter is None else diameter.band.aim)
    return Told((Amount("setback", to(near=target.setback)), Amount("inset", to(near=target.inset))))


FREE_AT_SADDLE = 1.0
"""What stays free between tailpiece and saddle. [mm]"""


_TELL_PLACE: tuple[MeasurementKey, ...] = (
    *((measure, None) for measure in ("old_footprint", "string_length", "neck_length")),
    *(("stop_length", 0), ("nick_stop", 0), ("nick_stop", 1)),
)
"""The readings that a bridge's place follows from, whichever the school."""
