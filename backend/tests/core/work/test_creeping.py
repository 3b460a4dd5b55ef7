"""Creeping down on a cut."""

from __future__ import annotations

import pytest
from fidicula.core.work.creeping import next_pass


def test_the_next_pass_goes_by_the_share_that_the_last_one_took() -> None:
    """Of 1.0 seven tenths were to go; 0.44 are left, so 0.56 went, eight tenths of it: 0.55 is said to take 0.44."""
    assert next_pass(wood=0.44, last_wood=1.0) == pytest.approx(0.55)
    assert next_pass(wood=0.3, last_wood=1.0) == pytest.approx(0.3)
    assert next_pass(wood=0.95, last_wood=1.0) is None
