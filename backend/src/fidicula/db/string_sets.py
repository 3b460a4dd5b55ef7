"""Sets of strings on the shelf, and the one that is on an instrument."""

from __future__ import annotations

from collections.abc import Iterable
from uuid import UUID

from sqlalchemy import (
    Connection,
    Row,
    RowMapping,
    insert,
    select,
)
from sqlalchemy.dialects.postgresql import insert as upsert

from fidicula.db import schema
from fidicula.domain.strings import SetString, StringSet

_STRING_SETS = (
    select(
        schema.string_set.c.id,
        schema.string_set.c.name,
        schema.string_set.c.family,
        schema.string_set.c.material,
        schema.string_set.c.is_mixed,
        schema.string_of_set.c.name.label("string_name"),
        schema.string_of_set.c.diameter,
        schema.string_of_set.c.tension,
        schema.string_of_set.c.linear_density,
    )
    .join(schema.string_of_set, schema.string_of_set.c.string_set_id == schema.string_set.c.id)
    .order_by(schema.string_set.c.name, schema.string_set.c.id, schema.string_of_set.c.position)
)


class StringSets:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def _gather(self, rows: Iterable[Row[tuple[object, ...]]]) -> list[StringSet]:
        heads: dict[UUID, RowMapping] = {}
        strings: dict[UUID, list[SetString]] = {}
        for row in rows:
            m = row._mapping
            heads[m["id"]] = m
            strings.setdefault(m["id"], []).append(
                SetString(m["string_name"], m["diameter"], m["tension"], m["linear_density"])
            )
        return [
            StringSet(key, str(m["name"]), str(m["family"]), str(m["material"]), tuple(strings[key]), m["is_mixed"])
            for key, m in heads.items()
        ]

    def of_family(self, family: str) -> list[StringSet]:
        """Sets on the shelf; not those that were put together on an instrument."""
        t = schema.string_set
        return self._gather(self._connection.execute(_STRING_SETS.where(t.c.family == family, t.c.is_mixed.is_(False))))

    def named(self, family: str, name: str) -> StringSet | None:
        t = schema.string_set
        found = self._gather(self._connection.execute(_STRING_SETS.where(t.c.family == family, t.c.name == name)))
        return found[0] if found else None

    def by_id(self, set_id: UUID) -> StringSet | None:
        found = self._gather(self._connection.execute(_STRING_SETS.where(schema.string_set.c.id == set_id)))
        return found[0] if found else None

    def add(self, new: StringSet) -> bool:
        """Add a set with its strings; False where the family has one of this name."""
        added = self._connection.execute(
            upsert(schema.string_set)
            .values(id=new.id, name=new.name, family=new.family, material=new.material, is_mixed=new.is_mixed)
            .on_conflict_do_nothing(index_elements=["name", "family"])
            .returning(schema.string_set.c.id)
        )
        if added.one_or_none() is None:
            return False
        self._connection.execute(
            insert(schema.string_of_set),
            [
                {
                    "string_set_id": new.id,
                    "position": position,
                    "name": string.name,
                    "diameter": string.diameter,
                    "tension": string.tension,
                    "linear_density": string.linear_density,
                }
                for position, string in enumerate(new.strings)
            ],
        )
        return True
