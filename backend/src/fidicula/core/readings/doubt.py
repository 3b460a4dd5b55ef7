"""Is a typed value plausible? A doubt is kept with the reading; it never changes the value."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from fidicula.core.errors import TOLERANCE

DoubtCode = Literal["small", "large", "impossible", "changed", "leap"]
"""Very small or large for such an instrument; more than such a thing can be; changed though nothing was done to it;
far from what stood there before."""

_SLIPS = (0.1, 10.0, 0.01, 100.0, 1000.0, 25.4)
"""A decimal mark lost or set too early, centimetres, a comma meant for thousands, inches."""

LEAP_SHARE = 0.08
"""A length that differs by more of what stood there before has leapt."""
SMALLEST_LEAP = 1.0
"""Less than this is no leap. [mm]"""
CHANGED_BY = 0.3
"""A height that differs by more, with nothing done to it, is asked about. [mm]"""


@dataclass(frozen=True)
class Plausible:
    """What may be typed without a doubt. [mm]"""

    low: float
    high: float


@dataclass(frozen=True)
class Doubt:
    """Why a value is doubted. about : what it is compared with.  suggested : what may have been meant. [mm] or None."""

    code: DoubtCode
    about: float
    suggested: float | None = None


def plausible_around(aim: float) -> Plausible:
    """0.4 to 2.5 times the aim for lengths over 2 mm, 0.15 to 5 times for smaller ones. [mm]

    aim : above 0, of this instrument's own family and size. [mm]
    Source: the shop's rule of thumb for slips of typing.
    """
    return Plausible(0.4 * aim, 2.5 * aim) if aim > 2 else Plausible(0.15 * aim, 5 * aim)


def doubt_of(*, value: float, plausible: Plausible, aim: float, largest: float) -> Doubt | None:
    """Why a value is doubted, or None where it is plausible.

    value : as typed. [mm]  plausible : around this instrument's aim. [mm]  aim : above 0. [mm]
    largest : what no such measure can exceed; it counts in. [mm]
    """
    if plausible.low - TOLERANCE <= value <= min(plausible.high, largest) + TOLERANCE:
        return None
    meant = _what_was_meant(value=value, plausible=plausible, aim=aim)
    return Doubt("small" if value < plausible.low else "large", aim, meant)


def doubt_about_zero(*, value: float, beyond: float) -> Doubt | None:
    """Why a value is doubted that lies about 0, such as a lean; None where it is plausible. [its unit]

    beyond : so far from 0, to either side, counts in; above 0.
    """
    if abs(value) <= beyond + TOLERANCE:
        return None
    meant = [value * slip for slip in (0.1, 0.01) if abs(value * slip) <= beyond]
    return Doubt("large", 0.0, round(meant[0], 6) if meant else None)


def leap_from(*, value: float, before: float) -> Doubt | None:
    """Whether a length is far from what stood there before.

    value, before : [mm]  Source: nothing but another place, or another instrument, changes a length so far.
    """
    is_leap = abs(value - before) > leapt_from(before) + TOLERANCE
    return Doubt("leap", before) if is_leap else None


def leapt_from(before: float) -> float:
    """By how much a length may differ from what stood there before and be no leap. [mm]"""
    return max(LEAP_SHARE * abs(before), SMALLEST_LEAP)


def changed_from(uncertainty: float) -> float:
    """By how much a height may differ with nothing done to it. uncertainty : ± of either, 0 or more. [mm]"""
    return max(CHANGED_BY, 4 * uncertainty)


def change_without_work(*, value: float, before: float, uncertainty: float) -> Doubt | None:
    """Whether a height changed by more than measuring explains, though nothing is known to have been done.

    value, before : [mm]  uncertainty : ± of either, 0 or more. [mm]
    """
    is_changed = abs(value - before) > changed_from(uncertainty) + TOLERANCE
    return Doubt("changed", before) if is_changed else None


def unevenness_of(offs: Sequence[float]) -> float:
    """How far values lie about their own mean, added up; 0 where all are off by the same. [mm]

    offs : what each is off its target, one or more. [mm]
    """
    mean = sum(offs) / len(offs)
    return sum(abs(off - mean) for off in offs)


def _what_was_meant(*, value: float, plausible: Plausible, aim: float) -> float | None:
    """The value behind the slip that would bring it nearest to the aim."""
    candidates = [round(value * factor, 6) for factor in _SLIPS if plausible.low <= value * factor <= plausible.high]
    return min(candidates, key=lambda candidate: abs(candidate - aim), default=None)
