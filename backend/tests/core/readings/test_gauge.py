"""What a tool is off at everything that it reads, worked by hand."""

from __future__ import annotations

import math

import pytest
from fidicula.core.readings.gauge import Check, check_of, gauge_at

NOON = 20_000.5
WEEK = 7.0


def test_the_mean_of_five_readings_is_what_the_tool_is_off() -> None:
    """5.04, 5.06, 5.05, 5.03, 5.07 of a block of 5: 0.05 too much. Their squares sum to 0.001, of which three of four
    count, with 8 · 0.02² before them: √(0.00395 / 11) = 0.01895, widened by 4.84 / 44; with 0.02 / √12, over √5."""
    read = (5.04, 5.06, 5.05, 5.03, 5.07)
    check = check_of(at=NOON, known=(5.0,) * 5, read=read, scatter=0.02, resolution=0.02)
    of_one = math.sqrt((8 * 0.02**2 + 0.75 * 0.001) / 11) * (1 + (1.96**2 + 1) / 44)
    assert check.off == pytest.approx(0.05)
    assert check.deviation == pytest.approx(math.hypot(of_one, 0.02 / math.sqrt(12)) / math.sqrt(5))
    assert not check.is_true
    assert check.gauge == pytest.approx(math.hypot(0.05, check.deviation))


def test_a_zero_and_a_block_are_told_together() -> None:
    check = check_of(at=NOON, known=(0.0, 5.0), read=(0.02, 5.02), scatter=0.02, resolution=0.02)
    assert check.off == pytest.approx(0.02)
    assert check.is_true, "0.02 is no more than two readings may be off"


def test_readings_that_lie_too_far_apart_tell_nothing() -> None:
    check = check_of(at=NOON, known=(5.0,) * 3, read=(5.0, 5.2, 5.0), scatter=0.02, resolution=0.02)
    assert check.apart
    assert not check.is_true
    assert check.deviation == pytest.approx(0.1)


@pytest.mark.parametrize(
    ("days", "gauge"),
    [
        (-8, 0.03),  # too long before the first
        (-7, 0.05),  # what it was found off it was before, too
        (0, 0.05),
        (1, 0.01),  # between two the later one tells
        (2, 0.01),
        (9, 0.01),
        (10, 0.03),  # too long ago
    ],
)
def test_a_check_tells_of_what_was_read_around_it(days: float, gauge: float) -> None:
    checks = [Check(NOON, 0.05, 0.0), Check(NOON + 2, 0.0, 0.01)]
    assert gauge_at(NOON + days, checks, unchecked=0.03, holds=WEEK) == pytest.approx(gauge)
