"""The log of a visit: readings, works and decisions, in the order in which they arrived."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields
from datetime import UTC
from typing import Any
from uuid import UUID

from sqlalchemy import (
    Connection,
    bindparam,
    exists,
    func,
    select,
    update,
)
from sqlalchemy.dialects.postgresql import insert as upsert

from fidicula.db import schema
from fidicula.db.once import add_once, check_same
from fidicula.domain.readings import NewReading, Reading
from fidicula.domain.visits import Decision
from fidicula.domain.work_details import detail_of, kept
from fidicula.domain.works import NewWork, WorkDone


def reading_of(m: Mapping[Any, Any]) -> Reading:
    return Reading(
        number=m["number"],
        id=m["id"],
        visit_id=m["visit_id"],
        measure=m["measure"],
        position=m["position"],
        typed=m["typed"],
        value=m["value"],
        tool=m["tool"],
        direction=m["direction"],
        taken_by=m["taken_by"],
        taken_at=m["taken_at"],
        recorded_at=m["recorded_at"],
        after_work=m["after_work"],
        corrected_by=m["corrected_by"],
        repeats=m["repeats"],
        doubt=m["doubt"],
        suggested=m["suggested"],
        confirmed=m["confirmed_at"] is not None,
        taken_back=m["taken_back_at"] is not None,
        doubt_about=m["doubt_about"],
        simulated=m["simulated"],
    )


def work_of(m: Mapping[Any, Any]) -> WorkDone:
    return WorkDone(
        number=m["number"],
        id=m["id"],
        visit_id=m["visit_id"],
        work=m["work"],
        done_by=m["done_by"],
        done_at=m["done_at"],
        detail=detail_of(m["work"], m["detail"]),
        string_set_id=m["string_set_id"],
        taken_back=m["taken_back_at"] is not None,
    )


def decision_of(m: Mapping[Any, Any]) -> Decision:
    return Decision(
        id=m["id"],
        visit_id=m["visit_id"],
        question=m["question"],
        outcome=m["outcome"],
        reason=m["reason"],
        at_value=m["at_value"],
        decided_by=m["decided_by"],
        decided_at=m["decided_at"],
        taken_back=m["taken_back_at"] is not None,
        after_work=m["after_work"],
    )


# Statements that run with every reading are built once: building one takes as long as running it.

_STANDING_READINGS = (
    select(schema.reading)
    .where(
        schema.reading.c.visit_id == bindparam("visit_id"),
        schema.reading.c.taken_back_at.is_(None),
        schema.reading.c.corrected_by.is_(None),
    )
    .order_by(schema.reading.c.number)
)

_ADD_READING = (
    upsert(schema.reading)
    .values({one.name: bindparam(f"new_{one.name}") for one in fields(NewReading)})
    .on_conflict_do_nothing(index_elements=["id"])
    .returning(schema.reading.c.number, schema.reading.c.recorded_at)
)
_ADDED = _ADD_READING.cte("added")
_MARKED = (
    update(schema.reading)
    .where(schema.reading.c.number == bindparam("earlier"), exists(select(_ADDED.c.number)))
    .values(corrected_by=select(_ADDED.c.number).scalar_subquery())
    .cte("marked")
)
_ADD_CORRECTION = select(_ADDED).add_cte(_MARKED)
"""Both in one way there and back: a reading is taken while somebody waits, caliper in hand."""

_WORKS = (
    select(schema.work_done)
    .where(schema.work_done.c.visit_id == bindparam("visit_id"))
    .order_by(schema.work_done.c.number)
)


class Log:
    """Readings and works of a visit, in the order in which they arrived."""

    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def standing_readings(self, visit_id: UUID) -> list[Reading]:
        """A visit's readings, without those taken back and those that a later one corrects."""
        rows = self._connection.execute(_STANDING_READINGS, {"visit_id": visit_id})
        return [reading_of(row._mapping) for row in rows]

    def all_readings(self, visit_id: UUID) -> list[Reading]:
        """Every reading of a visit, newest first, whatever became of it."""
        t = schema.reading
        rows = self._connection.execute(select(t).where(t.c.visit_id == visit_id).order_by(t.c.number.desc()))
        return [reading_of(row._mapping) for row in rows]

    def reading(self, reading_id: UUID) -> Reading | None:
        row = self._connection.execute(select(schema.reading).where(schema.reading.c.id == reading_id)).one_or_none()
        return None if row is None else reading_of(row._mapping)

    def works(self, visit_id: UUID) -> list[WorkDone]:
        """All works of a visit, those taken back too."""
        rows = self._connection.execute(_WORKS, {"visit_id": visit_id})
        return [work_of(row._mapping) for row in rows]

    def add_reading(self, new: NewReading, *, corrects: int | None) -> Reading | None:
        """Add a reading; None where it is there already (a retry after a lost answer). Raises TakenIdError.

        corrects : number of the reading that it takes the place of; that one is kept, marked.
        """
        values = {f"new_{name}": value for name, value in vars(new).items()}
        if corrects is None:
            row = self._connection.execute(_ADD_READING, values).one_or_none()
        else:
            row = self._connection.execute(_ADD_CORRECTION, {**values, "earlier": corrects}).one_or_none()
        if row is None:
            check_same(self._connection, schema.reading, vars(new))
            return None
        kept = {**vars(new), "taken_at": new.taken_at.astimezone(UTC)}
        return Reading(number=row.number, recorded_at=row.recorded_at, confirmed=False, taken_back=False, **kept)

    def add_work(self, new: NewWork) -> None:
        """Add a work done; one of this id that is there already stays as it is."""
        values = {**vars(new), "detail": kept(new.work, new.detail)}
        if new.done_at is None:
            del values["done_at"]
        add_once(self._connection, schema.work_done, values)

    def confirm(self, reading_id: UUID, by: str) -> None:
        self._connection.execute(
            update(schema.reading)
            .where(schema.reading.c.id == reading_id, schema.reading.c.confirmed_at.is_(None))
            .values(confirmed_at=func.now(), confirmed_by=by)
        )

    def take_back_reading(self, taken: Reading, by: str) -> None:
        """Mark a reading as taken back; what it corrected stands again."""
        t = schema.reading
        self._connection.execute(
            update(t).where(t.c.number == taken.number).values(taken_back_at=func.now(), taken_back_by=by)
        )
        self._connection.execute(update(t).where(t.c.corrected_by == taken.number).values(corrected_by=None))

    def take_back_work(self, work_id: UUID, by: str) -> None:
        self._connection.execute(
            update(schema.work_done)
            .where(schema.work_done.c.id == work_id)
            .values(taken_back_at=func.now(), taken_back_by=by)
        )

    def decide(self, new: Decision) -> None:
        """Add a decision; one of this id that is there already stays as it is."""
        values = {name: value for name, value in vars(new).items() if name not in ("decided_at", "taken_back")}
        add_once(self._connection, schema.decision, values)

    def take_back_decision(self, decision_id: UUID, by: str) -> None:
        t = schema.decision
        self._connection.execute(
            update(t).where(t.c.id == decision_id).values(taken_back_at=func.now(), taken_back_by=by)
        )
