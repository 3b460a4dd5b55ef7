"""How long strings still serve."""

from __future__ import annotations

import pytest
from fidicula.core.sound.wear import days_left, hours_played
from hypothesis import given
from hypothesis import strategies as st


def test_whichever_is_over_first_counts() -> None:
    """Nine months are 273.96 days; after 240 there are 33.96. At 21 hours a week 450 hours are over after 150 days."""
    assert days_left(days=240, months=9, hours=450, hours_a_week=None) == pytest.approx(33.96)
    assert days_left(days=240, months=9, hours=450, hours_a_week=9) == pytest.approx(33.96)
    assert days_left(days=100, months=9, hours=450, hours_a_week=21) == pytest.approx(50)
    assert days_left(days=160, months=9, hours=450, hours_a_week=21) == pytest.approx(-10)
    assert hours_played(days=70, hours_a_week=14) == 140


@given(st.floats(0, 2000), st.floats(0, 100), st.floats(0.5, 60))
def test_a_day_on_takes_a_day_off(days: float, hours_a_week: float, more: float) -> None:
    now = days_left(days=days, months=9, hours=450, hours_a_week=hours_a_week)
    later = days_left(days=days + more, months=9, hours=450, hours_a_week=hours_a_week)
    assert now - later == pytest.approx(more, abs=1e-6)
