"""One instrument's records inside a unit of work, and the sheet that they make."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, replace
from functools import cached_property

from fidicula.core.readings.standing import Place
from fidicula.db.records import Decision, Instrument, LastTime, Reading, StringSet, TargetChoice, Visit, WorkDone
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.services.errors import NotHereError
from fidicula.services.sheet.build import build_sheet
from fidicula.services.sheet.held import BenchState, bench_state
from fidicula.services.sheet.model import BenchSheet
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
        )

    def sheet(self) -> BenchSheet:
        return build_sheet(self.state(), self.visit, self.rules)

    def following(self, work: UnitOfWork, choice: TargetChoice) -> Loaded:
        """The same records under another choice of targets, which nobody has taken yet. Raises RefusedError."""
        instrument = replace(self.instrument, choice=choice)
        taken = load_taken(work, instrument, self.visit, choice.sources)
        return Loaded(
            instrument, self.visit, self.string_set, self.readings, self.works, self.rules, taken, self.decisions
        )


def load_bench(work: UnitOfWork, ticket: str) -> Loaded:
    """Raises NotHereError for a ticket that does not hang on the rail."""
    found = work.instruments.by_ticket(ticket)
    if found is None:
        raise NotHereError(f"there is no instrument with the ticket {ticket} in the house", field="ticket")
    instrument, visit = found
    return Loaded(
        instrument=instrument,
        visit=visit,
        string_set=work.string_sets.on_instrument(instrument.id),
        readings=work.log.standing_readings(visit.id),
        works=work.log.works(visit.id),
        rules=load_rules(work, instrument.family),
        taken=load_taken(work, instrument, visit, instrument.choice.sources),
        decisions=work.log.decisions(visit.id),
        last_time=work.instruments.last_time(instrument.id, visit.id) if visit.has_earlier else {},
    )
