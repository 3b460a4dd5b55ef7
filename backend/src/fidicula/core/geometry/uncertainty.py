"""How well a result is known, from how well each input is known. Not a tolerance: that is what the rule allows."""

from __future__ import annotations

import math
from collections.abc import Callable, Hashable, Mapping, Sequence
from typing import TypeVar

from fidicula.core.errors import CoreError

Name = TypeVar("Name", bound=Hashable)


def uncertainties(
    *,
    outcome: Callable[[Mapping[Name, float]], Sequence[float]],
    values: Mapping[Name, float],
    known_to: Mapping[Name, float],
    together: Sequence[Mapping[Name, float]] = (),
) -> tuple[float, ...]:
    """The ± of every result, for inputs that err independently. [each result's unit]

    outcome : computes the results from the inputs; as many results each time.
    values : of the inputs, by name.  known_to : the ± of each, 0 or more; an input without one is exact.
    together : inputs that err in common, group by group, and by how much each does: one gauge read them all.
    Raises CoreError where the results cannot be computed from the values themselves. An input that cannot be
    moved up by its ± because the shape would then be impossible is moved down instead, and left out if neither can be.
    Source: root of the sum of squares of what each input's ± changes; first order, for errors that are small.
    """
    base = outcome(values)
    squares = [0.0] * len(base)
    for by in (*({name: by} for name, by in known_to.items()), *together):
        if not any(by.values()):
            continue
        moved = _moved(outcome, values, by, 1) or _moved(outcome, values, by, -1)
        if moved is not None:
            for i, (before, after) in enumerate(zip(base, moved, strict=True)):
                squares[i] += (after - before) ** 2
    return tuple(math.sqrt(square) for square in squares)


def _moved(
    outcome: Callable[[Mapping[Name, float]], Sequence[float]],
    values: Mapping[Name, float],
    by: Mapping[Name, float],
    way: int,
) -> Sequence[float] | None:
    try:
        return outcome({**values, **{name: values[name] + way * far for name, far in by.items()}})
    except CoreError:
        return None
