"""Visits of an instrument: opened, closed, and where the course of one stands."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime, timedelta
from uuid import UUID

from sqlalchemy import Connection, DateTime, select, update
from sqlalchemy.dialects.postgresql import insert as upsert

from fidicula.db import schema
from fidicula.db.once import check_same
from fidicula.db.visit_lines import OF_VISIT
from fidicula.domain.visits import Visit


class Visits:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def open(
        self,
        *,
        id: UUID,
        instrument_id: UUID,
        kind: str,
        complaint: str,
        opened_at: datetime | None = None,
        closed_at: datetime | None = None,
        closed_by: str | None = None,
        asked: Mapping[str, object] | None = None,
    ) -> bool:
        """Add a visit; False where the instrument has another open one. A visit of this id stays as it is.

        opened_at, closed_at, closed_by : None for now, and for still open.  asked : of the visit, by column.
        Raises TakenIdError for the id of another instrument's visit.
        """
        known = {**({} if opened_at is None else {"opened_at": opened_at}), **(asked or {})}
        values = {"id": id, "instrument_id": instrument_id, "kind": kind, "complaint": complaint, **known}
        if closed_at is not None:
            values |= {"closed_at": closed_at, "closed_by": closed_by}
        t = schema.visit
        added = self._connection.execute(upsert(t).values(**values).on_conflict_do_nothing().returning(t.c.id))
        if added.one_or_none() is not None:
            return True
        if self._connection.execute(select(t.c.id).where(t.c.id == id)).one_or_none() is None:
            return False
        check_same(self._connection, t, values, same=["instrument_id"])
        return True

    def close(self, visit_id: UUID, *, by: str, at: datetime) -> None:
        """Hand an instrument over."""
        t = schema.visit
        self._connection.execute(update(t).where(t.c.id == visit_id).values(closed_at=at, closed_by=by))

    def open_again(self, visit_id: UUID) -> None:
        """It was not handed over after all."""
        t = schema.visit
        self._connection.execute(update(t).where(t.c.id == visit_id).values(closed_at=None, closed_by=None))

    def date_back(self, visit_id: UUID, by: timedelta) -> None:
        """Date a visit back with all that was written at it: it was entered afterwards."""
        visit = schema.visit
        self._connection.execute(
            update(visit)
            .where(visit.c.id == visit_id)
            .values(opened_at=visit.c.opened_at - by, closed_at=visit.c.closed_at - by)
        )
        for table in OF_VISIT.values():
            times = [column for column in table.c if isinstance(column.type, DateTime)]
            if "visit_id" in table.c:
                self._connection.execute(
                    update(table).where(table.c.visit_id == visit_id).values({one: one - by for one in times})
                )

    def of(self, instrument_id: UUID) -> list[Visit]:
        """Every visit of an instrument, newest first."""
        t = schema.visit
        rows = self._connection.execute(
            select(t.c.id, t.c.instrument_id, t.c.kind, t.c.complaint, t.c.opened_at, t.c.closed_at, t.c.closed_by)
            .where(t.c.instrument_id == instrument_id)
            .order_by(t.c.opened_at.desc())
        )
        return [Visit(**row._mapping) for row in rows]

    def came(self, ticket: str, *, at: datetime, strings_named_at: datetime) -> None:
        """Date the open visit of an instrument back, and the naming of its strings: it was entered afterwards."""
        visit, work, instrument = schema.visit.c, schema.work_done.c, schema.instrument.c
        here = (
            select(visit.id)
            .join(schema.instrument, instrument.id == visit.instrument_id)
            .where(instrument.ticket == ticket, visit.closed_at.is_(None))
            .scalar_subquery()
        )
        self._connection.execute(update(schema.visit).where(visit.id == here).values(opened_at=at))
        self._connection.execute(
            update(schema.work_done)
            .where(work.visit_id == here, work.work == "strings_named")
            .values(done_at=strings_named_at)
        )

    def note_instruction(
        self, visit_id: UUID, *, instruction: str, subject: str, waits_for: str, waits_until: datetime | None
    ) -> None:
        """Keep what is to be done at a visit, for the rail. subject : the question, where one is to be decided."""
        t = schema.visit
        self._connection.execute(
            update(t)
            .where(t.c.id == visit_id)
            .values(instruction=instruction, subject=subject, waits_for=waits_for, waits_until=waits_until)
        )
