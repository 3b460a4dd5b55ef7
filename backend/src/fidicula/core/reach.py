"""How near to a wish something can be had."""

from __future__ import annotations

from collections.abc import Callable

_HALVINGS = 40


def nearest_that_can_be(*, wished: float, known_good: float, can_be: Callable[[float], bool]) -> float:
    """The value nearest to a wish that still can be, on the way to it from one that can.

    wished : what cannot be.  known_good : what can.  can_be : whether a value can be; once it cannot, it stays so on
    the way to the wish.  Source: halving.
    """
    good, bad = known_good, wished
    for _ in range(_HALVINGS):
        middle = (good + bad) / 2
        if can_be(middle):
            good = middle
        else:
            bad = middle
    return good
