"""What was seen of an instrument and said of its steps, and the tools that were checked; all of it a log."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import datetime
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, func, select, update

from fidicula.codes import ToolCode
from fidicula.db import schema
from fidicula.db.once import add_once
from fidicula.domain.readings import ToolCheck
from fidicula.domain.visits import CourseMark, Seen


def seen_of(m: Mapping[Any, Any]) -> Seen:
    return Seen(
        id=m["id"],
        visit_id=m["visit_id"],
        item=m["item"],
        verdict=m["verdict"],
        findings=tuple(m["findings"]),
        words=m["words"],
        seen_by=m["seen_by"],
        after_work=m["after_work"],
        seen_at=m["seen_at"],
        taken_back=m["taken_back_at"] is not None,
    )


def mark_of(m: Mapping[Any, Any]) -> CourseMark:
    return CourseMark(
        id=m["id"],
        visit_id=m["visit_id"],
        step=m["step"],
        mark=m["mark"],
        reason=m["reason"],
        until=m["until"],
        after_work=m["after_work"],
        made_by=m["made_by"],
        made_at=m["made_at"],
        taken_back=m["taken_back_at"] is not None,
    )


_FROM_DATABASE = ("seen_at", "made_at", "taken_back")


class WorkflowLog:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def add(self, new: Seen | CourseMark) -> None:
        """Add a line; one of this id that is there already stays as it is."""
        table = schema.seen if isinstance(new, Seen) else schema.course_mark
        values = {name: value for name, value in vars(new).items() if name not in _FROM_DATABASE}
        if isinstance(new, Seen):
            values["findings"] = list(new.findings)
        add_once(self._connection, table, values)

    def take_back(self, line: Seen | CourseMark, by: str) -> None:
        """Mark a line as taken back; the one before it stands again."""
        table = schema.seen if isinstance(line, Seen) else schema.course_mark
        self._connection.execute(
            update(table).where(table.c.id == line.id).values(taken_back_at=func.now(), taken_back_by=by)
        )

    def tool_checks(self) -> list[ToolCheck]:
        """Every check of a tool, in order."""
        t = schema.tool_check
        rows = self._connection.execute(select(t).order_by(t.c.checked_at, t.c.number)).mappings()
        return [
            ToolCheck(m["id"], m["tool"], tuple(m["known"]), tuple(m["read"]), m["checked_by"], m["checked_at"])
            for m in rows
        ]

    def check_tool(
        self,
        *,
        id: UUID,
        tool: ToolCode,
        by: str,
        at: datetime | None = None,
        known: Sequence[float] = (),
        read: Sequence[float] = (),
    ) -> None:
        """Write down that a tool was checked. known, read : lengths, and what it read of each.  at : None for now."""
        when = {} if at is None else {"checked_at": at}
        values = {"id": id, "tool": tool, "known": list(known), "read": list(read), "checked_by": by, **when}
        add_once(self._connection, schema.tool_check, values, same=["tool"])
