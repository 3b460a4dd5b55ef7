"""Damage over all visits of an instrument: a mark is what its lines have in common, its last line is how it stands."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, func, select, update

from fidicula.db import schema
from fidicula.db.once import add_once
from fidicula.domain.damage import DamageLook, DamageSigned

_t, _signed = schema.damage, schema.damage_signed


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
