"""The parts of an instrument, in the order of the page, with what each is called."""

from __future__ import annotations

from functools import cache

from fidicula.codes import Part
from fidicula.tables.rows import TableRow, read_rows


class PartRow(TableRow):
    part: Part
    label: str


@cache
def parts() -> dict[Part, PartRow]:
    return {row.part: row for row in read_rows("parts", PartRow)}
