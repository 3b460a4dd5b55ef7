"""Ids of entries and what was entered under each: sent again it is the same entry, with another body it is refused."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy import Connection, select, text

from fidicula.db import schema
from fidicula.db.entered import Entry, entered_now

_ADD = text(
    "INSERT INTO entry (id, digest, ticket) VALUES (:id, :digest, :ticket) ON CONFLICT (id) DO NOTHING RETURNING id"
)
_THERE = select(schema.entry.c.digest, schema.entry.c.ticket).where(schema.entry.c.id == text(":id"))


class TakenIdError(Exception):
    """The id of a new entry is already that of another one.

    ticket : of the instrument where that stands, empty where it belongs to none.
    """

    def __init__(self, ticket: str = "") -> None:
        super().__init__(f"an id stands elsewhere already{f', at {ticket}' if ticket else ''}")
        self.ticket = ticket


def keep_entry(connection: Connection) -> bool:
    """Keep the id of what is entered now with what was entered; False where the same entry was kept before.

    Raises TakenIdError where the id is another entry's.
    """
    entry = entered_now().entry
    if entry is None or entry.is_kept:
        return True
    values = {"id": entry.id, "digest": entry.digest(), "ticket": entry.ticket}
    if connection.execute(_ADD, values).one_or_none() is None:
        check_entry(connection)
        return False
    entry.is_kept = True
    return True


def check_entry(connection: Connection) -> bool:
    """Whether the same was entered before under its id. Raises TakenIdError where the id is another entry's."""
    entry = entered_now().entry
    there = None if entry is None else connection.execute(_THERE, {"id": entry.id}).one_or_none()
    if entry is not None and there is not None and there.digest != entry.digest():
        raise TakenIdError(there.ticket or _ticket_of(connection, entry))
    return there is not None


def _ticket_of(connection: Connection, entry: Entry) -> str:
    """Of the instrument that was taken in by this entry; empty for none."""
    t = schema.instrument
    return connection.execute(select(t.c.ticket).where(t.c.id == entry.id)).scalar() or ""


def ticket_of_visit(connection: Connection, visit_id: UUID) -> str:
    """Of the instrument that a visit is of."""
    t, visit = schema.instrument, schema.visit
    query = select(t.c.ticket).join(visit, visit.c.instrument_id == t.c.id).where(visit.c.id == visit_id)
    return connection.execute(query).scalar() or ""
