"""Adding a line once: its id is made by whoever enters it, so that a retry after a lost answer changes nothing."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from sqlalchemy import Connection, RowMapping, Table, select
from sqlalchemy.dialects.postgresql import insert as upsert

from fidicula.db.entered import with_time
from fidicula.db.entries import TakenIdError, check_entry, ticket_of_visit


def add_once(
    connection: Connection, table: Table, values: Mapping[str, Any], *, same: Sequence[str] = ("visit_id",)
) -> RowMapping | None:
    """Add a row and return it; None where the same one is there already.

    same : columns that have to agree with the row that has this id, or it is another line.
    Raises TakenIdError for the id of another line.
    """
    row = connection.execute(
        upsert(table).values(**with_time(table, values)).on_conflict_do_nothing(index_elements=["id"]).returning(table)
    ).one_or_none()
    if row is not None:
        return row._mapping
    check_same(connection, table, values, same=same)
    return None


def check_same(
    connection: Connection, table: Table, values: Mapping[str, Any], *, same: Sequence[str] = ("visit_id",)
) -> None:
    """Raises TakenIdError unless the row of this id agrees with `values` in the columns `same`, and was entered so."""
    check_entry(connection)
    there = connection.execute(select(*(table.c[name] for name in same)).where(table.c.id == values["id"])).one()
    if any(there._mapping[name] != values[name] for name in same):
        raise TakenIdError(ticket_of_visit(connection, there.visit_id) if "visit_id" in same else "")
