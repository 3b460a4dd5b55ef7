"""Handing an instrument over: points are checked, the visit is signed and sealed, and comes due again."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import UTC, date, datetime, timedelta
from uuid import UUID, uuid4

from pydantic import TypeAdapter

from fidicula.db.entered import entered_now
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import ConflictError, NotFoundError, RefusedError
from fidicula.domain.leaving import Addition, CheckDue, PointCheck, PointVerdict, Seal
from fidicula.domain.visits import Visit
from fidicula.judgement.assessment.inspection import left_blank
from fidicula.judgement.assessment.settling import settled_here
from fidicula.judgement.assessment.workflow import newest_mark
from fidicula.judgement.targets.sources import repeats_shown
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading.records import check_in_house, load_bench, load_to_change
from fidicula.services.people.audit import note
from fidicula.services.people.ranks import check_rank, check_undo
from fidicula.services.visits.belongings import things_of
from fidicula.services.visits.handover.points import (
    BY_APPRENTICE,
    Ending,
    by_apprentices,
    checklist_points,
    points_of,
    proposed_check,
)
from fidicula.services.visits.handover.sealing import checked, records_of, sealed
from fidicula.tables.signs import items
from fidicula.tables.workflow import visit_kinds
from fidicula.views.handover import AdditionView, Checklist, ClosingPointView, SealView
from fidicula.words import leaving as say

_POINTS = TypeAdapter(list[ClosingPointView])
MOST_WEEKS = 520


@dataclass(frozen=True)
class Signature:
    """What is said as a visit is signed.

    left_open : why each open point stays so, by key; "" for all that have none of their own.
    next_check : when it should come again, None for not at all.  received_by, strokes : who takes it, as they signed.
    """

    left_open: Mapping[str, str]
    next_check: date | None
    next_check_why: str = ""
    received_by: str = ""
    strokes: str = ""


@dataclass(frozen=True)
class DueView:
    """An instrument that should come again. says : how soon, in words."""

    ticket: str
    family: str
    size: str
    owner: str
    due: date
    says: str
    why: str


class HandingOver:
    """Use cases as a visit ends."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def checklist(self, ticket: str) -> Checklist:
        """Of the visit that the ticket opens: as it stands, or as it was signed."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return checklist_of(uow, load_bench(uow, ticket))

    def check(
        self, ticket: str, points: Sequence[str], *, check_id: UUID, verdict: PointVerdict, words: str, by: str
    ) -> Checklist:
        """Say of points of the check at pitch what was seen there; what was said before stays on record."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            known = {row.point for row in points_of(uow.leaving.own_points(), loaded.instrument.family)}
            known |= {row.point for row in by_apprentices(loaded.assess(), _apprentices(uow))}
            for i, point in enumerate(dict.fromkeys(points)):
                if point not in known:
                    raise RefusedError(f"“{point}” is not on the list of this shop", field="points")
                if point.startswith(BY_APPRENTICE):
                    check_rank(point.removeprefix(BY_APPRENTICE))
                if verdict == "not_right" and not words.strip():
                    raise RefusedError("say in a few words what is not right", field="words")
                new_id = check_id if i == 0 else uuid4()
                last_work = loaded.state().last_work
                uow.leaving.check(PointCheck(new_id, loaded.visit.id, point, verdict, words.strip(), last_work, by))
            uow.commit()
        return self.checklist(ticket)

    def take_back_check(self, ticket: str, point: str, by: str) -> Checklist:
        """Undo what was said of a point last; what was said before it stands again."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            last = next((one for one in reversed(uow.leaving.checks(loaded.visit.id)) if one.point == point), None)
            if last is None:
                raise NotFoundError("nobody has said anything of this point yet", field="point")
            uow.leaving.take_back_check(last.id, by)
            uow.commit()
        return self.checklist(ticket)

    def hand_over(
        self,
        ticket: str,
        signature: Signature,
        *,
        seal_id: UUID,
        by: str,
        all_right: bool = False,
        at: datetime | None = None,
    ) -> None:
        """Sign the visit and close it: the instrument leaves the house, its record is sealed.

        all_right : whoever signs says so of every point of the check at pitch.  at : None for now.
        Raises RefusedError naming `left_open` or `next_check`, ConflictError where it left already.
        """
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            visit = loaded.visit
            if uow.check_entry() or (visit.closed_at is not None and entered_now().visit == visit.id):
                return
            if visit.closed_at is not None:
                raise ConflictError(f"{ticket} was handed over already")
            _check_looked_over(loaded)
            if all_right:
                _check_all(uow, loaded, by)
            points = _with_reasons(checklist_points(_ending(uow, loaded)), signature.left_open)
            at = at or uow.leaving.moment()
            _check_next(signature.next_check, at.astimezone().date())
            uow.visits.close(visit.id, by=by, at=at)
            _keep_lessons(uow, loaded)
            uow.leaving.seal(
                sealed(
                    uow,
                    id=seal_id,
                    visit_id=visit.id,
                    points=_POINTS.dump_python(points, mode="json"),
                    next_check=signature.next_check,
                    next_check_why=signature.next_check_why.strip(),
                    received_by=signature.received_by.strip(),
                    signature=signature.strokes,
                    by=by,
                    at=at,
                )
            )
            note(uow, "instrument.handed_over", ticket, instrument_id=loaded.instrument.id, by=by)
            uow.commit()

    def take_back(self, ticket: str, by: str) -> None:
        """It was not handed over after all: the same visit goes on, and its seal holds no more."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            visit = loaded.visit
            if visit.closed_at is None:
                raise ConflictError(f"{ticket} is in the house: there is nothing to take back")
            check_undo(uow, "this hand-over", of=visit.closed_by or by, by=by)
            uow.visits.open_again(visit.id)
            uow.lessons.keep(visit.id, hands={}, settled=())
            uow.leaving.open_again(visit.id, by)
            note(uow, "instrument.handed_over.undone", ticket, instrument_id=loaded.instrument.id)
            uow.commit()

    def add(self, ticket: str, visit_id: UUID, words: str, *, addition_id: UUID, by: str) -> list[AdditionView]:
        """Add to a visit that was sealed: what was written before stays as it is. Returns that visit's additions."""
        if not words.strip():
            raise RefusedError("write what is to be added", field="words")
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            if visit_id not in {visit.id for visit in uow.visits.of(loaded.instrument.id)}:
                raise NotFoundError("this visit is none of this instrument's", field="visit_id")
            if not any(seal.opened_again_at is None for seal in uow.leaving.seals([visit_id])):
                raise ConflictError("this visit is not sealed: write it where it belongs")
            uow.leaving.add(Addition(addition_id, visit_id, words.strip(), by))
            note(uow, "visit.added_to", ticket, instrument_id=loaded.instrument.id, by=by)
            uow.commit()
            return _additions(uow, visit_id)

    def seals(self, ticket: str) -> list[SealView]:
        """The seal of every visit that has one, newest first, each checked against the record as it is now."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            ids = [visit.id for visit in uow.visits.of(loaded.instrument.id)]
            found, records = uow.leaving.seals(ids), records_of(uow, ids)
            return [checked(seal, records[seal.visit_id]) for seal in reversed(found)]

    def due(self, days: int = 14) -> list[DueView]:
        """What should come again within so many days, or should have come, the longest due first."""
        today = datetime.now(UTC).astimezone().date()
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return [_due(one, today) for one in uow.leaving.due(today + timedelta(days=days))]


def _due(one: CheckDue, today: date) -> DueView:
    return DueView(
        ticket=one.ticket,
        family=one.family,
        size=one.size,
        owner=one.owner,
        due=one.due,
        says=say.due_words(one.due, today),
        why=one.why,
    )


def checklist_of(uow: UnitOfWork, loaded: VisitRecord) -> Checklist:
    """Of the visit as it stands, or as it was signed."""
    visit, a = loaded.visit, loaded.assess()
    seal = _holding(uow, visit)
    when, why = proposed_check(a)
    return Checklist(
        ticket=loaded.instrument.ticket,
        visit_id=str(visit.id),
        may_sign=visit.closed_at is None,
        points=checklist_points(_ending(uow, loaded)) if seal is None else _POINTS.validate_python(list(seal.points)),
        proposed_check=when,
        proposed_why=why,
        left_as_found=loaded.instrument.asked.get("left_as_found", ""),
        owner=loaded.instrument.owner,
        seal=None if seal is None else checked(seal, records_of(uow, [visit.id])[visit.id]),
        additions=_additions(uow, visit.id),
    )


def _holding(uow: UnitOfWork, visit: Visit) -> Seal | None:
    return next((seal for seal in uow.leaving.seals([visit.id]) if seal.opened_again_at is None), None)


def _additions(uow: UnitOfWork, visit_id: UUID) -> list[AdditionView]:
    return [
        AdditionView(str(one.id), one.words, one.added_by, one.added_at) for one in uow.leaving.additions([visit_id])
    ]


def _ending(uow: UnitOfWork, loaded: VisitRecord) -> Ending:
    visit_id = loaded.visit.id
    return Ending(
        assessment=loaded.assess(),
        checks=uow.leaving.checks(visit_id),
        own=uow.leaving.own_points(),
        photos=uow.photos.of_visit(visit_id),
        things=things_of(uow.belongings.of(loaded.instrument.id)),
        to_do=[
            (str(line.id), line.work)
            for line in uow.plan.lines(visit_id)
            if line.done_at is None and line.refused is None
        ],
        apprentices=_apprentices(uow),
    )


def _apprentices(uow: UnitOfWork) -> frozenset[str]:
    return frozenset(person.name for person in uow.people.all() if person.role == "apprentice")


def _with_reasons(points: Sequence[ClosingPointView], reasons: Mapping[str, str]) -> list[ClosingPointView]:
    """Every point with the reason why it stays open. Raises RefusedError where one has none."""
    for_all = reasons.get("", "").strip()
    told = [
        replace(point, reason=reasons.get(point.key, "").strip() or for_all) if point.is_open else point
        for point in points
    ]
    silent = [point.label for point in told if point.is_open and not point.reason]
    if silent:
        raise RefusedError(say.needs_reason(silent), field="left_open")
    return told


def _check_next(when: date | None, today: date) -> None:
    if when is not None and not today <= when <= today + timedelta(weeks=MOST_WEEKS):
        raise RefusedError("the next check is a day to come, within ten years", field="next_check")


def _check_all(uow: UnitOfWork, loaded: VisitRecord, by: str) -> None:
    rows = points_of(uow.leaving.own_points(), loaded.instrument.family)
    for row in (*rows, *by_apprentices(loaded.assess(), _apprentices(uow))):
        uow.leaving.check(PointCheck(uuid4(), loaded.visit.id, row.point, "right", "", loaded.state().last_work, by))


def _keep_lessons(uow: UnitOfWork, loaded: VisitRecord) -> None:
    """What the visit showed of hands, tools and settling strings, for the visits after it."""
    a = loaded.assess()
    settled = settled_here(a.state, a.computed)
    uow.lessons.keep(a.visit.id, hands=repeats_shown(a.state.readings), settled=settled)


def _check_looked_over(loaded: VisitRecord) -> None:
    """Nothing is left blank when a full visit is signed off; “not looked at”, with a reason, is not blank."""
    kind = visit_kinds().get(loaded.visit.kind)
    if kind is None or not kind.all_looked_at:
        return
    passed = newest_mark(loaded.marks, "look")
    blank = [items()[item].label for item in left_blank(loaded.state(), loaded.visit.kind)]
    if blank and (passed is None or passed.mark != "passed"):
        raise ConflictError(
            f"nobody has said anything yet of {', '.join(blank)}: look it over, say of each why not, or pass the "
            "whole step over with a reason"
        )
