"""Damage over all visits of an instrument: a mark is what its lines have in common, its last line is how it stands."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, func, select, update

from fidicula.db import schema
from fidicula.db.once import add_once

_t, _signed = schema.damage, schema.damage_signed


@dataclass(frozen=True)
class DamageLook:
    """One look at one mark. thing : the mark, the same for every look at it.

    along : from the top edge, on the neck from the nut.  across : from the middle, + to the treble; on a side toward
    the front.  to_along, to_across : where it ends; None for what has one place.  length : along it. [mm]
    after_work : the last work that was known.  since : works that were done after it, at any visit.
    """

    id: UUID
    visit_id: UUID
    thing: UUID
    kind: str
    face: str
    along: float
    across: float
    to_along: float | None
    to_across: float | None
    length: float | None
    ends: str
    state: str
    under_tension: bool
    words: str
    after_work: int
    seen_by: str
    seen_at: datetime | None = None
    since: frozenset[str] = frozenset()


@dataclass(frozen=True)
class DamageSigned:
    """Somebody signed for what was found. lines : that stood then.  signature : strokes, as everywhere."""

    id: UUID
    visit_id: UUID
    who: str
    lines: tuple[UUID, ...]
    signature: str
    entered_by: str
    signed_at: datetime | None = None


_NOT_STORED = ("seen_at", "signed_at", "since")


def look_of(m: Mapping[Any, Any]) -> DamageLook:
    """A row with the works since, as the sheet's statement has it."""
    names = [name for name in DamageLook.__dataclass_fields__ if name != "since"]
    return DamageLook(**{name: m[name] for name in names}, since=frozenset(m["since"] or ()))


class Damage:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def add(self, new: DamageLook | DamageSigned) -> None:
        """Once for each id."""
        table = _t if isinstance(new, DamageLook) else _signed
        values = {name: value for name, value in vars(new).items() if name not in _NOT_STORED}
        if isinstance(new, DamageSigned):
            values["lines"] = list(new.lines)
        add_once(self._connection, table, values)

    def signed(self, instrument_id: UUID) -> list[DamageSigned]:
        """That stand, oldest first."""
        names = [column for column in _signed.c if column.name not in ("number", "taken_back_at", "taken_back_by")]
        visit = schema.visit
        rows = self._connection.execute(
            select(*names)
            .join(visit, visit.c.id == _signed.c.visit_id)
            .where(visit.c.instrument_id == instrument_id, _signed.c.taken_back_at.is_(None))
            .order_by(_signed.c.number)
        )
        return [DamageSigned(**{**row._mapping, "lines": tuple(row.lines)}) for row in rows]

    def take_back(self, entry_id: UUID, visit_id: UUID, by: str) -> bool:
        """Mark a look or a signature of this visit, once; whether it has one."""
        for table in (_t, _signed):
            found = self._connection.execute(
                update(table)
                .where(table.c.id == entry_id, table.c.visit_id == visit_id)
                .values(
                    taken_back_at=func.coalesce(table.c.taken_back_at, func.now()),
                    taken_back_by=func.coalesce(table.c.taken_back_by, by),
                )
            )
            if found.rowcount:
                return True
        return False
