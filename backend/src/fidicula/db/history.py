"""What an instrument's visits hold, all of them in one way to the database for each kind of line."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy import ColumnElement, Connection, RowMapping, Table, func, select
from sqlalchemy.dialects.postgresql import distinct_on

from fidicula.db import schema
from fidicula.db.log import decision_of, reading_of, work_of
from fidicula.db.workflow import mark_of, seen_of
from fidicula.domain.photos import Photo
from fidicula.domain.readings import Reading
from fidicula.domain.visits import CourseMark, Decision, Seen
from fidicula.domain.works import WorkDone

_visit = schema.visit
_STANDS = (schema.reading.c.taken_back_at.is_(None), schema.reading.c.corrected_by.is_(None))
_NO_BYTES = ("jpeg", "small", "sound")


class History:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def readings(self, instrument_id: UUID) -> list[Reading]:
        """In the order of the visits, those that were corrected or taken back too."""
        return [reading_of(m) for m in self._lines(schema.reading, instrument_id)]

    def last_readings(self, instrument_id: UUID) -> list[Reading]:
        """The last that stands of each place at each visit."""
        t = schema.reading
        place = (t.c.visit_id, t.c.measure, t.c.position)
        rows = self._connection.execute(
            select(t)
            .ext(distinct_on(*place))
            .join(_visit, _visit.c.id == t.c.visit_id)
            .where(_visit.c.instrument_id == instrument_id, *_STANDS)
            .order_by(*place, t.c.number.desc())
        )
        return [reading_of(row._mapping) for row in rows]

    def counts(self, instrument_id: UUID) -> dict[UUID, int]:
        """How many readings stand of each visit."""
        t = schema.reading
        rows = self._connection.execute(
            select(t.c.visit_id, func.count())
            .join(_visit, _visit.c.id == t.c.visit_id)
            .where(_visit.c.instrument_id == instrument_id, *_STANDS)
            .group_by(t.c.visit_id)
        )
        return {row[0]: row[1] for row in rows}

    def works(self, instrument_id: UUID) -> list[WorkDone]:
        """Those taken back too."""
        return [work_of(m) for m in self._lines(schema.work_done, instrument_id)]

    def decisions(self, instrument_id: UUID) -> list[Decision]:
        return [decision_of(m) for m in self._lines(schema.decision, instrument_id)]

    def seen(self, instrument_id: UUID) -> list[Seen]:
        return [seen_of(m) for m in self._lines(schema.seen, instrument_id)]

    def marks(self, instrument_id: UUID) -> list[CourseMark]:
        return [mark_of(m) for m in self._lines(schema.course_mark, instrument_id)]

    def photos(self, instrument_id: UUID) -> list[Photo]:
        """Those that were not taken back."""
        t = schema.photo
        names = Photo.__dataclass_fields__
        lines = self._lines(t, instrument_id, t.c.taken_back_at.is_(None))
        return [Photo(**{name: m[name] for name in names}) for m in lines]

    def _lines(self, table: Table, instrument_id: UUID, *more: ColumnElement[bool]) -> list[RowMapping]:
        columns = [column for column in table.c if column.name not in _NO_BYTES]
        rows = self._connection.execute(
            select(*columns)
            .join(_visit, _visit.c.id == table.c.visit_id)
            .where(_visit.c.instrument_id == instrument_id, *more)
            .order_by(_visit.c.opened_at, table.c.number)
        )
        return [row._mapping for row in rows]
