"""Where a post stands, and the ways between its places."""

from __future__ import annotations

import math

import pytest
from fidicula.core.errors import DoesNotFitError
from fidicula.core.sound.places import (
    NOWHERE,
    OPPOSITE,
    UNIT,
    Direction,
    gauged,
    moved,
    shifted,
    steps_of,
    tap_length,
    way,
)
from hypothesis import given
from hypothesis import strategies as st

millimetres = st.floats(-20, 20, allow_nan=False)
places = st.tuples(millimetres, millimetres)
directions = st.sampled_from(list(UNIT))


def test_a_way_is_told_in_the_directions_of_the_bench() -> None:
    """From 5.3 behind and 15.6 across to 5.7 and 15.3: 0.4 toward the tailpiece and 0.3 toward the bass side."""
    vector = way(start=(5.3, 15.6), goal=(5.7, 15.3))
    assert [(name, round(length, 9)) for name, length in steps_of(vector)] == [("tailpiece", 0.4), ("bass", 0.3)]
    assert steps_of(way(start=(5.3, 15.6), goal=(5.33, 15.58))) == []


def test_a_move_that_nobody_gauged_is_estimated_and_less_well_known() -> None:
    """Two taps of about 0.1 toward the treble side: 0.2 further out, known to the gauge's 0.2 and the move's 0.2."""
    end = moved(gauged((5.0, 15.0)), direction="treble", length=0.2, known_to=0.2)
    assert (end.known, end.known_to) == ("estimated", pytest.approx(0.4))
    assert end.at == pytest.approx((5.0, 15.2))
    assert moved(NOWHERE, direction="bass", length=0.2, known_to=0.1) == NOWHERE
    with pytest.raises(DoesNotFitError, match="0 mm or more"):
        moved(end, direction="bass", length=-0.1, known_to=0.1)


@given(places, directions, st.floats(0, 5))
def test_the_opposite_move_leads_back(at: tuple[float, float], direction: Direction, length: float) -> None:
    there = moved(gauged(at), direction=direction, length=length, known_to=0.1)
    back = moved(there, direction=OPPOSITE[direction], length=length, known_to=0.1)
    assert back.at == pytest.approx(at, abs=1e-9)
    assert back.known_to >= there.known_to


@given(places, places)
def test_the_way_leads_to_its_goal_and_its_steps_are_the_way(
    start: tuple[float, float], goal: tuple[float, float]
) -> None:
    vector = way(start=start, goal=goal)
    assert shifted(gauged(start), by=vector, known_to=0.1).at == pytest.approx(goal, abs=1e-9)
    walked = [sum(UNIT[name][i] * length for name, length in steps_of(vector)) for i in range(2)]
    assert math.dist(walked, vector) <= math.hypot(0.05, 0.05)


def test_what_a_tap_moved_here_is_told_by_gauged_taps() -> None:
    """3 taps went 0.4, 2 went 0.2: 0.6 over 5 is 0.12 a tap; one that went nowhere shows nothing."""
    found = tap_length([(3, 0.4), (2, 0.2), (1, -0.05)])
    assert found is not None
    assert (found.mean, found.taps) == (pytest.approx(0.12), 5)
    assert found.known_to == pytest.approx(max(0.4 / 3 - 0.12, 0.2 * math.sqrt(2) / 5))
    assert tap_length([]) is None
    assert tap_length([(2, 0.0)]) is None
