"""The shop's short lists of what it has: blanks, files, templates."""

from __future__ import annotations

from functools import cache

from pydantic import field_validator

from fidicula.codes import Family
from fidicula.tables.rows import SourcedRow, read_rows


class ShelfList(SourcedRow):
    """One list for one family. values : what the shop starts from, upward.  smallest, largest : that can be. [unit]"""

    list: str
    label: str
    unit: str
    smallest: float
    largest: float
    family: Family
    values: tuple[float, ...]

    @field_validator("values", mode="before")
    @classmethod
    def _split(cls, cell: str | None) -> tuple[str, ...]:
        return tuple((cell or "").split())


@cache
def shelf_lists() -> dict[tuple[str, str], ShelfList]:
    """By list and family."""
    return {(row.list, row.family): row for row in read_rows("shelf", ShelfList)}
