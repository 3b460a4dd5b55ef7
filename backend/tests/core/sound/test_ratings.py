"""What was heard, in numbers."""

from __future__ import annotations

import pytest
from fidicula.core.errors import DoesNotFitError
from fidicula.core.sound.ratings import SURE, Heard, answered, chance_of_guessing, changes, mean_rating
from hypothesis import given
from hypothesis import strategies as st


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
    certain; never tried is no evidence.
    """
    assert chance_of_guessing(right=5, trials=5) == pytest.approx(2 / 32)
    assert chance_of_guessing(right=5, trials=5) > SURE >= chance_of_guessing(right=6, trials=6)
    assert chance_of_guessing(right=0, trials=6) == pytest.approx(2 / 64)
    assert chance_of_guessing(right=4, trials=5) == pytest.approx(12 / 32)
    assert chance_of_guessing(right=2, trials=4) == 1
    assert chance_of_guessing(right=0, trials=0) == 1
    with pytest.raises(DoesNotFitError, match="between 0 and 3"):
        chance_of_guessing(right=4, trials=3)
    with pytest.raises(DoesNotFitError, match="0 or more"):
        chance_of_guessing(right=0, trials=-1)
    with pytest.raises(DoesNotFitError, match="it is between 0 and 4; it was -1"):
        chance_of_guessing(right=-1, trials=4)


@given(st.integers(1, 40), st.data())
def test_the_more_of_them_one_way_the_less_likely_a_guess(trials: int, data: st.DataObject) -> None:
    right = data.draw(st.integers((trials + 1) // 2, trials - 1)) if trials > 1 else 0
    more = chance_of_guessing(right=right + 1, trials=trials)
    assert chance_of_guessing(right=right, trials=trials) >= more
    assert more == chance_of_guessing(right=trials - right - 1, trials=trials)
