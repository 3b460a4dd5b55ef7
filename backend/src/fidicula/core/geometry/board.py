r"""The fingerboard's playing surface across its width, and heights over it.

       v (upright)
       |    / h (the shortest way: along the radius)
   .---o--./
 .'         '.      arch(R, y) = √(R² - y²) - R, never above 0:
/      |y     \     how far the surface lies below its crest at offset y
       R
"""

from __future__ import annotations

import math
from typing import Literal, NewType

from fidicula.core.errors import TOLERANCE, DoesNotFitError

HeightDirection = Literal["vertical", "shortest"]

UprightHeight = NewType("UprightHeight", float)
"""A string's height straight up over the board's surface, as a rule stands. [mm]"""
ShortestHeight = NewType("ShortestHeight", float)
"""A string's height the shortest way to the board's round, as a wedge or a card reads. [mm]"""


def rise_over_centre(*, radius: float, offset: float, radius_field: str = "fingerboard_radius") -> float:
    """√(R² - y²): height of the surface over the centre of its curve. [mm]

    radius : above 0. [mm]  offset : from the centre line, at most the radius away. [mm]
    Raises DoesNotFitError naming `radius_field` where the board is too round for the offset.
    """
    if abs(offset) > radius + TOLERANCE:
        raise DoesNotFitError(
            radius_field,
            sentence=(
                f"the board's radius of {radius:g} mm is too round: a string runs {abs(offset):.1f} mm from the "
                "middle, so the radius must be at least that"
            ),
            value=radius,
        )
    return math.sqrt(max(0.0, radius * radius - offset * offset))


def arch(*, radius: float, offset: float, radius_field: str = "fingerboard_radius") -> float:
    """How far the board's surface lies below its crest; 0 at the crest, negative beside it. [mm]

    radius, offset, radius_field : as for `rise_over_centre`. Raises DoesNotFitError.
    """
    return rise_over_centre(radius=radius, offset=offset, radius_field=radius_field) - radius


def upright_height(
    *,
    shortest_height: ShortestHeight,
    radius: float,
    offset: float,
    diameter: float,
    tilt: float = 0.0,
    radius_field: str = "fingerboard_radius",
) -> UprightHeight:
    """The height straight up, of a string whose shortest height over the board is known. [mm]

    shortest_height : 0 or more, read with a wedge, card or feeler, which touch the round of the string. [mm]
    radius : of the board there, above 0. [mm]  offset : of the string there. [mm]  diameter : of it, above 0. [mm]
    tilt : of the board, positive where it leans up on the treble side. [degrees]
    Raises DoesNotFitError naming `radius_field`.
    Source: the string's middle lies on the circle of radius R + h + d/2 about the middle of the board's round.
    """
    rise = math.tan(math.radians(tilt))
    across, down = _middle(radius=radius, offset=offset, tilt=tilt)
    reach = radius + shortest_height + diameter / 2
    if abs(across) > reach + TOLERANCE:
        raise DoesNotFitError(
            radius_field,
            sentence=f"a board of radius {radius:g} mm that leans by {tilt:g}° lies beside the string, not under it",
            value=radius,
        )
    middle = math.sqrt(max(0.0, reach * reach - across * across))
    surface = arch(radius=radius, offset=offset, radius_field=radius_field) + offset * rise
    return UprightHeight(middle - down - diameter / 2 - surface)


def shortest_height(
    *,
    upright_height: UprightHeight,
    radius: float,
    offset: float,
    diameter: float,
    tilt: float = 0.0,
    radius_field: str = "fingerboard_radius",
) -> ShortestHeight:
    """The way back of `upright_height`. [mm]

    upright_height : straight up, under the string. [mm]
    radius, offset, diameter, tilt, radius_field : as for `upright_height`. Raises DoesNotFitError.
    """
    rise = math.tan(math.radians(tilt))
    across, down = _middle(radius=radius, offset=offset, tilt=tilt)
    surface = arch(radius=radius, offset=offset, radius_field=radius_field) + offset * rise
    middle = surface + upright_height + diameter / 2 + down
    return ShortestHeight(math.hypot(across, middle) - radius - diameter / 2)


def _middle(*, radius: float, offset: float, tilt: float) -> tuple[float, float]:
    """From the middle of the board's round: how far beside it the string is, how far below the crest it lies. [mm]"""
    turned = math.radians(tilt)
    return offset - radius * math.sin(turned), radius * math.cos(turned)
