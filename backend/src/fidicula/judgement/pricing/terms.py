"""What a price goes by: rates, tax, rounding."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from decimal import Decimal

from fidicula.core.pricing.estimate import Terms
from fidicula.core.pricing.money import Half, Rounding

KEPT = (
    *("rate_luthier", "rate_apprentice", "currency", "rounding", "rounding_half"),
    *("tax", "deposit", "graded_from"),
)
"""Settings that an agreed price goes by: they are kept with it."""
HALVES: Mapping[str, Half] = {"up": "up", "even": "even"}


@dataclass(frozen=True)
class ShopTerms:
    """All settings as they stand, read once."""

    values: Mapping[str, str]

    @property
    def kept(self) -> dict[str, str]:
        """What is kept with a price that was agreed."""
        return {name: self.values[name] for name in KEPT}

    def as_agreed(self, kept: Mapping[str, str]) -> ShopTerms:
        """These, but for what was kept when a price was agreed."""
        return ShopTerms({**self.values, **kept})

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
