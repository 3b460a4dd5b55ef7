"""The simulated instrument: what a tool finds on it, worked by hand, and that the core agrees."""

from __future__ import annotations

import math
from dataclasses import replace
from random import Random

import pytest
from fidicula.core.geometry.board import UprightHeight, shortest_height
from fidicula.core.geometry.string_lines import Board, mark_height
from fidicula.practice.drawn import drawn
from fidicula.practice.hands import Hands
from fidicula.practice.shape import BoardShape, Shape, StringShape

FLAT = BoardShape(
    string_length=330, length=275, round_nut=42, round_end=42, hollow_bass=0, hollow_treble=0, lean=0, slope=0
)


def one_string(board: BoardShape = FLAT, *, y: float = 0.0, crown: float = 5.9, slot: float = 0.0) -> Shape:
    return Shape(board, [StringShape("A", 0.7, y, y, 0.5, crown, slot)], 27.0)


def test_a_straight_string_over_a_level_board() -> None:
    """0.5 at the nut and 5.9 at the bridge of 330: at 275 it is 0.5 + 5.4 / 1.2 = 5.0."""
    assert one_string().upright(0) == pytest.approx(5.0)
    assert one_string(slot=0.6).upright(0) == pytest.approx(4.5)


def test_a_wedge_finds_the_gap_between_two_rounds() -> None:
    """Over the middle it reads what a rule does; at 14 on a round of 42 it is the way between the middles."""
    middle = one_string()
    assert middle.shortest(0) == pytest.approx(middle.upright(0))
    beside = one_string(y=14)
    fall = math.sqrt(42**2 - 14**2)
    assert beside.shortest(0) == pytest.approx(math.hypot(14, fall + beside.upright(0) + 0.35) - 42 - 0.35)


def test_what_a_floor_must_go_down_by_is_found_by_trying() -> None:
    """1 mm at the board's end is 1.2 at a bridge square to it, some 1 % more at one that leans by 8 degrees."""
    assert one_string().drop_for(0, 1.0) == pytest.approx(1.2, abs=1e-6)
    leaning = one_string(replace(FLAT, slope=8.0))
    assert leaning.drop_for(0, 1.0) == pytest.approx(1.2 / math.cos(math.radians(8)), rel=0.006)
    assert leaning.strings[0].slot == 0.0, "trying leaves nothing behind"


@pytest.mark.parametrize("seed", range(12))
def test_the_core_says_of_its_readings_what_is_so(seed: int) -> None:
    """Read by a perfect hand, heights and ways down come out of the core as they are, to two hundredths."""
    family = ("violin", "bass")[seed % 2]
    usual = {
        "violin": {"string_length": 328.0, "fingerboard_length": 270.0, "fingerboard_radius": 42.0, "projection": 27.0,
                   "nut_spread": 16.3, "bridge_spread": 33.5},
        "bass": {"string_length": 1050.0, "fingerboard_length": 870.0, "fingerboard_radius": 78.0, "projection": 140.0,
                 "nut_spread": 31.0, "bridge_spread": 83.0},
    }[family]  # fmt: skip
    thick = (0.8, 0.86, 0.68, 0.27) if family == "violin" else (2.7, 2.05, 1.55, 1.15)
    ends = (5.0, 4.4, 3.8, 3.2) if family == "violin" else (9.0, 8.0, 7.0, 6.0)
    shape = drawn(seed, family=family, usual=usual, names="GDAE", diameters=thick, ends=ends, nuts=(0.5,) * 4)
    board = Board(
        string_length=shape.board.string_length,
        fingerboard_length=shape.board.length,
        radius_end=shape.board.round_end,
        projection=shape.projection,
        radius_nut=shape.board.round_nut,
        tilt=shape.board.lean,
        angle=shape.board.slope,
    )
    for i, string in enumerate(shape.strings):
        upright, nut = UprightHeight(shape.upright(i)), UprightHeight(string.nut_height)
        at_end = string.nut_y + (string.bridge_y - string.nut_y) / board.carry
        read = shortest_height(
            upright_height=upright, radius=board.radius_end, offset=at_end, diameter=string.diameter, tilt=board.tilt
        )
        assert read == pytest.approx(shape.shortest(i), abs=0.02)
        lower = UprightHeight(upright - 1.0)
        way = mark_height(nut_height=nut, end_height=upright, board=board) - mark_height(
            nut_height=nut, end_height=lower, board=board
        )
        assert way == pytest.approx(shape.drop_for(i, 1.0), abs=0.02)


def test_hands_miss_by_chance_and_a_perfect_hand_does_not() -> None:
    perfect = Hands(one_string(), Random(1), noise=0.0)
    assert perfect.read("end_height", 0) == pytest.approx(5.0)
    perfect.file_slots({0: 0.6})
    assert perfect.truth("end_height", 0) == pytest.approx(4.5)
    perfect.lower_beside({0: 0.4})
    assert perfect.truth("end_height", 0) == pytest.approx(4.5), "the floor of the slot sets the height"
    assert perfect.truth("slot_depth", 0) == pytest.approx(0.2)
    shaky = Hands(one_string(), Random(1))
    readings = [shaky.read("end_height", 0) for _ in range(2000)]
    mean = math.fsum(readings) / len(readings)
    assert mean == pytest.approx(5.0, abs=0.005)
    assert math.sqrt(math.fsum((r - mean) ** 2 for r in readings) / len(readings)) == pytest.approx(0.05, rel=0.05)


def test_a_crown_that_goes_deeper_than_its_slot_takes_the_string_along() -> None:
    hands = Hands(one_string(crown=6.2, slot=0.3), Random(1), noise=0.0)
    hands.cut_crown({0: 0.2}, 0.0)
    assert hands.truth("end_height", 0) == pytest.approx(5.0)
    hands.cut_crown({0: 0.7}, 0.0)
    assert hands.truth("end_height", 0) == pytest.approx(5.0 - 0.6 / 1.2)


def test_strings_that_were_put_up_come_down_as_they_settle() -> None:
    hands = Hands(one_string(), Random(2))
    hands.string_up()
    high = hands.truth("end_height", 0)
    hands.settle()
    assert 0.01 < high - hands.truth("end_height", 0) < 0.1
