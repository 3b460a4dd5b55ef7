"""What was heard, in numbers."""

from __future__ import annotations

import math

import pytest
from fidicula.core.errors import DoesNotFitError
from fidicula.core.sound.ratings import SURE, Heard, answered, chance_of_preferring, changes, mean_rating, times_needed


def test_a_mean_counts_only_what_was_rated() -> None:
    assert mean_rating({("open", None): 4, ("power", 0): 3, ("power", 3): 5}) == pytest.approx(4)
    assert mean_rating({("open", None): 4, ("power", 0): 3}) == pytest.approx(3.5)
    assert mean_rating({}) is None


def test_a_change_is_of_what_was_rated_both_times() -> None:
    before = {("open", None): 1, ("power", 0): 3, ("warmth", 0): 2}
    after = {("open", None): 3, ("power", 0): 3, ("even", None): 4}
    assert changes(before=before, after=after) == {("open", None): 2, ("power", 0): 0}


def test_what_acts_of_a_kind_did_is_their_mean_the_largest_first() -> None:
    """Open went up by 2 and by 1, the E's warmth down by 1 once; what stayed is left out."""
    acts: list[dict[Heard, int]] = [{("open", None): 2, ("even", None): 0}, {("open", None): 1, ("warmth", 3): -1}]
    found = answered(acts)
    assert [(one.heard, one.mean, one.count) for one in found] == [(("open", None), 1.5, 2), (("warmth", 3), -1, 1)]
    assert answered([]) == []


def test_how_likely_a_guess_does_the_same() -> None:
    """
    Either way: five of five is 2 in 32 and no proof, six of six 2 in 64; four of five or better 12 in 32; even is
    certain; never tried is no evidence. Where nothing was heard four times of ten, six for the same are 772 in 1024.
    """
    assert chance_of_preferring(times=5, trials=5) == pytest.approx(2 / 32)
    assert chance_of_preferring(times=6, trials=6) == pytest.approx(2 / 64)
    assert chance_of_preferring(times=4, trials=5) == pytest.approx(12 / 32)
    assert chance_of_preferring(times=6, trials=10) == pytest.approx(772 / 1024)
    assert chance_of_preferring(times=2, trials=4) == 1
    assert chance_of_preferring(times=0, trials=0) == 1
    with pytest.raises(DoesNotFitError, match="between 0 and 3"):
        chance_of_preferring(times=4, trials=3)
    with pytest.raises(DoesNotFitError, match="0 or more"):
        chance_of_preferring(times=0, trials=-1)


@pytest.mark.parametrize("nothing", [0.0, 0.2, 0.6])
def test_who_only_guesses_passes_in_one_of_twenty_series_at_most_whatever_the_number(nothing: float) -> None:
    """Of every number up to 60: the share of all ways it can go that end as more than a guess, added up exactly."""
    each = (1 - nothing) / 2
    for trials in range(61):
        needed = times_needed(trials=trials)
        assert (needed is None) == (trials < 6)
        passes = 0.0
        for one in range(trials + 1):
            for other in range(trials + 1 - one):
                if needed is not None and max(one, other) >= needed:
                    ways = math.comb(trials, one) * math.comb(trials - one, other)
                    passes += ways * each ** (one + other) * nothing ** (trials - one - other)
        assert passes <= SURE


def test_how_often_one_has_to_be_preferred() -> None:
    assert [times_needed(trials=n) for n in (5, 6, 8, 10, 12, 16, 20)] == [None, 6, 8, 9, 10, 13, 15]
