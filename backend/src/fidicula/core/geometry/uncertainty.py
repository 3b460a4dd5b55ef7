"""How well a cut is known, from how well the tools read. Not a tolerance: that is what the rule allows."""

from __future__ import annotations

import math


def cut_uncertainty(
    *, nut_resolution: float, end_resolution: float, carry: float, slot_resolution: float = 0.0
) -> float:
    """The ± of a cut at the bridge, from readings that err independently. [mm]

    nut_resolution, end_resolution, slot_resolution : ± of the heights and the slot's depth, 0 or more. [mm]
    carry : S/L, above 1; an error at the board's end is that much larger at the bridge.
    Source: root of the sum of squares; cut = nut·(1 - S/L) + end·S/L + slot - what is wanted.
    """
    return math.hypot(nut_resolution * (carry - 1), end_resolution * carry, slot_resolution)
