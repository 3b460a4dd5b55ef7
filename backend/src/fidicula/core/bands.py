"""A value against a band: below, in band or above, and by how much. It judges and never repairs."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

from fidicula.core.errors import TOLERANCE, CoreError

BandSide = Literal["below", "in_band", "above"]


@dataclass(frozen=True)
class Band:
    """What is wanted of one measure. [the measure's unit]

    low, aim, high : ordered; the limits count as in band.
    Raises CoreError naming `high` or `aim` where the order is broken.
    """

    low: float
    aim: float
    high: float

    def __post_init__(self) -> None:
        if self.low > self.high:
            raise CoreError("high", sentence=f"the band's high end {self.high:g} is under its low end {self.low:g}")
        if not self.low <= self.aim <= self.high:
            raise CoreError(
                "aim",
                sentence=f"the aim {self.aim:g} is outside its band {self.low:g} to {self.high:g}",
                value=self.aim,
            )

    def shifted(self, by: float) -> Band:
        """The same band, all of it higher by `by`."""
        return Band(self.low + by, self.aim + by, self.high + by)

    def scaled(self, factor: float) -> Band:
        """The same band times a positive factor."""
        return Band(self.low * factor, self.aim * factor, self.high * factor)

    def rounded(self, places: int) -> Band:
        """The same band as a rule shows it. places : decimals that are kept. [1]"""
        return self.through(lambda value: round(value, places))

    def through(self, convert: Callable[[float], float]) -> Band:
        """The same band in other terms. convert : keeps the order of values."""
        return Band(convert(self.low), convert(self.aim), convert(self.high))

    def upper_half(self) -> Band:
        """From the aim up, with its middle as the new aim."""
        return Band(self.aim, (self.aim + self.high) / 2, self.high)

    def lower_half(self) -> Band:
        """From the aim down, with its middle as the new aim."""
        return Band(self.low, (self.low + self.aim) / 2, self.aim)


def band_between(low: Band, high: Band, *, share: float, aim: float) -> Band:
    """About an aim of its own, as wide as what lies between two bands.

    low, high : the bands.  share : of the way from the first to the second, 0 to 1.  aim : [the measure's unit]
    """
    below = (low.aim - low.low) * (1 - share) + (high.aim - high.low) * share
    above = (low.high - low.aim) * (1 - share) + (high.high - high.aim) * share
    return Band(aim - below, aim, aim + above)


def side_of_band(*, value: float, band: Band) -> BandSide:
    """On which side of its band a value is; the limits count as in band within 1e-9."""
    if value < band.low - TOLERANCE:
        return "below"
    if value > band.high + TOLERANCE:
        return "above"
    return "in_band"


def outside_by(*, value: float, band: Band) -> float:
    """How far out of its band a value is: negative below, 0 in band, positive above. [the measure's unit]"""
    match side_of_band(value=value, band=band):
        case "below":
            return value - band.low
        case "above":
            return value - band.high
    return 0.0


def near_edge(*, value: float, band: Band, known_to: float) -> bool:
    """Whether a value is so near an end of its band that what it is known to does not tell on which side it lies.

    known_to : what covers 95 %, 0 or more. [the value's unit]
    """
    return min(abs(value - band.low), abs(value - band.high)) < known_to - TOLERANCE
