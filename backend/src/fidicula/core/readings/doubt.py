"""Is a typed value plausible? A doubt is kept with the reading; it never changes the value."""

from __future__ import annotations

from dataclasses import dataclass

from fidicula.core.errors import TOLERANCE

_SLIPS = (0.1, 10.0, 0.01, 100.0, 1000.0, 25.4)
"""A decimal mark lost or set too early, centimetres, a comma meant for thousands, inches."""


@dataclass(frozen=True)
class Plausible:
    """What may be typed without a doubt. [mm]"""

    low: float
    high: float


@dataclass(frozen=True)
class Doubt:
    """sentence : what is odd.  suggested : what may have been meant. [mm] or None."""

    sentence: str
    suggested: float | None


def plausible_around(aim: float) -> Plausible:
    """0.4 to 2.5 times the aim for lengths over 2 mm, 0.15 to 5 times for smaller ones. [mm]

    aim : above 0, of this instrument's own family and size. [mm]
    Source: the shop's rule of thumb for slips of typing.
    """
    return Plausible(0.4 * aim, 2.5 * aim) if aim > 2 else Plausible(0.15 * aim, 5 * aim)


def doubt_of(
    *, value: float, plausible: Plausible, aim: float, largest: float, name: str, unit: str = "mm"
) -> Doubt | None:
    """Why a value is doubted, or None where it is plausible.

    value : as typed. [mm]  plausible : around this instrument's aim. [mm]  aim : above 0. [mm]
    largest : what no such measure can exceed. [mm]  name, unit : of the measure and its place, for the sentence.
    """
    if plausible.low - TOLERANCE <= value <= min(plausible.high, largest) + TOLERANCE:
        return None
    side = "small" if value < plausible.low else "large"
    meant = _what_was_meant(value=value, plausible=plausible, aim=aim)
    sentence = f"{value:g} {unit} is very {side} for {name}, usually about {aim:.3g}."
    if meant is not None:
        sentence += f" Did you mean {meant:g} {unit}?"
    return Doubt(sentence, meant)


def _what_was_meant(*, value: float, plausible: Plausible, aim: float) -> float | None:
    """The value behind the slip that would bring it nearest to the aim."""
    candidates = [round(value * factor, 6) for factor in _SLIPS if plausible.low <= value * factor <= plausible.high]
    return min(candidates, key=lambda candidate: abs(candidate - aim), default=None)
