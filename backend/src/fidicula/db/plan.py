"""The plan of a visit: its lines, the parts and time of each, and what the owner approved."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from decimal import Decimal
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Table, func, select, update

from fidicula.codes import WorkCode
from fidicula.db import schema
from fidicula.db.once import add_once
from fidicula.domain.plan import AgreedPrice, Approval, Discount, PlanLine, PlanPart, PlanTime, RefusedWork

_line, _part, _time, _approval, _work = (
    schema.plan_line,
    schema.plan_part,
    schema.plan_time,
    schema.approval,
    schema.work_done,
)
_BY_DATABASE = ("added_at", "approved_at", "begun_at", "entered_at")
_KEPT_BACK = ("number", "taken_back_at", "taken_back_by")
LAST = 9
"""Of the shop's own minutes so many are asked for."""


class Plan:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def lines(self, visit_id: UUID) -> list[PlanLine]:
        """Lines that stand, in their order. One whose work was undone is not done."""
        undone = select(_work.c.id).where(_work.c.id == _line.c.work_id, _work.c.taken_back_at.is_not(None)).exists()
        rows = self._connection.execute(
            select(*_columns(_line), undone.label("undone"))
            .where(_line.c.visit_id == visit_id, _line.c.taken_back_at.is_(None))
            .order_by(_line.c.place, _line.c.number)
        )
        found = []
        for row in rows:
            values = dict(row._mapping)
            if values.pop("undone"):
                values.update(done_at=None, done_by=None, minutes=None, work_id=None, terms={})
            found.append(PlanLine(**values))
        return found

    def parts(self, visit_id: UUID) -> list[PlanPart]:
        columns = [column for column in _columns(_part) if column.name != "added_at"]
        rows = self._connection.execute(
            select(*columns)
            .join(_line, _line.c.id == _part.c.line_id)
            .where(_line.c.visit_id == visit_id, _line.c.taken_back_at.is_(None), _part.c.taken_back_at.is_(None))
            .order_by(_part.c.number)
        )
        return [PlanPart(**row._mapping) for row in rows]

    def times(self, visit_id: UUID) -> list[PlanTime]:
        rows = self._connection.execute(
            select(*_columns(_time))
            .join(_line, _line.c.id == _time.c.line_id)
            .where(_line.c.visit_id == visit_id)
            .order_by(_time.c.number)
        )
        return [PlanTime(**row._mapping) for row in rows]

    def approvals(self, visit_id: UUID) -> list[Approval]:
        rows = self._connection.execute(
            select(*_columns(_approval))
            .where(_approval.c.visit_id == visit_id, _approval.c.taken_back_at.is_(None))
            .order_by(_approval.c.number)
        )
        return [_approval_of(dict(row._mapping)) for row in rows]

    def add_line(self, new: PlanLine) -> None:
        self._add(_line, new, same=("visit_id", "work"))

    def add_part(self, new: PlanPart) -> None:
        self._add(_part, new, same=("line_id", "item_id"))

    def add_approval(self, new: Approval) -> None:
        prices = {
            str(line): {"minutes": [str(one) for one in price.minutes], "labour": [str(one) for one in price.labour]}
            for line, price in new.prices.items()
        }
        values = {**vars(new), "lines": list(new.lines), "prices": prices}
        add_once(self._connection, _approval, _without_times(values))

    def refuse(self, lines: Sequence[UUID], approval_id: UUID | None) -> None:
        """The owner left these out, or, at None, wants them after all."""
        self._connection.execute(update(_line).where(_line.c.id.in_(lines)).values(refused=approval_id))

    def refused_before(self, instrument_id: UUID, visit_id: UUID) -> list[RefusedWork]:
        """What the owner left out at other visits and nobody has done since, each once, the newest first."""
        visit, since = schema.visit, _work.alias("since")
        at = visit.alias("since_at")
        done = (
            select(since.c.id)
            .join(at, at.c.id == since.c.visit_id)
            .where(
                at.c.instrument_id == instrument_id,
                since.c.work == _line.c.work,
                since.c.taken_back_at.is_(None),
                since.c.done_at > _approval.c.approved_at,
            )
            .exists()
        )
        rows = self._connection.execute(
            select(_line.c.work, _approval.c.words, _approval.c.approved_at)
            .join(_approval, _approval.c.id == _line.c.refused)
            .join(visit, visit.c.id == _line.c.visit_id)
            .where(
                visit.c.instrument_id == instrument_id, visit.c.id != visit_id, _line.c.taken_back_at.is_(None), ~done
            )
            .order_by(_approval.c.number.desc())
        )
        found: dict[WorkCode, RefusedWork] = {}
        for row in rows:
            found.setdefault(row.work, RefusedWork(row.work, row.words, row.approved_at))
        return list(found.values())

    def discount(self, visit_id: UUID) -> Discount | None:
        """The newest one."""
        t = schema.plan_discount
        columns = [column for column in t.c if column.name not in ("number", "entered_at")]
        asked = select(*columns).where(t.c.visit_id == visit_id).order_by(t.c.number.desc()).limit(1)
        row = self._connection.execute(asked).one_or_none()
        return None if row is None else Discount(**row._mapping)

    def give_discount(self, new: Discount) -> None:
        add_once(self._connection, schema.plan_discount, vars(new))

    def begin(self, new_id: UUID, line_id: UUID, by: str) -> None:
        """Raises AtOnceError, by the database, where somebody else is at it."""
        add_once(
            self._connection, _time, {"id": new_id, "line_id": line_id, "begun_by": by}, same=("line_id", "begun_by")
        )

    def end(self, line_id: UUID) -> None:
        self._connection.execute(
            update(_time).where(_time.c.line_id == line_id, _time.c.ended_at.is_(None)).values(ended_at=func.now())
        )

    def finish(self, line_id: UUID, *, minutes: Decimal, by: str, work_id: UUID, terms: Mapping[str, str]) -> None:
        self._connection.execute(
            update(_line)
            .where(_line.c.id == line_id)
            .values(done_at=func.now(), done_by=by, minutes=minutes, work_id=work_id, terms=dict(terms))
        )

    def move(self, line_id: UUID, place: float) -> None:
        self._connection.execute(update(_line).where(_line.c.id == line_id).values(place=place))

    def grade(self, line_id: UUID, grade: str) -> None:
        self._connection.execute(update(_line).where(_line.c.id == line_id).values(grade=grade))

    def take_back(self, table: str, row_id: UUID, by: str) -> None:
        """Drop a `plan_line`, a `plan_part` or an `approval`; twice is once."""
        t = schema.metadata.tables[table]
        self._connection.execute(
            update(t)
            .where(t.c.id == row_id, t.c.taken_back_at.is_(None))
            .values(taken_back_at=func.now(), taken_back_by=by)
        )

    def own_minutes(self, works: Sequence[WorkCode], family: str) -> dict[str, list[Decimal]]:
        """Minutes that works took on instruments of a family, the last ones, oldest first."""
        visit, instrument = schema.visit, schema.instrument
        newest = (
            select(
                _line.c.work,
                _line.c.minutes,
                _line.c.number,
                func.row_number().over(partition_by=_line.c.work, order_by=_line.c.number.desc()).label("back"),
            )
            .join(visit, visit.c.id == _line.c.visit_id)
            .join(instrument, instrument.c.id == visit.c.instrument_id)
            .join(_work, _work.c.id == _line.c.work_id)
            .where(
                _line.c.minutes.is_not(None),
                _line.c.work.in_(works),
                _line.c.taken_back_at.is_(None),
                _work.c.taken_back_at.is_(None),
                instrument.c.family == family,
            )
            .subquery()
        )
        found: dict[str, list[Decimal]] = {}
        for row in self._connection.execute(select(newest).where(newest.c.back <= LAST).order_by(newest.c.number)):
            found.setdefault(row.work, []).append(row.minutes)
        return found

    def _add(self, table: Table, new: object, *, same: tuple[str, ...]) -> None:
        add_once(self._connection, table, _without_times(vars(new)), same=same)


def _approval_of(values: dict[str, Any]) -> Approval:
    prices = {
        UUID(line): AgreedPrice(_three(price["minutes"]), _three(price["labour"]))
        for line, price in values["prices"].items()
    }
    return Approval(**{**values, "lines": tuple(values["lines"]), "prices": prices})


def _three(said: Sequence[str]) -> tuple[Decimal, Decimal, Decimal]:
    low, usual, high = (Decimal(one) for one in said)
    return low, usual, high


def _columns(table: Table) -> list[Any]:
    return [column for column in table.c if column.name not in _KEPT_BACK]


def _without_times(values: dict[str, Any]) -> dict[str, Any]:
    return {name: value for name, value in values.items() if name not in _BY_DATABASE}
