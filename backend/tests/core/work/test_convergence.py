"""Landing on a string's height, each limit worked by hand."""

from __future__ import annotations

import math

import pytest
from fidicula.core.work.convergence import (
    KNOWN_AT_MOST,
    LEFT_ALONE,
    MAY_BE_LOW,
    SURE,
    is_landed,
    missed_by,
    needed_for,
    rough_pass,
    slot_pass,
)
from hypothesis import given
from hypothesis import strategies as st


@pytest.mark.parametrize(
    ("wood", "uncertainty", "settling", "take"),
    [
        (1.0, 0.05, 0.0, 0.8),  # the reserve of 0.2 stays
        (1.0, 0.25, 0.0, 0.65),  # nor into the uncertainty and twice what a cut misses by: 0.35
        (1.0, 0.1, 0.0, 0.8),  # both are 0.2
        (1.0, 0.05, 0.1, 0.7),  # nor into what new strings may still drop
        (0.1, 0.05, 0.0, 0.0),
        (-0.3, 0.05, 0.0, 0.0),
    ],
)
def test_a_rough_crown_is_left_high(wood: float, uncertainty: float, settling: float, take: float) -> None:
    assert rough_pass(wood=wood, uncertainty=uncertainty, settling=settling) == pytest.approx(take)


@pytest.mark.parametrize(("amount", "missed"), [(0.0, 0.0), (0.1, 0.03), (1 / 6, 0.05), (0.5, 0.05)])
def test_a_little_misses_by_less(amount: float, missed: float) -> None:
    assert missed_by(amount) == pytest.approx(missed)


def test_a_rough_hand_misses_by_more_in_proportion() -> None:
    assert missed_by(0.1, 1.6) == pytest.approx(0.048)
    assert missed_by(0.5, 1.6) == pytest.approx(0.08)


def test_what_may_be_too_much_is_left_in_the_slot() -> None:
    """0.40 known to 0.098: both miss by 0.05, together 0.0707; 1.4 times that less 0.05 is 0.049 that stays."""
    assert slot_pass(drop=0.40, known_to=0.098) == pytest.approx(0.40 - (1.4 * 0.05 * math.sqrt(2) - 0.05), abs=1e-6)
    # A hand that misses by 0.08: 0.0943 together, of which 0.082 stays.
    assert slot_pass(drop=0.40, known_to=0.098, roughness=1.6) == pytest.approx(
        0.40 - (1.4 * math.hypot(0.05, 0.08) - 0.05), abs=1e-6
    )


def test_the_last_little_is_filed_to_its_end() -> None:
    """0.05 known to 0.06: 0.0306 and 0.015 make 0.034, 1.4 times that is 0.048, under the 0.05 that may be."""
    assert slot_pass(drop=0.05, known_to=0.06) == pytest.approx(0.05)


@pytest.mark.parametrize(("drop", "filed"), [(0.04, False), (0.041, True), (0.0, False), (-0.2, False)])
def test_so_little_is_left_alone(drop: float, filed: bool) -> None:
    """The limit counts in."""
    assert (slot_pass(drop=drop, known_to=0.05) > 0) is filed


@pytest.mark.parametrize(
    ("drop", "needed"),
    [(-1.0, 0.085), (0.0, 0.085), (0.04, 1.96 * 0.08 / 2.2), (0.041, 0.08), (2.0, 0.08)],
)
def test_how_well_a_way_down_has_to_be_known(drop: float, needed: float) -> None:
    """To leave it 0.04 high: 2.2 deviations to the 0.12 that may be, 0.08 further; never more than 0.085."""
    assert needed_for(drop) == pytest.approx(needed)


@pytest.mark.parametrize(
    ("drop", "known_to", "landed"),
    [
        (0.0, KNOWN_AT_MOST, True),
        (0.0, KNOWN_AT_MOST + 0.001, False),
        (LEFT_ALONE, 0.071, True),
        (LEFT_ALONE, 0.072, False),
        (LEFT_ALONE + 0.001, 0.05, False),
        (-0.3, 0.05, True),  # too low cannot be put back by filing
        (0.3, 0.01, False),
    ],
)
def test_a_string_is_left_where_it_is_known_to_be_near(drop: float, known_to: float, landed: bool) -> None:
    assert is_landed(drop=drop, known_to=known_to) is landed


@given(st.floats(-0.5, 3), st.floats(0, 0.4))
def test_no_slot_is_filed_by_more_than_may_end_too_low(drop: float, known_to: float) -> None:
    filed = slot_pass(drop=drop, known_to=known_to)
    assert 0 <= filed <= max(0.0, drop)
    if filed:
        lands = math.hypot(known_to / 1.96, missed_by(drop))
        assert drop - filed + MAY_BE_LOW >= SURE * lands - 1e-9
