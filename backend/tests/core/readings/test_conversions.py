"""One reading told by others, worked by hand and by their properties."""

from __future__ import annotations

import math

import pytest
from fidicula.core.errors import CoreError
from fidicula.core.geometry.spacing import edge_gaps
from fidicula.core.readings.conversions import FootPlace, radius_by_chord, stop_to, string_steps
from hypothesis import given
from hypothesis import strategies as st

PLACES: tuple[FootPlace, ...] = ("middle", "back", "third")


def test_a_stop_to_the_back_of_a_foot_of_four_and_a_half() -> None:
    """The middle lies half the thickness before the back, the third a third of it."""
    assert stop_to("middle", measured=197, measured_to="back", foot_thickness=4.5) == pytest.approx(194.75)
    assert stop_to("third", measured=197, measured_to="back", foot_thickness=4.5) == pytest.approx(195.5)


@given(st.sampled_from(PLACES), st.sampled_from(PLACES), st.floats(10, 1000), st.floats(0.5, 30))
def test_there_and_back_is_the_same_stop(one: FootPlace, other: FootPlace, measured: float, thickness: float) -> None:
    there = stop_to(other, measured=measured, measured_to=one, foot_thickness=thickness)
    assert stop_to(one, measured=there, measured_to=other, foot_thickness=thickness) == pytest.approx(measured)
    assert abs(there - measured) <= thickness / 2 + 1e-9


@given(st.floats(10, 200), st.floats(5, 100))
def test_the_radius_is_that_of_the_circle_that_the_chord_was_laid_on(radius: float, chord: float) -> None:
    if chord >= 2 * radius:
        return
    rise = radius - math.sqrt(radius**2 - chord**2 / 4)
    if rise < 0.01:
        return
    found, _ = radius_by_chord(chord=chord, rise=rise, chord_known_to=0, rise_known_to=0)
    assert found == pytest.approx(radius, rel=1e-6)


def test_how_well_a_radius_is_known_by_its_chord() -> None:
    """30 and 2.7, the rise to 0.02: 900/(8·7.29) − 1/2 = 14.93 a millimetre, 0.30 for 0.02; the chord 30/10.8 a mm."""
    _, known_to = radius_by_chord(chord=30, rise=2.7, chord_known_to=0.1, rise_known_to=0.02)
    assert known_to == pytest.approx(0.1 * 30 / 10.8 + 0.02 * 14.932, abs=1e-3)


@pytest.mark.parametrize(("chord", "rise", "field"), [(0, 1, "chord"), (30, 0, "rise"), (30, -1, "rise")])
def test_what_is_no_arc_is_refused(chord: float, rise: float, field: str) -> None:
    with pytest.raises(CoreError) as refused:
        radius_by_chord(chord=chord, rise=rise, chord_known_to=0, rise_known_to=0)
    assert refused.value.path == (field,)


def test_a_foot_without_thickness_is_refused() -> None:
    with pytest.raises(CoreError, match="over 0"):
        stop_to("middle", measured=197, measured_to="back", foot_thickness=0)


def test_four_strings_by_marks_by_middles_and_by_air() -> None:
    """Middles at 3.8, 8.9, 14.6, 20: 5.1, 5.7 and 5.4 apart; strings of 0.8, 0.7, 0.6, 0.3 leave 4.35, 5.05, 4.95."""
    strings = (0.8, 0.7, 0.6, 0.3)
    wanted = pytest.approx((0, 5.1, 10.8, 16.2))
    assert string_steps("marks", measured=(3.8, 8.9, 14.6, 20), diameters=strings) == wanted
    assert string_steps("centres", measured=(5.1, 5.7, 5.4), diameters=strings) == wanted
    assert string_steps("gaps", measured=(4.35, 5.05, 4.95), diameters=strings) == wanted


@given(st.lists(st.floats(0.2, 40), min_size=2, max_size=5), st.floats(0.2, 4))
def test_every_way_of_reading_spacing_tells_the_others(gaps: list[float], diameter: float) -> None:
    diameters = [diameter * (1 + i / 7) for i in range(len(gaps) + 1)]
    steps = string_steps("gaps", measured=gaps, diameters=diameters)
    assert edge_gaps(offsets=steps, diameters=diameters) == pytest.approx(gaps)
    assert string_steps("marks", measured=[3 + step for step in steps], diameters=diameters) == pytest.approx(steps)


@pytest.mark.parametrize("measured", [(3.8, 8.9, 14.6), (3.8, 14.6, 8.9, 20)])
def test_spacing_of_another_number_or_backwards_is_refused(measured: tuple[float, ...]) -> None:
    with pytest.raises(CoreError) as refused:
        string_steps("marks", measured=measured, diameters=(0.8, 0.7, 0.6, 0.3))
    assert refused.value.path[0] == "measured"
