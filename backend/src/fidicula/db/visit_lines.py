"""Every line of a visit's record as plain values, for dossiers and seals; many visits in one way to the database."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Table, func, select
from sqlalchemy.sql.elements import ColumnElement

from fidicula.db import schema

OF_VISIT: Mapping[str, Table] = {
    "works": schema.work_done,
    "readings": schema.reading,
    "decisions": schema.decision,
    "inspection": schema.seen,
    "steps": schema.course_mark,
    "checks": schema.point_check,
    "photographs": schema.photo,
    "retunings": schema.retuning,
    "posts": schema.post_entry,
    "belongings": schema.belonging,
    "damage": schema.damage,
    "damage_signed": schema.damage_signed,
    "players": schema.player_session,
    "listening_notes": schema.heard,
    "recordings": schema.recording,
    "blind_comparisons": schema.blind_trial,
    "plan": schema.plan_line,
    "plan_parts": schema.plan_part,
    "plan_times": schema.plan_time,
    "approvals": schema.approval,
    "discounts": schema.plan_discount,
}
"""The lists of a record, with the table of each."""
HEAD = (
    *("id", "kind", "complaint", "opened_at", "closed_at", "closed_by"),
    *("climate", "deadline", "freeze_days", "promised"),
)
_FILES: Mapping[str, str] = {"photo": "jpeg", "recording": "sound"}
"""Of these a record holds the hash."""
_LEFT_OUT = frozenset({"number", "visit_id", "jpeg", "small", "sound"})

VisitLines = dict[UUID, dict[str, list[dict[str, Any]]]]


class VisitLineReader:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def heads(self, visit_ids: Sequence[UUID]) -> dict[UUID, dict[str, Any]]:
        """When each was in the house and why."""
        t = schema.visit
        rows = self._connection.execute(select(*(t.c[name] for name in HEAD)).where(t.c.id.in_(visit_ids)))
        return {row.id: dict(row._mapping) for row in rows}

    def lines(self, visit_ids: Sequence[UUID]) -> VisitLines:
        """By visit and by list, in the order in which they were written. Lines name each other by id."""
        found: VisitLines = {visit_id: {} for visit_id in visit_ids}
        works: dict[int, UUID] = {}
        for name, table in OF_VISIT.items():
            rows = [dict(row._mapping) for row in self._connection.execute(_of(table, visit_ids))]
            numbers = {row["own_number"]: row["id"] for row in rows}
            if table is schema.work_done:
                works = numbers
            for row in rows:
                del row["own_number"]
                if "after_work" in row:
                    row["after_work"] = works.get(row["after_work"])
                if "corrected_by" in row:
                    row["corrected_by"] = numbers.get(row["corrected_by"])
                found[row.pop("of_visit")].setdefault(name, []).append(row)
        return found


def columns_of(table: Table) -> list[str]:
    """Names of what a record says of a line."""
    return [column.name for column in table.c if column.name not in _LEFT_OUT]


def _of(table: Table, visit_ids: Sequence[UUID]) -> Any:
    columns: list[ColumnElement[Any]] = [table.c[name] for name in columns_of(table)]
    if table.name in _FILES:
        columns.append(func.encode(func.sha256(table.c[_FILES[table.name]]), "hex").label("sha256"))
    of_visit, source = (
        (table.c.visit_id, table)
        if "visit_id" in table.c
        else (schema.plan_line.c.visit_id, table.join(schema.plan_line, schema.plan_line.c.id == table.c.line_id))
    )
    return (
        select(table.c.number.label("own_number"), of_visit.label("of_visit"), *columns)
        .select_from(source)
        .where(of_visit.in_(visit_ids))
        .order_by(table.c.number)
    )
