"""What belongs to an instrument, over all its visits: the last line about each thing stands."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy import Connection, func, select, update

from fidicula.db import schema
from fidicula.db.once import add_once
from fidicula.domain.belongings import BelongingEntry

_t = schema.belonging


class Belongings:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def of(self, instrument_id: UUID) -> list[BelongingEntry]:
        """Every line that stands, oldest first."""
        names = [column for column in _t.c if column.name not in ("number", "taken_back_at", "taken_back_by")]
        visit = schema.visit
        rows = self._connection.execute(
            select(*names)
            .join(visit, visit.c.id == _t.c.visit_id)
            .where(visit.c.instrument_id == instrument_id, _t.c.taken_back_at.is_(None))
            .order_by(_t.c.number)
        )
        return [BelongingEntry(**row._mapping) for row in rows]

    def add(self, new: BelongingEntry) -> None:
        """Once for each id."""
        add_once(self._connection, _t, {name: value for name, value in vars(new).items() if name != "entered_at"})

    def take_back(self, entry_id: UUID, visit_id: UUID, by: str) -> bool:
        """Mark a line, once; whether this visit has one."""
        found = self._connection.execute(
            update(_t)
            .where(_t.c.id == entry_id, _t.c.visit_id == visit_id)
            .values(
                taken_back_at=func.coalesce(_t.c.taken_back_at, func.now()),
                taken_back_by=func.coalesce(_t.c.taken_back_by, by),
            )
        )
        return found.rowcount > 0
