"""The nearest that can be had."""

from __future__ import annotations

from fidicula.core.reach import nearest_that_can_be
from hypothesis import given
from hypothesis import strategies as st


@given(st.floats(-100, 100), st.floats(-100, 100), st.floats(0, 1))
def test_it_lies_at_the_border_on_the_way_to_the_wish(wished: float, good: float, share: float) -> None:
    border = good + (wished - good) * share
    low, high = sorted((good, border))
    found = nearest_that_can_be(wished=wished, known_good=good, can_be=lambda value: low <= value <= high)
    assert low - 1e-9 <= found <= high + 1e-9
    assert abs(found - border) <= 1e-6 * max(1.0, abs(wished - good))
