"""Signs: what readings, the door or eyes can say of an instrument; and conditions written with them."""

from __future__ import annotations

from collections.abc import Container
from dataclasses import dataclass
from functools import cache

from fidicula.tables.rows import TableError, TableRow, read_rows

_NOT = "not:"

VERDICTS = {"fine": "fine", "watch": "watch", "work": "work needed", "not_looked_at": "not looked at"}
"""What can be said of an item that is looked over."""


class ComputedSign(TableRow):
    """A sign that is worked out from readings, or said at the door."""

    sign: str
    says: str


class Finding(TableRow):
    """A sign that somebody sees. families : that it can be found on, blank for all.  verdict : what it asks for."""

    finding: str
    item: str
    label: str
    families: str | None
    verdict: str

    def fits(self, family: str) -> bool:
        return self.families is None or family in self.families.split()


@cache
def computed_signs() -> dict[str, ComputedSign]:
    return {row.sign: row for row in read_rows("computed_signs", ComputedSign)}


@cache
def findings() -> dict[str, Finding]:
    return {row.finding: row for row in read_rows("findings", Finding)}


@cache
def findings_of(family: str) -> dict[str, tuple[Finding, ...]]:
    """By item, in working order, what can be seen on an instrument of a family."""
    found: dict[str, tuple[Finding, ...]] = {}
    for row in findings().values():
        if row.fits(family):
            found[row.item] = (*found.get(row.item, ()), row)
    return found


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
