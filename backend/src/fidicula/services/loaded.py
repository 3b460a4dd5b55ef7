"""One instrument's records inside a unit of work, and the sheet that they make."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime
from functools import cached_property
from typing import TypeVar
from uuid import UUID
from weakref import WeakKeyDictionary

from fidicula.core.readings.states import MeasurementKey
from fidicula.db.damage import DamageLook
from fidicula.db.entered import entered_now
from fidicula.db.lessons import NOTHING_LEARNT, Learnt
from fidicula.db.one_sheet import Change, SheetRecords, readings_with
from fidicula.db.records import (
    UNREADABLE,
    CourseMark,
    Decision,
    Instrument,
    LastTime,
    Reading,
    Seen,
    StringSet,
    TargetChoice,
    Visit,
    WorkDone,
)
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.services.assessment.assess import Assessment, assess
from fidicula.services.assessment.judging import bench_state, with_reading
from fidicula.services.assessment.state import BenchState
from fidicula.services.errors import ConflictError, NotFoundError, RefusedError
from fidicula.services.instruction.instruct import instruct
from fidicula.services.instruction.model import Instruction
from fidicula.services.kept import Kept
from fidicula.services.sheet.build import sheet_of
from fidicula.services.sheet.model import BenchSheet
from fidicula.services.targets.resolve import targets_of
from fidicula.services.targets.rules import Rules, load_rules
from fidicula.services.targets.sources import load_taken
from fidicula.services.targets.wanted import Taken, Targets

Found = TypeVar("Found")


@dataclass(frozen=True)
class Loaded:
    """One instrument's records.

    own_change : where it is locked, what the changes of this unit of work are counted as.
    """

    instrument: Instrument
    visit: Visit
    string_set: StringSet | None
    readings: Sequence[Reading]
    works: Sequence[WorkDone]
    rules: Rules
    taken: Mapping[MeasurementKey, Taken] = field(default_factory=dict)
    decisions: Sequence[Decision] = ()
    seen: Sequence[Seen] = ()
    marks: Sequence[CourseMark] = ()
    last_time: Mapping[MeasurementKey, LastTime] = field(default_factory=dict)
    learnt: Learnt = NOTHING_LEARNT
    planned: tuple[str, ...] = ()
    damage: Sequence[DamageLook] = ()
    own_change: int = field(default=0, compare=False)

    @cached_property
    def targets(self) -> Targets:
        return targets_of(self.instrument, self.string_set, self.rules, self.taken)

    def with_reading(self, added: Reading, *, corrects: int | None) -> Loaded:
        """With one more reading. corrects : number of the one that it takes the place of."""
        readings = readings_with(self.readings, added, corrects=corrects)
        return replace(self, readings=readings)._judged_as(with_reading(self.judged, added, readings))

    def at(self, *, own_change: int, visit: Visit | None = None) -> Loaded:
        """The same records, for a change of their own. visit : as it stands once that is committed."""
        return replace(self, own_change=own_change, visit=visit or self.visit)._judged_as(self.judged)

    def state(self) -> BenchState:
        """What is known at the bench now."""
        return replace(self.judged, now=datetime.now(UTC))

    def _judged_as(self, judged: BenchState) -> Loaded:
        """Its log is judged already."""
        vars(self)["judged"] = judged
        return self

    @cached_property
    def judged(self) -> BenchState:
        """The log judged, at whatever time it was first asked for."""
        return bench_state(
            instrument=self.instrument,
            string_set=self.string_set,
            readings=self.readings,
            works=self.works,
            targets=self.targets,
            decisions=self.decisions,
            last_time=self.last_time,
            seen=self.seen,
            marks=self.marks,
            learnt=self.learnt,
            planned=self.planned,
            damage=self.damage,
            gauges=self.rules.gauges.until(self.visit.closed_at),
        )

    def assess(self, *, blanks: Sequence[float] = ()) -> Assessment:
        """blanks : widths of bridge blanks on the shelf. [mm]  Raises ConflictError where it is unreadable."""
        try:
            return assess(self.state(), self.visit, self.rules, blanks=blanks)
        except Exception as error:
            if self.visit.instruction != UNREADABLE:
                raise
            told = f"the records of {self.instrument.ticket} cannot be read: {self.visit.subject}"
            raise ConflictError(f"{told}; export it as an archive for whoever looks into it") from error

    def sheet(self) -> BenchSheet:
        return sheet_of(self.assess(), self.rules)

    def with_schools(self, schools: Mapping[str, str]) -> Targets:
        """What would be wanted by other schools, by question."""
        choice = replace(self.instrument.choice, schools={**self.instrument.choice.schools, **schools})
        return targets_of(replace(self.instrument, choice=choice), self.string_set, self.rules, self.taken)

    def with_set(self, string_set: StringSet) -> BenchState:
        """The bench as it would be with other strings on it."""
        return replace(self, string_set=string_set).state()

    def following(self, uow: UnitOfWork, choice: TargetChoice) -> Loaded:
        """The same records under another choice of targets, which nobody has taken yet. Raises RefusedError."""
        instrument = replace(self.instrument, choice=choice)
        taken = load_taken(uow, instrument, self.visit, choice.sources)
        return replace(self, instrument=instrument, taken=taken)


_kept: WeakKeyDictionary[Engine, Kept[Loaded]] = WeakKeyDictionary()


def _kept_of(engine: Engine) -> Kept[Loaded]:
    return _kept.setdefault(engine, Kept())


def load_bench(uow: UnitOfWork, ticket: str) -> Loaded:
    """Raises NotFoundError for a ticket that does not hang on the rail."""
    if not uow.only_reads:
        # What this unit of work wrote itself is kept nowhere yet.
        return _loaded(uow, _in_house(uow.one_sheet.of(ticket), ticket))
    return _at_change(uow, ticket, _in_house(uow.one_sheet.change(ticket), ticket))


def load_to_change(uow: UnitOfWork, ticket: str) -> Loaded:
    """As `load_bench`, with nobody else changing the instrument or its visits until the unit of work is over.

    Raises ConflictError for what was entered at an earlier visit.
    """
    change = _in_house(uow.one_sheet.hold(ticket), ticket)
    loaded, at = _at_change(uow, ticket, change).at(own_change=change.own), entered_now().visit
    if at is not None and at != loaded.visit.id:
        raise ConflictError(f"{ticket} was handed over and came again since: this belongs to the visit before")
    return loaded


def _in_house(found: Found | None, ticket: str) -> Found:
    if found is None:
        raise NotFoundError(f"there is no instrument with the ticket {ticket} in the house", field="ticket")
    return found


def _at_change(uow: UnitOfWork, ticket: str, change: Change) -> Loaded:
    """As kept in the process where nothing changed since, else as the database has it."""
    kept = _kept_of(uow.engine)
    loaded = kept.at(change.instrument_id, change.number)
    if loaded is None:
        loaded = _loaded(uow, _in_house(uow.one_sheet.of(ticket), ticket))
        kept.keep(change.instrument_id, change.number, loaded)
        return loaded
    instrument = loaded.instrument
    rules = load_rules(uow, instrument.family, change.stamp)
    taken = load_taken(uow, instrument, loaded.visit, instrument.choice.sources)
    if rules is loaded.rules and taken == loaded.taken and change.hands == loaded.learnt.hands:
        return loaded
    return replace(loaded, rules=rules, taken=taken, learnt=replace(loaded.learnt, hands=change.hands))


def _loaded(uow: UnitOfWork, found: SheetRecords) -> Loaded:
    instrument, visit = found.instrument, found.visit
    return Loaded(
        instrument=instrument,
        visit=visit,
        string_set=found.string_set,
        readings=found.readings,
        works=found.works,
        rules=load_rules(uow, instrument.family, found.stamp),
        taken=load_taken(uow, instrument, visit, instrument.choice.sources),
        decisions=found.decisions,
        seen=found.seen,
        marks=found.marks,
        last_time=found.last_time,
        learnt=found.learnt,
        planned=found.planned,
        damage=found.damage,
    )


def at_visit(uow: UnitOfWork, loaded: Loaded, visit_id: UUID) -> Loaded:
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


def check_in_house(loaded: Loaded, taken_at: datetime | None = None) -> None:
    """A visit that is over takes nothing on, but for readings that waited since before it ended."""
    closed_at = loaded.visit.closed_at
    if closed_at is not None and (taken_at is None or taken_at > closed_at):
        raise ConflictError(f"{loaded.instrument.ticket} was handed over: take it in again first")


def keep_changed(uow: UnitOfWork, loaded: Loaded) -> None:
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
