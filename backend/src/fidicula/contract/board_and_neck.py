"""fingerboard, stop, projection: the board's scoop, the neck and its line."""

from __future__ import annotations

from typing import Literal

from pydantic import Field

from fidicula.contract.quantities import (
    Answer,
    Gap,
    Height,
    Length,
    Pair,
    RatioPart,
    Relief,
    Thickness,
    Tolerance,
    Wire,
)
from fidicula.core.bands import Band
from fidicula.core.errors import TOLERANCE, CoreError
from fidicula.core.geometry.neck import judge_projection, judge_stop
from fidicula.core.geometry.scoop import BoardFault, Station, plan_dressing, radius_of_arc


class StationIn(Wire):
    x: float
    gap: Gap


class FingerboardRequest(Wire):
    fingerboard_length: Length
    stations: list[StationIn]
    target_relief: Relief
    tolerance: Tolerance = 0.15
    thickness: Thickness | None = None
    min_thickness: Thickness | None = None
    cross_chord: Length | None = None
    cross_sagitta: Thickness | None = None


class StationOut(Answer):
    x: float
    gap: float
    target_gap: float
    removal: float


class FingerboardAnswer(Answer):
    relief: float
    relief_at: float
    faults: list[BoardFault]
    stations: list[StationOut]
    base_removal: float
    max_removal: float
    projection_change: float
    thickness_after: float | None = None
    too_thin: bool | None = None
    radius: float | None = None


def compute_fingerboard(request: FingerboardRequest) -> FingerboardAnswer:
    plan = plan_dressing(
        fingerboard_length=request.fingerboard_length,
        stations=[Station(s.x, s.gap) for s in request.stations],
        target_relief=request.target_relief,
        tolerance=request.tolerance,
    )
    answer = FingerboardAnswer(
        relief=plan.relief,
        relief_at=plan.relief_at,
        faults=list(plan.faults),
        stations=[StationOut(x=s.x, gap=s.gap, target_gap=s.target_gap, removal=s.removal) for s in plan.stations],
        base_removal=plan.base_removal,
        max_removal=plan.max_removal,
        projection_change=-plan.base_removal,
    )
    if request.thickness is not None:
        answer.thickness_after = request.thickness - plan.max_removal
        if request.min_thickness is not None:
            answer.too_thin = answer.thickness_after < request.min_thickness - TOLERANCE
    if request.cross_chord is not None and request.cross_sagitta is not None:
        answer.radius = radius_of_arc(chord=request.cross_chord, sagitta=request.cross_sagitta)
    return answer


class StopRequest(Wire):
    neck_length: Length
    stop_length: Length
    string_length: Length
    ratio: Pair[RatioPart] = Field(default=[2, 3])
    nominal_string_length: Length | None = None


class StopAnswer(Answer):
    neck_to_stop: float
    ideal_stop: float
    bridge_shift: float
    string_length_after: float
    edge_interval: float
    string_length_deviation: float | None = None
    octave_shift: float | None = None


def compute_stop(request: StopRequest) -> StopAnswer:
    judged = judge_stop(
        neck_length=request.neck_length,
        stop_length=request.stop_length,
        string_length=request.string_length,
        ratio=(request.ratio[0], request.ratio[1]),
        nominal_string_length=request.nominal_string_length,
    )
    return StopAnswer(
        neck_to_stop=judged.neck_to_stop,
        ideal_stop=judged.ideal_stop,
        bridge_shift=judged.bridge_shift,
        string_length_after=judged.string_length_after,
        edge_interval=judged.edge_interval,
        string_length_deviation=judged.deviation,
        octave_shift=None if judged.deviation is None else judged.deviation / 2,
    )


class ProjectionRequest(Wire):
    measured: Length
    low: Length
    high: Length
    aim: Length | None = None
    accept_low: Length | None = None
    accept_high: Length | None = None
    string_length: Length
    neck_length: Length
    fingerboard_length: Length
    max_wedge: Height = 1.2


class ProjectionAnswer(Answer):
    state: Literal["low", "in_band", "high"]
    change_at_bridge: float
    change_at_heel: float
    change_at_board_end: float
    wedge_angle: float
    reset_angle: float
    remedy: Literal["none", "accept_with_reason", "wedge", "neck_reset"]


def compute_projection(request: ProjectionRequest) -> ProjectionAnswer:
    if request.low > request.high + TOLERANCE:
        raise CoreError("high", sentence=f"the band's high end {request.high:g} is under its low end {request.low:g}")
    aim = (request.low + request.high) / 2 if request.aim is None else request.aim
    if not request.low - TOLERANCE <= aim <= request.high + TOLERANCE:
        raise CoreError("aim", sentence=f"the aim {aim:g} is outside its band {request.low:g} to {request.high:g}")
    band = Band(min(request.low, aim), aim, max(request.high, aim))
    judged = judge_projection(
        measured=request.measured,
        band=band,
        string_length=request.string_length,
        neck_length=request.neck_length,
        fingerboard_length=request.fingerboard_length,
        accept_low=request.accept_low,
        accept_high=request.accept_high,
        max_wedge=request.max_wedge,
    )
    return ProjectionAnswer(**vars(judged))
