"""Scenarios: an instrument with its records, written in a few lines, and what is then instructed."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import UTC, date, datetime, timedelta
from itertools import count
from math import cos, radians
from typing import Any
from uuid import UUID, uuid4

from fidicula.codes import (
    FindingCode,
    ItemCode,
    MeasureCode,
    OutcomeCode,
    QuestionCode,
    TargetQuestionCode,
    ToolCode,
    VisitKindCode,
    WorkCode,
)
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.instruments import Instrument
from fidicula.domain.readings import LastTime, Reading, ToolCheck
from fidicula.domain.strings import SetString, StringSet
from fidicula.domain.targets import TargetChoice
from fidicula.domain.visits import CourseMark, Decision, Seen, Visit
from fidicula.domain.work_details import CrownCut, Plain, SlotsFiled, WorkDetail
from fidicula.domain.works import WorkDone
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.instruction.instruct import instruct
from fidicula.judgement.instruction.model import Instruction
from fidicula.judgement.measures import MEASURES
from fidicula.judgement.targets.rules import make_rules
from fidicula.judgement.visit_record import VisitRecord
from fidicula.tables.workflow import questions
from fidicula.views.sheet.build import sheet_of
from fidicula.views.sheet.model import BenchSheet

SLOPE = 1 / cos(radians(8))
"""A violin's board slopes by 8° to the ribs, so that what is square to it is so much longer along the bridge."""
CARRY = SLOPE * 328 / 270
"""What 1 mm at a violin's board's end is along the bridge."""
NOW = datetime(2026, 11, 27, 10, 0, tzinfo=UTC)
VISIT = UUID(int=1)
STRINGS = {
    "violin": (("G", 0.80), ("D", 0.86), ("A", 0.68), ("E", 0.27)),
    "viola": (("C", 1.10), ("G", 0.95), ("D", 0.85), ("A", 0.70)),
    "cello": (("C", 1.80), ("G", 1.50), ("D", 1.10), ("A", 0.90)),
    "bass": (("E", 2.50), ("A", 2.00), ("D", 1.60), ("G", 1.30)),
}
SIZES = {"violin": "4/4", "viola": "406", "cello": "4/4", "bass": "3/4"}


ON_BLOCK: tuple[ToolCode, ...] = ("caliper", "wedge")
"""Tools that are held to known lengths."""


def said_true(tool: ToolCode, at: datetime = NOW) -> ToolCheck:
    """A check that says nothing of what the tool is off."""
    return ToolCheck(uuid4(), tool, (), (), "Ilse Varnholt", at)


def on_block(tool: ToolCode, *read: float, known: float = 5.0, at: datetime = NOW) -> ToolCheck:
    return ToolCheck(uuid4(), tool, (known,) * len(read), read, "Ilse Varnholt", at)


@dataclass
class Bench:
    """One instrument. Readings are taken after the last work so far, unless they say otherwise.

    Each method adds a record and returns the bench, so that a scenario reads as it happens.
    """

    family: str = "violin"
    kind: VisitKindCode = "bridge"
    size: str = ""
    has_strings: bool = True
    material: str = "synthetic"
    strings: Sequence[tuple[str, float]] = ()
    instrument: dict[str, Any] = field(default_factory=dict)
    visit: dict[str, Any] = field(default_factory=dict)
    schools: dict[TargetQuestionCode, str] = field(default_factory=dict)
    now: datetime = NOW
    tool_checks: Sequence[ToolCheck] = field(default_factory=lambda: [said_true(tool) for tool in ON_BLOCK])
    readings: list[Reading] = field(default_factory=list)
    works: list[WorkDone] = field(default_factory=list)
    decisions: list[Decision] = field(default_factory=list)
    seen: list[Seen] = field(default_factory=list)
    marks: list[CourseMark] = field(default_factory=list)
    earlier: dict[MeasurementKey, LastTime] = field(default_factory=dict)
    planned: tuple[WorkCode, ...] = ()
    _numbers: Iterator[int] = field(default_factory=lambda: count(1))

    def copy(self) -> Bench:
        """The same records so far; what is added to one is not in the other."""
        return replace(
            self,
            readings=list(self.readings),
            works=list(self.works),
            decisions=list(self.decisions),
            seen=list(self.seen),
            marks=list(self.marks),
            earlier=dict(self.earlier),
            _numbers=count(len(self.readings) + 1),
        )

    @property
    def _last_work(self) -> int:
        return self.works[-1].number if self.works else 0

    def read(
        self,
        measure: MeasureCode,
        *values: float | None,
        tool: ToolCode | None = None,
        at: int | None = None,
        times: int = 1,
        **more: Any,
    ) -> Bench:
        """One value for a single measure, or one for each place from the first.

        at : the position of a single one.  times : how often each is read, the same each time.
        """
        single = MEASURES[measure].places is None
        for place, value in enumerate(values):
            if value is None:
                continue
            position = None if single else place if at is None else at
            there = [r for r in self.readings if (r.measure, r.position) == (measure, position)]
            new = Reading(
                number=0, id=uuid4(), visit_id=VISIT, measure=measure, position=position,
                typed=f"{value:g}", value=value, tool=tool or MEASURES[measure].tools[0], direction="vertical",
                taken_by="Ilse Varnholt", taken_at=self.now, recorded_at=self.now, after_work=self._last_work or None,
                corrected_by=None, repeats=False, doubt=None, suggested=None, confirmed=False, taken_back=False,
            )  # fmt: skip
            self.readings = [r for r in self.readings if r not in there or (r.after_work or 0) != self._last_work]
            for again in range(times):
                self.readings.append(replace(new, **{"number": next(self._numbers), "repeats": again > 0, **more}))
        return self

    def without(self, measure: MeasureCode) -> Bench:
        return replace(self, readings=[one for one in self.readings if one.measure != measure])

    def did(self, work: WorkCode, detail: WorkDetail | None = None, *, ago: timedelta = timedelta(days=30)) -> Bench:
        """A work, done so long ago that nothing waits for it any more."""
        number = self._last_work + 1
        done = WorkDone(
            number, uuid4(), VISIT, work, "Ilse Varnholt", self.now - ago, detail or Plain(), None, taken_back=False
        )
        self.works.append(done)
        return self

    def decided(self, question: QuestionCode, outcome: OutcomeCode, reason: str = "") -> Bench:
        at = questions()[question].at_measure
        value = None if at is None else self.assess().state.held(at)
        self.decisions.append(
            Decision(
                uuid4(),
                VISIT,
                question,
                outcome,
                reason,
                None if value is None else value.value,
                "Ilse Varnholt",
                self.now,
                after_work=self._last_work,
            )
        )
        return self

    def found(self, item: ItemCode, *findings: FindingCode, words: str = "", verdict: str = "work") -> Bench:
        line = Seen(uuid4(), VISIT, item, verdict, findings, words, "Ilse Varnholt", self._last_work, self.now)
        self.seen.append(line)
        return self

    def marked(self, step: str, mark: str) -> Bench:
        """What somebody said of a step: done, or passed."""
        self.marks.append(CourseMark(uuid4(), VISIT, step, mark, "", None, self._last_work, "Ilse Varnholt", self.now))
        return self

    def skipped(self, step: str) -> Bench:
        return self.marked(step, "passed")

    def last_visit(self, measure: MeasureCode, *values: float, days: float = 30, works: Sequence[str] = ()) -> Bench:
        """Read at an earlier visit. works : done to the instrument since, before this one."""
        for place, value in enumerate(values):
            position = None if MEASURES[measure].places is None else place
            at = self.now - timedelta(days=days)
            self.earlier[measure, position] = LastTime(
                value, "vertical", at, MEASURES[measure].tools[0], frozenset(works)
            )
        return self

    def assess(self, *, blanks: Sequence[float] = ()) -> Assessment:
        return self.loaded().assess(blanks=blanks)

    def loaded(self) -> VisitRecord:
        """Its records, as they come from the database."""
        pairs = tuple(self.strings) or STRINGS[self.family]
        names = tuple(name for name, _ in pairs)
        string_set = StringSet(
            UUID(int=5), "Harbour medium", self.family, self.material, tuple(SetString(n, d) for n, d in pairs)
        )
        base: dict[str, Any] = {
            "id": UUID(int=2), "ticket": "RW-1", "family": self.family, "size": self.size or SIZES[self.family],
            "string_names": names, "left_handed": False, "is_new": False, "owner": "", "description": "",
            "choice": TargetChoice(schools=self.schools),
        }  # fmt: skip
        instrument = Instrument(**{**base, **self.instrument})
        visit = Visit(VISIT, instrument.id, self.kind, "", self.now - timedelta(hours=2), None, **self.visit)
        return VisitRecord(
            instrument=instrument,
            visit=visit,
            string_set=string_set if self.has_strings else None,
            readings=self.readings,
            works=self.works,
            rules=make_rules(self.family, tool_checks=self.tool_checks),
            now=self.now,
            decisions=self.decisions,
            seen=self.seen,
            marks=self.marks,
            last_time=self.earlier,
            planned=self.planned,
        )

    def told(self) -> Instruction:
        return instruct(self.assess())

    def sheet(self) -> BenchSheet:
        return sheet_of(self.assess(), make_rules(self.family, tool_checks=self.tool_checks))

    def aims(self, measure: MeasureCode) -> list[float]:
        """The target of each string, as its own bridge would have it."""
        a = self.assess()
        if measure == "end_height":
            return [string.target_end or 0.0 for string in a.cut.strings]
        wanted = [a.state.wanted_upright((measure, i)) for i in range(a.state.count)]
        return [0.0 if one is None else one.band.aim for one in wanted]


def measured(
    family: str = "violin", *, over: float | Sequence[float] = 0.0, nut_over: float = 0.0,
    kind: VisitKindCode = "bridge", singles: Mapping[str, float] | None = None, **more: Any,
) -> Bench:  # fmt: skip
    """An instrument whose whole card is read: every string `over` its target end height, every slot as it should be."""
    asked = repr((family, nut_over, kind, singles, more))
    if asked not in _BUT_HEIGHTS:
        _BUT_HEIGHTS[asked] = _all_but_heights(family, nut_over, kind, singles or {}, more)
    before, aims = _BUT_HEIGHTS[asked]
    bench = before.copy()
    overs = [over] * len(aims) if isinstance(over, int | float) else list(over)
    return bench.read("end_height", *(aim + more_ for aim, more_ in zip(aims, overs, strict=True)))


_BUT_HEIGHTS: dict[str, tuple[Bench, list[float]]] = {}
"""What was asked for already, before its strings' heights are read, with their aims."""


def _all_but_heights(
    family: str, nut_over: float, kind: VisitKindCode, singles: Mapping[str, float], more: dict[str, Any]
) -> tuple[Bench, list[float]]:
    bench = Bench(family, kind, **more)
    targets = bench.assess().state.targets
    for measure in ("projection", "string_length", "fingerboard_length", "fingerboard_radius", "nut_spread",
                    "bridge_spread"):  # fmt: skip
        wanted = targets.places.get((measure, None))
        assert wanted is not None
        bench.read(measure, singles.get(measure, wanted.band.aim))
    bench.read("nut_height", *(aim + nut_over for aim in bench.aims("nut_height")))
    ratio = targets.slot_depth_ratio or 0.0
    bench.read("slot_depth", *(ratio * diameter for _, diameter in more.get("strings") or STRINGS[family]))
    return bench, bench.aims("end_height")


def days(count: int) -> date:
    return (NOW + timedelta(days=count)).date()


def blank(*steps: str) -> Bench:
    """A bridge is made from a blank; so much of it is done."""
    bench = Bench("violin", "new_bridge")
    bench.read("projection", 27).read("string_length", 328).read("fingerboard_length", 270)
    bench.read("fingerboard_radius", 42).read("nut_spread", 16.3).read("nut_height", 0.5, 0.45, 0.4, 0.35)
    for step in steps:
        bench.marked(step, "done")
    return bench


def strung() -> Bench:
    """Its strings stand as they should; the wood is still thick."""
    bench = measured(kind="new_bridge")
    for step in ("mask", "feet", "marks", "outer_strings"):
        bench.marked(step, "done")
    bench.did("crown_cut", CrownCut())
    bench.read("end_height", *bench.aims("end_height"), times=3).read("slot_depth", 0.27, 0.29, 0.23, 0.09)
    return bench.read("bridge_spread", 33.5)


def cut_roughly(over: float | list[float], *, times: int = 3) -> Bench:
    """The crown was cut; every string is read so often, `over` its aim at the board's end."""
    bench = measured(over=1.2).did("crown_cut", CrownCut(wood=(1.4,) * 4, passes=(1.1,) * 4))
    overs = over if isinstance(over, list) else [over] * 4
    heights = [aim + more for aim, more in zip(bench.aims("end_height"), overs, strict=True)]
    return bench.read("end_height", *heights, times=times).read("bridge_spread", 33.5)


def filed(bench: Bench, by: tuple[float | None, ...], over: list[float | None], *, times: int = 3) -> Bench:
    """Slots were filed; those strings are read again."""
    bench.did("slots_filed", SlotsFiled(by=by))
    for i, more in enumerate(over):
        if more is not None:
            bench.read("end_height", bench.aims("end_height")[i] + more, at=i, times=times)
    return bench
