"""Money as exact decimals of one currency, rounded once by the shop's rule."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from decimal import ROUND_HALF_EVEN, ROUND_HALF_UP, Decimal
from typing import Literal

from fidicula.core.errors import CoreError

Half = Literal["up", "even"]
_WAYS = {"up": ROUND_HALF_UP, "even": ROUND_HALF_EVEN}


@dataclass(frozen=True)
class Rounding:
    """step : the smallest amount that is charged, for instance 0.01 or 0.05. [currency]  half : where a half goes.

    Raises CoreError for a step that is not over zero.
    """

    step: Decimal
    half: Half = "up"

    def __post_init__(self) -> None:
        if self.step <= 0:
            raise CoreError("step", sentence=f"amounts are rounded to a step over 0; it was {self.step}")

    def of(self, amount: Decimal) -> Decimal:
        """An amount on the nearest step. [currency]"""
        return (amount / self.step).quantize(Decimal(1), _WAYS[self.half]) * self.step


@dataclass(frozen=True)
class Span:
    """What is uncertain, as low, usual and high; all three in one unit: minutes, or the currency.

    Raises CoreError where they do not go upward, or one is below zero.
    """

    low: Decimal
    usual: Decimal
    high: Decimal

    def __post_init__(self) -> None:
        if not 0 <= self.low <= self.usual <= self.high:
            raise CoreError(
                "span",
                sentence=f"low, usual and high go upward from 0; they were {self.low}, {self.usual}, {self.high}",
            )

    @property
    def is_certain(self) -> bool:
        return self.low == self.high

    def __add__(self, other: Span) -> Span:
        return Span(self.low + other.low, self.usual + other.usual, self.high + other.high)


NOTHING = Span(Decimal(0), Decimal(0), Decimal(0))


def certain(amount: Decimal) -> Span:
    """What is known exactly."""
    return Span(amount, amount, amount)


def total(spans: Iterable[Span]) -> Span:
    """The sum of spans, exactly; NOTHING of none."""
    found = NOTHING
    for span in spans:
        found = found + span
    return found
