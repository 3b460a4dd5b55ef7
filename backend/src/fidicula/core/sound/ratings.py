"""How it sounded, in numbers from 1 to 5; what an act changed; whether a blind choice is more than a guess."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from fidicula.core.errors import DoesNotFitError

STRING_QUALITIES = ("power", "clarity", "warmth", "response")
WHOLE_QUALITIES = ("even", "focused", "open", "loud")
LOWEST, HIGHEST = 1, 5

Heard = tuple[str, int | None]
"""A quality, and the string's position from the lowest; None for the whole instrument."""
Rated = Mapping[Heard, int]


def mean_rating(rated: Rated) -> float | None:
    """The mean of everything that was rated, from 1 to 5; None where nothing was. rated : as the player said."""
    return sum(rated.values()) / len(rated) if rated else None


def changes(*, before: Rated, after: Rated) -> dict[Heard, int]:
    """By how much each quality changed that was rated both times.

    before, after : by the same player, with one act between.
    """
    return {heard: after[heard] - before[heard] for heard in before if heard in after}


@dataclass(frozen=True)
class Answered:
    """What one kind of act changed of one quality. mean : of its changes.  count : how often that was heard."""

    heard: Heard
    mean: float
    count: int


def answered(acts: Sequence[Mapping[Heard, int]]) -> list[Answered]:
    """What acts of one kind changed, the largest change first; what never changed is left out.

    acts : the changes that each of them made.
    """
    found = []
    for heard in dict.fromkeys(one for act in acts for one in act):
        told = [act[heard] for act in acts if heard in act]
        if any(told):
            found.append(Answered(heard, sum(told) / len(told), len(told)))
    return sorted(found, key=lambda one: -abs(one.mean))


SURE = 0.05
"""A preference that a guess shows less often than this is more than a guess."""


def chance_of_preferring(*, times: int, trials: int) -> float:
    """How likely a guess prefers either of both at least so often in so many comparisons: 1 where none was made.

    times : how often the one was preferred, 0 up to `trials`.  trials : all that were agreed on before, 0 or more: “no
    difference” is one of them, and speaks for neither.  Raises DoesNotFitError. Source: binomial tails at one half, of
    either side.
    """
    if trials < 0:
        raise DoesNotFitError("trials", sentence=f"comparisons are 0 or more; they were {trials}", value=trials)
    if not 0 <= times <= trials:
        raise DoesNotFitError("times", sentence=f"it is between 0 and {trials}; it was {times}", value=times)
    ways: int = sum(math.comb(trials, k) for k in range(times, trials + 1))
    return min(1.0, 2 * ways / float(2**trials))


def times_needed(*, trials: int) -> int | None:
    """How often one has to be preferred to be more than a guess; None where so few comparisons cannot show it.

    trials : agreed on before, 0 or more. Raises DoesNotFitError. Source: the least that a guess reaches in at most
    `SURE` of all cases.
    """
    return next((n for n in range(trials + 1) if chance_of_preferring(times=n, trials=trials) <= SURE), None)
