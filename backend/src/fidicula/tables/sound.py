"""Adjusting by ear as rows: what can be said of an act, complaints and their advice; strings' life and fitting."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache
from typing import Literal

from fidicula.core.sound.places import Direction, End
from fidicula.tables.rows import SourcedRow, TableError, TableRow, read_rows
from fidicula.tables.signs import OfFamilies, When, computed_signs, findings, when

EVERY = "*"
"""In a complaint's place: said of all of them."""

AdviceKind = Literal["first", "back", "move", "bridge", "wood", "strings", "stop", "who"]


class _ActChoice(TableRow):
    """opening : a place of the bridge that grows as wood is taken."""

    list: Literal["tension", "setter", "trial", "place", "opening", "listened_from", "behind_by"]
    key: str
    label: str


class _Complaint(TableRow):
    complaint: str
    label: str


class Advice(SourcedRow):
    """kind : what has to be so first, a way back, a first small move, a trial on the bridge, wood off it, strings,
    when to stop, who should not.  school : where two disagree, which of them.  unmet : signs that speak against it.
    """

    complaint: str
    kind: AdviceKind
    school: str | None
    end: End | None
    direction: Direction | None
    unmet: str | None
    says: str
    because: str

    @property
    def against(self) -> When:
        return when(self.unmet, known={*findings(), *computed_signs()}, table="advice")


class StringLife(SourcedRow):
    """How long strings serve, by whichever is over first. months, hours : of playing."""

    material: str
    months: int
    hours: int


class Fitting(OfFamilies):
    """One thing to do, or to heed, when strings are put on; in order."""

    kind: Literal["first", "do", "caution"]
    says: str
    because: str


@cache
def act_choices() -> Mapping[str, Mapping[str, str]]:
    """What can be said of an act: by list, label by key."""
    found: dict[str, dict[str, str]] = {}
    for row in read_rows("act_choices", _ActChoice):
        found.setdefault(row.list, {})[row.key] = row.label
    return found


@cache
def complaints() -> Mapping[str, str]:
    """Labels of what players complain of."""
    return {row.complaint: row.label for row in read_rows("complaints", _Complaint)}


@cache
def advice() -> tuple[Advice, ...]:
    """In the order in which it is given."""
    rows = read_rows("advice", Advice)
    for row in rows:
        if row.complaint != EVERY and row.complaint not in complaints():
            raise TableError(f"advice.csv: {row.complaint} is no complaint of complaints.csv")
        if (row.kind == "move") != (row.end is not None and row.direction is not None):
            raise TableError(f"advice.csv: “{row.says}” is a move with an end and a direction, or neither")
        row.against  # noqa: B018  # raises where nobody can see a sign
    return rows


@cache
def string_life() -> Mapping[str, StringLife]:
    return {row.material: row for row in read_rows("string_life", StringLife)}


@cache
def fitting() -> tuple[Fitting, ...]:
    return read_rows("fitting", Fitting)
