"""A flat under a low string, worked out by hand."""

from __future__ import annotations

import pytest
from fidicula.core.errors import CoreError
from fidicula.core.geometry.facet import facet_drop

CELLO = {"radius": 62.0, "board_width": 62.0, "width": 20.0}


def test_the_flat_lies_under_the_round_between_ridge_and_edge() -> None:
    """R 62, ridge 11 and edge 31 beside the middle: −0.9836 and −8.3064; the chord half way at −4.6450, the round at 21
    at −3.6647."""
    assert facet_drop(**CELLO, from_ridge=10) == pytest.approx(0.980, abs=1e-3)


def test_at_the_ridge_and_on_the_round_there_is_nothing_between() -> None:
    assert facet_drop(**CELLO, from_ridge=0) == 0
    assert facet_drop(**CELLO, from_ridge=-3) == 0
    assert facet_drop(radius=62, board_width=62, width=0, from_ridge=1) == 0


def test_a_flat_as_wide_as_the_board_is_none() -> None:
    with pytest.raises(CoreError, match="narrower than the board"):
        facet_drop(radius=62, board_width=62, width=62, from_ridge=4)
