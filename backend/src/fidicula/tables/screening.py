"""What many instruments are screened by: a column each, in the order in which hands and eyes go."""

from __future__ import annotations

from functools import cache
from typing import Literal

from fidicula.codes import ItemCode, MeasureCode
from fidicula.tables.rows import TableError, TableRow, read_rows
from fidicula.tables.signs import items


class Column(TableRow):
    """One thing that each is asked for: what is seen at an item, or one reading.

    string : of a reading, the lowest or the highest.  hands : who mends it, where it needs work.
    """

    column: str
    label: str
    item: ItemCode | None
    measure: MeasureCode | None
    string: Literal["low", "high"] | None
    hands: Literal["luthier", "anyone"]


@cache
def columns() -> tuple[Column, ...]:
    """Raises TableError for a column that asks for neither an item nor a string's reading, or for both."""
    found = read_rows("screening", Column)
    for row in found:
        if (row.item is None) is (row.measure is None) or (row.measure is None) is not (row.string is None):
            raise TableError(f"screening.csv: {row.column} asks for an item, or for a measure at a string")
        if row.item is not None and row.item not in items():
            raise TableError(f"screening.csv: {row.item} is no item of items.csv")
    return found
