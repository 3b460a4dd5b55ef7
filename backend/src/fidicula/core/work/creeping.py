"""Creeping down on a cut that cannot be taken back."""

from __future__ import annotations

FIRST_PASS_SHARE = 0.7
"""Of the wood to take, what the first pass takes; the rest is found by measuring again."""

SMALLEST_FIRST_PASS = 0.5
"""Under this much wood there is no point in two passes. [mm]"""


def first_pass(wood: float) -> float:
    """How much of the wood to take before the strings go up again for measuring. [mm]

    wood : to take in all, 0 or more. [mm]  Source: bench habit; too low cannot be put back.
    """
    return wood if wood < SMALLEST_FIRST_PASS else wood * FIRST_PASS_SHARE
