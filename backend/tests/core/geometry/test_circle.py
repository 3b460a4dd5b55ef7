"""The crown's circle: through two points with a radius, and nearest to many."""

from __future__ import annotations

import math

import pytest
from fidicula.core.errors import DoesNotFitError
from fidicula.core.geometry.circle import _first_guess, arc_through, least_squares_circle
from hypothesis import given
from hypothesis import strategies as st
from scipy.optimize import least_squares


def test_arc_by_hand() -> None:
    """A 3-4-5 triangle: points 8 apart under a radius of 5 have their centre 3 below the chord."""
    circle = arc_through(left=(-4, 10), right=(4, 10), radius=5)
    assert circle.centre == pytest.approx((0, 7))
    assert circle.height_at(0) == pytest.approx(12)


@given(st.floats(-20, -5), st.floats(5, 20), st.floats(20, 35), st.floats(20, 35), st.floats(1.01, 10))
def test_arc_goes_through_both_points_and_bulges_up(y0: float, y1: float, z0: float, z1: float, slack: float) -> None:
    radius = math.dist((y0, z0), (y1, z1)) / 2 * slack
    circle = arc_through(left=(y0, z0), right=(y1, z1), radius=radius)
    assert circle.residual((y0, z0)) == pytest.approx(0, abs=1e-9)
    assert circle.residual((y1, z1)) == pytest.approx(0, abs=1e-9)
    middle = (y0 + y1) / 2
    assert circle.height_at(middle) >= (z0 + z1) / 2


def test_radius_of_half_the_chord_just_reaches_and_less_does_not() -> None:
    """The limit counts in; under it the crown's radius is what is refused."""
    assert arc_through(left=(-4, 0), right=(4, 0), radius=4).centre == pytest.approx((0, 0))
    with pytest.raises(DoesNotFitError) as refused:
        arc_through(left=(-4, 0), right=(4, 0), radius=3.999)
    assert refused.value.path == ("crown_radius",)
    assert "at least 4.0 mm" in refused.value.sentence


@given(st.floats(-3, 3), st.floats(-40, 0), st.floats(20, 120), st.integers(3, 6))
def test_points_on_a_circle_give_that_circle(y: float, z: float, radius: float, count: int) -> None:
    """Three to six points that lie on one circle are met exactly."""
    angles = [math.pi / 2 + 0.45 * (1 - 2 * i / (count - 1)) for i in range(count)]
    points = [(y + radius * math.cos(a), z + radius * math.sin(a)) for a in angles]
    circle = least_squares_circle(points)
    assert circle.radius == pytest.approx(radius, rel=1e-6)
    assert circle.centre == pytest.approx((y, z), abs=1e-3)


@given(st.lists(st.floats(-0.8, 0.8), min_size=4, max_size=6), st.floats(30, 90))
def test_no_general_solver_finds_a_nearer_circle(noise: list[float], radius: float) -> None:
    """With every point off the circle by up to 0.8 mm, scipy's solver finds no smaller sum of squares."""
    count = len(noise)
    offsets = [-17 + 34 * i / (count - 1) for i in range(count)]
    points = [(y, math.sqrt(radius**2 - y**2) + off) for y, off in zip(offsets, noise, strict=True)]
    try:
        ours = least_squares_circle(points)
    except DoesNotFitError:
        return  # the points lie in a line, or a line is as near as any circle
    our_sum = sum(ours.residual(p) ** 2 for p in points)

    def residuals(v):  # type: ignore[no-untyped-def]
        return [math.dist(p, (v[0], v[1])) - v[2] for p in points]

    theirs = least_squares(residuals, [0.0, 0.0, radius], xtol=1e-14, ftol=1e-14, gtol=1e-14)
    assert our_sum <= 2 * theirs.cost + 1e-9


def test_a_straight_line_has_no_crown() -> None:
    with pytest.raises(DoesNotFitError) as refused:
        least_squares_circle([(-15, 30), (-5, 31), (5, 32), (15, 33)])
    assert refused.value.path == ("strings",)


def test_the_fit_begins_at_the_circle_through_three_points() -> None:
    """In the fit's terms: A = 1 ÷ 2r, D = A (y² + z² − r²) of the centre, and the direction from it to the origin."""
    radius, centre = 42.0, (3.0, -5.0)
    points = [(centre[0] + radius * math.cos(t), centre[1] + radius * math.sin(t)) for t in (0.4, 1.1, 1.9, 2.6)]
    curvature, offset, angle = _first_guess(points)
    assert curvature == pytest.approx(1 / 84)
    assert offset == pytest.approx((9 + 25 - 42**2) / 84)
    assert angle == pytest.approx(math.atan2(5, -3))


@pytest.mark.parametrize("slope", [0.0, 0.5, 1.0, -2.0])
def test_points_on_a_line_begin_at_its_normal(slope: float) -> None:
    points = [(x, slope * x) for x in (-10.0, -3.0, 4.0, 9.0)]
    curvature, offset, angle = _first_guess(points)
    assert (curvature, offset) == (0.0, 0.0)
    assert math.cos(angle) + slope * math.sin(angle) == pytest.approx(0.0)
