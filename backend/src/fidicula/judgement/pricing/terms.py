"""What a price goes by: rates, tax, rounding."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal

from fidicula.core.pricing.estimate import Terms
from fidicula.core.pricing.money import Half, Rounding

HALVES: Mapping[str, Half] = {"up": "up", "even": "even"}


@dataclass(frozen=True)
class ShopTerms:
    """All settings as they stand, read once."""

    values: Mapping[str, str]

    def amount(self, setting: str) -> Decimal:
        return Decimal(self.values[setting])

    def rate(self, role: str) -> Decimal:
        """An hour of a role. [currency]"""
        return self.amount(f"rate_{role}")

    @property
    def currency(self) -> str:
        return self.values["currency"]

    @property
    def rounding(self) -> Rounding:
        return Rounding(self.amount("rounding"), HALVES[self.values["rounding_half"]])

    def terms(self, discount: Decimal = Decimal(0)) -> Terms:
        return Terms(self.rounding, discount=discount, tax=self.amount("tax"), deposit=self.amount("deposit"))
