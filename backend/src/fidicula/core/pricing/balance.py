"""What is open between a workshop and an owner: invoices that stand, and what was paid.

Source: arithmetic; what is paid goes to the oldest invoice first, as is usual where nobody says which.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property

_NOTHING = Decimal(0)


@dataclass(frozen=True)
class Balance:
    """invoices : totals of those that no credit note took back, oldest first.  paid : in all. [currency]"""

    invoices: Sequence[Decimal]
    paid: Decimal

    @cached_property
    def open(self) -> Decimal:
        """What is still to be paid; nothing where more was paid than is billed. [currency]"""
        return max(sum(self.invoices, _NOTHING) - self.paid, _NOTHING)

    @cached_property
    def ahead(self) -> Decimal:
        """What was paid and is on no invoice yet, as a deposit is. [currency]"""
        return max(self.paid - sum(self.invoices, _NOTHING), _NOTHING)

    def left_of(self, i: int) -> Decimal:
        """What of one invoice is not paid. [currency]  i : its place, from 0. Raises IndexError."""
        before = sum(self.invoices[:i], _NOTHING)
        return min(max(before + self.invoices[i] - self.paid, _NOTHING), self.invoices[i])

    def most_to_pay(self, agreed: Decimal) -> Decimal:
        """What can be paid now. [currency]  agreed : that is not billed yet, of which a deposit may be paid."""
        return self.open + max(agreed - self.ahead, _NOTHING)
