"""Heights over a round board, straight up and the shortest way."""

from __future__ import annotations

import math

import pytest
from fidicula.core.geometry.board import ShortestHeight, UprightHeight, shortest_height, upright_height


@pytest.mark.parametrize(("upright", "radius", "offset"), [(5.0, 42.0, 16.0), (0.0, 42.0, 10.0), (25.0, 10.0, 0.0)])
def test_the_shortest_way_is_from_the_middle_of_the_round(upright: float, radius: float, offset: float) -> None:
    """The string stands at (offset, surface + upright) over the middle; the board's own radius is taken off."""
    surface = math.sqrt(radius**2 - offset**2)
    short = shortest_height(upright_height=UprightHeight(upright), radius=radius, offset=offset)
    assert short == pytest.approx(math.sqrt(offset**2 + (surface + upright) ** 2) - radius)
    assert short <= upright + 1e-12


@pytest.mark.parametrize("height", [0.3, 4.0, 60.0])
def test_there_and_back_is_the_same(height: float) -> None:
    upright = upright_height(shortest_height=ShortestHeight(height), radius=38.0, offset=12.0)
    assert shortest_height(upright_height=upright, radius=38.0, offset=12.0) == pytest.approx(height)
    assert upright > height
