"""A band: what is wanted, with how far off it may be."""

from __future__ import annotations

import pytest
from fidicula.core.bands import Band, band_between, outside_by, side_of_band

BAND = Band(4.0, 4.5, 5.5)


def test_a_band_is_shifted_scaled_and_converted_in_all_its_parts() -> None:
    assert BAND.shifted(0.3) == Band(4.3, 4.8, 5.8)
    assert BAND.scaled(1.1) == Band(4.0 * 1.1, 4.5 * 1.1, 5.5 * 1.1)
    assert BAND.scaled(1.11).rounded(1) == Band(4.4, 5.0, 6.1)
    assert BAND.through(lambda value: value - 1) == Band(3.0, 3.5, 4.5)


def test_its_halves_meet_at_the_aim() -> None:
    lower, upper = BAND.lower_half(), BAND.upper_half()
    assert (lower.low, lower.high, upper.low, upper.high) == (4.0, 4.5, 4.5, 5.5)
    assert lower.low <= lower.aim <= lower.high
    assert upper.low <= upper.aim <= upper.high


@pytest.mark.parametrize(
    ("value", "side"), [(3.99, "below"), (4.0, "in_band"), (4.5, "in_band"), (5.5, "in_band"), (5.51, "above")]
)
def test_its_limits_count_in(value: float, side: str) -> None:
    assert side_of_band(value=value, band=BAND) == side


@pytest.mark.parametrize(("value", "by"), [(1.5, -2.5), (4.0, 0.0), (5.5, 0.0), (6.0, 0.5), (20.0, 14.5)])
def test_how_far_out_is_the_way_to_the_nearer_limit(value: float, by: float) -> None:
    """Also far out, where a remainder would be another number."""
    assert outside_by(value=value, band=BAND) == pytest.approx(by)


def test_a_band_between_two_is_as_wide_as_lies_between_them() -> None:
    """A third of the way: 0.5 and 0.3 below make 1.3 / 3, 0.8 and 0.2 above make 1.8 / 3."""
    found = band_between(Band(4.5, 5.0, 5.8), Band(2.7, 3.0, 3.2), share=1 / 3, aim=4.2)
    assert (found.low, found.aim, found.high) == pytest.approx((4.2 - 1.3 / 3, 4.2, 4.2 + 1.8 / 3))
    wide = band_between(Band(1, 3, 9), Band(2, 5, 20), share=0.25, aim=4)
    assert (wide.low, wide.high) == pytest.approx((4 - (2 * 0.75 + 3 * 0.25), 4 + (6 * 0.75 + 15 * 0.25)))
