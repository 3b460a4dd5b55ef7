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


_BELIEVABLE = (0.4, 1.6)
"""Of what a pass set out to take, what it may have taken; beyond that something was misread."""


def next_pass(*, wood: float, last_wood: float) -> float | None:
    """How much to set out to take now, going by what the pass before did. [mm]

    wood : still to take, over 0. [mm]  last_wood : that was to take in all before that pass, over 0. [mm]
    None where what that pass took cannot be: it is measured again.  Source: the same hand takes the same share.
    """
    set_out = first_pass(last_wood)
    share = (last_wood - wood) / set_out
    if not _BELIEVABLE[0] <= share <= _BELIEVABLE[1]:
        return None
    return wood / share
