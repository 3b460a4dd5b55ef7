"""The damage of an instrument: its marks over all visits, how each stands, what has grown, what is to be seen again."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Literal
from uuid import UUID

from fidicula.codes import FindingCode
from fidicula.core.errors import TOLERANCE
from fidicula.domain.damage import DamageLook
from fidicula.tables.damage import DamageKind, DamageState, damage_kinds
from fidicula.tables.signs import findings

GROWN = 1.0
"""Two lengths by a rule may differ by so much, each being good to half a millimetre; more has grown. [mm]"""

ToSee = Literal["worked_on", "last_visit", "tension"]
"""Why a mark is looked at again: a work was done at it, it was last seen at an earlier visit, or without tension."""


@dataclass(frozen=True)
class DamageMark:
    """One mark. looks : that stand, oldest first."""

    looks: tuple[DamageLook, ...]

    @property
    def thing(self) -> UUID:
        return self.last.thing

    @property
    def last(self) -> DamageLook:
        return self.looks[-1]

    @cached_property
    def kind(self) -> DamageKind:
        return damage_kinds()[self.last.kind]

    @cached_property
    def grown(self) -> float | None:
        """By how much it is longer than as it was first measured; None without two lengths. [mm]"""
        lengths = [look.length for look in self.looks if look.length is not None]
        return lengths[-1] - lengths[0] if len(lengths) > 1 else None

    @property
    def has_grown(self) -> bool:
        return self.grown is not None and self.grown > GROWN + TOLERANCE

    @property
    def state(self) -> DamageState:
        """As it was last seen; what was said not to move and has grown since is open."""
        said = next(state for state in self.kind.states if state == self.last.state)
        return "open" if said == "stable" and self.has_grown and self.kind.open is not None else said

    @property
    def finding(self) -> FindingCode | None:
        return self.kind.finding(self.state)

    @property
    def is_worked_on(self) -> bool:
        """Whether a work that mends it was done since it was last seen."""
        return self.finding is not None and bool(self.last.since & set(findings()[self.finding].works))

    def to_see(self, visit_id: UUID) -> ToSee | None:
        """Why it is looked at again at a visit; None where it need not be."""
        if self.is_worked_on:
            return "worked_on"
        if self.last.visit_id != visit_id:
            return "last_visit"
        moves = self.kind.is_long and self.state in ("open", "stable")
        return "tension" if moves and not self.last.under_tension else None


def damage_marks(looks: Sequence[DamageLook]) -> list[DamageMark]:
    """In the order in which they were first seen; a kind or a state that no table knows any more is left out."""
    found: dict[UUID, list[DamageLook]] = {}
    for look in looks:
        if look.kind in damage_kinds() and look.state in damage_kinds()[look.kind].states:
            found.setdefault(look.thing, []).append(look)
    return [DamageMark(tuple(of)) for of in found.values()]


def damage_findings(marks: Iterable[DamageMark]) -> frozenset[FindingCode]:
    """What the marks are, as findings. A mark stays as it was last seen until somebody sees it again: which of several
    cracks a repair was done at, it alone says."""
    return frozenset(mark.finding for mark in marks if mark.finding is not None)
