"""What strings drop by once they are up, learnt for one instrument."""

from __future__ import annotations

import math
from collections.abc import Sequence

USUAL = 0.06
"""What a string drops by at the bridge as it settles. [mm] Source: 0.02 to 0.1, simulated and measured."""
INSTRUMENTS_DIFFER = 0.02
STRINGS_DIFFER = 0.025
"""How far one instrument is from the usual, and one of its strings from the others: standard deviations. [mm]"""
NINE_IN_TEN = 1.28
"""Standard deviations that nine in ten strings stay under."""


def still_settles(seen: Sequence[float], *, scatter: float) -> float:
    """What nine in ten strings of an instrument stay under as they settle: so much wood is left for it. [mm]

    seen : what its strings dropped by between a reading just after they were up and one when they had settled, at the
    bridge; below 0 by chance. [mm]
    scatter : standard deviation of one such difference by the readings alone, above 0. [mm]
    Source: the mean of what was seen, weighed against what is usual by their variances; about 0.1 where none was.
    """
    one = STRINGS_DIFFER**2 + scatter**2
    worth = 1 / INSTRUMENTS_DIFFER**2 + len(seen) / one
    mean = (USUAL / INSTRUMENTS_DIFFER**2 + math.fsum(seen) / one) / worth
    return max(0.0, mean + NINE_IN_TEN * math.sqrt(1 / worth + STRINGS_DIFFER**2))
