"""What is looked at before an instrument leaves, and what it means where something stays open."""

from __future__ import annotations

from collections.abc import Container
from functools import cache

from fidicula.codes import Part, WorkCode
from fidicula.tables.parts import parts
from fidicula.tables.rows import TableError, TableRow, read_rows
from fidicula.tables.signs import OfFamilies
from fidicula.tables.work import works

ALWAYS = "always"


class ClosingPoint(OfFamilies):
    """A point of the check at pitch. look : how.  means : where it is not right.  part : of the instrument, if any."""

    point: str
    label: str
    look: str | None
    means: str | None
    part: Part | None


class _LeftOpenRow(TableRow):
    part: Part
    means: str


@cache
def closing_points() -> dict[str, ClosingPoint]:
    """By name, in the order of the table."""
    return {row.point: row for row in read_rows("closing_points", ClosingPoint)}


@cache
def left_open() -> dict[Part, str]:
    """What it would mean to leave something open at a part."""
    found = {row.part: row.means for row in read_rows("left_open", _LeftOpenRow)}
    if set(found) != set(parts()):
        raise TableError("left_open.csv: one row for each part")
    return found


class NextCheck(OfFamilies):
    """When an instrument should come again after a work, and what is looked at then. work : blank for any visit."""

    work: WorkCode | None
    weeks: int
    why: str


@cache
def next_checks() -> tuple[NextCheck, ...]:
    rows = read_rows("next_checks", NextCheck)
    unknown = [row.work for row in rows if row.work is not None and row.work not in works()]
    if unknown or not any(row.work is None for row in rows):
        raise TableError(f"next_checks.csv: a row for any visit, and known works; not {unknown}")
    return rows


class Care(OfFamilies):
    """A word of advice for the owner. when : works after which it is said, or `always`.

    unless : the sign that it is not said with; None for none.
    """

    care: str
    when: str
    unless: str | None
    says: str

    def is_said(self, done: Container[str], family: str, signs: Container[str]) -> bool:
        """done : works of the visit.  signs : that show."""
        if self.unless in signs:
            return False
        return self.fits(family) and (self.when == ALWAYS or any(work in done for work in self.when.split()))


@cache
def care() -> tuple[Care, ...]:
    rows = read_rows("care", Care)
    unknown = [work for row in rows if row.when != ALWAYS for work in row.when.split() if work not in works()]
    if unknown:
        raise TableError(f"care.csv: there is no work {unknown}")
    return rows
