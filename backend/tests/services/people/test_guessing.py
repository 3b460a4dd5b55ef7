"""How long each next guess waits."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta

import pytest
from fidicula.domain.errors import TooManyGuessesError
from fidicula.services.people.guessing import _slow_down

LAST = datetime(2026, 11, 27, 10, 0, tzinfo=UTC)


@pytest.mark.parametrize(
    ("count", "after", "waits", "says"),
    [
        (5, 0, 16, "try again in 16 s"),
        (5, 14.5, 1, "try again in 1 s"),
        (6, 0, 31, "try again in 31 s"),
        (7, 0, 61, "try again in 61 s"),
        (8, 0.5, 120, "try again in 3 minutes"),
        (8, 1.5, 119, "try again in 119 s"),
        (11, 0, 901, "try again in 16 minutes"),
        (4000, 0, 901, "try again in 16 minutes"),
        (5, -3600, 16, "try again in 16 s"),
    ],
)
def test_each_guess_waits_twice_as_long_as_the_one_before_up_to_a_quarter_of_an_hour(
    count: int, after: float, waits: int, says: str
) -> None:
    with pytest.raises(TooManyGuessesError, match=says) as refused:
        _slow_down(count, LAST, LAST + timedelta(seconds=after), free=5)
    assert refused.value.wait == waits


@pytest.mark.parametrize(("count", "after"), [(0, 0), (4, 0), (5, 15), (5, 60), (4000, 900)])
def test_the_first_ones_and_those_who_waited_long_enough_go_on(count: int, after: float) -> None:
    _slow_down(count, LAST, LAST + timedelta(seconds=after), free=5)
    _slow_down(count, None, LAST, free=5)
