"""Rounding of amounts that cannot be put back."""

from __future__ import annotations

import math


def rounded_down(value: float, places: int = 1) -> float:
    """An amount to take, never more than it is. [its unit]

    value : the amount.  places : after the decimal mark. A billionth of rounding error does not cost a place.
    """
    scale: int = 10**places
    return math.floor(value * scale + 1e-6) / scale
