r"""A flat facet under a low string: how far it lies below the board's round.

        .---.             o  the string, `from_ridge` outward of the ridge
      .'     '.          |   height is read down to the flat
 ____/ ridge   \
 flat, `width` from the ridge to the board's edge
"""

from __future__ import annotations

from fidicula.core.errors import DoesNotFitError
from fidicula.core.geometry.board import arch


def facet_drop(*, radius: float, board_width: float, width: float, from_ridge: float) -> float:
    """How far the flat lies below the round under a string; 0 where the string does not lie over it. [mm]

    radius : of the board there, above 0. [mm]  board_width : edge to edge there, above `width`. [mm]
    width : of the flat, from its ridge to the board's edge, 0 or more. [mm]
    from_ridge : from the ridge outward to the string's middle; below zero the string lies on the round. [mm]
    Raises DoesNotFitError naming `facet_width` or `fingerboard_radius`.
    Source: the chord between ridge and edge against the arc over it.
    """
    if not 0 <= width < board_width:
        raise DoesNotFitError(
            "facet_width",
            sentence=f"a flat is narrower than the board's {board_width:g} mm; it was {width:g}",
            value=width,
        )
    if not 0 < from_ridge < width:
        return 0.0
    edge = board_width / 2
    ridge = edge - width
    at_ridge, at_edge = arch(radius=radius, offset=ridge), arch(radius=radius, offset=edge)
    chord = at_ridge + (at_edge - at_ridge) * from_ridge / width
    return arch(radius=radius, offset=ridge + from_ridge) - chord
