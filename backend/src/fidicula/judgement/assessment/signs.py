"""The signs of one instrument: what its readings, the door and somebody's eyes say, by the names of the tables."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from datetime import date, timedelta

from fidicula.codes import SignCode
from fidicula.core.bands import side_of_band
from fidicula.core.errors import TOLERANCE
from fidicula.core.fitting.bridge_place import PlaceSchool
from fidicula.core.fitting.tailpiece import afterlength_is_near
from fidicula.core.geometry.neck import ProjectionJudgement, Remedy
from fidicula.core.geometry.scoop import BoardFault
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.readings import Reading
from fidicula.domain.visits import Visit
from fidicula.judgement.assessment.deadline import no_risk_from
from fidicula.judgement.assessment.edges import unsure_heights, unsure_nuts
from fidicula.judgement.assessment.findings import spacing
from fidicula.judgement.assessment.inspection import open_findings
from fidicula.judgement.assessment.model import CutFacts
from fidicula.judgement.assessment.placing import SCHOOLS, is_beside, leans_forward, placed
from fidicula.judgement.assessment.scoop import dressings, is_too_thin
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.assessment.thresholds import (
    NEAR_ENOUGH_BEHIND,
    SAME_PROJECTION,
    UNEVEN_SHARE,
    WALKED_SHARE,
    WORTH_FILING,
    WORTH_MOVING,
    WORTH_TAKING,
    end_bands,
)
from fidicula.tables.signs import sign_code

SOME_DAYS = timedelta(hours=44)
"""Between two readings of the projection that say that an instrument has settled: two mornings, two days apart."""

_FAULT_SIGNS: Mapping[BoardFault, SignCode] = {
    "hump": "board_hump",
    "wave": "board_wave",
    "too_flat": "board_flat",
    "too_deep": "board_deep",
}
_REMEDY_SIGNS: Mapping[Remedy, SignCode] = {
    "wedge": "remedy_wedge",
    "accept_with_reason": "remedy_accept",
    "neck_reset": "remedy_reset",
}


def signs_of(
    state: BenchState,
    visit: Visit,
    cut: CutFacts,
    judged: ProjectionJudgement | None,
    *,
    today: date,
) -> frozenset[SignCode]:
    """Every sign that shows. today : where the shop is."""
    return frozenset(
        [
            *_of_door(state, visit, today),
            *_of_projection(state, judged),
            *_of_place(state),
            *_of_readings(state, cut),
            *open_findings(state),
        ]
    )


def _of_door(state: BenchState, visit: Visit, today: date) -> Iterator[SignCode]:
    if visit.climate:
        yield sign_code(f"came_{visit.climate}")
    begins = no_risk_from(visit)
    if begins is not None and visit.deadline is not None and begins <= today <= visit.deadline:
        yield "in_freeze"
    if visit.kind in ("look_over", "sound", "new_bridge", "strings"):
        yield sign_code(f"kind_{visit.kind}")
    if state.instrument.is_fleet:
        yield "fleet"


def _of_projection(state: BenchState, judged: ProjectionJudgement | None) -> Iterator[SignCode]:
    if _has_settled([r for r in state.projections if not r.taken_back and (r.doubt is None or r.confirmed)]):
        yield "air_same"
    if judged is not None:
        yield sign_code(f"projection_{judged.state}")
        if judged.remedy in _REMEDY_SIGNS:
            yield _REMEDY_SIGNS[judged.remedy]


_TOLD_BY_SCHOOL: Mapping[PlaceSchool, SignCode] = {
    "nicks": "nicks_told",
    "third": "nicks_told",
    "ratio": "ratio_told",
    "length": "length_told",
    "footprint": "print_told",
}


def _of_place(state: BenchState) -> Iterator[SignCode]:
    """Where the bridge stands and leans. Its place is asked about only where the recipe's own school can tell it."""
    school = next((one for one in SCHOOLS if one == state.targets.schools["bridge_place"]), None)
    if school is not None and is_beside(state, school):
        yield "bridge_beside_place"
        yield sign_code(f"place_by_{school}")
    yield from sorted(
        {_TOLD_BY_SCHOOL[one] for one, place in placed(state).items() if abs(place.shift) >= WORTH_MOVING}
    )
    if leans_forward(state):
        yield "bridge_leans"


def _has_settled(readings: list[Reading]) -> bool:
    """Whether the newest reading says the same as one of some days before."""
    if not readings:
        return False
    last = max(readings, key=lambda reading: (reading.after_work or 0, reading.number))
    return any(
        last.taken_at - earlier.taken_at >= SOME_DAYS and abs(last.value - earlier.value) <= SAME_PROJECTION
        for earlier in readings
    )


def _of_readings(state: BenchState, cut: CutFacts) -> Iterator[SignCode]:
    if any(_stands(state, ("end_height", i), "above") for i in range(state.count)):
        yield "ends_high"
    unsure = set(unsure_nuts(state))
    if any(_stands(state, ("nut_height", i), "below") and ("nut_height", i) not in unsure for i in range(state.count)):
        yield "nut_low"
    planned = dressings(state)
    yield from sorted({_FAULT_SIGNS[fault] for plan in planned.values() for fault in plan.faults})
    if is_too_thin(state, planned):
        yield "board_thin"
    if any(_stands(state, ("bar_inset", None), where) for where in ("below", "above")):
        yield "bar_off"
    if _afterlength_is_off(state):
        yield "afterlength_off"
    if spacing_is_off(state):
        yield "spacing_off"
    adjusters = state.held("adjuster_spread")
    if adjusters is not None and not adjusters.assumed:
        yield "has_adjusters"
    if any((s.nut_to_file or 0.0) >= WORTH_FILING for s in cut.strings):
        yield "nut_high"
    for i, diameter in enumerate(state.diameters):
        slot = state.held("slot_depth", i)
        if slot is not None and not slot.assumed and slot.value > diameter / 2 + slot.resolution:
            yield "slot_deep"
            break
    if _is_bridge_low(state, cut):
        yield "bridge_low"
    length, before = state.held("string_length"), state.last_time.get(("string_length", None))
    if (
        length is not None
        and not length.assumed
        and before is not None
        and abs(length.value - before.value) > WALKED_SHARE * before.value
    ):
        yield "bridge_walked"


def _is_bridge_low(state: BenchState, cut: CutFacts) -> bool:
    """Whether a string lies below its band, and no wood is left to take it from: not one that is unsure."""
    unsure = set(unsure_heights(state, cut))
    for i, (string, band) in enumerate(zip(cut.strings, end_bands(state, cut), strict=True)):
        held = state.held("end_height", i)
        if held is None or band is None or string.wood is None or ("end_height", i) in unsure:
            continue
        if string.wood <= -WORTH_TAKING and side_of_band(value=held.value, band=band) == "below":
            return True
    return False


def _afterlength_is_off(state: BenchState) -> bool:
    """Whether it is no sixth, where that is the school; all the way to the saddle is right whatever comes of it."""
    after, length = state.held("afterlength"), state.held("string_length")
    divisor = state.targets.figure("afterlength_divisor")
    if after is None or length is None or divisor is None:
        return False
    return not afterlength_is_near(
        string_length=length.value, afterlength=after.value, divisor=divisor.band.aim, share=NEAR_ENOUGH_BEHIND
    )


def spacing_is_off(state: BenchState) -> bool:
    """Whether the strings stand closer together at the bridge than wanted, or unevenly."""
    spread, wanted = state.held("bridge_spread"), state.wanted(("bridge_spread", None))
    if spread is not None and not spread.assumed and wanted is not None and spread.value < wanted.band.low - TOLERANCE:
        return True
    found = spacing(state, "bridge")
    if found is None:
        return False
    step = (found.offsets[-1] - found.offsets[0]) / (len(found.offsets) - 1)
    return max(abs(off) for off in found.judged.deviations) > UNEVEN_SHARE * step


def _stands(state: BenchState, place: MeasurementKey, where: str) -> bool:
    stand, wanted = state.reading_states.get(place), state.wanted_as_read(place)
    usable = stand.usable if stand is not None else None
    return usable is not None and wanted is not None and side_of_band(value=usable, band=wanted.band) == where
