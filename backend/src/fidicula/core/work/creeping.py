"""Creeping down on a cut that cannot be taken back."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.core.errors import TOLERANCE

FIRST_PASS_SHARE = 0.7
"""Of the wood to take, what the first pass takes; the rest is found by measuring again."""

SMALLEST_FIRST_PASS = 0.5
"""Under this much wood there is no point in two passes. [mm]"""

SETTLING = 0.1
"""What new strings may still drop by as they settle. [mm] Source: strings measured over their first day."""

BELIEVABLE = (0.4, 1.6)
"""Of what a pass set out to take, what it may have taken; beyond that something was misread."""

ALIKE = 0.25
"""Passes whose shares differ by more are of no one hand: nothing is concluded from them."""


@dataclass(frozen=True)
class Pass:
    """One pass that was cut. set_out : what it was to take, above 0.  taken : what it took. [mm]"""

    set_out: float
    taken: float

    @property
    def share(self) -> float:
        """Of what it set out to take."""
        return self.taken / self.set_out

    @property
    def is_believable(self) -> bool:
        return BELIEVABLE[0] - TOLERANCE <= self.share <= BELIEVABLE[1] + TOLERANCE


def first_pass(*, wood: float, uncertainty: float, settling: float = 0.0) -> float:
    """How much of the wood to take before the strings go up again for measuring; 0 where too little is sure. [mm]

    wood : to take in all. [mm]  uncertainty : ± of it, 0 or more; it is left as wood. [mm]
    settling : what the strings may still drop by, left as wood too, 0 or more. [mm]
    Source: bench habit; too low cannot be put back.
    """
    share = wood if wood < SMALLEST_FIRST_PASS else wood * FIRST_PASS_SHARE
    return max(0.0, min(share, wood - uncertainty - settling))


def next_pass(*, wood: float, uncertainty: float, passes: Sequence[Pass], settling: float = 0.0) -> float | None:
    """How much to set out to take now, going by what the passes before did. [mm]

    wood : still to take. [mm]  uncertainty, settling : as for `first_pass`.  passes : in their order, none for a first.
    None where what the last pass took cannot be: it is measured again. Never more than the wood less its uncertainty.
    Source: the same hand takes the same share; passes of unlike shares tell nothing of the hand.
    """
    if not passes:
        return first_pass(wood=wood, uncertainty=uncertainty, settling=settling)
    if not passes[-1].is_believable:
        return None
    shares = [one.share for one in passes]
    is_one_hand = max(shares) - min(shares) <= ALIKE + TOLERANCE
    wanted = wood / shares[-1] if is_one_hand else first_pass(wood=wood, uncertainty=uncertainty)
    return max(0.0, min(wanted, wood - uncertainty - settling))
