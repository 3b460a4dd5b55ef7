"""All that one sheet is made of, in a single way to the database and back: most of a reading's time is such ways."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from sqlalchemy import ARRAY, BigInteger, Connection, Table, and_, bindparam, exists, func, literal_column, or_, select
from sqlalchemy.dialects.postgresql import aggregate_order_by
from sqlalchemy.sql.elements import ColumnElement
from sqlalchemy.sql.selectable import ScalarSelect

from fidicula.codes import WorkCode
from fidicula.core.readings.estimate import Repeats
from fidicula.core.readings.states import MeasurementKey
from fidicula.db import schema
from fidicula.db.damage import look_of
from fidicula.db.instruments import BY_TICKET, LOCK, instrument_and_visit_of, last_time_of
from fidicula.db.lessons import hands_learnt
from fidicula.db.log import decision_of, reading_of, work_of
from fidicula.db.shop_rules import RULES_STAMP
from fidicula.db.workflow import mark_of, seen_of
from fidicula.domain.damage import DamageLook
from fidicula.domain.instruments import Instrument
from fidicula.domain.lessons import Learnt
from fidicula.domain.readings import LastTime, Reading
from fidicula.domain.rereading import KEPT_WHEN_CORRECTED, TYPED_AGAIN_WITHIN
from fidicula.domain.strings import SetString, StringSet
from fidicula.domain.visits import CourseMark, Decision, Seen, Visit
from fidicula.domain.works import WorkDone


@dataclass(frozen=True)
class SheetRecords:
    """One instrument with the visit that its ticket opens.

    readings : those that stand, and every one of what moves by itself.
    works, decisions, seen, marks : in order, what was taken back too.  planned : works, in their order.
    stamp : as `ShopRules.stamp` gives it.
    """

    instrument: Instrument
    visit: Visit
    string_set: StringSet | None
    readings: Sequence[Reading]
    works: Sequence[WorkDone]
    decisions: Sequence[Decision]
    seen: Sequence[Seen]
    marks: Sequence[CourseMark]
    last_time: Mapping[MeasurementKey, LastTime]
    stamp: int
    learnt: Learnt
    planned: tuple[WorkCode, ...] = ()
    damage: Sequence[DamageLook] = ()


@dataclass(frozen=True)
class Change:
    """Which change of an instrument was its newest, and what can change beside it.

    own : what changes of this unit of work are counted as; 0 where it only reads.
    stamp : as `ShopRules.stamp` gives it.  hands : the repeats of each person with each tool.
    """

    instrument_id: UUID
    number: int
    stamp: int
    hands: Mapping[tuple[str, str], Repeats]
    own: int = 0


_BESIDE = (hands_learnt().label("hands"), RULES_STAMP.label("rules_stamp"))

_CHANGE = (
    select(schema.instrument.c.id, schema.instrument_change.c.number, *_BESIDE)
    .join(schema.instrument_change)
    .where(schema.instrument.c.ticket == bindparam("ticket"))
)

_LOCKED = LOCK.cte("locked")
# The function looks for itself, once the instrument is locked: this statement does not see what was written meanwhile.
_HOLD = select(_LOCKED.c.id, func.hold_change(_LOCKED.c.id, type_=ARRAY(BigInteger)).label("numbers"), *_BESIDE)

_ONE = BY_TICKET.cte("one")


def _whole(table: Table) -> ColumnElement[Any]:
    return func.row_to_json(literal_column(table.name))


def _rows(table: Table, *more: ColumnElement[bool]) -> ScalarSelect[Any]:
    """The rows of a log at this visit, in order, as JSON."""
    return (
        select(func.json_agg(aggregate_order_by(_whole(table), table.c.number)))
        .where(table.c.visit_id == _ONE.c.visit_id, *more)
        .correlate(_ONE)
        .scalar_subquery()
    )


_reading, _work, _visit, _string = schema.reading, schema.work_done, schema.visit, schema.string_of_set

_later = schema.reading.alias("later")
_TYPED_AGAIN = (
    exists()
    .where(
        _later.c.number == _reading.c.corrected_by,
        _reading.c.measure == "end_height",
        _later.c.taken_at - _reading.c.taken_at <= TYPED_AGAIN_WITHIN,
        or_(_later.c.doubt.is_(None), _later.c.confirmed_at.is_not(None)),
        ~_later.c.simulated,
    )
    .correlate(_reading)
)

_SET_ID = (
    select(_work.c.string_set_id)
    .join(_visit, _visit.c.id == _work.c.visit_id)
    .where(
        _visit.c.instrument_id == _ONE.c.id,
        _work.c.string_set_id.is_not(None),
        _work.c.taken_back_at.is_(None),
    )
    .order_by(_work.c.number.desc())
    .limit(1)
    .correlate(_ONE)
    .scalar_subquery()
)

_SET = (
    select(
        func.json_build_object(
            *("id", schema.string_set.c.id, "name", schema.string_set.c.name),
            *("family", schema.string_set.c.family, "material", schema.string_set.c.material),
            "strings",
            select(
                func.json_agg(aggregate_order_by(func.row_to_json(literal_column(_string.name)), _string.c.position))
            )
            .where(_string.c.string_set_id == schema.string_set.c.id)
            .correlate(schema.string_set)
            .scalar_subquery(),
        )
    )
    .where(schema.string_set.c.id == _SET_ID)
    .correlate(_ONE)
    .scalar_subquery()
)

_LAST_TIME = last_time_of(_ONE.c.id, _ONE.c.visit_id).correlate(_ONE).subquery("earlier")

_EARLIER_WORKS = (
    select(
        func.json_agg(
            aggregate_order_by(
                func.json_build_array(_visit.c.opened_at, _work.c.visit_id, _work.c.number, _work.c.work),
                _work.c.number,
            )
        )
    )
    .join(_visit, _visit.c.id == _work.c.visit_id)
    .where(_visit.c.instrument_id == _ONE.c.id, _visit.c.id != _ONE.c.visit_id, _work.c.taken_back_at.is_(None))
    .correlate(_ONE)
    .scalar_subquery()
)
"""What was done at other visits, in the order of the visits."""

_SETTLED = (
    select(func.json_agg(_visit.c.settled))
    .where(_visit.c.instrument_id == _ONE.c.id, _visit.c.id != _ONE.c.visit_id, _visit.c.settled != [])
    .correlate(_ONE)
    .scalar_subquery()
)

_line = schema.plan_line
_PLANNED = (
    select(func.json_agg(aggregate_order_by(_line.c.work, _line.c.place, _line.c.number)))
    .where(_line.c.visit_id == _ONE.c.visit_id, _line.c.taken_back_at.is_(None), _line.c.refused.is_(None))
    .correlate(_ONE)
    .scalar_subquery()
)

_mark, _at = schema.damage, schema.visit.alias("of_mark")
_SINCE = (
    select(func.json_agg(_work.c.work))
    .join(_visit, _visit.c.id == _work.c.visit_id)
    .where(
        _visit.c.instrument_id == _ONE.c.id,
        _work.c.taken_back_at.is_(None),
        # A visit counts its works from its own first: what was done at an earlier one was there when the mark was seen.
        or_(
            and_(_visit.c.id == _mark.c.visit_id, _work.c.number > _mark.c.after_work),
            _visit.c.opened_at > _at.c.opened_at,
        ),
    )
    .correlate(_ONE, _mark, _at)
    .scalar_subquery()
)
_DAMAGE = (
    select(
        func.json_agg(
            aggregate_order_by(
                func.to_jsonb(literal_column(_mark.name)).op("||")(func.jsonb_build_object("since", _SINCE)),
                _mark.c.number,
            )
        )
    )
    .select_from(_mark.join(_at, _at.c.id == _mark.c.visit_id))
    .where(_at.c.instrument_id == _ONE.c.id, _mark.c.taken_back_at.is_(None))
    .correlate(_ONE)
    .scalar_subquery()
)
"""Every look at each mark, at any visit, with the works since."""

_STATEMENT = select(
    _ONE,
    _rows(
        _reading,
        _reading.c.taken_back_at.is_(None),
        or_(_reading.c.corrected_by.is_(None), _reading.c.measure.in_(KEPT_WHEN_CORRECTED) & ~_TYPED_AGAIN),
    ).label("readings"),
    _rows(_work).label("works"),
    _rows(schema.decision).label("decisions"),
    _rows(schema.seen).label("seen"),
    _rows(schema.course_mark).label("marks"),
    _SET.label("string_set"),
    select(func.json_agg(func.row_to_json(literal_column("earlier"))))
    .select_from(_LAST_TIME)
    .correlate(_ONE)
    .scalar_subquery()
    .label("last_time"),
    _EARLIER_WORKS.label("earlier_works"),
    _SETTLED.label("settled"),
    _PLANNED.label("planned"),
    _DAMAGE.label("damage"),
    *_BESIDE,
)


class OneSheet:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def change(self, ticket: str) -> Change | None:
        """None for a ticket that nobody ever hung on the rail."""
        row = self._connection.execute(_CHANGE, {"ticket": ticket}).one_or_none()
        return None if row is None else Change(row.id, row.number, row.rules_stamp, _hands(row.hands))

    def hold(self, ticket: str) -> Change | None:
        """As `change`, and let nobody else change the instrument or its visits until this is over."""
        row = self._connection.execute(_HOLD, {"ticket": ticket}).one_or_none()
        if row is None:
            return None
        number, own = row.numbers
        return Change(row.id, number, row.rules_stamp, _hands(row.hands), own)

    def of(self, ticket: str) -> SheetRecords | None:
        """None for a ticket that nobody ever hung on the rail."""
        row = self._connection.execute(_STATEMENT, {"ticket": ticket}).one_or_none()
        if row is None:
            return None
        m = row._mapping
        instrument, visit = instrument_and_visit_of(m)
        return SheetRecords(
            instrument=instrument,
            visit=visit,
            string_set=_set_of(m["string_set"]),
            readings=[reading_of(line) for line in _lines(m["readings"])],
            works=[work_of(line) for line in _lines(m["works"])],
            decisions=[decision_of(line) for line in _lines(m["decisions"])],
            seen=[seen_of(line) for line in _lines(m["seen"])],
            marks=[mark_of(line) for line in _lines(m["marks"])],
            last_time=_last_time(_lines(m["last_time"]), m["earlier_works"] or []),
            stamp=m["rules_stamp"],
            planned=tuple(m["planned"] or ()),
            damage=[look_of(line) for line in _lines(m["damage"])],
            learnt=Learnt(
                _hands(m["hands"]),
                tuple(drop for visit in m["settled"] or [] for drop in visit),
            ),
        )


def _hands(rows: list[tuple[str, str, float, int]] | None) -> dict[tuple[str, str], Repeats]:
    return {(person, tool): Repeats(squares, free) for person, tool, squares, free in rows or []}


def _last_time(rows: list[dict[str, Any]], works: list[tuple[str, str, int, str]]) -> dict[MeasurementKey, LastTime]:
    """works : [opening of the visit, visit, number, work] of the other visits."""
    done = [(datetime.fromisoformat(opened), visit, number, work) for opened, visit, number, work in works]
    found = {}
    for row in rows:
        opened_at = datetime.fromisoformat(row["opened_at"])
        since = frozenset(
            work
            for opened, visit, number, work in done
            if opened > opened_at or (visit == str(row["visit_id"]) and number > (row["after_work"] or 0))
        )
        key = row["measure"], row["position"]
        found[key] = LastTime(row["value"], row["direction"], row["taken_at"], row["tool"], since)
    return found


_TIMES = ("taken_at", "recorded_at", "done_at", "decided_at", "seen_at", "made_at", "until")
_IDS = ("id", "visit_id", "string_set_id", "thing")


def _lines(rows: list[dict[str, Any]] | None) -> list[dict[str, Any]]:
    """Rows that came as JSON, with their ids and times as such again."""
    if not rows:
        return []
    ids = [name for name in _IDS if name in rows[0]]
    times = [name for name in _TIMES if name in rows[0]]
    for row in rows:
        for name in ids:
            row[name] = UUID(row[name]) if row[name] is not None else None
        for name in times:
            row[name] = datetime.fromisoformat(row[name]) if row[name] is not None else None
    return rows


def _set_of(row: Mapping[str, Any] | None) -> StringSet | None:
    if row is None:
        return None
    strings = tuple(
        SetString(string["name"], string["diameter"], string["tension"], string["linear_density"])
        for string in row["strings"]
    )
    return StringSet(UUID(row["id"]), row["name"], row["family"], row["material"], strings)
