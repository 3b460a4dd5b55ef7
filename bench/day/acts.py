"""What hands do in a day, by the keys and clicks of the real interface. An act says what it means to the ledger."""

from __future__ import annotations

from bench.day import at_the_bench, in_the_shop
from bench.day.hands import Act

ACTS: dict[str, Act] = {**at_the_bench.ACTS, **in_the_shop.ACTS}
WEIGHTS = {"read": 4, "rate": 3, "belong": 3, "arrive": 2}
"""How often each comes; once where it is not said."""
