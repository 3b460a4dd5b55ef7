"""Checks at pitch, seals, additions, and the shop's own points."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, datetime
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Table, func, select, update
from sqlalchemy.dialects.postgresql import distinct_on

from fidicula.db import schema
from fidicula.db.once import add_once
from fidicula.domain.leaving import Addition, CheckDue, PointCheck, PointEntry, Seal

_check, _seal, _addition, _entry = schema.point_check, schema.seal, schema.addition, schema.point_entry
_visit, _instrument = schema.visit, schema.instrument
_OPENED_AGAIN = ("opened_again_at", "opened_again_by")


def _columns(table: Table, *less: str) -> list[Any]:
    return [column for column in table.c if column.name not in ("number", "taken_back_at", "taken_back_by", *less)]


class Leaving:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def checks(self, visit_id: UUID) -> list[PointCheck]:
        """Those that stand, in order."""
        rows = self._connection.execute(
            select(*_columns(_check))
            .where(_check.c.visit_id == visit_id, _check.c.taken_back_at.is_(None))
            .order_by(_check.c.number)
        )
        return [PointCheck(**row._mapping) for row in rows]

    def check(self, new: PointCheck) -> None:
        """Add a check; one of this id that is there already stays as it is."""
        add_once(self._connection, _check, {name: value for name, value in vars(new).items() if name != "checked_at"})

    def take_back_check(self, check_id: UUID, by: str) -> None:
        self._connection.execute(
            update(_check).where(_check.c.id == check_id).values(taken_back_at=func.now(), taken_back_by=by)
        )

    def moment(self) -> datetime:
        """Now, by the clock that dates the lines."""
        at: datetime = self._connection.execute(select(func.clock_timestamp())).scalar_one()
        return at

    def seals(self, visit_ids: Sequence[UUID]) -> list[Seal]:
        """Those that hold and those of visits that went on, in order."""
        rows = self._connection.execute(
            select(*_columns(_seal)).where(_seal.c.visit_id.in_(visit_ids)).order_by(_seal.c.number)
        )
        return [Seal(**row._mapping) for row in rows]

    def seal(self, new: Seal) -> None:
        values = {name: value for name, value in vars(new).items() if name not in _OPENED_AGAIN}
        add_once(self._connection, _seal, {**values, "points": list(new.points), "hashes": dict(new.hashes)})

    def open_again(self, visit_id: UUID, by: str) -> None:
        """The visit goes on: its seal stays on record, and holds no more."""
        self._connection.execute(
            update(_seal)
            .where(_seal.c.visit_id == visit_id, _seal.c.opened_again_at.is_(None))
            .values(opened_again_at=func.now(), opened_again_by=by)
        )

    def additions(self, visit_ids: Sequence[UUID]) -> list[Addition]:
        rows = self._connection.execute(
            select(*_columns(_addition)).where(_addition.c.visit_id.in_(visit_ids)).order_by(_addition.c.number)
        )
        return [Addition(**row._mapping) for row in rows]

    def add(self, new: Addition) -> None:
        values = {name: value for name, value in vars(new).items() if name != "added_at"}
        add_once(self._connection, _addition, values)

    def own_points(self) -> list[PointEntry]:
        """The newest entry of each point, retired ones too: they hide a shipped one."""
        newest = (
            select(*_columns(_entry), _entry.c.number)
            .ext(distinct_on(_entry.c.point))
            .order_by(_entry.c.point, _entry.c.number.desc())
            .subquery()
        )
        rows = self._connection.execute(select(newest).order_by(newest.c.place, newest.c.number))
        return [PointEntry(**{name: row._mapping[name] for name in PointEntry.__dataclass_fields__}) for row in rows]

    def enter_point(self, new: PointEntry) -> None:
        values = {name: value for name, value in vars(new).items() if name != "entered_at"}
        add_once(self._connection, _entry, {**values, "families": list(new.families)}, same=("point",))

    def due(self, until: date) -> list[CheckDue]:
        """Instruments that should come again by then and are not in the house, the longest due first."""
        other = _visit.alias("other")
        newest = (
            select(other.c.id, other.c.closed_at)
            .where(other.c.instrument_id == _instrument.c.id)
            .order_by(other.c.opened_at.desc())
            .limit(1)
            .correlate(_instrument)
            .lateral()
        )
        rows = self._connection.execute(
            select(
                _instrument.c.ticket,
                _instrument.c.family,
                _instrument.c.size,
                _instrument.c.owner,
                _seal.c.next_check.label("due"),
                _seal.c.next_check_why.label("why"),
                _seal.c.signed_by,
            )
            .select_from(_seal)
            .join(_visit, _visit.c.id == _seal.c.visit_id)
            .join(_instrument, _instrument.c.id == _visit.c.instrument_id)
            .join(newest, newest.c.id == _seal.c.visit_id)
            .where(_seal.c.opened_again_at.is_(None), _seal.c.next_check <= until, newest.c.closed_at.is_not(None))
            .order_by(_seal.c.next_check, _instrument.c.ticket)
            .limit(200)
        )
        return [CheckDue(**row._mapping) for row in rows]
