"""Heights over a round board, straight up and the shortest way."""

from __future__ import annotations

import math

import pytest
from fidicula.core.errors import DoesNotFitError
from fidicula.core.geometry.board import ShortestHeight, UprightHeight, arch, shortest_height, upright_height
from hypothesis import given
from hypothesis import strategies as st


def test_a_bass_e_as_a_wedge_reads_it() -> None:
    """A string of 2.7 at -33 over a radius of 78: 9.00 straight up is 8.14 by a wedge."""
    read = shortest_height(upright_height=UprightHeight(9.0), radius=78, offset=-33, diameter=2.7)
    assert read == pytest.approx(8.14, abs=0.005)
    back = upright_height(shortest_height=ShortestHeight(8.14), radius=78, offset=-33, diameter=2.7)
    assert back == pytest.approx(9.00, abs=0.005)


@pytest.mark.parametrize(("upright", "radius", "offset"), [(5.0, 42.0, 16.0), (0.0, 42.0, 10.0), (25.0, 10.0, 0.0)])
def test_the_shortest_way_is_from_the_middle_of_the_round(upright: float, radius: float, offset: float) -> None:
    """The middle of a string of 0.8 stands 0.4 over its underside; the board's radius and its own are taken off."""
    surface = math.sqrt(radius**2 - offset**2)
    short = shortest_height(upright_height=UprightHeight(upright), radius=radius, offset=offset, diameter=0.8)
    assert short == pytest.approx(math.sqrt(offset**2 + (surface + upright + 0.4) ** 2) - radius - 0.4)
    assert short <= upright + 1e-12


@given(st.floats(0, 60), st.floats(-14, 14), st.floats(0.2, 3), st.floats(-6, 6))
def test_there_and_back_is_the_same(height: float, offset: float, diameter: float, tilt: float) -> None:
    upright = upright_height(
        shortest_height=ShortestHeight(height), radius=38.0, offset=offset, diameter=diameter, tilt=tilt
    )
    back = shortest_height(upright_height=upright, radius=38.0, offset=offset, diameter=diameter, tilt=tilt)
    assert back == pytest.approx(height, abs=1e-9)


def _turned(radius: float, tilt: float, along: float) -> tuple[float, float]:
    """A point of the round, by its angle from the crest, when the whole is turned about the crest. [mm]"""
    y, z = radius * math.sin(along), radius * (math.cos(along) - 1)
    lean = math.radians(tilt)
    return y * math.cos(lean) - z * math.sin(lean), y * math.sin(lean) + z * math.cos(lean)


@pytest.mark.parametrize(("radius", "tilt", "along"), [(78.0, 0.9, -25.0), (42.0, -1.5, 20.0), (60.0, 5.0, 30.0)])
def test_a_board_that_leans_is_turned_about_its_crest(radius: float, tilt: float, along: float) -> None:
    """Where a point of the round comes to lie when it is turned, the board's surface lies."""
    y, z = _turned(radius, tilt, math.radians(along))
    assert arch(radius=radius, offset=y, tilt=tilt) == pytest.approx(z)
    assert arch(radius=radius, offset=0.0, tilt=tilt) == pytest.approx(0.0, abs=1e-12)


def test_what_a_wedge_finds_is_the_nearest_point_of_the_turned_round() -> None:
    """A bass E at -33 over 78 that leans by 0.9: the nearest of 40,000 points of the round, less half the string."""
    at = (-33.0, arch(radius=78, offset=-33, tilt=0.9) + 9.0 + 1.35)
    nearest = min(math.dist(at, _turned(78, 0.9, i / 40_000)) for i in range(-40_000, 40_000))
    read = shortest_height(upright_height=UprightHeight(9.0), radius=78, offset=-33, diameter=2.7, tilt=0.9)
    assert read == pytest.approx(nearest - 1.35, abs=1e-5)
    assert read < shortest_height(upright_height=UprightHeight(9.0), radius=78, offset=-33, diameter=2.7)


def test_a_board_that_leans_from_under_the_string_is_refused_by_its_radius() -> None:
    with pytest.raises(DoesNotFitError) as refused:
        upright_height(
            shortest_height=ShortestHeight(1.0), radius=40, offset=35, diameter=0.5, tilt=-30, radius_field="here"
        )
    assert refused.value.path == ("here",)
