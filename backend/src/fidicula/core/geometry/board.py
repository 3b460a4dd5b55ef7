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
    *, shortest_height: ShortestHeight, radius: float, offset: float, radius_field: str = "fingerboard_radius"
) -> UprightHeight:
    """The height straight up, of a string whose shortest height over the board is known. [mm]

    shortest_height : 0 or more, read with a wedge, card or feeler. [mm]
    radius : of the board there, above 0. [mm]  offset : of the string there. [mm]
    Raises DoesNotFitError naming `radius_field`.
    Source: the string lies on the circle of radius R + h about the board's centre.
    """
    surface = rise_over_centre(radius=radius, offset=offset, radius_field=radius_field)
    reach = radius + shortest_height
    return UprightHeight(math.sqrt(max(0.0, reach * reach - offset * offset)) - surface)


def shortest_height(
    *, upright_height: UprightHeight, radius: float, offset: float, radius_field: str = "fingerboard_radius"
) -> ShortestHeight:
    """The way back of `upright_height`. [mm]

    upright_height : straight up. [mm]  radius : above 0. [mm]  offset : of the string there. [mm]
    Raises DoesNotFitError naming `radius_field`.
    """
    surface = rise_over_centre(radius=radius, offset=offset, radius_field=radius_field)
    return ShortestHeight(math.hypot(offset, surface + upright_height) - radius)
