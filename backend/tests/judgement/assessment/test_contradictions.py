"""Readings that cannot all be right are a question with both named; the order in which they came says nothing."""

from __future__ import annotations

import random
from dataclasses import replace

import pytest
from fidicula.words.slips import slip_words

from ...scenario import Bench, measured


def said(bench: Bench) -> list[str]:
    a = bench.assess()
    return [slip_words(a, slip) for slip in a.slips if slip.code == "contradiction"]


NECK_AND_STOP = (
    measured(over=1.0, singles={"string_length": 330}).read("neck_length", 130).read("stop_length", 195, at=0)
)
CASES = {
    "neck and stop": (
        NECK_AND_STOP,
        "neck length 130 and stop, to the bridge's middle 195 make a string length of about 328",
    ),
    "stops": (measured(over=1.0).read("stop_length", 195, at=0).read("stop_length", 330, at=1), "half a foot, 2.1"),
    "room": (measured(over=1.0).read("post_room", 5), "a post 6 thick does not stand in that"),
    "radii": (measured(over=1.0).read("fingerboard_radius_nut", 75), "board radius 42 beside radius at the nut 75"),
    "lean": (
        measured(over=1.0).read("board_tilt", -2.5).read("edge_projection", 24, 26).read("fingerboard_width", 24, 42),
        "the board's edges tell",
    ),
    "outside": (measured(over=1.0).read("bridge_foot_width", 30), "spread at the bridge 33.5 is not less than"),
}


@pytest.mark.parametrize("name", CASES)
def test_both_are_named_and_nothing_is_cut_meanwhile(name: str) -> None:
    bench, words = CASES[name]
    assert any(words in one for one in said(bench)), said(bench)
    assert bench.told().code == "check_readings"


def test_what_agrees_is_no_question() -> None:
    """195 and 130 make 328; the back of a foot lies half of 4.3 behind its middle; a board is rounder at its nut."""
    bench = measured(over=1.0).read("neck_length", 130).read("stop_length", 195, at=0).read("stop_length", 197.1, at=1)
    bench.read("post_room", 53).read("fingerboard_radius_nut", 36).read("bridge_foot_width", 41.5)
    assert said(bench) == []
    assert bench.told().code == "cut_crown"


@pytest.mark.parametrize("seed", range(12))
def test_the_order_of_the_readings_says_nothing(seed: int) -> None:
    """A bridge that leans 2.5° toward the board is pulled upright, whether that was read first or last."""
    bench = measured(over=1.0).read("bridge_lean", -2.5)
    told = bench.told()
    assert told.code == "pull_upright"
    places = list(dict.fromkeys((one.measure, one.position) for one in bench.readings))
    random.Random(seed).shuffle(places)
    mixed = sorted(bench.readings, key=lambda one: places.index((one.measure, one.position)))
    again = replace(bench, readings=[replace(one, number=n) for n, one in enumerate(mixed, 1)]).told()
    assert (again.code, again.amounts, again.keys) == (told.code, told.amounts, told.keys)


def test_who_looked_again_and_confirmed_it_is_not_asked_once_more() -> None:
    sure = replace(NECK_AND_STOP, readings=[replace(one, confirmed=True) for one in NECK_AND_STOP.readings])
    assert said(sure) == []
    assert sure.told().code == "cut_crown"
