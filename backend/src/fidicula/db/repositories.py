"""Queries, one class for each kind of record. They return records and never commit."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace
from datetime import datetime
from uuid import UUID

from sqlalchemy import Connection, Row, RowMapping, and_, bindparam, exists, func, insert, or_, select, true, update
from sqlalchemy.dialects.postgresql import distinct_on
from sqlalchemy.dialects.postgresql import insert as upsert

from fidicula.db import schema
from fidicula.db.records import (
    ASKED,
    Decision,
    Instrument,
    KnownInstrument,
    LastTime,
    NewReading,
    NewWork,
    RailEntry,
    Reading,
    SetString,
    StringSet,
    TargetChoice,
    Visit,
    WorkDone,
)


def _instrument(row: Row[tuple[object, ...]]) -> Instrument:
    m = row._mapping
    return Instrument(
        id=m["id"],
        ticket=m["ticket"],
        family=m["family"],
        size=m["size"],
        string_names=tuple(m["string_names"]),
        left_handed=m["left_handed"],
        is_new=m["is_new"],
        owner=m["owner"],
        description=m["description"],
        asked={name: m[name] for name in ASKED},
    )


def _reading(row: Row[tuple[object, ...]]) -> Reading:
    m = row._mapping
    return Reading(
        number=m["number"],
        id=m["id"],
        visit_id=m["visit_id"],
        measure=m["measure"],
        position=m["position"],
        typed=m["typed"],
        value=m["value"],
        tool=m["tool"],
        direction=m["direction"],
        taken_by=m["taken_by"],
        taken_at=m["taken_at"],
        recorded_at=m["recorded_at"],
        after_work=m["after_work"],
        corrected_by=m["corrected_by"],
        repeats=m["repeats"],
        doubt=m["doubt"],
        suggested=m["suggested"],
        confirmed=m["confirmed_at"] is not None,
        taken_back=m["taken_back_at"] is not None,
    )


# Statements that run with every reading are built once: building one takes as long as running it.

_VISIT_ASKED = ("climate", "deadline", "freeze_days", "promised")

_OTHER_VISIT = schema.visit.alias("other_visit")

_LAST_TIME = (
    select(
        schema.reading.c.measure,
        schema.reading.c.position,
        schema.reading.c.value,
        schema.reading.c.direction,
        schema.reading.c.taken_at,
    )
    .ext(distinct_on(schema.reading.c.measure, schema.reading.c.position))
    .join(schema.visit, schema.visit.c.id == schema.reading.c.visit_id)
    .where(
        schema.visit.c.instrument_id == bindparam("instrument_id"),
        schema.visit.c.id != bindparam("visit_id"),
        schema.reading.c.taken_back_at.is_(None),
        schema.reading.c.corrected_by.is_(None),
        or_(schema.reading.c.doubt.is_(None), schema.reading.c.confirmed_at.is_not(None)),
    )
    .order_by(
        schema.reading.c.measure,
        schema.reading.c.position,
        schema.visit.c.opened_at.desc(),
        schema.reading.c.after_work.desc().nulls_last(),
        schema.reading.c.number.desc(),
    )
)

_CHOICE_COLUMNS = ("id", "recipe", "schools", "sources", "reason", "chosen_by", "chosen_at")

_NEWEST_CHOICE = (
    select(*(schema.target_choice.c[name] for name in _CHOICE_COLUMNS))
    .where(
        schema.target_choice.c.instrument_id == schema.instrument.c.id,
        schema.target_choice.c.taken_back_at.is_(None),
    )
    .order_by(schema.target_choice.c.number.desc())
    .limit(1)
    .lateral("newest_choice")
)

_BY_TICKET = (
    select(
        schema.instrument,
        schema.visit.c.id.label("visit_id"),
        schema.visit.c.kind,
        schema.visit.c.complaint,
        schema.visit.c.opened_at,
        schema.visit.c.closed_at,
        schema.visit.c.closed_by,
        *(schema.visit.c[name] for name in _VISIT_ASKED),
        exists()
        .where(_OTHER_VISIT.c.instrument_id == schema.instrument.c.id, _OTHER_VISIT.c.id != schema.visit.c.id)
        .label("has_earlier"),
        *(_NEWEST_CHOICE.c[name].label(f"choice_{name}") for name in _CHOICE_COLUMNS),
    )
    .join(schema.visit, schema.visit.c.instrument_id == schema.instrument.c.id)
    .outerjoin(_NEWEST_CHOICE, true())
    .where(schema.instrument.c.ticket == bindparam("ticket"))
    .order_by(schema.visit.c.closed_at.is_not(None), schema.visit.c.opened_at.desc())
    .limit(1)
)

_STANDING_READINGS = (
    select(schema.reading)
    .where(
        schema.reading.c.visit_id == bindparam("visit_id"),
        schema.reading.c.taken_back_at.is_(None),
        schema.reading.c.corrected_by.is_(None),
    )
    .order_by(schema.reading.c.number)
)

_ADD_READING = upsert(schema.reading).on_conflict_do_nothing(index_elements=["id"]).returning(schema.reading)

_MARK_CORRECTED = (
    update(schema.reading)
    .where(schema.reading.c.number == bindparam("earlier"))
    .values(corrected_by=bindparam("later"))
)

_WORKS = (
    select(schema.work_done)
    .where(schema.work_done.c.visit_id == bindparam("visit_id"))
    .order_by(schema.work_done.c.number)
)

_DECISIONS = (
    select(schema.decision)
    .where(schema.decision.c.visit_id == bindparam("visit_id"))
    .order_by(schema.decision.c.number)
)

_STRING_SETS = (
    select(
        schema.string_set.c.id,
        schema.string_set.c.name,
        schema.string_set.c.family,
        schema.string_set.c.material,
        schema.string_of_set.c.name.label("string_name"),
        schema.string_of_set.c.diameter,
        schema.string_of_set.c.tension,
        schema.string_of_set.c.linear_density,
    )
    .join(schema.string_of_set, schema.string_of_set.c.string_set_id == schema.string_set.c.id)
    .order_by(schema.string_set.c.name, schema.string_set.c.id, schema.string_of_set.c.position)
)

_SET_ON_INSTRUMENT = _STRING_SETS.where(
    schema.string_set.c.id
    == select(schema.work_done.c.string_set_id)
    .join(schema.visit, schema.visit.c.id == schema.work_done.c.visit_id)
    .where(
        schema.visit.c.instrument_id == bindparam("instrument_id"),
        schema.work_done.c.string_set_id.is_not(None),
        schema.work_done.c.taken_back_at.is_(None),
    )
    .order_by(schema.work_done.c.number.desc())
    .limit(1)
    .scalar_subquery()
)


class Instruments:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def by_ticket(self, ticket: str) -> tuple[Instrument, Visit] | None:
        """An instrument with its open visit, or else its newest."""
        row = self._connection.execute(_BY_TICKET, {"ticket": ticket}).one_or_none()
        if row is None:
            return None
        m = row._mapping
        found = _instrument(row)
        if m["choice_id"] is not None:
            found = replace(found, choice=TargetChoice(**{name: m[f"choice_{name}"] for name in _CHOICE_COLUMNS}))
        return found, Visit(
            id=m["visit_id"],
            instrument_id=found.id,
            kind=m["kind"],
            complaint=m["complaint"],
            opened_at=m["opened_at"],
            closed_at=m["closed_at"],
            closed_by=m["closed_by"],
            has_earlier=m["has_earlier"],
            **{name: m[name] for name in _VISIT_ASKED},
        )

    def add(self, new: Instrument) -> bool:
        """Add an instrument; False where its ticket is taken."""
        added = self._connection.execute(
            upsert(schema.instrument)
            .values(
                id=new.id,
                ticket=new.ticket,
                family=new.family,
                size=new.size,
                string_names=list(new.string_names),
                left_handed=new.left_handed,
                is_new=new.is_new,
                owner=new.owner,
                description=new.description,
                **{name: new.asked.get(name, "") for name in ASKED},
            )
            .on_conflict_do_nothing(index_elements=["ticket"])
            .returning(schema.instrument.c.id)
        )
        return added.one_or_none() is not None

    def open_visit(
        self,
        *,
        id: UUID,
        instrument_id: UUID,
        kind: str,
        complaint: str,
        opened_at: datetime | None = None,
        closed_at: datetime | None = None,
        asked: Mapping[str, object] | None = None,
    ) -> None:
        """Add a visit. opened_at, closed_at : None for now, and for still open.  asked : of the visit, by column."""
        known = {**({} if opened_at is None else {"opened_at": opened_at}), **(asked or {})}
        self._connection.execute(
            insert(schema.visit).values(
                id=id, instrument_id=instrument_id, kind=kind, complaint=complaint, closed_at=closed_at, **known
            )
        )

    def close_visit(self, visit_id: UUID, *, by: str | None) -> None:
        """Hand an instrument over; None opens the visit again."""
        t = schema.visit
        closed_at = None if by is None else func.now()
        self._connection.execute(update(t).where(t.c.id == visit_id).values(closed_at=closed_at, closed_by=by))

    def last_time(self, instrument_id: UUID, visit_id: UUID) -> dict[tuple[str, int | None], LastTime]:
        """What each place was last read as before this visit."""
        rows = self._connection.execute(_LAST_TIME, {"instrument_id": instrument_id, "visit_id": visit_id})
        return {(r.measure, r.position): LastTime(r.value, r.direction, r.taken_at) for r in rows}

    def known(self, words: str, *, limit: int) -> list[KnownInstrument]:
        """Instruments whose ticket, owner or description holds every word, newest visit first."""
        visit, instrument = schema.visit, schema.instrument
        text = instrument.c.ticket.collate("C") + " " + instrument.c.owner + " " + instrument.c.description
        newest = (
            select(visit.c.opened_at, visit.c.complaint, visit.c.closed_at)
            .where(visit.c.instrument_id == instrument.c.id)
            .order_by(visit.c.closed_at.is_not(None), visit.c.opened_at.desc())
            .limit(1)
            .lateral("newest")
        )
        rows = self._connection.execute(
            select(instrument, newest.c.opened_at, newest.c.complaint, newest.c.closed_at)
            .join(newest, true())
            .where(*(text.icontains(word, autoescape=True) for word in words.split()))
            .order_by(newest.c.opened_at.desc(), instrument.c.ticket)
            .limit(limit)
        )
        return [KnownInstrument(_instrument(row), row.opened_at, row.complaint, row.closed_at is None) for row in rows]

    def choose_targets(self, instrument_id: UUID, choice: TargetChoice) -> None:
        """Add what the instrument follows from now on."""
        self._connection.execute(
            upsert(schema.target_choice)
            .values(
                id=choice.id,
                instrument_id=instrument_id,
                recipe=choice.recipe,
                schools=dict(choice.schools),
                sources={measure: dict(source) for measure, source in choice.sources.items()},
                reason=choice.reason,
                chosen_by=choice.chosen_by,
            )
            .on_conflict_do_nothing(index_elements=["id"])
        )

    def take_back_choice(self, choice_id: UUID, by: str) -> None:
        """Mark a choice as taken back; the one before it stands again."""
        t = schema.target_choice
        self._connection.execute(
            update(t).where(t.c.id == choice_id).values(taken_back_at=func.now(), taken_back_by=by)
        )

    def choices(self, instrument_id: UUID) -> list[tuple[TargetChoice, bool]]:
        """Everything that an instrument was ever to follow, newest first, and whether it was taken back."""
        t = schema.target_choice
        rows = self._connection.execute(select(t).where(t.c.instrument_id == instrument_id).order_by(t.c.number.desc()))
        return [
            (
                TargetChoice(**{name: row._mapping[name] for name in _CHOICE_COLUMNS}),
                row.taken_back_at is not None,
            )
            for row in rows
        ]

    def visits(self, instrument_id: UUID) -> list[Visit]:
        """Every visit of an instrument, newest first."""
        t = schema.visit
        rows = self._connection.execute(
            select(t.c.id, t.c.instrument_id, t.c.kind, t.c.complaint, t.c.opened_at, t.c.closed_at, t.c.closed_by)
            .where(t.c.instrument_id == instrument_id)
            .order_by(t.c.opened_at.desc())
        )
        return [Visit(**row._mapping) for row in rows]

    def tickets(self) -> list[str]:
        return list(
            self._connection.execute(select(schema.instrument.c.ticket).order_by(schema.instrument.c.ticket)).scalars()
        )

    def rail(self) -> list[RailEntry]:
        """Every instrument with an open visit, by ticket."""
        visit, work, reading = schema.visit, schema.work_done, schema.reading
        standing_works = and_(work.c.visit_id == visit.c.id, work.c.taken_back_at.is_(None))
        any_visit = schema.visit.alias("any_visit")
        strings_known = exists().where(
            work.c.visit_id == any_visit.c.id,
            any_visit.c.instrument_id == schema.instrument.c.id,
            work.c.taken_back_at.is_(None),
            work.c.string_set_id.is_not(None),
        )
        taken = (
            select(func.count())
            .where(reading.c.visit_id == visit.c.id, reading.c.taken_back_at.is_(None))
            .scalar_subquery()
        )
        last_work = select(work.c.work).where(standing_works).order_by(work.c.number.desc()).limit(1).scalar_subquery()
        rows = self._connection.execute(
            select(
                schema.instrument,
                visit.c.complaint,
                strings_known.label("strings_known"),
                taken.label("readings_taken"),
                last_work.label("last_work"),
            )
            .join(visit, visit.c.instrument_id == schema.instrument.c.id)
            .where(visit.c.closed_at.is_(None))
            .order_by(schema.instrument.c.ticket)
        )
        return [
            RailEntry(
                instrument=_instrument(row),
                complaint=row.complaint,
                strings_known=row.strings_known,
                readings_taken=row.readings_taken,
                last_work=row.last_work,
            )
            for row in rows
        ]


class StringSets:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def _gather(self, rows: Iterable[Row[tuple[object, ...]]]) -> list[StringSet]:
        heads: dict[UUID, RowMapping] = {}
        strings: dict[UUID, list[SetString]] = {}
        for row in rows:
            m = row._mapping
            heads[m["id"]] = m
            strings.setdefault(m["id"], []).append(
                SetString(m["string_name"], m["diameter"], m["tension"], m["linear_density"])
            )
        return [
            StringSet(key, str(m["name"]), str(m["family"]), str(m["material"]), tuple(strings[key]))
            for key, m in heads.items()
        ]

    def of_family(self, family: str) -> list[StringSet]:
        return self._gather(self._connection.execute(_STRING_SETS.where(schema.string_set.c.family == family)))

    def by_id(self, set_id: UUID) -> StringSet | None:
        found = self._gather(self._connection.execute(_STRING_SETS.where(schema.string_set.c.id == set_id)))
        return found[0] if found else None

    def on_instrument(self, instrument_id: UUID) -> StringSet | None:
        """The set that the newest word on this instrument's strings names."""
        found = self._gather(self._connection.execute(_SET_ON_INSTRUMENT, {"instrument_id": instrument_id}))
        return found[0] if found else None

    def add(self, new: StringSet) -> bool:
        """Add a set with its strings; False where the family has one of this name."""
        added = self._connection.execute(
            upsert(schema.string_set)
            .values(id=new.id, name=new.name, family=new.family, material=new.material)
            .on_conflict_do_nothing(index_elements=["name", "family"])
            .returning(schema.string_set.c.id)
        )
        if added.one_or_none() is None:
            return False
        self._connection.execute(
            insert(schema.string_of_set),
            [
                {
                    "string_set_id": new.id,
                    "position": position,
                    "name": string.name,
                    "diameter": string.diameter,
                    "tension": string.tension,
                    "linear_density": string.linear_density,
                }
                for position, string in enumerate(new.strings)
            ],
        )
        return True


class Log:
    """Readings and works of a visit, in the order in which they arrived."""

    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def standing_readings(self, visit_id: UUID) -> list[Reading]:
        """A visit's readings, without those taken back and those that a later one corrects."""
        rows = self._connection.execute(_STANDING_READINGS, {"visit_id": visit_id})
        return [_reading(row) for row in rows]

    def all_readings(self, visit_id: UUID) -> list[Reading]:
        """Every reading of a visit, newest first, whatever became of it."""
        t = schema.reading
        rows = self._connection.execute(select(t).where(t.c.visit_id == visit_id).order_by(t.c.number.desc()))
        return [_reading(row) for row in rows]

    def reading(self, reading_id: UUID) -> Reading | None:
        row = self._connection.execute(select(schema.reading).where(schema.reading.c.id == reading_id)).one_or_none()
        return None if row is None else _reading(row)

    def works(self, visit_id: UUID) -> list[WorkDone]:
        """All works of a visit, those taken back too."""
        rows = self._connection.execute(_WORKS, {"visit_id": visit_id})
        return [
            WorkDone(
                number=r.number,
                id=r.id,
                visit_id=r.visit_id,
                work=r.work,
                done_by=r.done_by,
                done_at=r.done_at,
                detail=r.detail,
                string_set_id=r.string_set_id,
                taken_back=r.taken_back_at is not None,
            )
            for r in rows
        ]

    def add_reading(self, new: NewReading, *, corrects: int | None) -> Reading | None:
        """Add a reading; None where one of this id is there already (a retry after a lost answer).

        corrects : number of the reading that it takes the place of; that one is kept, marked.
        """
        row = self._connection.execute(_ADD_READING, vars(new)).one_or_none()
        if row is None:
            return None
        added = _reading(row)
        if corrects is not None:
            self._connection.execute(_MARK_CORRECTED, {"earlier": corrects, "later": added.number})
        return added

    def add_work(self, new: NewWork) -> None:
        """Add a work done; one of this id that is there already stays as it is."""
        self._connection.execute(
            upsert(schema.work_done)
            .values(**{**vars(new), "detail": dict(new.detail)})
            .on_conflict_do_nothing(index_elements=["id"])
        )

    def confirm(self, reading_id: UUID, by: str) -> None:
        self._connection.execute(
            update(schema.reading)
            .where(schema.reading.c.id == reading_id, schema.reading.c.confirmed_at.is_(None))
            .values(confirmed_at=func.now(), confirmed_by=by)
        )

    def take_back_reading(self, taken: Reading, by: str) -> None:
        """Mark a reading as taken back; what it corrected stands again."""
        t = schema.reading
        self._connection.execute(
            update(t).where(t.c.number == taken.number).values(taken_back_at=func.now(), taken_back_by=by)
        )
        self._connection.execute(update(t).where(t.c.corrected_by == taken.number).values(corrected_by=None))

    def take_back_work(self, work_id: UUID, by: str) -> None:
        self._connection.execute(
            update(schema.work_done)
            .where(schema.work_done.c.id == work_id)
            .values(taken_back_at=func.now(), taken_back_by=by)
        )

    def decisions(self, visit_id: UUID) -> list[Decision]:
        """Every decision of a visit, in order, those taken back too."""
        rows = self._connection.execute(_DECISIONS, {"visit_id": visit_id})
        return [
            Decision(
                id=r.id,
                visit_id=r.visit_id,
                question=r.question,
                outcome=r.outcome,
                reason=r.reason,
                at_value=r.at_value,
                decided_by=r.decided_by,
                decided_at=r.decided_at,
                taken_back=r.taken_back_at is not None,
            )
            for r in rows
        ]

    def decide(self, new: Decision) -> None:
        """Add a decision; one of this id that is there already stays as it is."""
        values = {name: value for name, value in vars(new).items() if name not in ("decided_at", "taken_back")}
        self._connection.execute(upsert(schema.decision).values(**values).on_conflict_do_nothing(index_elements=["id"]))

    def take_back_decision(self, decision_id: UUID, by: str) -> None:
        t = schema.decision
        self._connection.execute(
            update(t).where(t.c.id == decision_id).values(taken_back_at=func.now(), taken_back_by=by)
        )
