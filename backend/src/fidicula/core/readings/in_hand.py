"""A string in the hand against what its set says of it."""

from __future__ import annotations

from typing import Literal

from fidicula.core.errors import CoreError

InHand = Literal["same", "thicker", "thinner"]
SAME_WITHIN = 0.03
"""A winding gives that much under the jaws of a caliper. [mm]"""


def in_hand(*, measured: float, stated: float, known_to: float) -> InHand:
    """Whether a string is the one that its set names.

    measured : beside its winding's end, by caliper, above 0. [mm]  stated : by its set, above 0. [mm]
    known_to : ± of the caliper. [mm]  Raises CoreError naming `measured` or `stated`.
    Source: two thicknesses with what reading them tells.
    """
    for name, value in (("measured", measured), ("stated", stated)):
        if value <= 0:
            raise CoreError(name, sentence=f"a string's thickness is over 0 mm; it was {value:g}", value=value)
    off = measured - stated
    if abs(off) <= max(SAME_WITHIN, known_to):
        return "same"
    return "thicker" if off > 0 else "thinner"
