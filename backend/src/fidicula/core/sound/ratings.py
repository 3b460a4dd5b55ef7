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


def chance_of_guessing(*, right: int, trials: int) -> float:
    """How likely a guess prefers either of both at least so often: 1 where it was never tried.

    right : how often the one was preferred, up to `trials`.  trials : comparisons with a preference, 0 or more.
    Two-sided: which of both would be preferred was not said beforehand, so that it might have been either.
    Raises DoesNotFitError. Source: binomial tails at one half.
    """
    if trials < 0:
        raise DoesNotFitError("trials", sentence=f"comparisons are 0 or more; they were {trials}", value=trials)
    if not 0 <= right <= trials:
        raise DoesNotFitError("right", sentence=f"it is between 0 and {trials}; it was {right}", value=right)
    most = max(right, trials - right)
    ways: int = sum(math.comb(trials, k) for k in range(most, trials + 1))
    return min(1.0, 2 * ways / float(2**trials))
