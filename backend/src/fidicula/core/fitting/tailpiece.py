"""Afterlength, height wheels in a bass bridge, and string gauges."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.core.errors import TOLERANCE, DoesNotFitError


@dataclass(frozen=True)
class AfterlengthPlan:
    """target, best : lengths; shift_to_saddle : of the tailpiece toward the saddle. [mm]"""

    target: float
    shift_to_saddle: float
    reachable: bool
    best: float


def plan_afterlength(
    *, string_length: float, measured: float, saddle_gap: float, min_saddle_gap: float = 1.0, divisor: float | None = 6
) -> AfterlengthPlan:
    """Where the tailpiece should go.

    string_length : above 0. [mm]  measured : bridge to tailpiece, above 0. [mm]
    saddle_gap : tailpiece's end to the saddle, 0 or more. [mm]  min_saddle_gap : that has to stay. [mm]
    divisor : the afterlength is the string length over this; None for as near the saddle as it will go.
    Source: the shop's schools.
    """
    room = saddle_gap - min_saddle_gap
    target = measured + room if divisor is None else string_length / divisor
    shift = target - measured
    return AfterlengthPlan(
        target=target,
        shift_to_saddle=shift,
        reachable=shift <= room + TOLERANCE,
        best=measured + min(shift, room),
    )


def afterlength_ratio(*, string_length: float, afterlength: float) -> float:
    """How many afterlengths a string's length is. string_length, afterlength : above 0. [mm]"""
    return string_length / afterlength


def afterlength_is_near(*, string_length: float, afterlength: float, divisor: float, share: float) -> bool:
    """Whether an afterlength is near enough to the string length over a divisor.

    string_length, afterlength : above 0. [mm]  divisor : wanted, above 0.  share : of the string length, 0 or more.
    """
    return abs(afterlength - string_length / divisor) <= share * string_length + TOLERANCE


@dataclass(frozen=True)
class StringChange:
    """bridge_offset : negative on the bass side. [mm]  change : at the bridge, positive raises. [mm]"""

    bridge_offset: float
    change: float


def adjuster_legs(
    *, bass_string: StringChange, treble_string: StringChange, adjuster_spread: float
) -> tuple[float, float]:
    """How far the bass and the treble leg must move; positive raises. [mm]

    bass_string, treble_string : what two strings should do; the treble one stands toward the treble.
    adjuster_spread : between the legs, above 0. [mm]
    Raises DoesNotFitError naming `treble_string`. Source: the crown moves as a straight bar.
    """
    apart = treble_string.bridge_offset - bass_string.bridge_offset
    if apart <= TOLERANCE:
        raise DoesNotFitError(
            "treble_string",
            sentence="the treble string must stand on the treble side of the bass string: the two are crossed",
            value=treble_string.bridge_offset,
        )
    slope = (treble_string.change - bass_string.change) / apart

    def change_at(offset: float) -> float:
        return bass_string.change + slope * (offset - bass_string.bridge_offset)

    return change_at(-adjuster_spread / 2), change_at(adjuster_spread / 2)


def wheel_turns(*, leg: float, thread_pitch: float) -> float:
    """Turns of a height wheel; positive raises. leg : how far its leg must move. [mm]  thread_pitch : above 0. [mm]

    Raises DoesNotFitError naming `thread_pitch`. Source: one turn is one pitch.
    """
    if thread_pitch <= 0:
        raise DoesNotFitError("thread_pitch", sentence="a thread rises by over 0 mm a turn", value=thread_pitch)
    return leg / thread_pitch


def nearest_eighth(turns: float) -> float:
    """Turns as a hand can make them: to the nearest eighth; halves away from 0."""
    return math.copysign(math.floor(abs(turns) * 8 + 0.5) / 8, turns)


def wanted_tension(*, tension: float, cents: float) -> float:
    """The tension at which a string sounds as it did when tuned off by `cents`. [N]

    tension : at pitch, above 0. [N]  cents : sharp is positive.
    Source: tension goes with the square of the pitch, at the same length and density.
    """
    return float(tension * 2 ** (cents / 600))


def nearest_gauge(*, wanted: float, tensions: Sequence[float]) -> int | None:
    """Index of the tension nearest to the wanted one; the smaller of two as near; None of none.

    wanted : [N]  tensions : on the shelf. [N]
    """
    best: int | None = None
    for i in sorted(range(len(tensions)), key=lambda i: tensions[i]):
        if best is None or abs(tensions[i] - wanted) < abs(tensions[best] - wanted) - TOLERANCE:
            best = i
    return best
