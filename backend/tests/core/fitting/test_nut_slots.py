"""Nut slots by cards, their tops and their floors, each case worked out by hand."""

from __future__ import annotations

import pytest
from fidicula.core.errors import CoreError
from fidicula.core.fitting.nut import Peg, between_cards, fixed_turn, floor_points, nut_top, turn_to_peg


def test_a_height_lies_between_two_cards() -> None:
    assert between_cards(passes=0.35, stops=0.45) == (pytest.approx(0.40), pytest.approx(0.05))
    with pytest.raises(CoreError, match=r"a card of 0\.4 passes"):
        between_cards(passes=0.4, stops=0.4)


def test_the_top_stands_a_third_of_the_string_over_the_floor() -> None:
    assert nut_top(floor=0.4, diameter=0.9, ratio=1 / 3) == pytest.approx(0.7)


def test_a_floor_is_level_at_the_front_and_falls_to_the_back() -> None:
    """An arc of 8° over 5 mm: radius 5 / sin 8° = 35.93, down 5 · tan 4° = 0.350 at the back."""
    turn = fixed_turn(nut_thickness=5, fall=8)
    assert (turn.floor_radius, turn.floor_fall) == (pytest.approx(35.927, abs=1e-3), pytest.approx(0.3496, abs=1e-4))
    points = floor_points(turn, nut_thickness=5)
    assert points[0] == (0, pytest.approx(0))
    assert points[-1] == (5, pytest.approx(0.3496, abs=1e-4))
    assert points[4][1] < points[-1][1] / 3
    with pytest.raises(CoreError, match="falls by over 0"):
        fixed_turn(nut_thickness=5, fall=0)


def test_the_floor_to_a_peg_ends_where_that_turn_says() -> None:
    turn = turn_to_peg(nut_thickness=5, peg=Peg(30, 8, 0))
    assert floor_points(turn, nut_thickness=5)[-1][1] == pytest.approx(turn.floor_fall)
