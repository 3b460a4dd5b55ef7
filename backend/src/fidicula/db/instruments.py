"""Instruments, their visits, and what each follows."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any
from uuid import UUID

from sqlalchemy import (
    ColumnElement,
    Connection,
    Select,
    bindparam,
    exists,
    func,
    insert,
    or_,
    select,
    true,
    update,
)
from sqlalchemy.dialects.postgresql import distinct_on
from sqlalchemy.dialects.postgresql import insert as upsert

from fidicula.db import schema
from fidicula.db.once import add_once
from fidicula.domain.instruments import ASKED, Instrument, Particular
from fidicula.domain.targets import TargetChoice
from fidicula.domain.visits import Visit


def instrument_of(m: Mapping[Any, Any]) -> Instrument:
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
        opposite_build=m["opposite_build"],
    )


# Statements that run with every reading are built once: building one takes as long as running it.

VISIT_COLUMNS = (
    *("kind", "complaint", "opened_at", "closed_at", "closed_by", "climate", "deadline", "freeze_days", "promised"),
    *("instruction", "subject", "waits_for", "waits_until"),
)

_OTHER_VISIT = schema.visit.alias("other_visit")


_LAST_TIME = ("measure", "position", "value", "direction", "taken_at", "tool")


def last_time_of(instrument_id: ColumnElement[Any], visit_id: ColumnElement[Any]) -> Select[Any]:
    """What each place was last read as at another visit than this."""
    visit, line = schema.visit, schema.reading
    # An offset keeps the two apart: from its few visits to their readings, never through those of the whole house.
    reading = (
        select(line)
        .where(
            line.c.visit_id == visit.c.id,
            line.c.taken_back_at.is_(None),
            line.c.corrected_by.is_(None),
            or_(line.c.doubt.is_(None), line.c.confirmed_at.is_not(None)),
        )
        .offset(0)
        .lateral("read_there")
    )
    return (
        select(*(reading.c[name] for name in _LAST_TIME), reading.c.visit_id, reading.c.after_work, visit.c.opened_at)
        .ext(distinct_on(reading.c.measure, reading.c.position))
        .select_from(visit)
        .join(reading, true())
        .where(visit.c.instrument_id == instrument_id, visit.c.id != visit_id)
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
        *(schema.visit.c[name] for name in VISIT_COLUMNS),
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
LOCK = (
    select(schema.instrument.c.id)
    .where(schema.instrument.c.ticket == bindparam("ticket"))
    .with_for_update(key_share=True)
)


def instrument_and_visit_of(m: Mapping[Any, Any]) -> tuple[Instrument, Visit]:
    """From a row of `BY_TICKET`."""
    found = instrument_of(m)
    if m["choice_id"] is not None:
        found = replace(found, choice=TargetChoice(**{name: m[f"choice_{name}"] for name in _CHOICE_COLUMNS}))
    return found, Visit(
        id=m["visit_id"],
        instrument_id=found.id,
        has_earlier=m["has_earlier"],
        **{name: m[name] for name in VISIT_COLUMNS},
    )


class Instruments:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def in_house_of(self, owner: str) -> list[str]:
        """Tickets of an owner's instruments with an open visit, in their order."""
        t, v = schema.instrument, schema.visit
        rows = self._connection.execute(
            select(t.c.ticket)
            .join(v, v.c.instrument_id == t.c.id)
            .where(t.c.owner == owner, v.c.closed_at.is_(None))
            .order_by(t.c.ticket)
        )
        return [row.ticket for row in rows]

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
                opposite_build=new.opposite_build,
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
        return self._connection.execute(LOCK, {"ticket": ticket}).first() is not None

    def ticket_of(self, instrument_id: UUID) -> str | None:
        """None for an id that is of no instrument."""
        t = schema.instrument
        return self._connection.execute(select(t.c.ticket).where(t.c.id == instrument_id)).scalar_one_or_none()

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

    def particulars_of(self, instrument_id: UUID, visit_id: UUID) -> dict[str, Any]:
        """The particulars of an instrument and of a visit, by column, locked until the work is done."""
        instrument, visit = schema.instrument, schema.visit
        row = self._connection.execute(
            select(instrument, *(visit.c[name] for name in VISIT_COLUMNS))
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
