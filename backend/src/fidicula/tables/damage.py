"""Kinds of damage that are marked on the damage map, and what each means while it is open, at rest or repaired."""

from __future__ import annotations

from functools import cache
from typing import Literal, cast

from fidicula.codes import FindingCode
from fidicula.tables.rows import TableError, read_rows
from fidicula.tables.signs import OfFamilies, findings

DamageState = Literal["open", "stable", "repaired", "poor"]

FACES = {
    "front": "front",
    "back": "back",
    "bass_side": "bass side",
    "treble_side": "treble side",
    "neck": "neck",
    "scroll": "scroll",
}
"""What a mark can stand on, in the order in which an instrument is turned."""
STATES: dict[DamageState, str] = {
    "open": "open or moving",
    "stable": "does not move",
    "repaired": "repaired well",
    "poor": "repaired badly",
}
ENDS = {"": "not said", "both_seen": "both ends seen", "runs_on": "it runs on out of sight"}
"""Of a crack or a seam: whether anybody saw where it ends."""
_NO_FINDING = "-"


class DamageKind(OfFamilies):
    """A kind of damage. faces : that it is found on.  long : whether it has two ends, as a crack has.

    open, stable, repaired, poor : the finding that it then is, `-` for none; blank where it cannot be so.
    careful : what to heed as it is looked at.
    """

    kind: str
    label: str
    faces: str
    long: Literal["yes", "no"]
    open: str | None
    stable: str | None
    repaired: str | None
    poor: str | None
    careful: str
    source: str

    @property
    def is_long(self) -> bool:
        return self.long == "yes"

    @property
    def on(self) -> tuple[str, ...]:
        return tuple(self.faces.split())

    @property
    def states(self) -> tuple[DamageState, ...]:
        """That it can be in."""
        return tuple(state for state in STATES if getattr(self, state) is not None)

    def finding(self, state: DamageState) -> FindingCode | None:
        """What it is in a state, as findings.csv names it; None where it asks for nothing."""
        found: str | None = getattr(self, state)
        return None if found in (None, _NO_FINDING) else cast(FindingCode, found)


@cache
def damage_kinds() -> dict[str, DamageKind]:
    """By name, in the order of the table."""
    found = {row.kind: row for row in read_rows("damage_kinds", DamageKind)}
    for row in found.values():
        if unknown := set(row.on) - set(FACES):
            raise TableError(f"damage_kinds.csv: {row.kind} is on {unknown}, which is no face")
        for state in row.states:
            name = row.finding(state)
            if name is not None and name not in findings():
                raise TableError(f"damage_kinds.csv: {row.kind}, {state}: {name} is no finding")
    return found
