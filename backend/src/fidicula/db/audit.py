"""Who changed what and when. Lines are added and never changed: triggers of the database see to it."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Table, Text, cast, func, insert, literal, literal_column, select, union_all
from sqlalchemy.sql.elements import ColumnElement

from fidicula.db import schema
from fidicula.domain.people import AuditEntry, WrongGuesses

_t = schema.audit_entry
MOST = 500
"""Of the lines that are shown at once."""


@dataclass(frozen=True)
class _Log:
    """A log of a visit, by its columns: who wrote a line and when, what it is about, and what it says of that."""

    table: Table
    by: str
    at: str
    subject: str = ""
    says: str = ""
    position: str = ""


# The logs of an instrument are a part of its audit already.
_OF_VISIT = (
    _Log(schema.reading, "taken_by", "recorded_at", "measure", "typed", "position"),
    _Log(schema.work_done, "done_by", "done_at", "work"),
    _Log(schema.decision, "decided_by", "decided_at", "question", "outcome"),
    _Log(schema.seen, "seen_by", "seen_at", "item", "verdict"),
    _Log(schema.course_mark, "made_by", "made_at", "step", "mark"),
    _Log(schema.particular, "written_by", "written_at", "field", "now"),
    _Log(schema.photo, "taken_by", "taken_at", "item"),
    _Log(schema.post_entry, "entered_by", "entered_at"),
    _Log(schema.belonging, "entered_by", "entered_at", "kind"),
    _Log(schema.damage, "seen_by", "seen_at", "kind", "state"),
    _Log(schema.damage_signed, "entered_by", "signed_at", "who"),
    _Log(schema.plan_line, "added_by", "added_at", "work"),
    _Log(schema.approval, "entered_by", "approved_at", "who"),
    _Log(schema.document, "issued_by", "issued_at", "code"),
    _Log(schema.payment, "entered_by", "entered_at", "way", "remark"),
    _Log(schema.player_session, "begun_by", "begun_at", "player"),
    _Log(schema.heard, "written_by", "heard_at", "player"),
    _Log(schema.recording, "recorded_by", "recorded_at"),
    _Log(schema.blind_trial, "led_by", "begun_at", "player"),
    _Log(schema.retuning, "tuned_by", "tuned_at"),
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

    def wrong_guesses(self, name: str, *, of_everyone: bool) -> list[WrongGuesses]:
        """Since somebody signed in the time before this one. of_everyone : at everybody's secrets, not only theirs."""
        before_this = (
            select(_t.c.number)
            .where(_t.c.act == literal_column("'person.signed_in'"), _t.c.subject == name)
            .order_by(_t.c.number.desc())
            .offset(1)
            .limit(1)
            .scalar_subquery()
        )
        what = _t.c.detail["what"].astext
        asked = (
            select(_t.c.subject, what, func.count(), func.max(_t.c.at), func.max(_t.c.number))
            .where(_t.c.act == literal_column("'person.guessed_at'"), _t.c.number > func.coalesce(before_this, 0))
            .group_by(_t.c.subject, what)
            .order_by(func.max(_t.c.number).desc())
        )
        rows = self._connection.execute(asked if of_everyone else asked.where(_t.c.subject == name))
        return [WrongGuesses(*row) for row in rows]

    def of_instrument(self, instrument_id: UUID) -> list[AuditEntry]:
        """Everything that was written down of an instrument at any visit, and what was taken back, newest first."""
        visit = schema.visit
        acts = select(_t.c.at, _t.c.act, _t.c.subject, _t.c.detail, _t.c.by, _t.c.browser, _t.c.request_id)
        parts = [acts.where(_t.c.instrument_id == instrument_id)]
        for log in _OF_VISIT:
            t = log.table
            for act, at, by in (
                (t.name, t.c[log.at], t.c[log.by]),
                *([(f"{t.name}.undone", t.c.taken_back_at, t.c.taken_back_by)] if "taken_back_at" in t.c else []),
            ):
                lines = _lines(act, at, by, log).join(visit, t.c.visit_id == visit.c.id)
                parts.append(lines.where(visit.c.instrument_id == instrument_id, at.is_not(None)))
        chosen = schema.target_choice
        choices = _lines("target_choice", chosen.c.chosen_at, chosen.c.chosen_by, _Log(chosen, "", ""))
        parts.append(choices.where(chosen.c.instrument_id == instrument_id))
        every = union_all(*parts).subquery()
        rows = self._connection.execute(select(every).order_by(every.c.at.desc()).limit(4 * MOST))
        return [AuditEntry(**row._mapping) for row in rows]


def _lines(act: str, at: ColumnElement[Any], by: ColumnElement[Any], log: _Log) -> Any:
    columns = log.table.c
    said = [(name, columns[column]) for name, column in (("says", log.says), ("position", log.position)) if column]
    return select(
        at.label("at"),
        literal(act).label("act"),
        cast(columns[log.subject] if log.subject else literal(""), Text).label("subject"),
        func.jsonb_build_object(*(part for name, column in said for part in (literal(name), column))).label("detail"),
        func.coalesce(by, "").label("by"),
        literal("").label("browser"),
        literal("").label("request_id"),
    )
