"""The order of works: each after those that it has to wait for."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import TypeVar

from fidicula.core.errors import CoreError

Work = TypeVar("Work", bound=str)


def ordered(works: Sequence[Work], after: Mapping[Work, Sequence[Work]]) -> list[Work]:
    """Works in an order that keeps every gate, otherwise as they come.

    after : of each work, those that it comes after; what is not among `works` holds nothing up.
    Raises CoreError naming the works of a loop.
    """
    left, found = list(works), list[Work]()
    while left:
        ready = next((work for work in left if not _held_by(work, left, after)), None)
        if ready is None:
            raise CoreError("after", sentence=f"these wait for each other: {', '.join(left)}")
        left.remove(ready)
        found.append(ready)
    return found


def out_of_order(works: Sequence[Work], after: Mapping[Work, Sequence[Work]]) -> tuple[Work, Work] | None:
    """The first work that stands before one that it has to come after, and that one; None where all gates are kept.

    works : in their order.  after : of each, those that it comes after.
    """
    for i, work in enumerate(works):
        held = _held_by(work, works[i + 1 :], after)
        if held is not None:
            return work, held
    return None


def _held_by(work: Work, others: Sequence[Work], after: Mapping[Work, Sequence[Work]]) -> Work | None:
    gates = after.get(work, ())
    return next((other for other in others if other != work and other in gates), None)
