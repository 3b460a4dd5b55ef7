"""What was seen of an instrument and said of its steps, and the tools that were checked; all of it a log."""

from __future__ import annotations

from datetime import datetime
from uuid import UUID

from sqlalchemy import Connection, bindparam, func, select, update
from sqlalchemy.dialects.postgresql import distinct_on
from sqlalchemy.dialects.postgresql import insert as upsert

from fidicula.db import schema
from fidicula.db.records import CourseMark, Seen

# Statements that run with every reading are built once: building one takes as long as running it.

_SEEN, _MARKS = (
    select(table).where(table.c.visit_id == bindparam("visit_id")).order_by(table.c.number)
    for table in (schema.seen, schema.course_mark)
)

_FROM_DATABASE = ("seen_at", "made_at", "taken_back")


class Course:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def seen(self, visit_id: UUID) -> list[Seen]:
        """Everything that was seen at a visit, in order, what was taken back too."""
        return [
            Seen(
                id=r.id,
                visit_id=r.visit_id,
                item=r.item,
                verdict=r.verdict,
                findings=tuple(r.findings),
                words=r.words,
                seen_by=r.seen_by,
                after_work=r.after_work,
                seen_at=r.seen_at,
                taken_back=r.taken_back_at is not None,
            )
            for r in self._connection.execute(_SEEN, {"visit_id": visit_id})
        ]

    def marks(self, visit_id: UUID) -> list[CourseMark]:
        """Everything that was said of the steps of a visit, in order, what was taken back too."""
        return [
            CourseMark(
                id=r.id,
                visit_id=r.visit_id,
                step=r.step,
                mark=r.mark,
                reason=r.reason,
                until=r.until,
                after_work=r.after_work,
                made_by=r.made_by,
                made_at=r.made_at,
                taken_back=r.taken_back_at is not None,
            )
            for r in self._connection.execute(_MARKS, {"visit_id": visit_id})
        ]

    def add(self, new: Seen | CourseMark) -> None:
        """Add a line; one of this id that is there already stays as it is."""
        table = schema.seen if isinstance(new, Seen) else schema.course_mark
        values = {name: value for name, value in vars(new).items() if name not in _FROM_DATABASE}
        if isinstance(new, Seen):
            values["findings"] = list(new.findings)
        self._connection.execute(upsert(table).values(**values).on_conflict_do_nothing(index_elements=["id"]))

    def take_back(self, line: Seen | CourseMark, by: str) -> None:
        """Mark a line as taken back; the one before it stands again."""
        table = schema.seen if isinstance(line, Seen) else schema.course_mark
        self._connection.execute(
            update(table).where(table.c.id == line.id).values(taken_back_at=func.now(), taken_back_by=by)
        )

    def tool_checks(self) -> dict[str, datetime]:
        """When each tool was last checked."""
        t = schema.tool_check
        rows = self._connection.execute(
            select(t.c.tool, t.c.checked_at).ext(distinct_on(t.c.tool)).order_by(t.c.tool, t.c.number.desc())
        )
        return {r.tool: r.checked_at for r in rows}

    def check_tool(self, *, id: UUID, tool: str, by: str, at: datetime | None = None) -> None:
        """Write down that a tool was checked. at : None for now."""
        when = {} if at is None else {"checked_at": at}
        self._connection.execute(
            upsert(schema.tool_check)
            .values(id=id, tool=tool, checked_by=by, **when)
            .on_conflict_do_nothing(index_elements=["id"])
        )
