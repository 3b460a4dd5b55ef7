"""Spacing: equal air and equal centres, by hand and by their defining properties."""

from __future__ import annotations

from itertools import pairwise

import pytest
from fidicula.core.errors import DoesNotFitError, MismatchError
from fidicula.core.geometry.spacing import (
    centre_for_margin,
    edge_gaps,
    judge_spacing,
    margins,
    string_offsets,
)
from hypothesis import given
from hypothesis import strategies as st

diameter_lists = st.lists(st.floats(0.2, 3.0), min_size=3, max_size=6)


def test_equal_air_by_hand() -> None:
    """Three strings of 1, 2 and 1 mm in a spread of 10: 7 mm of air, 3.5 on each side of the middle one."""
    offsets = string_offsets(spread=10, diameters=[1, 2, 1])
    assert offsets == pytest.approx([-5, 0, 5])
    assert edge_gaps(offsets=offsets, diameters=[1, 2, 1]) == pytest.approx([3.5, 3.5])


@given(diameter_lists, st.floats(30, 100), st.floats(-5, 5))
def test_equal_air_is_equal_and_spans_the_spread(diameters: list[float], spread: float, centre: float) -> None:
    """Every gap is the same, the outer centres are the spread apart, and their middle is the group's centre."""
    offsets = string_offsets(spread=spread, diameters=diameters, centre=centre)
    gaps = edge_gaps(offsets=offsets, diameters=diameters)
    assert max(gaps) - min(gaps) < 1e-9
    assert offsets[-1] - offsets[0] == pytest.approx(spread)
    assert (offsets[0] + offsets[-1]) / 2 == pytest.approx(centre)


@given(diameter_lists, st.floats(30, 100))
def test_equal_centres_ignore_thickness(diameters: list[float], spread: float) -> None:
    """Centres stand at the same distance, however thick the strings are."""
    offsets = string_offsets(spread=spread, diameters=diameters, rule="equal_centres")
    steps = [b - a for a, b in pairwise(offsets)]
    assert max(steps) - min(steps) < 1e-9


@given(diameter_lists, st.floats(30, 100))
def test_reversing_the_strings_mirrors_their_places(diameters: list[float], spread: float) -> None:
    """The rule knows no bass and treble: the same strings the other way round are the mirror image."""
    there = string_offsets(spread=spread, diameters=diameters)
    back = string_offsets(spread=spread, diameters=diameters[::-1])
    assert there == pytest.approx([-y for y in reversed(back)])


@pytest.mark.parametrize("rule", ["equal_gaps", "equal_centres"])
def test_touching_strings_do_not_fit(rule: str) -> None:
    """A gap of 0 is refused, under the name that the caller gives the spread."""
    with pytest.raises(DoesNotFitError) as refused:
        string_offsets(spread=4, diameters=[2, 2, 2], rule=rule, spread_field="nut_spread")  # type: ignore[arg-type]
    assert refused.value.path == ("nut_spread",)


def test_margins_are_to_the_strings_edges() -> None:
    """On a nut of 24 with outer strings of 1 mm at ±8: 12 - 8 - 0.5 is left on each side."""
    sides = margins(offsets=[-8, 0, 8], diameters=[1, 1, 1], width=24)
    assert (sides.bass, sides.treble) == (3.5, 3.5)
    assert sides.marks == (4, 12, 20)


def test_sway_leans_to_the_treble_when_positive() -> None:
    """Outer strings measured 0.2 mm too far to the treble sway by 0.2."""
    judged = judge_spacing(offsets=[-8, 0, 8], diameters=[1, 1, 1], measured=[-7.8, 0, 8.2])
    assert judged.sway == pytest.approx(0.2)
    assert judged.unevenness == pytest.approx(0.4)


def test_measured_places_must_be_one_a_string() -> None:
    with pytest.raises(MismatchError) as refused:
        judge_spacing(offsets=[-8, 0, 8], diameters=[1, 1, 1], measured=[0, 1])
    assert refused.value.path == ("measured",)


def test_a_shifted_group_leaves_its_margin() -> None:
    """Board 32, spread 22.8, top string 0.8: 3.0 of board beside it puts the middle at 16 - 3 - 0.4 - 11.4 = 1.2."""
    centre = centre_for_margin(spread=22.8, treble_diameter=0.8, width=32, margin=3.0)
    assert centre == pytest.approx(1.2)
    diameters = [1.6, 1.2, 1.0, 0.8]
    offsets = string_offsets(spread=22.8, diameters=diameters, centre=centre)
    assert margins(offsets=offsets, diameters=diameters, width=32).treble == pytest.approx(3.0)
