r"""The fingerboard's playing surface across its width, and heights over it.

       v (upright)
       |    / h (the shortest way: along the radius)
   .---o--./
 .'         '.      arch(R, y) = √(R² - q²) - R·cos t, q = y - R·sin t: how far the surface lies over its crest's
/      |y     \     line at offset y. A board that leans by t is turned about its crest, at y = 0.
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


def beside_centre(*, radius: float, offset: float, tilt: float = 0.0) -> float:
    """q = y - R·sin t: how far beside the middle of the board's round an offset lies. [mm]

    radius : above 0. [mm]  offset : from the centre line. [mm]
    tilt : of the board, positive where it leans up on the treble side: the round is turned about its crest. [degrees]
    """
    return offset - radius * math.sin(math.radians(tilt)) if tilt else offset


def rise_over_centre(
    *, radius: float, offset: float, tilt: float = 0.0, radius_field: str = "fingerboard_radius"
) -> float:
    """√(R² - q²): height of the surface over the middle of its round. [mm]

    radius, offset, tilt : as for `beside_centre`; q is nearer than the radius.
    Raises DoesNotFitError naming `radius_field` where the board is too round for the offset.
    """
    across = beside_centre(radius=radius, offset=offset, tilt=tilt)
    if abs(across) > radius - TOLERANCE:
        leans = f", with the board leaning by {tilt:g}°" if tilt else ""
        raise DoesNotFitError(
            radius_field,
            sentence=(
                f"the board's radius of {radius:g} mm is too round: a string runs {abs(across):.1f} mm from the "
                f"middle{leans}, so the radius must be over that"
            ),
            value=radius,
        )
    return math.sqrt(radius * radius - across * across)


def arch(*, radius: float, offset: float, tilt: float = 0.0, radius_field: str = "fingerboard_radius") -> float:
    """How far the board's surface lies over its crest's line: 0 at offset 0, negative beside it without a lean. [mm]

    radius, offset, tilt, radius_field : as for `rise_over_centre`. Raises DoesNotFitError.
    """
    rise = rise_over_centre(radius=radius, offset=offset, tilt=tilt, radius_field=radius_field)
    return rise - radius * math.cos(math.radians(tilt))


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
    radius, offset, tilt, radius_field : as for `rise_over_centre`.  diameter : of the string, above 0. [mm]
    Raises DoesNotFitError naming `radius_field`.
    Source: the string's middle lies on the circle of radius R + h + d/2 about the middle of the board's round.
    """
    surface = rise_over_centre(radius=radius, offset=offset, tilt=tilt, radius_field=radius_field)
    across = beside_centre(radius=radius, offset=offset, tilt=tilt)
    reach = radius + shortest_height + diameter / 2
    return UprightHeight(math.sqrt(reach * reach - across * across) - diameter / 2 - surface)


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
    surface = rise_over_centre(radius=radius, offset=offset, tilt=tilt, radius_field=radius_field)
    across = beside_centre(radius=radius, offset=offset, tilt=tilt)
    middle = surface + upright_height + diameter / 2
    return ShortestHeight(math.hypot(across, middle) - radius - diameter / 2)
