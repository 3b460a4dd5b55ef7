"""What was taken back at a visit, and stands again."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from sqlalchemy import Connection, Table, select, update

from fidicula.db import schema

TABLES: dict[str, Table] = {
    "reading": schema.reading,
    "work": schema.work_done,
    "decision": schema.decision,
    "mark": schema.course_mark,
    "seen": schema.seen,
}


class Undone:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def since(self, kind: str, id: UUID, visit_id: UUID) -> datetime | None:
        """When a line of a visit was taken back; None for one that stands, or is none of the visit's."""
        t = TABLES[kind]
        asked = select(t.c.taken_back_at).where(t.c.id == id, t.c.visit_id == visit_id)
        return self._connection.execute(asked).scalar_one_or_none()

    def give_back(self, kind: str, id: UUID, *, corrects: int | None = None) -> None:
        """Let a line stand again. corrects : number of the reading that a reading takes the place of once more."""
        t = TABLES[kind]
        number = self._connection.execute(
            update(t).where(t.c.id == id).values(taken_back_at=None, taken_back_by=None).returning(t.c.number)
        ).scalar_one()
        if corrects is not None:
            r = schema.reading
            self._connection.execute(update(r).where(r.c.number == corrects).values(corrected_by=number))
