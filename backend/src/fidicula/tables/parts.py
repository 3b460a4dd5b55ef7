"""The parts of an instrument, in the order of the page, with what each is called."""

from __future__ import annotations

from functools import cache

from pydantic import BaseModel

from fidicula.codes import Part
from fidicula.tables.rows import read_rows


class PartRow(BaseModel, frozen=True):
    part: Part
    label: str


@cache
def parts() -> dict[Part, PartRow]:
    return {row.part: row for row in read_rows("parts", PartRow)}
