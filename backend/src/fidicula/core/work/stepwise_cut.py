"""Creeping down on a cut that cannot be taken back."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.core.errors import TOLERANCE
from fidicula.core.work.convergence import rough_pass

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


def next_pass(*, wood: float, uncertainty: float, passes: Sequence[Pass], settling: float = 0.0) -> float | None:
    """How much to set out to take now, going by what the passes before did. [mm]

    wood : still to take. [mm]  uncertainty, settling : as for `rough_pass`.  passes : in their order, none for a first.
    None where what the last pass took cannot be: it is measured again. Never more than the wood less its uncertainty.
    Source: the same hand takes the same share; passes of unlike shares tell nothing of the hand.
    """
    most = rough_pass(wood=wood, uncertainty=uncertainty, settling=settling)
    if not passes:
        return most
    if not passes[-1].is_believable:
        return None
    shares = [one.share for one in passes]
    is_one_hand = max(shares) - min(shares) <= ALIKE + TOLERANCE
    return min(wood / shares[-1], most) if is_one_hand else most
