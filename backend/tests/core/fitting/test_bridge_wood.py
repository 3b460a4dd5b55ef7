"""What to plane where, what a pencil's line is off by, and a string in the hand."""

from __future__ import annotations

import pytest
from fidicula.core.errors import CoreError
from fidicula.core.fitting.bridge_wood import over_pencil, thickness_at, to_plane
from fidicula.core.readings.in_hand import in_hand


def test_a_bridge_tapers_straight_from_feet_to_crown() -> None:
    """4.6 at the feet, 1.4 at the crown: a quarter up 3.8, half way 3.0; 3.4 read there has 0.4 to come off."""
    assert thickness_at(foot=4.6, crown=1.4, share=0.25) == pytest.approx(3.8)
    assert to_plane(read=3.4, foot=4.6, crown=1.4, share=0.5) == pytest.approx(0.4)
    assert to_plane(read=2.8, foot=4.6, crown=1.4, share=0.5) == pytest.approx(-0.2)
    with pytest.raises(CoreError, match="from 0 to 1"):
        thickness_at(foot=4.6, crown=1.4, share=1.1)


def test_a_pencil_draws_half_its_thickness_too_high() -> None:
    assert over_pencil(over_line=24.0, pencil=7.0) == 20.5


@pytest.mark.parametrize(("measured", "like"), [(0.86, "same"), (0.885, "same"), (0.95, "thicker"), (0.80, "thinner")])
def test_a_string_is_held_against_its_set(measured: float, like: str) -> None:
    assert in_hand(measured=measured, stated=0.86, known_to=0.02) == like


def test_a_rough_caliper_tells_less() -> None:
    assert in_hand(measured=0.95, stated=0.86, known_to=0.1) == "same"
    with pytest.raises(CoreError, match="over 0 mm"):
        in_hand(measured=0, stated=0.86, known_to=0.02)
