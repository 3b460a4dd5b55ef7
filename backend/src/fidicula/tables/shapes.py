"""How a bridge of each family is cut: for drawings, on screen and on paper; no amount is told from it."""

from __future__ import annotations

from functools import cache
from typing import Literal

from fidicula.codes import Family
from fidicula.tables.rows import SourcedRow, read_rows


class BridgeShape(SourcedRow):
    """A place on the treble half of a bridge, seen from the tailpiece. line : side, from the crown's end down to the
    foot and in under the arch; heart, its middle.

    across : of half the crown, half the waist or half the foot; of the heart, its size.  height : of the crown's end.
    """

    family: Family
    line: Literal["side", "heart"]
    across: float
    of: Literal["crown", "waist", "foot"]
    height: float


@cache
def bridge_shape(family: str) -> tuple[BridgeShape, ...]:
    """Of one family, in the order of its line."""
    return tuple(row for row in read_rows("bridge_shapes", BridgeShape) if row.family == family)
