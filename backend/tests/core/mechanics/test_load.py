"""Tension and load, by hand and by statics."""

from __future__ import annotations

import math

import pytest
from fidicula.core.mechanics.load import (
    BridgeAngles,
    down_force,
    feet_loads,
    tension_at,
    tension_of_density,
)
from hypothesis import given
from hypothesis import strategies as st


def test_tension_of_a_density_by_hand() -> None:
    """2.5 g/m over 0.4 m at 250 Hz: 0.0025·(2·0.4·250)² = 0.0025·200² = 100 N."""
    assert tension_of_density(linear_density=2.5, string_length=400, pitch=250) == pytest.approx(100)


def test_quoted_tension_goes_with_the_squares_of_length_and_pitch() -> None:
    """A tenth longer is 1.21 times; an octave down is a quarter."""
    assert tension_at(tension=100, string_length=330, reference_length=300) == pytest.approx(121)
    assert tension_at(tension=100, string_length=330, pitch=220, reference_pitch=440) == pytest.approx(25)


def test_down_force_by_hand() -> None:
    """At 30° on both sides each sine is a half: the bridge bears the whole tension."""
    assert down_force(tension=80, angles=BridgeAngles(30, 30)) == pytest.approx(80)


@given(
    st.lists(st.tuples(st.floats(-20, 20), st.floats(1, 90)), min_size=3, max_size=6),
    st.floats(20, 60),
)
def test_both_feet_carry_the_load_and_its_moment(strings: list[tuple[float, float]], spread: float) -> None:
    offsets, forces = [y for y, _ in strings], [f for _, f in strings]
    bass, treble = feet_loads(offsets=offsets, forces=forces, foot_spread=spread)
    assert bass + treble == pytest.approx(sum(forces))
    moment = sum(y * f for y, f in strings)
    assert (treble - bass) * spread / 2 == pytest.approx(moment, abs=1e-6)


def test_a_string_outside_the_feet_lifts_the_other_foot() -> None:
    bass, treble = feet_loads(offsets=[30], forces=[10], foot_spread=40)
    assert (bass, treble) == (pytest.approx(-2.5), pytest.approx(12.5))
    assert math.isclose(bass + treble, 10)


def test_a_bridge_that_halves_the_angle_leans_half_the_difference() -> None:
    """14° in front and 8° behind leave 158° between; the middle plane leans 3° toward the board."""
    angles = BridgeAngles(front=14, rear=8)
    assert (angles.over_bridge, angles.halving_lean) == (158, -3)
    halved = BridgeAngles.halved(158)
    assert (halved.front, halved.rear, halved.halving_lean) == (11, 11, 0)
