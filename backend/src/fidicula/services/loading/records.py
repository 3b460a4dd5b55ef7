"""One instrument's records inside a unit of work, and the sheet that they make."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime
from typing import TypeVar
from uuid import UUID
from weakref import WeakKeyDictionary

from fidicula.db.entered import entered_now
from fidicula.db.one_sheet import Change, SheetRecords
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import ConflictError, NotFoundError, RefusedError
from fidicula.domain.targets import TargetChoice
from fidicula.domain.visits import Visit
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.instruction.instruct import instruct
from fidicula.judgement.instruction.model import Instruction
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading.kept import Kept
from fidicula.services.loading.rules import load_rules
from fidicula.services.loading.taken_targets import load_taken
from fidicula.views.sheet.build import sheet_of
from fidicula.views.sheet.model import BenchSheet

Found = TypeVar("Found")


_kept: WeakKeyDictionary[Engine, Kept[VisitRecord]] = WeakKeyDictionary()


def _kept_of(engine: Engine) -> Kept[VisitRecord]:
    return _kept.setdefault(engine, Kept())


def load_bench(uow: UnitOfWork, ticket: str) -> VisitRecord:
    """Raises NotFoundError for a ticket that does not hang on the rail."""
    if not uow.only_reads:
        # What this unit of work wrote itself is kept nowhere yet.
        return _loaded(uow, _in_house(uow.one_sheet.of(ticket), ticket))
    return _at_change(uow, ticket, _in_house(uow.one_sheet.change(ticket), ticket))


def load_to_change(uow: UnitOfWork, ticket: str) -> VisitRecord:
    """As `load_bench`, with nobody else changing the instrument or its visits until the unit of work is over.

    Raises ConflictError for what was entered at an earlier visit.
    """
    change = _in_house(uow.one_sheet.hold(ticket), ticket)
    loaded, at = _at_change(uow, ticket, change).at(datetime.now(UTC), own_change=change.own), entered_now().visit
    if at is not None and at != loaded.visit.id:
        raise ConflictError(f"{ticket} was handed over and came again since: this belongs to the visit before")
    return loaded


def _in_house(found: Found | None, ticket: str) -> Found:
    if found is None:
        raise NotFoundError(f"there is no instrument with the ticket {ticket} in the house", field="ticket")
    return found


def _at_change(uow: UnitOfWork, ticket: str, change: Change) -> VisitRecord:
    """As kept in the process where nothing changed since, else as the database has it."""
    kept = _kept_of(uow.engine)
    loaded = kept.at(change.instrument_id, change.number)
    if loaded is None:
        loaded = _loaded(uow, _in_house(uow.one_sheet.of(ticket), ticket))
        kept.keep(change.instrument_id, change.number, loaded)
        return loaded
    loaded = loaded.at(datetime.now(UTC))
    instrument = loaded.instrument
    rules = load_rules(uow, instrument.family, change.stamp)
    taken = load_taken(uow, instrument, loaded.visit, instrument.choice.sources)
    if rules is loaded.rules and taken == loaded.taken and change.hands == loaded.learnt.hands:
        return loaded
    return replace(loaded, rules=rules, taken=taken, learnt=replace(loaded.learnt, hands=change.hands))


def _loaded(uow: UnitOfWork, found: SheetRecords) -> VisitRecord:
    instrument, visit = found.instrument, found.visit
    return VisitRecord(
        instrument=instrument,
        visit=visit,
        string_set=found.string_set,
        readings=found.readings,
        works=found.works,
        rules=load_rules(uow, instrument.family, found.stamp),
        now=datetime.now(UTC),
        taken=load_taken(uow, instrument, visit, instrument.choice.sources),
        decisions=found.decisions,
        seen=found.seen,
        marks=found.marks,
        last_time=found.last_time,
        learnt=found.learnt,
        planned=found.planned,
        damage=found.damage,
    )


def at_visit(uow: UnitOfWork, loaded: VisitRecord, visit_id: UUID) -> VisitRecord:
    """The records of an earlier visit of the same instrument. Raises RefusedError for a visit that is none of its."""
    visit = next((one for one in uow.visits.of(loaded.instrument.id) if one.id == visit_id), None)
    if visit is None:
        raise RefusedError("the visit that this reading names is none of this instrument's", field="visit")
    return replace(
        loaded,
        visit=visit,
        readings=uow.log.standing_readings(visit.id),
        works=uow.log.works(visit.id),
        decisions=[],
        seen=[],
        marks=[],
        last_time={},
    )


def check_in_house(loaded: VisitRecord, taken_at: datetime | None = None) -> None:
    """A visit that is over takes nothing on, but for readings that waited since before it ended."""
    closed_at = loaded.visit.closed_at
    if closed_at is not None and (taken_at is None or taken_at > closed_at):
        raise ConflictError(f"{loaded.instrument.ticket} was handed over: take it in again first")


def keep_changed(uow: UnitOfWork, loaded: VisitRecord) -> None:
    """Keep in the process what a unit of work made of an instrument, once it is committed.

    loaded : locked by it, with all that it wrote.
    """
    _kept_of(uow.engine).keep(loaded.instrument.id, loaded.own_change, loaded)


def changed_sheet(uow: UnitOfWork, ticket: str) -> BenchSheet:
    """Keep what was changed, and answer with the sheet as it then is."""
    loaded = load_bench(uow, ticket)
    found = loaded.assess()
    told, _ = note_instruction(uow, found)
    return uow.commit_meanwhile(lambda: sheet_of(found, loaded.rules, told))


def note_instruction(uow: UnitOfWork, a: Assessment) -> tuple[Instruction, Visit]:
    """Keep what is to be done, in codes, so that the rail need not assess every instrument.

    Returns it, and the visit as it then stands.
    """
    found, visit = instruct(a), a.visit
    waiting = [stop for stop in a.stops if stop.state == "waiting" and stop.until is not None]
    wait = min(waiting, key=lambda stop: stop.until or a.now, default=None)
    subject = found.question.question if found.code == "decide" and found.question is not None else found.planned
    code = "" if found.code == "wait" and wait is not None else found.code
    waits_for, until = ("", None) if wait is None else (wait.key, wait.until)
    noted = replace(visit, instruction=code, subject=subject, waits_for=waits_for, waits_until=until)
    if noted != visit:
        uow.visits.note_instruction(visit.id, instruction=code, subject=subject, waits_for=waits_for, waits_until=until)
    return found, noted


def load_sheet(uow: UnitOfWork, ticket: str) -> BenchSheet:
    """The bench sheet as it is now. Raises NotFoundError."""
    loaded = load_bench(uow, ticket)
    return sheet_of(loaded.assess(), loaded.rules)


def following(uow: UnitOfWork, loaded: VisitRecord, choice: TargetChoice) -> VisitRecord:
    """The same records under another choice of targets, which nobody has taken yet. Raises RefusedError."""
    instrument = replace(loaded.instrument, choice=choice)
    taken = load_taken(uow, instrument, loaded.visit, choice.sources)
    return replace(loaded, instrument=instrument, taken=taken)
