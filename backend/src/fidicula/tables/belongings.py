"""What belongs to an instrument: fittings as objects, what came along with it, and what the shop lent."""

from __future__ import annotations

from functools import cache
from typing import Literal

from fidicula.tables.rows import read_rows
from fidicula.tables.signs import OfFamilies

Group = Literal["fitting", "along", "shop"]
"""On the instrument; came along with it; the shop's own, to come back."""


class BelongingKind(OfFamilies):
    """counted : there may be several.  which : what is worth writing down of it, blank for nothing more.

    words : by which it is known where somebody names what came along.
    """

    kind: str
    label: str
    group: Group
    counted: bool
    which: str | None
    words: str | None


@cache
def belonging_kinds() -> dict[str, BelongingKind]:
    """By name, in the order of the table."""
    return {row.kind: row for row in read_rows("belongings", BelongingKind)}
