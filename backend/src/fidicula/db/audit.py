"""Who changed what and when. Lines are added and never changed: triggers of the database see to it."""

from __future__ import annotations

from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Table, Text, cast, func, insert, literal, select, union_all
from sqlalchemy.sql.elements import ColumnElement

from fidicula.db import schema
from fidicula.db.records import AuditEntry

_t = schema.audit_entry
MOST = 500
"""Of the lines that are shown at once."""

# The logs of an instrument are a part of its audit already: each with who wrote a line, when, and what it is about.
_OF_VISIT: tuple[tuple[Table, str, str, str], ...] = (
    (schema.reading, "taken_by", "recorded_at", "measure"),
    (schema.work_done, "done_by", "done_at", "work"),
    (schema.decision, "decided_by", "decided_at", "question"),
    (schema.seen, "seen_by", "seen_at", "item"),
    (schema.course_mark, "made_by", "made_at", "step"),
    (schema.particular, "written_by", "written_at", "field"),
    (schema.photo, "taken_by", "taken_at", "item"),
    (schema.post_entry, "entered_by", "entered_at", ""),
    (schema.player_session, "begun_by", "begun_at", "player"),
    (schema.heard, "written_by", "heard_at", "player"),
    (schema.recording, "recorded_by", "recorded_at", ""),
    (schema.blind_trial, "led_by", "begun_at", "player"),
    (schema.retuning, "tuned_by", "tuned_at", ""),
)


class Audit:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def add(self, new: AuditEntry) -> None:
        values = {name: value for name, value in vars(new).items() if name != "at"}
        values["detail"] = dict(new.detail)
        self._connection.execute(insert(_t).values(**values))

    def of_house(self, *, before: int | None = None) -> list[tuple[int, AuditEntry]]:
        """Acts on the house and its people, and what came and went, newest first. before : a line's number."""
        asked = select(_t).order_by(_t.c.number.desc()).limit(MOST)
        rows = self._connection.execute(asked if before is None else asked.where(_t.c.number < before))
        return [
            (row.number, AuditEntry(**{name: row._mapping[name] for name in AuditEntry.__dataclass_fields__}))
            for row in rows
        ]

    def of_instrument(self, instrument_id: UUID) -> list[AuditEntry]:
        """Everything that was written down of an instrument at any visit, and what was taken back, newest first."""
        visit = schema.visit
        parts = [
            select(_t.c.at, _t.c.act, _t.c.subject, _t.c.by, _t.c.browser, _t.c.request_id).where(
                _t.c.instrument_id == instrument_id
            )
        ]
        for table, by, at, what in _OF_VISIT:
            subject: ColumnElement[Any] = table.c[what] if what else literal("")
            mine = table.c.visit_id == visit.c.id
            parts.append(_lines(table.name, table.c[at], subject, table.c[by]).join(visit, mine))
            if "taken_back_at" in table.c:
                undone = _lines(f"{table.name}.undone", table.c.taken_back_at, subject, table.c.taken_back_by)
                parts.append(undone.join(visit, mine).where(table.c.taken_back_at.is_not(None)))
        parts[1:] = [part.where(visit.c.instrument_id == instrument_id) for part in parts[1:]]
        chosen = schema.target_choice
        parts.append(
            _lines("target_choice", chosen.c.chosen_at, literal(""), chosen.c.chosen_by).where(
                chosen.c.instrument_id == instrument_id
            )
        )
        every = union_all(*parts).subquery()
        rows = self._connection.execute(select(every).order_by(every.c.at.desc()).limit(4 * MOST))
        return [AuditEntry(**row._mapping) for row in rows]


def _lines(act: str, at: ColumnElement[Any], subject: ColumnElement[Any], by: ColumnElement[Any]) -> Any:
    return select(
        at.label("at"),
        literal(act).label("act"),
        cast(subject, Text).label("subject"),
        func.coalesce(by, "").label("by"),
        literal("").label("browser"),
        literal("").label("request_id"),
    )
