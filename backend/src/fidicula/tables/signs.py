"""Signs: what readings, the door or eyes can say of an instrument; and conditions written with them."""

from __future__ import annotations

from collections.abc import Container
from dataclasses import dataclass
from functools import cache
from typing import Literal, cast

from fidicula.codes import ComputedSignCode, FindingCode, ItemCode, MeasureCode, Part, SignCode, WorkCode
from fidicula.tables.rows import TableError, TableRow, read_rows

_NOT = "not:"

VERDICTS = {"fine": "fine", "watch": "watch", "work": "work needed", "not_looked_at": "not looked at"}
"""What can be said of an item that is looked over."""


class ComputedSign(TableRow):
    """A sign that is worked out from readings, said at the door, made by what was decided, or by dates."""

    sign: ComputedSignCode
    says: str
    told_by: Literal["readings", "door", "decisions", "log", "recipe"]


class OfFamilies(TableRow):
    """families : that it holds for, blank for all."""

    families: str | None

    def fits(self, family: str) -> bool:
        return self.families is None or family in self.families.split()


class Finding(OfFamilies):
    """A sign that somebody sees. verdict : what it asks for.

    leads_to : what to look at or measure next, and what to do.  measure : of it, that this program knows.
    work : the works that mend it, the usual one first.
    """

    finding: FindingCode
    item: ItemCode
    label: str
    verdict: str
    leads_to: str | None
    work: str | None
    measure: MeasureCode | None

    @property
    def works(self) -> tuple[WorkCode, ...]:
        """That mend it, the usual one first."""
        return tuple(cast(WorkCode, one) for one in (self.work or "").split())


class Item(OfFamilies):
    """What is looked at, in working order. part : of the instrument.  look : how.  kinds : of visit that ask for it."""

    item: ItemCode
    label: str
    part: Part
    look: str
    kinds: str


@cache
def items() -> dict[ItemCode, Item]:
    found = {row.item: row for row in read_rows("items", Item)}
    for finding in findings().values():
        if finding.item not in found:
            raise TableError(f"findings.csv: {finding.item} is no item of items.csv")
    return found


class Shot(OfFamilies):
    """A shot worth taking with an inspection camera. how : lit and aimed."""

    shot: str
    item: ItemCode
    label: str
    how: str


@cache
def shots() -> dict[str, Shot]:
    found = {row.shot: row for row in read_rows("shots", Shot)}
    for row in found.values():
        if row.item not in items():
            raise TableError(f"shots.csv: {row.item} is no item of items.csv")
    return found


@cache
def computed_signs() -> dict[ComputedSignCode, ComputedSign]:
    return {row.sign: row for row in read_rows("computed_signs", ComputedSign)}


@cache
def findings() -> dict[FindingCode, Finding]:
    return {row.finding: row for row in read_rows("findings", Finding)}


@cache
def findings_of(family: str) -> dict[ItemCode, tuple[Finding, ...]]:
    """By item, in working order, what can be seen on an instrument of a family."""
    return {
        item.item: tuple(row for row in findings().values() if row.item == item.item and row.fits(family))
        for item in items().values()
        if item.fits(family)
    }


def sign_code(name: str) -> SignCode:
    """A sign by its name. Raises KeyError for what nobody can see or work out."""
    if name not in findings() and name not in computed_signs():
        raise KeyError(name)
    return name


@dataclass(frozen=True)
class When:
    """A condition: any of its alternatives, each of which is signs that all show or do not show.

    Written “a b | a not:c”: a and b together, or a without c.
    """

    alternatives: tuple[tuple[tuple[str, bool], ...], ...]

    def holds(self, signs: Container[str]) -> bool:
        return any(all((sign in signs) is wanted for sign, wanted in parts) for parts in self.alternatives)

    def shown(self, signs: Container[str]) -> list[str]:
        """The signs that speak for it now: of its first alternative that holds."""
        for parts in self.alternatives:
            if all((sign in signs) is wanted for sign, wanted in parts):
                return [sign for sign, wanted in parts if wanted]
        return []

    @property
    def signs(self) -> set[str]:
        return {sign for parts in self.alternatives for sign, _ in parts}


def when(text: str | None, *, known: Container[str], table: str) -> When:
    """Read a condition; an empty one never holds. Raises TableError for a sign that nobody knows."""
    alternatives = []
    for part in (text or "").split("|"):
        words = part.split()
        if words:
            alternatives.append(tuple((word.removeprefix(_NOT), not word.startswith(_NOT)) for word in words))
    found = When(tuple(alternatives))
    for sign in sorted(found.signs):
        if sign not in known:
            raise TableError(f"{table}.csv: nobody can see or work out “{sign}”")
    return found
