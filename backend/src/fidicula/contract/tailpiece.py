"""afterlength, adjusters and gauge: behind the bridge, under it, and which string next."""

from __future__ import annotations

from typing import Literal

from fidicula.contract.quantities import Answer, Cents, Height, Length, Offset, Tension, Thickness, WheelChange, Wire
from fidicula.core.fitting.tailpiece import (
    StringChange,
    adjuster_legs,
    nearest_gauge,
    plan_afterlength,
    wanted_tension,
)


class AfterlengthRequest(Wire):
    string_length: Length
    measured: Length
    saddle_gap: Height
    min_saddle_gap: Height = 1.0
    rule: Literal["fraction", "to_saddle"] = "fraction"
    divisor: Thickness = 6


class AfterlengthAnswer(Answer):
    target: float
    shift_to_saddle: float
    reachable: bool
    best: float


def compute_afterlength(request: AfterlengthRequest) -> AfterlengthAnswer:
    plan = plan_afterlength(
        string_length=request.string_length,
        measured=request.measured,
        saddle_gap=request.saddle_gap,
        min_saddle_gap=request.min_saddle_gap,
        divisor=request.divisor if request.rule == "fraction" else None,
    )
    return AfterlengthAnswer(**vars(plan))


class AdjustedString(Wire):
    bridge_offset: Offset
    change: WheelChange


class AdjustersRequest(Wire):
    bass_string: AdjustedString
    treble_string: AdjustedString
    adjuster_spread: Length
    thread_pitch: Thickness


class AdjustersAnswer(Answer):
    bass_leg: float
    treble_leg: float
    bass_turns: float
    treble_turns: float


def compute_adjusters(request: AdjustersRequest) -> AdjustersAnswer:
    bass, treble = adjuster_legs(
        bass_string=StringChange(**vars(request.bass_string)),
        treble_string=StringChange(**vars(request.treble_string)),
        adjuster_spread=request.adjuster_spread,
    )
    return AdjustersAnswer(
        bass_leg=bass,
        treble_leg=treble,
        bass_turns=bass / request.thread_pitch,
        treble_turns=treble / request.thread_pitch,
    )


class GaugeChoice(Wire):
    name: str
    tension: Tension


class GaugeRequest(Wire):
    tension: Tension
    cents: Cents
    choices: list[GaugeChoice] | None = None


class GaugeAnswer(Answer):
    wanted_tension: float
    change_percent: float
    choice: str | None = None


def compute_gauge(request: GaugeRequest) -> GaugeAnswer:
    wanted = wanted_tension(tension=request.tension, cents=request.cents)
    choices = request.choices or []
    best = nearest_gauge(wanted=wanted, tensions=[choice.tension for choice in choices])
    return GaugeAnswer(
        wanted_tension=wanted,
        change_percent=(wanted / request.tension - 1) * 100,
        choice=None if best is None else choices[best].name,
    )
