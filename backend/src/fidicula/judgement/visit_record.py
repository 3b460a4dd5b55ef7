"""An instrument at a visit: all that is on record of it, and what follows from that.

record = VisitRecord(instrument, visit, string_set, readings, works, make_rules("violin"), now=now)
instruct(record.assess())
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import datetime
from functools import cached_property

from fidicula.codes import TargetQuestionCode, WorkCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.damage import DamageLook
from fidicula.domain.errors import ConflictError
from fidicula.domain.instruments import Instrument
from fidicula.domain.lessons import NOTHING_LEARNT, Learnt
from fidicula.domain.readings import LastTime, Reading
from fidicula.domain.rereading import readings_with
from fidicula.domain.strings import StringSet
from fidicula.domain.visits import UNREADABLE, CourseMark, Decision, Seen, Visit
from fidicula.domain.works import WorkDone
from fidicula.judgement.assessment.assess import Assessment, assess
from fidicula.judgement.assessment.judging import bench_state, with_reading
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.targets.resolve import targets_of
from fidicula.judgement.targets.rules import Rules
from fidicula.judgement.targets.wanted import Taken, Targets


@dataclass(frozen=True)
class VisitRecord:
    """One instrument's records.

    now : when they are looked at.  own_change : where it is locked, what the changes of this unit of work are
    counted as.
    """

    instrument: Instrument
    visit: Visit
    string_set: StringSet | None
    readings: Sequence[Reading]
    works: Sequence[WorkDone]
    rules: Rules
    now: datetime = field(compare=False)
    taken: Mapping[MeasurementKey, Taken] = field(default_factory=dict)
    decisions: Sequence[Decision] = ()
    seen: Sequence[Seen] = ()
    marks: Sequence[CourseMark] = ()
    last_time: Mapping[MeasurementKey, LastTime] = field(default_factory=dict)
    learnt: Learnt = NOTHING_LEARNT
    planned: tuple[WorkCode, ...] = ()
    damage: Sequence[DamageLook] = ()
    own_change: int = field(default=0, compare=False)

    @cached_property
    def targets(self) -> Targets:
        return targets_of(self.instrument, self.string_set, self.rules, self.taken)

    def with_reading(self, added: Reading, *, corrects: int | None) -> VisitRecord:
        """With one more reading. corrects : number of the one that it takes the place of."""
        readings = readings_with(self.readings, added, corrects=corrects)
        return replace(self, readings=readings)._judged_as(with_reading(self.judged, added, readings))

    def at(self, now: datetime, *, own_change: int | None = None, visit: Visit | None = None) -> VisitRecord:
        """The same records at another time. own_change : of a change of their own.  visit : as it stands after it."""
        own = self.own_change if own_change is None else own_change
        return replace(self, now=now, own_change=own, visit=visit or self.visit)._judged_as(self.judged)

    def state(self) -> BenchState:
        """What is known at the bench now."""
        return replace(self.judged, now=self.now)

    def _judged_as(self, judged: BenchState) -> VisitRecord:
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
            now=self.now,
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

    def with_schools(self, schools: Mapping[TargetQuestionCode, str]) -> Targets:
        """What would be wanted by other schools, by question."""
        choice = replace(self.instrument.choice, schools={**self.instrument.choice.schools, **schools})
        return targets_of(replace(self.instrument, choice=choice), self.string_set, self.rules, self.taken)

    def with_set(self, string_set: StringSet) -> BenchState:
        """The bench as it would be with other strings on it."""
        return replace(self, string_set=string_set).state()
