"""Circles through and near points: the crown of a bridge.

The least-squares circle is found here and not with a general solver, because a whole bridge has to be
computed in under 0.3 ms and a general solver's set-up alone takes several times that.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.core.errors import TOLERANCE, DoesNotFitError

Point = tuple[float, float]

_STRAIGHT = 1e-8
"""A curvature under this (a radius over 100 km) is a straight line. [1/mm]"""


@dataclass(frozen=True)
class Circle:
    """centre : (offset y, height z). [mm]  radius : above 0. [mm]"""

    centre: Point
    radius: float

    def residual(self, point: Point) -> float:
        """Distance of a point from the centre, less the radius: positive outside. [mm]"""
        return math.dist(self.centre, point) - self.radius

    def height_at(self, offset: float) -> float:
        """Height of the circle's upper half at an offset inside it. [mm]"""
        y = offset - self.centre[0]
        return self.centre[1] + math.sqrt(max(0.0, self.radius**2 - y * y))


def arc_through(*, left: Point, right: Point, radius: float, radius_field: str = "crown_radius") -> Circle:
    """The circle of `radius` that bulges up through two points, `left` having the smaller offset.

    left, right : (offset, height). [mm]
    radius : above 0, and at least half the distance between the points. [mm]
    Raises DoesNotFitError naming `radius_field` where the arc cannot reach both.
    """
    chord = math.dist(left, right)
    below = radius * radius - chord * chord / 4
    if radius < chord / 2 - TOLERANCE:
        raise DoesNotFitError(
            radius_field,
            sentence=(
                f"the crown's radius must be at least {chord / 2:.1f} mm to reach both outer strings, "
                f"{chord:.1f} mm apart; it was {radius:g}"
            ),
            value=radius,
        )
    drop = math.sqrt(max(0.0, below))
    along = ((right[0] - left[0]) / chord, (right[1] - left[1]) / chord)
    return Circle(
        centre=(
            (left[0] + right[0]) / 2 + along[1] * drop,
            (left[1] + right[1]) / 2 - along[0] * drop,
        ),
        radius=radius,
    )


def least_squares_circle(points: Sequence[Point]) -> Circle:
    """The circle with the least sum of squared distances to the points, measured square to it.

    points : three or more (offset, height). [mm]
    Raises DoesNotFitError naming `strings` where a straight line does as well.
    Source: the curve A(y² + z²) + By + Cz + D = 0 with B² + C² - 4AD = 1, which passes smoothly
    from circles to lines, improved by Levenberg-Marquardt steps on (A, D, direction of B and C).
    """
    n = len(points)
    mean_y = sum(p[0] for p in points) / n
    mean_z = sum(p[1] for p in points) / n
    size = max(math.dist(p, (mean_y, mean_z)) for p in points)
    local = [((y - mean_y) / size, (z - mean_z) / size) for y, z in points]
    best = _improve(local, _first_guess(local))
    if best[0] > 1e-4 * n:
        # Far from any circle there can be several hollows: start from a line and from either bulge too.
        angle = _line_direction(local)
        for curvature in (0.0, 0.5, -0.5):
            best = min(best, _improve(local, (curvature, 0.0, angle)))
    _, A, D, angle = best
    if abs(A) * 2 / size < _STRAIGHT:
        raise DoesNotFitError(
            "strings",
            sentence="the strings' crown points lie in a straight line, so the crown has no radius: check the heights",
        )
    norm = math.sqrt(1 + 4 * A * D)
    return Circle(
        centre=(
            mean_y - size * norm * math.cos(angle) / (2 * A),
            mean_z - size * norm * math.sin(angle) / (2 * A),
        ),
        radius=size / (2 * abs(A)),
    )


def _first_guess(points: Sequence[Point]) -> tuple[float, float, float]:
    """The circle through the first, middle and last point, in the fit's own terms."""
    (y1, z1), (y2, z2), (y3, z3) = points[0], points[len(points) // 2], points[-1]
    cross = (y2 - y1) * (z3 - z1) - (y3 - y1) * (z2 - z1)
    if abs(cross) < 1e-9:
        return 0.0, 0.0, _line_direction(points)
    s2 = (y2 - y1) ** 2 + (z2 - z1) ** 2
    s3 = (y3 - y1) ** 2 + (z3 - z1) ** 2
    uy = (s2 * (z3 - z1) - s3 * (z2 - z1)) / (2 * cross)
    uz = (s3 * (y2 - y1) - s2 * (y3 - y1)) / (2 * cross)
    radius = math.hypot(uy, uz)
    cy, cz = y1 + uy, z1 + uz
    A = 1 / (2 * radius)
    return A, A * (cy * cy + cz * cz - radius * radius), math.atan2(-cz, -cy)


def _line_direction(points: Sequence[Point]) -> float:
    """Direction of the normal of the best straight line through points around the origin. [radians]"""
    yy = sum(y * y for y, _ in points)
    zz = sum(z * z for _, z in points)
    yz = sum(y * z for y, z in points)
    return math.atan2(2 * yz, yy - zz) / 2 + math.pi / 2


def _improve(points: Sequence[Point], start: tuple[float, float, float]) -> tuple[float, float, float, float]:
    """Levenberg-Marquardt from `start`; returns (sum of squares, A, D, angle)."""
    A, D, angle = start
    damping = 1e-7
    total, gradient, normal = _linearise(points, A, D, angle)
    for _ in range(200):
        step = _solve(normal, gradient, damping)
        if step is None or 1 + 4 * (A + step[0]) * (D + step[1]) <= 0:
            damping *= 10
            if damping > 1e12:
                break
            continue
        tried = (A + step[0], D + step[1], angle + step[2])
        new_total, new_gradient, new_normal = _linearise(points, *tried)
        if new_total <= total:
            settled = abs(step[0]) + abs(step[1]) + abs(step[2]) < 1e-11
            A, D, angle = tried
            total, gradient, normal = new_total, new_gradient, new_normal
            damping = max(damping / 10, 1e-15)
            if settled:
                break
        else:
            damping *= 10
            if damping > 1e12:
                break
    return total, A, D, angle


Normal = tuple[float, float, float, float, float, float]


def _linearise(
    points: Sequence[Point], A: float, D: float, angle: float
) -> tuple[float, tuple[float, float, float], Normal]:
    """Sum of squared distances, its half gradient, and the normal matrix (upper triangle by rows).

    A distance d solves A·d² + d = P, so d = 2P/(1 + Q) with Q = √(1 + 4AP), and d' = (P' - A'd²)/Q.
    """
    E = math.sqrt(1 + 4 * A * D)
    cos, sin = math.cos(angle), math.sin(angle)
    total = g0 = g1 = g2 = 0.0
    n00 = n01 = n02 = n11 = n12 = n22 = 0.0
    for y, z in points:
        along, across = cos * y + sin * z, cos * z - sin * y
        square = y * y + z * z
        P = A * square + E * along + D
        Q = math.sqrt(max(1e-300, 1 + 4 * A * P))
        d = 2 * P / (1 + Q)
        j0 = (square + 2 * D * along / E - d * d) / Q
        j1 = (2 * A * along / E + 1) / Q
        j2 = E * across / Q
        total += d * d
        g0 += j0 * d
        g1 += j1 * d
        g2 += j2 * d
        n00 += j0 * j0
        n01 += j0 * j1
        n02 += j0 * j2
        n11 += j1 * j1
        n12 += j1 * j2
        n22 += j2 * j2
    return total, (g0, g1, g2), (n00, n01, n02, n11, n12, n22)


def _solve(normal: Normal, gradient: tuple[float, float, float], damping: float) -> tuple[float, float, float] | None:
    """The damped step; None where the matrix is singular."""
    n00, n01, n02, n11, n12, n22 = normal
    n00, n11, n22 = n00 * (1 + damping), n11 * (1 + damping), n22 * (1 + damping)
    c00, c01, c02 = n11 * n22 - n12 * n12, n02 * n12 - n01 * n22, n01 * n12 - n02 * n11
    det = n00 * c00 + n01 * c01 + n02 * c02
    if abs(det) < 1e-300:
        return None
    c11, c12, c22 = n00 * n22 - n02 * n02, n01 * n02 - n00 * n12, n00 * n11 - n01 * n01
    g0, g1, g2 = gradient
    return (
        -(c00 * g0 + c01 * g1 + c02 * g2) / det,
        -(c01 * g0 + c11 * g1 + c12 * g2) / det,
        -(c02 * g0 + c12 * g1 + c22 * g2) / det,
    )
