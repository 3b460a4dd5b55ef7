"""The bow's clearance between neighbouring strings, and the template nearest to a crown."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise

from fidicula.core.errors import TOLERANCE
from fidicula.core.geometry.circle import Point


@dataclass(frozen=True)
class Waist:
    """width : of the body at the waist. [mm]  height : of its edge over the belly; usually negative. [mm]"""

    width: float
    height: float


def bow_separations(*, centres: Sequence[Point], waist: Waist | None = None) -> list[float | None]:
    """Angle through which the bow touches each string alone. [degrees]

    centres : three or more (offset, height) of the strings' centres. [mm]
    waist : gives the outer strings theirs; without it they have None.
    """

    def slope(start: Point, end: Point) -> float:
        return math.degrees(math.atan2(end[1] - start[1], end[0] - start[0]))

    chords = [slope(a, b) for a, b in pairwise(centres)]
    inner: list[float | None] = [left - right for left, right in pairwise(chords)]
    if waist is None:
        return [None, *inner, None]
    bass = slope((-waist.width / 2, waist.height), centres[0]) - chords[0]
    treble = chords[-1] - slope(centres[-1], (waist.width / 2, waist.height))
    return [bass, *inner, treble]


def bow_rises(*, centres: Sequence[Point]) -> list[float | None]:
    """How far each inner string stands over the line through its neighbours, straight up. [mm]

    centres : three or more (offset, height) of the strings' centres. [mm]
    """
    rises: list[float | None] = [None]
    for (y0, z0), (y, z), (y1, z1) in zip(centres, centres[1:], centres[2:], strict=False):
        rises.append(z - (z0 + (z1 - z0) * (y - y0) / (y1 - y0)))
    return [*rises, None]


def nearest_template(*, radius: float, templates: Sequence[float]) -> float | None:
    """The template on hand that is nearest to a radius; the smaller of two as near; None of none. [mm]

    radius : wanted. [mm]  templates : radii on hand. [mm]
    """
    best: float | None = None
    for template in sorted(templates):
        if best is None or abs(template - radius) < abs(best - radius) - TOLERANCE:
            best = template
    return best
