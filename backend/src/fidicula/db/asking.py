"""Questions about the whole house, each answered in one statement; and questions that are kept."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime, time, timedelta
from typing import Any
from uuid import UUID

from sqlalchemy import ColumnElement, Connection, Select, and_, exists, func, literal, select, text
from sqlalchemy.dialects.postgresql import distinct_on

from fidicula.codes import MeasureCode, WorkCode
from fidicula.db import schema
from fidicula.db.once import add_once

_i, _v, _w, _l, _seal = schema.instrument, schema.visit, schema.work_done, schema.last_read, schema.seal
SINGLE = -1
"""The position of a measure that is read at one place."""


@dataclass(frozen=True)
class Wanted:
    """One condition on an instrument, and what it shows beside each. shows : a column of its own, None for nothing."""

    where: ColumnElement[bool]
    shows: ColumnElement[Any] | None = None


@dataclass(frozen=True)
class AskedRow:
    """One instrument that was asked for. shown : what each condition shows, in their order."""

    ticket: str
    family: str
    size: str
    owner: str
    is_here: bool
    shown: tuple[Any, ...]


@dataclass(frozen=True)
class QuestionEntry:
    """A line of the log of questions that are kept: the newest of a name stands."""

    id: UUID
    name: str
    words: str
    retired: bool
    entered_by: str
    entered_at: datetime | None = None


_IS_HERE = exists(select(literal(1)).where(_v.c.instrument_id == _i.c.id, _v.c.closed_at.is_(None)))


def of_families(families: Sequence[str]) -> Wanted:
    return Wanted(_i.c.family.in_(families))


def of_size(size: str) -> Wanted:
    return Wanted(_i.c.size == size)


def has_words(where: str, words: str) -> Wanted:
    """where : owner, ticket, strings, kind, or empty for anything that is said of it."""
    like = f"%{_escaped(words.lower())}%"
    if where == "owner":
        return Wanted(func.lower(_i.c.owner).like(like))
    if where == "ticket":
        return Wanted(func.lower(_i.c.ticket.collate("default")).like(like))
    if where == "kind":
        return Wanted(exists(select(literal(1)).where(_v.c.instrument_id == _i.c.id, _v.c.kind == words)))
    if where == "strings":
        named = (
            select(schema.string_set.c.name)
            .select_from(_w)
            .join(_v, _v.c.id == _w.c.visit_id)
            .join(schema.string_set, schema.string_set.c.id == _w.c.string_set_id)
            .where(_v.c.instrument_id == _i.c.id, _w.c.taken_back_at.is_(None))
            .order_by(_w.c.number.desc())
            .limit(1)
            .correlate(_i)
            .scalar_subquery()
        )
        return Wanted(func.lower(named).like(like), named)
    return Wanted(_i.c.known_by.like(like))


def measured(
    measure: MeasureCode,
    low: float | None,
    high: float | None,
    *,
    strict: bool,
    positions: Sequence[int] | None,
    string: str,
) -> Wanted:
    """The last reading lies between; None is open. positions : any of these, None for every one.

    string : its name, wherever it is on the instrument; empty for any.
    """
    limits: list[ColumnElement[bool]] = [_l.c.measure == measure]
    if low is not None:
        limits.append(_l.c.value > low if strict else _l.c.value >= low)
    if high is not None:
        limits.append(_l.c.value < high if strict else _l.c.value <= high)
    if positions is not None:
        limits.append(_l.c.position.in_(positions))
    if string:
        limits.append(_i.c.string_names[_l.c.position + 1] == string)
    of = and_(_l.c.instrument_id == _i.c.id, *limits)
    shown = select(func.json_agg(func.json_build_array(_l.c.position, _l.c.value, _l.c.taken_at))).where(of)
    # Instrument by instrument: whoever asks for the first hundred need not wait for all.
    return Wanted(exists(select(literal(1)).where(of).correlate(_i)), shown.correlate(_i).scalar_subquery())


def was_done(work: WorkCode, least: int, most: int | None, since: date | None, until: date | None) -> Wanted:
    """So many times within days."""
    within = [_w.c.work == work, _w.c.taken_back_at.is_(None), *_days(_w.c.done_at, since, until)]
    of = select(_v.c.instrument_id).select_from(_w).join(_v, _v.c.id == _w.c.visit_id).where(*within)
    if most == 0:
        return Wanted(_i.c.id.not_in(of))
    shows = (
        select(func.json_agg(_w.c.done_at))
        .select_from(_w)
        .join(_v, _v.c.id == _w.c.visit_id)
        .where(_v.c.instrument_id == _i.c.id, *within)
        .correlate(_i)
        .scalar_subquery()
    )
    often = of if least <= 1 else of.group_by(_v.c.instrument_id).having(func.count() >= least)
    return Wanted(_i.c.id.in_(often), shows)


def tension_changed(since: date | None) -> Wanted:
    """Strings went on whose tension together differs from those before them by a newton or more."""
    t = schema.string_of_set
    total = select(t.c.string_set_id, func.sum(t.c.tension).label("tension")).group_by(t.c.string_set_id).cte("of_set")
    each = (
        select(
            _v.c.instrument_id,
            _w.c.done_at,
            total.c.tension,
            func.lag(total.c.tension)
            .over(partition_by=_v.c.instrument_id, order_by=(_w.c.done_at, _w.c.number))
            .label("before"),
        )
        .select_from(_w)
        .join(_v, _v.c.id == _w.c.visit_id)
        .join(total, total.c.string_set_id == _w.c.string_set_id)
        .where(_w.c.taken_back_at.is_(None), total.c.tension.is_not(None))
        .cte("strings_on")
    )
    other = and_(func.abs(each.c.tension - each.c.before) >= 1.0, *_days(each.c.done_at, since, None))
    shows = (
        select(func.json_agg(func.json_build_array(each.c.before, each.c.tension, each.c.done_at)))
        .where(each.c.instrument_id == _i.c.id, other)
        .correlate(_i)
        .scalar_subquery()
    )
    return Wanted(_i.c.id.in_(select(each.c.instrument_id).where(other)), shows)


def is_due(since: date | None, until: date) -> Wanted:
    """Its newest visit was handed over with a next check in these days."""
    later = _v.alias("later")
    newest = ~exists(
        select(literal(1)).where(later.c.instrument_id == _v.c.instrument_id, later.c.opened_at > _v.c.opened_at)
    )
    due = [
        _seal.c.opened_again_at.is_(None),
        _seal.c.next_check <= until,
        *([] if since is None else [_seal.c.next_check >= since]),
        _v.c.closed_at.is_not(None),
        newest,
    ]
    of = select(_v.c.instrument_id).select_from(_seal).join(_v, _v.c.id == _seal.c.visit_id).where(*due)
    shows = (
        select(func.max(_seal.c.next_check))
        .select_from(_seal)
        .join(_v, _v.c.id == _seal.c.visit_id)
        .where(_v.c.instrument_id == _i.c.id, *due)
        .correlate(_i)
        .scalar_subquery()
    )
    return Wanted(_i.c.id.in_(of), shows)


def came_for(kind: str, since: date | None, until: date | None) -> Wanted:
    within = [_v.c.kind == kind, *_days(_v.c.opened_at, since, until)]
    shows = (
        select(func.max(_v.c.opened_at)).where(_v.c.instrument_id == _i.c.id, *within).correlate(_i).scalar_subquery()
    )
    return Wanted(_i.c.id.in_(select(_v.c.instrument_id).where(*within)), shows)


def is_here(here: bool) -> Wanted:
    return Wanted(_IS_HERE if here else ~_IS_HERE)


def _days(column: ColumnElement[Any], since: date | None, until: date | None) -> list[ColumnElement[bool]]:
    """Within days, both counted in, where the shop is."""
    found: list[ColumnElement[bool]] = []
    if since is not None:
        found.append(column >= _midnight(since))
    if until is not None:
        found.append(column < _midnight(until + timedelta(days=1)))
    return found


def _midnight(day: date) -> datetime:
    return datetime.combine(day, time()).astimezone()


def _escaped(words: str) -> str:
    return words.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_")


class Asking:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def found(self, wanted: Sequence[Wanted], *, most: int) -> list[AskedRow]:
        """By ticket, and one more than the most where there are more."""
        shown = [one.shows for one in wanted if one.shows is not None]
        query: Select[Any] = (
            select(
                _i.c.ticket,
                _i.c.family,
                _i.c.size,
                _i.c.owner,
                _IS_HERE.label("is_here"),
                *(column.label(f"shown_{n}") for n, column in enumerate(shown)),
            )
            .where(*(one.where for one in wanted))
            .order_by(_i.c.ticket)
            .limit(most + 1)
        )
        # Whether few or many answer decides how they are looked for: a plan for any value would be wrong for most.
        self._connection.execute(text("SET plan_cache_mode = force_custom_plan"))
        try:
            rows = self._connection.execute(query).all()
        finally:
            self._connection.execute(text("RESET plan_cache_mode"))
        return [AskedRow(r.ticket, r.family, r.size, r.owner, r.is_here, tuple(r)[5:]) for r in rows]

    def questions(self) -> list[QuestionEntry]:
        """The newest entry of each name, retired ones too: they hide a shipped one."""
        t = schema.question_entry
        columns = [column for column in t.c if column.name != "number"]
        rows = self._connection.execute(
            select(*columns).ext(distinct_on(t.c.name)).order_by(t.c.name, t.c.number.desc())
        )
        return [QuestionEntry(**row._mapping) for row in rows]

    def keep(self, new: QuestionEntry) -> None:
        values = {name: value for name, value in vars(new).items() if name != "entered_at"}
        add_once(self._connection, schema.question_entry, values, same=("name",))
