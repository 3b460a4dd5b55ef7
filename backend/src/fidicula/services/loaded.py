"""One instrument's records inside a unit of work, and the sheet that they make."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from datetime import UTC, datetime
from functools import cached_property

from fidicula.core.readings.standing import Place
from fidicula.db.records import (
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
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.services.errors import ConflictError, NotFoundError
from fidicula.services.sheet.build import asked_of, build_sheet
from fidicula.services.sheet.held import BenchState, bench_state
from fidicula.services.sheet.model import BenchSheet, CutView, Stop
from fidicula.services.sheet.questions import Asked
from fidicula.services.targets.resolve import targets_of
from fidicula.services.targets.rules import Rules, load_rules
from fidicula.services.targets.sources import load_taken
from fidicula.services.targets.wanted import Taken, Targets


@dataclass
class Loaded:
    """One instrument's records."""

    instrument: Instrument
    visit: Visit
    string_set: StringSet | None
    readings: list[Reading]
    works: list[WorkDone]
    rules: Rules
    taken: Mapping[Place, Taken] = field(default_factory=dict)
    decisions: list[Decision] = field(default_factory=list)
    seen: list[Seen] = field(default_factory=list)
    marks: list[CourseMark] = field(default_factory=list)
    last_time: Mapping[Place, LastTime] = field(default_factory=dict)

    @cached_property
    def targets(self) -> Targets:
        return targets_of(self.instrument, self.string_set, self.rules, self.taken)

    def state(self) -> BenchState:
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
        )

    def sheet(self) -> BenchSheet:
        return build_sheet(self.state(), self.visit, self.rules)

    def asked(self, cut: CutView) -> list[Asked]:
        """The questions that are asked of it now."""
        return asked_of(self.state(), self.visit, cut, today=datetime.now(UTC).astimezone().date())

    def with_schools(self, schools: Mapping[str, str]) -> Targets:
        """What would be wanted by other schools, by question."""
        choice = replace(self.instrument.choice, schools={**self.instrument.choice.schools, **schools})
        return targets_of(replace(self.instrument, choice=choice), self.string_set, self.rules, self.taken)

    def with_set(self, string_set: StringSet) -> BenchState:
        """The bench as it would be with other strings on it."""
        return replace(self, string_set=string_set).state()

    def following(self, work: UnitOfWork, choice: TargetChoice) -> Loaded:
        """The same records under another choice of targets, which nobody has taken yet. Raises RefusedError."""
        instrument = replace(self.instrument, choice=choice)
        taken = load_taken(work, instrument, self.visit, choice.sources)
        return replace(self, instrument=instrument, taken=taken)


def load_bench(work: UnitOfWork, ticket: str) -> Loaded:
    """Raises NotFoundError for a ticket that does not hang on the rail."""
    found = work.one_sheet.of(ticket)
    if found is None:
        raise NotFoundError(f"there is no instrument with the ticket {ticket} in the house", field="ticket")
    instrument, visit = found.instrument, found.visit
    return Loaded(
        instrument=instrument,
        visit=visit,
        string_set=found.string_set,
        readings=found.readings,
        works=found.works,
        rules=load_rules(work, instrument.family, found.stamp),
        taken=load_taken(work, instrument, visit, instrument.choice.sources),
        decisions=found.decisions,
        seen=found.seen,
        marks=found.marks,
        last_time=found.last_time,
    )


def load_to_change(work: UnitOfWork, ticket: str) -> Loaded:
    """As `load_bench`, with nobody else changing the instrument or its visits until the unit of work is over."""
    work.instruments.lock(ticket)
    return load_bench(work, ticket)


def check_in_house(loaded: Loaded, taken_at: datetime | None = None) -> None:
    """A visit that is over takes nothing on, but for readings that waited since before it ended."""
    closed_at = loaded.visit.closed_at
    if closed_at is not None and (taken_at is None or taken_at > closed_at):
        raise ConflictError(f"{loaded.instrument.ticket} was handed over: take it in again first")


def changed_sheet(work: UnitOfWork, ticket: str) -> BenchSheet:
    """Keep what was changed, and answer with the sheet as it then is."""
    loaded = load_bench(work, ticket)
    sheet = loaded.sheet()
    note_step(work, loaded.visit, sheet)
    work.commit()
    return sheet


def note_step(work: UnitOfWork, visit: Visit, sheet: BenchSheet) -> None:
    """Keep where the course stands, so that the rail need not compute every sheet."""
    here = next((stop for stop in sheet.course if stop.state == "here"), None)
    waiting = [stop for stop in sheet.course if stop.state == "waiting" and stop.until is not None]
    wait = min(waiting, key=lambda stop: stop.until or datetime.max, default=None)
    at_step = "" if wait is not None else sheet.next.says.lower()
    if here is not None:
        at_step = _step_words(here)
    waits_for, until = ("", None) if wait is None else (wait.label.lower(), wait.until)
    if (at_step, waits_for, until) != (visit.at_step, visit.waits_for, visit.waits_until):
        work.visits.note_step(visit.id, at_step=at_step, waits_for=waits_for, waits_until=until)


def _step_words(stop: Stop) -> str:
    """A step's name; of a question what was decided, and until then the question."""
    if not stop.is_question:
        return stop.label.lower()
    return stop.note if stop.is_decided else f"{stop.label.lower()}?"
