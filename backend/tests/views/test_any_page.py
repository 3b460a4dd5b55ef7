"""Every page of instruments as chance makes them: none refuses to open for what was read."""

from __future__ import annotations

import random

import pytest
from fidicula.services.visits.pages import PAGES

from ..judgement.instruction.test_any_instrument import by_chance
from ..scenario import Bench, measured
from .test_looked_over_pages import paged, text
from .test_one_thing_missing import assessed


@pytest.mark.parametrize("block", range(4))
def test_every_page_opens_whatever_is_read(block: int) -> None:
    for seed in range(block * 8, block * 8 + 8):
        bench = by_chance(random.Random(seed))
        assessed(bench)
        for name in PAGES:
            if name != "wheels" or bench.family == "bass":
                page = paged(bench, name, {})
                assert page.title, (name, seed)
                assert all(one.low <= one.at <= one.high for one in page.handles), (name, seed)


def test_an_odd_angle_over_the_bridge_is_where_its_handle_rests() -> None:
    """Handles reach from 145 to 170 degrees; 142 was read."""
    bench = measured().read("break_angle", 142.0)
    angle = next(one for one in paged(bench, "load", {}).handles if one.rests_at == 142.0)
    assert (angle.at, angle.low) == (142.0, 142.0)


def test_a_board_beyond_its_bridge_is_told_and_nothing_else_is() -> None:
    bench: Bench = measured(singles={"fingerboard_length": 400.0})
    page = paged(bench, "playing", {})
    assert [(one.measure, one.why) for one in page.retake] == [
        ("fingerboard_length", "the board ends before the bridge; it was 400 mm long, and the strings 328")
    ]
    assert page.drawing is None
    assert text(page)
