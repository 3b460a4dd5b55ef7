"""Instruments, their visits, and what each follows."""

from __future__ import annotations

import json
from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any
from uuid import UUID

import psycopg
from sqlalchemy import (
    ColumnElement,
    Connection,
    Select,
    Text,
    bindparam,
    cast,
    exists,
    func,
    insert,
    literal_column,
    or_,
    select,
    text,
    true,
    update,
)
from sqlalchemy.dialects.postgresql import JSONB, distinct_on
from sqlalchemy.dialects.postgresql import insert as upsert

from fidicula.db import schema
from fidicula.db.once import add_once
from fidicula.db.records import (
    ASKED,
    Instrument,
    Particular,
    RailEntry,
    TargetChoice,
    Visit,
)

COMPLAINT_SHOWN = 200
"""Of a long complaint, so much goes with its tag. [characters]"""


def _instrument(m: Mapping[Any, Any]) -> Instrument:
    return Instrument(
        id=m["id"],
        ticket=m["ticket"],
        family=m["family"],
        size=m["size"],
        string_names=tuple(m["string_names"]),
        left_handed=m["left_handed"],
        is_new=m["is_new"],
        owner=m["owner"],
        description=m["description"],
        asked={name: m[name] for name in ASKED},
        is_fleet=m["is_fleet"],
    )


# Statements that run with every reading are built once: building one takes as long as running it.

_VISIT = (
    *("kind", "complaint", "opened_at", "closed_at", "closed_by", "climate", "deadline", "freeze_days", "promised"),
    *("at_step", "waits_for", "waits_until"),
)

_OTHER_VISIT = schema.visit.alias("other_visit")


def last_time_of(instrument_id: ColumnElement[Any], visit_id: ColumnElement[Any]) -> Select[Any]:
    """What each place was last read as at another visit than this."""
    reading, visit = schema.reading, schema.visit
    return (
        select(reading.c.measure, reading.c.position, reading.c.value, reading.c.direction, reading.c.taken_at)
        .ext(distinct_on(reading.c.measure, reading.c.position))
        .join(visit, visit.c.id == reading.c.visit_id)
        .where(
            visit.c.instrument_id == instrument_id,
            visit.c.id != visit_id,
            reading.c.taken_back_at.is_(None),
            reading.c.corrected_by.is_(None),
            or_(reading.c.doubt.is_(None), reading.c.confirmed_at.is_not(None)),
        )
        .order_by(
            reading.c.measure,
            reading.c.position,
            visit.c.opened_at.desc(),
            reading.c.after_work.desc().nulls_last(),
            reading.c.number.desc(),
        )
    )


_CHOICE_COLUMNS = ("id", "recipe", "schools", "sources", "reason", "chosen_by", "chosen_at")

_NEWEST_CHOICE = (
    select(*(schema.target_choice.c[name] for name in _CHOICE_COLUMNS))
    .where(
        schema.target_choice.c.instrument_id == schema.instrument.c.id,
        schema.target_choice.c.taken_back_at.is_(None),
    )
    .order_by(schema.target_choice.c.number.desc())
    .limit(1)
    .lateral("newest_choice")
)

BY_TICKET = (
    select(
        schema.instrument,
        schema.visit.c.id.label("visit_id"),
        *(schema.visit.c[name] for name in _VISIT),
        exists()
        .where(_OTHER_VISIT.c.instrument_id == schema.instrument.c.id, _OTHER_VISIT.c.id != schema.visit.c.id)
        .label("has_earlier"),
        *(_NEWEST_CHOICE.c[name].label(f"choice_{name}") for name in _CHOICE_COLUMNS),
    )
    .join(schema.visit, schema.visit.c.instrument_id == schema.instrument.c.id)
    .outerjoin(_NEWEST_CHOICE, true())
    .where(schema.instrument.c.ticket == bindparam("ticket"))
    .order_by(schema.visit.c.closed_at.is_not(None), schema.visit.c.opened_at.desc())
    .limit(1)
)


# Not against foreign keys: a line that is added elsewhere to one of its visits does not wait.
_LOCK = (
    select(schema.instrument.c.id)
    .where(schema.instrument.c.ticket == bindparam("ticket"))
    .with_for_update(key_share=True)
)


def instrument_and_visit_of(m: Mapping[Any, Any]) -> tuple[Instrument, Visit]:
    """From a row of `BY_TICKET`."""
    found = _instrument(m)
    if m["choice_id"] is not None:
        found = replace(found, choice=TargetChoice(**{name: m[f"choice_{name}"] for name in _CHOICE_COLUMNS}))
    return found, Visit(
        id=m["visit_id"],
        instrument_id=found.id,
        has_earlier=m["has_earlier"],
        **{name: m[name] for name in _VISIT},
    )


def _holding(word: str) -> str:
    """A word as a pattern for itself, whatever stands in it."""
    return "".join(f"\\{letter}" if letter in "\\%_" else letter for letter in word)


_KNOWN = """
SELECT coalesce(json_agg(row_to_json(here)), '[]')::text FROM (
    SELECT i.ticket, i.family, i.size, i.owner, i.description, i.last_opened_at AS last_opened,
        newest.last_complaint, newest.closed_at IS NULL AS in_house
    FROM instrument i JOIN LATERAL (
        SELECT left(complaint, %s) AS last_complaint, closed_at FROM visit
        WHERE instrument_id = i.id ORDER BY closed_at IS NOT NULL, opened_at DESC LIMIT 1
    ) newest ON true
    WHERE {holds}
    ORDER BY i.last_opened_at DESC, i.ticket LIMIT %s
) here"""


def _json_list(rows: str) -> ColumnElement[str]:
    """All rows of a subquery as one JSON list, put together by the database."""
    return cast(func.coalesce(func.json_agg(func.row_to_json(literal_column(rows))), text("'[]'")), Text)


_STAMP = text(
    "SELECT count(*) || '-' || coalesce(sum(stamp), 0) || '-' || coalesce(max(stamp), 0) "
    "FROM visit WHERE closed_at IS NULL"
)

_TAG = (
    select(
        schema.instrument.c.ticket,
        schema.instrument.c.family,
        schema.instrument.c.size,
        schema.instrument.c.owner,
        schema.instrument.c.left_handed,
        schema.instrument.c.is_fleet,
        func.left(schema.visit.c.complaint, COMPLAINT_SHOWN).label("complaint"),
        func.coalesce(
            cast(bindparam("kinds", type_=Text), JSONB).op("->>")(schema.visit.c.kind), schema.visit.c.kind
        ).label("kind"),
        schema.visit.c.at_step.label("step"),
        schema.visit.c.waits_for,
        schema.visit.c.waits_until,
        schema.visit.c.deadline,
        schema.visit.c.promised,
    )
    .join(schema.visit, schema.visit.c.instrument_id == schema.instrument.c.id)
    .where(schema.visit.c.closed_at.is_(None))
    .order_by(schema.instrument.c.ticket)
    .subquery("tag")
)

_RAIL = select(
    _json_list("tag").label("tags"),
    func.bool_or((_TAG.c.step == "") & (_TAG.c.waits_for == "")).label("unsaid"),
).select_from(_TAG)


class Instruments:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def by_ticket(self, ticket: str) -> tuple[Instrument, Visit] | None:
        """An instrument with its open visit, or else its newest."""
        row = self._connection.execute(BY_TICKET, {"ticket": ticket}).one_or_none()
        return None if row is None else instrument_and_visit_of(row._mapping)

    def add(self, new: Instrument) -> bool:
        """Add an instrument; False where its ticket, or its id, is taken."""
        added = self._connection.execute(
            upsert(schema.instrument)
            .values(
                id=new.id,
                ticket=new.ticket,
                family=new.family,
                size=new.size,
                string_names=list(new.string_names),
                left_handed=new.left_handed,
                is_new=new.is_new,
                is_fleet=new.is_fleet,
                owner=new.owner,
                description=new.description,
                **{name: new.asked.get(name, "") for name in ASKED},
            )
            .on_conflict_do_nothing()
            .returning(schema.instrument.c.id)
        )
        return added.one_or_none() is not None

    def lock(self, ticket: str) -> bool:
        """Let nobody else change an instrument or its visits until this is over; False where there is none."""
        return self._connection.execute(_LOCK, {"ticket": ticket}).first() is not None

    def ticket_of(self, instrument_id: UUID) -> str | None:
        """None for an id that is of no instrument."""
        t = schema.instrument
        return self._connection.execute(select(t.c.ticket).where(t.c.id == instrument_id)).scalar_one_or_none()

    def known(self, words: str, *, limit: int) -> str:
        """Instruments whose ticket, owner or description holds every word, newest visit first, as a JSON list."""
        held = [f"%{_holding(word)}%" for word in words.lower().split()]
        statement = _KNOWN.format(holds=" AND ".join(["i.known_by LIKE %s"] * len(held)) or "true")
        # Bound here and not by the server, so that it is planned for these words: what many have is looked for among
        # the newest, what few have by its letters.
        driver: psycopg.Connection = self._connection.connection.driver_connection  # type: ignore[assignment]
        with psycopg.ClientCursor(driver) as cursor:
            row = cursor.execute(statement, [COMPLAINT_SHOWN, *held, limit]).fetchone()
        return str(row[0]) if row else "[]"

    def rail_stamp(self) -> str:
        """What changes whenever anything on the rail does."""
        return str(self._connection.execute(_STAMP).scalar_one())

    def choose_targets(self, instrument_id: UUID, choice: TargetChoice) -> None:
        """Add what the instrument follows from now on."""
        values = {
            "id": choice.id,
            "instrument_id": instrument_id,
            "recipe": choice.recipe,
            "schools": dict(choice.schools),
            "sources": {measure: dict(source) for measure, source in choice.sources.items()},
            "reason": choice.reason,
            "chosen_by": choice.chosen_by,
        }
        add_once(self._connection, schema.target_choice, values, same=["instrument_id"])

    def take_back_choice(self, choice_id: UUID, by: str) -> None:
        """Mark a choice as taken back; the one before it stands again."""
        t = schema.target_choice
        self._connection.execute(
            update(t).where(t.c.id == choice_id).values(taken_back_at=func.now(), taken_back_by=by)
        )

    def choices(self, instrument_id: UUID) -> list[tuple[TargetChoice, bool]]:
        """Everything that an instrument was ever to follow, newest first, and whether it was taken back."""
        t = schema.target_choice
        rows = self._connection.execute(select(t).where(t.c.instrument_id == instrument_id).order_by(t.c.number.desc()))
        return [
            (
                TargetChoice(**{name: row._mapping[name] for name in _CHOICE_COLUMNS}),
                row.taken_back_at is not None,
            )
            for row in rows
        ]

    def tickets(self) -> list[str]:
        return list(
            self._connection.execute(select(schema.instrument.c.ticket).order_by(schema.instrument.c.ticket)).scalars()
        )

    def rail(self, kinds: Mapping[str, str]) -> tuple[str, bool]:
        """Every tag, by ticket, as a JSON list; and whether any of them does not say yet where it stands.

        kinds : label of each kind of visit.  The list is put together by the database: it goes to the rail as it is,
        and five hundred tags take longer to make anew here than to fetch.
        """
        row = self._connection.execute(_RAIL, {"kinds": json.dumps(dict(kinds))}).one()
        return row.tags, bool(row.unsaid)

    def in_house(self) -> list[RailEntry]:
        """Every instrument with an open visit, by ticket."""
        visit = schema.visit
        rows = self._connection.execute(
            select(schema.instrument, visit.c.id.label("visit_id"), *(visit.c[name] for name in _VISIT))
            .join(visit, visit.c.instrument_id == schema.instrument.c.id)
            .where(visit.c.closed_at.is_(None))
            .order_by(schema.instrument.c.ticket)
        )
        return [
            RailEntry(
                instrument=_instrument(row._mapping),
                visit=Visit(
                    id=row.visit_id,
                    instrument_id=row.id,
                    **{name: row._mapping[name] for name in _VISIT},
                ),
            )
            for row in rows
        ]

    def particulars_of(self, instrument_id: UUID, visit_id: UUID) -> dict[str, Any]:
        """The particulars of an instrument and of a visit, by column, locked until the work is done."""
        instrument, visit = schema.instrument, schema.visit
        row = self._connection.execute(
            select(instrument, *(visit.c[name] for name in _VISIT))
            .join(visit, visit.c.instrument_id == instrument.c.id)
            .where(instrument.c.id == instrument_id, visit.c.id == visit_id)
            .with_for_update(of=(instrument, visit))
        ).one()
        return dict(row._mapping)

    def change_particulars(
        self, new: Sequence[Particular], *, of_instrument: Mapping[str, object], of_visit: Mapping[str, object]
    ) -> None:
        """Write changed particulars, by column, and keep what stood there before."""
        for table, key, values in (
            (schema.instrument, new[0].instrument_id, of_instrument),
            (schema.visit, new[0].visit_id, of_visit),
        ):
            if values:
                self._connection.execute(update(table).where(table.c.id == key).values(**values))
        for line in new:
            values = {name: value for name, value in vars(line).items() if name != "written_at"}
            self._connection.execute(insert(schema.particular).values(**values))

    def particulars_log(self, visit_id: UUID) -> list[Particular]:
        """What was changed of the particulars at a visit, in order."""
        t = schema.particular
        columns = [column for column in t.c if column.name != "number"]
        rows = self._connection.execute(select(*columns).where(t.c.visit_id == visit_id).order_by(t.c.number))
        return [Particular(**row._mapping) for row in rows]
