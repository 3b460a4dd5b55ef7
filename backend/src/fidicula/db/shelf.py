"""What the shop has on hand, list by list; the newest entry of each stands."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy import Connection, select
from sqlalchemy.dialects.postgresql import distinct_on

from fidicula.db import schema
from fidicula.db.once import add_once

_entry = schema.shelf_entry


class Shelf:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def of_family(self, family: str) -> dict[str, tuple[float, ...]]:
        """The shop's own lists, by name; one that it never changed is not among them."""
        rows = self._connection.execute(
            select(_entry.c.list, _entry.c["values"])
            .ext(distinct_on(_entry.c.list))
            .where(_entry.c.family == family)
            .order_by(_entry.c.list, _entry.c.number.desc())
        )
        return {row.list: tuple(row._mapping["values"]) for row in rows}

    def enter(self, *, id: UUID, name: str, family: str, values: tuple[float, ...], by: str) -> None:
        """Add an entry; one of this id that is there already stays as it is."""
        entry = {"id": id, "list": name, "family": family, "values": list(values), "entered_by": by}
        add_once(self._connection, _entry, entry, same=("list", "family"))
