"""Whole instruments out of the database and into it, many at a time: rows as plain values, lines named by their ids."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable, Iterator, Mapping, Sequence
from typing import Any
from uuid import UUID

import psycopg
from psycopg.types.json import Jsonb
from sqlalchemy import Connection, Table, func, select, text
from sqlalchemy.dialects.postgresql import JSONB

from fidicula.db import schema
from fidicula.db.billing import Billing
from fidicula.db.changes import CHANNEL, EVERYTHING
from fidicula.db.visit_lines import HEAD, OF_VISIT, VisitLineReader, columns_of

Row = dict[str, Any]

SHOP_LOGS: Mapping[str, Table] = {
    "stock_entries": schema.stock_entry,
    "figures": schema.figure_entry,
    "recipes": schema.recipe_entry,
    "shop_recipes": schema.shop_recipe,
    "shelf": schema.shelf_entry,
    "own_sizes": schema.own_size,
    "tool_checks": schema.tool_check,
    "settings": schema.shop_entry,
    "checklist": schema.point_entry,
}
"""What the shop goes by, each a log in its order."""
_OF_INSTRUMENT: Mapping[str, Table] = {
    "targets": schema.target_choice,
    "particulars": schema.particular,
    "audit": schema.audit_entry,
}
_BESIDE_RECORD: Mapping[str, Table] = {
    "seals": schema.seal,
    "additions": schema.addition,
    "hands": schema.hand_repeats,
    "payments": schema.payment,
}
"""Of a visit, and not under its seal."""
_NOT_SAID = frozenset({"number", "instrument_id", "known_by", "last_opened_at"})
TAKEN_IN = "taken in"
_RENAMED = {"list": "list_name"}
"""A column whose name is a word of the language that reads it."""
_FILES = {"photographs": ("jpeg", "small"), "recordings": ("sound",)}


_UNFIT: Mapping[type[psycopg.Error], str] = {
    psycopg.errors.UniqueViolation: "a line stands twice, or is here already",
    psycopg.errors.ForeignKeyViolation: "a line names another that is not there",
}


class UnfitError(Exception):
    """The records do not take what came. The message says in which table, and why."""


class Archive:
    """Reading and writing whole instruments; the unit of work commits."""

    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def begin_reading(self) -> None:
        """Everything from here on is read as it is at this moment."""
        self._connection.execute(text("SET TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY"))

    def begin_writing(self) -> None:
        """Whoever listens is told once, at the end."""
        self._connection.execute(text("SET LOCAL fidicula.quiet = 'on'"))
        self._connection.execute(select(func.pg_notify(CHANNEL, EVERYTHING)))

    def ids(self, ticket: str | None = None) -> list[UUID]:
        """Of all instruments, by ticket; or of one."""
        t = schema.instrument
        query = select(t.c.id).order_by(t.c.ticket)
        return list(self._connection.execute(query if ticket is None else query.where(t.c.ticket == ticket)).scalars())

    def dossiers(self, ids: Sequence[UUID]) -> list[Row]:
        """In the order of the ids."""
        heads = {row["id"]: row for row in self._rows(schema.instrument, schema.instrument.c.id.in_(ids))}
        of_instrument = {name: self._of_instruments(table, ids) for name, table in _OF_INSTRUMENT.items()}
        visits = self._visits(ids)
        sets = self._sets(visits)
        items = self._items(visits)
        found = []
        for one in ids:
            there = visits[one]
            set_ids = {work["string_set_id"] for v in there for work in v["record"].get("works", [])}
            item_ids = {part["item_id"] for v in there for part in v["record"].get("plan_parts", [])}
            used = [items[item] for item in sorted(item_ids) if item in items]
            set_ids |= {item["string_set_id"] for item in used}
            found.append(
                {
                    "instrument": heads[one],
                    **{name: rows[one] for name, rows in of_instrument.items()},
                    "visits": there,
                    "string_sets": [sets[each] for each in sorted(set_ids - {None}) if each in sets],
                    "stock_items": used,
                }
            )
        return found

    def shop(self) -> Row:
        """Everything that the shop goes by."""
        sets = self._set_rows(None)
        items = self._rows(schema.stock_item, order=schema.stock_item.c.added_at)
        return {
            "string_sets": list(sets.values()),
            "stock_items": items,
            **{name: self._rows(table, order=table.c.number) for name, table in SHOP_LOGS.items()},
        }

    def picture(self, photo_id: UUID) -> bytes | None:
        """Also of one that was taken back."""
        return self._connection.execute(select(schema.photo.c.jpeg).where(schema.photo.c.id == photo_id)).scalar()

    def recording(self, recording_id: UUID) -> bytes | None:
        t = schema.recording
        return self._connection.execute(select(t.c.sound).where(t.c.id == recording_id)).scalar()

    def here(self, tickets: Sequence[str], ids: Sequence[UUID]) -> tuple[dict[str, UUID], set[UUID]]:
        """Which tickets are taken, and by whom; which ids are here."""
        t = schema.instrument
        rows = self._connection.execute(select(t.c.ticket, t.c.id).where(t.c.ticket.in_(tickets) | t.c.id.in_(ids)))
        found = {row.ticket: row.id for row in rows}
        return found, set(found.values())

    def is_empty(self) -> bool:
        """Whether no instrument was ever here."""
        return self._connection.execute(select(schema.instrument.c.id).limit(1)).first() is None

    def visit_ids(self, instrument_id: UUID) -> set[UUID]:
        t = schema.visit
        return set(self._connection.execute(select(t.c.id).where(t.c.instrument_id == instrument_id)).scalars())

    def is_open(self, instrument_id: UUID) -> bool:
        """Whether an instrument is in the house."""
        t = schema.visit
        query = select(t.c.id).where(t.c.instrument_id == instrument_id, t.c.closed_at.is_(None))
        return self._connection.execute(query).first() is not None

    def put_shop(self, shop: Row) -> None:
        """Into a house without any."""
        self._put_sets(shop["string_sets"])
        self._copy(schema.stock_item, shop["stock_items"])
        for name, table in SHOP_LOGS.items():
            self._copy(table, shop[name], numbered=True)

    def put(self, dossiers: Sequence[Row], files: Mapping[UUID, Mapping[str, bytes]]) -> None:
        """New instruments, and new visits of those that are here. files : bytes of photographs and recordings, by id.

        A dossier whose instrument is here comes without it.
        """
        self._put_sets([one for dossier in dossiers for one in dossier["string_sets"]])
        self._put_missing(schema.stock_item, [one for dossier in dossiers for one in dossier["stock_items"]])
        self._copy(schema.instrument, [dossier["instrument"] for dossier in dossiers if "instrument" in dossier])
        self._copy(schema.visit, list(_visit_rows(dossiers)))
        numbers: dict[UUID, int] = {}
        for name, table in OF_VISIT.items():
            rows = [
                {**line, "visit_id": visit["record"]["visit"]["id"]}
                for dossier in dossiers
                for visit in dossier["visits"]
                for line in visit["record"].get(name, [])
            ]
            self._put_lines(name, table, rows, numbers, files)
        for name, table in _BESIDE_RECORD.items():
            rows = [
                {**line, "visit_id": visit["record"]["visit"]["id"]}
                for dossier in dossiers
                for visit in dossier["visits"]
                for line in visit.get(name, [])
            ]
            self._copy(table, rows, numbered=True)
        for name, table in _OF_INSTRUMENT.items():
            rows = [{**line, "instrument_id": dossier["id"]} for dossier in dossiers for line in dossier[name]]
            self._copy(table, rows, numbered=True)

    def put_documents(self, rows: Sequence[Row], *, keep_numbers: bool) -> None:
        """keep_numbers : the house's own series go on from there; else each says that it was taken in."""
        if not keep_numbers:
            rows = [{**row, "code": f"{row['code']} ({TAKEN_IN})"} for row in rows]
        self._copy(schema.document, rows, numbered=True)
        if keep_numbers:
            Billing(self._connection).go_on()

    def _put_lines(
        self,
        name: str,
        table: Table,
        rows: list[Row],
        numbers: dict[UUID, int],
        files: Mapping[UUID, Mapping[str, bytes]],
    ) -> None:
        """One list of the record. numbers : of works, by their id; each list's own come in its order."""
        own = dict(zip((row["id"] for row in rows), self._next(table, len(rows)), strict=True))
        if table is schema.work_done:
            numbers.update(own)
        for row in rows:
            row["number"] = own[row["id"]]
            row.pop("sha256", None)
            if "after_work" in row:
                after = row["after_work"]
                row["after_work"] = numbers.get(after, None if table is schema.reading else 0) if after else None
                if row["after_work"] is None and table is not schema.reading:
                    row["after_work"] = 0
            if row.get("corrected_by"):
                row["corrected_by"] = own.get(row["corrected_by"])
            if name in _FILES:
                row.update(files[row["id"]])
            if "visit_id" not in table.c:
                del row["visit_id"]
        self._copy(table, rows)

    def _visits(self, ids: Sequence[UUID]) -> dict[UUID, list[Row]]:
        """Every visit, oldest first, by instrument."""
        t = schema.visit
        rows = self._connection.execute(
            select(t.c.instrument_id, t.c.settled, *(t.c[name] for name in HEAD))
            .where(t.c.instrument_id.in_(ids))
            .order_by(t.c.opened_at, t.c.id)
        ).all()
        visit_ids = [row.id for row in rows]
        lines = VisitLineReader(self._connection).lines(visit_ids)
        more = {name: self._of_visits(table, visit_ids) for name, table in _BESIDE_RECORD.items()}
        more["documents"] = self._of_visits(schema.document, visit_ids)
        found: dict[UUID, list[Row]] = defaultdict(list)
        for row in rows:
            head = {name: row._mapping[name] for name in HEAD}
            found[row.instrument_id].append(
                {
                    "record": {"visit": head, **lines[row.id]},
                    **{name: of[row.id] for name, of in more.items()},
                    "settled": row.settled,
                }
            )
        return found

    def _rows(self, table: Table, *where: Any, order: Any = None) -> list[Row]:
        columns = [c.label(_RENAMED.get(c.name, c.name)) for c in table.c if c.name not in _NOT_SAID]
        query = select(*columns).where(*where)
        rows = self._connection.execute(query if order is None else query.order_by(order))
        return [dict(row._mapping) for row in rows]

    def _of_instruments(self, table: Table, ids: Sequence[UUID]) -> dict[UUID, list[Row]]:
        columns = [c for c in table.c if c.name not in _NOT_SAID]
        rows = self._connection.execute(
            select(table.c.instrument_id.label("of"), *columns)
            .where(table.c.instrument_id.in_(ids))
            .order_by(table.c.number)
        )
        return _grouped(rows)

    def _of_visits(self, table: Table, visit_ids: Sequence[UUID]) -> dict[UUID, list[Row]]:
        columns = [table.c[name] for name in columns_of(table)]
        rows = self._connection.execute(
            select(table.c.visit_id.label("of"), *columns)
            .where(table.c.visit_id.in_(visit_ids))
            .order_by(table.c.number)
        )
        return _grouped(rows)

    def _sets(self, visits: Mapping[UUID, list[Row]]) -> dict[UUID, Row]:
        ids = {
            work["string_set_id"]
            for of in visits.values()
            for visit in of
            for work in visit["record"].get("works", [])
            if work["string_set_id"] is not None
        }
        return self._set_rows(ids) if ids else {}

    def _set_rows(self, ids: Iterable[UUID] | None) -> dict[UUID, Row]:
        t, s = schema.string_set, schema.string_of_set
        where = [] if ids is None else [t.c.id.in_(list(ids))]
        found = {row["id"]: {**row, "strings": []} for row in self._rows(t, *where, order=t.c.created_at)}
        of = [] if ids is None else [s.c.string_set_id.in_(list(ids))]
        for row in self._connection.execute(select(s).where(*of).order_by(s.c.string_set_id, s.c.position)):
            line = dict(row._mapping)
            found[line.pop("string_set_id")]["strings"].append(line)
        return found

    def _items(self, visits: Mapping[UUID, list[Row]]) -> dict[UUID, Row]:
        ids = {
            part["item_id"] for of in visits.values() for visit in of for part in visit["record"].get("plan_parts", [])
        }
        return {row["id"]: row for row in self._rows(schema.stock_item, schema.stock_item.c.id.in_(ids))} if ids else {}

    def _put_sets(self, sets: Sequence[Row]) -> None:
        """Those that are not here; one whose name is taken by another comes under a name of its own."""
        missing = self._missing(schema.string_set, sets)
        t = schema.string_set
        taken = {(row.family, row.name) for row in self._connection.execute(select(t.c.family, t.c.name))}
        for one in missing:
            name, n = one["name"], 2
            while (one["family"], one["name"]) in taken:
                one["name"] = f"{name} ({n})"
                n += 1
            taken.add((one["family"], one["name"]))
        strings = [{**string, "string_set_id": one["id"]} for one in missing for string in one.pop("strings")]
        self._copy(t, missing)
        self._copy(schema.string_of_set, strings)

    def _put_missing(self, table: Table, rows: Sequence[Row]) -> None:
        self._copy(table, self._missing(table, rows))

    def _missing(self, table: Table, rows: Sequence[Row]) -> list[Row]:
        by_id = {row["id"]: row for row in rows}
        there = set(self._connection.execute(select(table.c.id).where(table.c.id.in_(by_id))).scalars())
        return [dict(row) for one, row in by_id.items() if one not in there]

    def _next(self, table: Table, count: int) -> Iterable[int]:
        """So many numbers of a log, in order."""
        if not count:
            return []
        sequence = func.pg_get_serial_sequence(table.name, "number")
        each = select(func.nextval(sequence).label("n")).select_from(func.generate_series(1, count)).subquery()
        numbers = self._connection.execute(select(func.array_agg(each.c.n))).scalar_one()
        return sorted(numbers)

    def _copy(self, table: Table, rows: Sequence[Row], *, numbered: bool = False) -> None:
        """Add rows by PostgreSQL's own way for many. numbered : the log's numbers are given here, in order."""
        if not rows:
            return
        back = {shown: name for name, shown in _RENAMED.items()}
        if numbered:
            rows = [{**row, "number": n} for row, n in zip(rows, self._next(table, len(rows)), strict=True)]
        names = list(rows[0])
        columns = [table.c[back.get(name, name)] for name in names]
        as_json = [isinstance(column.type, JSONB) for column in columns]
        quoted = ", ".join(f'"{column.name}"' for column in columns)
        raw = self._connection.connection.driver_connection
        assert raw is not None
        try:
            with raw.cursor().copy(f'COPY "{table.name}" ({quoted}) FROM STDIN') as copy:
                for row in rows:
                    values = zip(as_json, row.values(), strict=True)
                    copy.write_row([Jsonb(value) if json and value is not None else value for json, value in values])
        except (psycopg.IntegrityError, psycopg.DataError) as error:
            by = error.diag.constraint_name or type(error).__name__
            said = _UNFIT.get(type(error), f"a value does not fit ({by})")
            raise UnfitError(f"{table.name}: {said}") from error


def _grouped(rows: Iterable[Any]) -> dict[UUID, list[Row]]:
    found: dict[UUID, list[Row]] = defaultdict(list)
    for row in rows:
        line = dict(row._mapping)
        found[line.pop("of")].append(line)
    return found


def _visit_rows(dossiers: Sequence[Row]) -> Iterator[Row]:
    for dossier in dossiers:
        for visit in dossier["visits"]:
            yield {**visit["record"]["visit"], "instrument_id": dossier["id"], "settled": visit["settled"]}
