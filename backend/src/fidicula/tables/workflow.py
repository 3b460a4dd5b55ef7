"""Questions that are decided, the steps of a visit, and the kinds of visit."""

from __future__ import annotations

from collections.abc import Collection, Container
from dataclasses import dataclass
from functools import cache
from typing import Literal

from fidicula.codes import (
    InstructionCode,
    MeasureCode,
    OutcomeCode,
    Part,
    QuestionCode,
    SignCode,
    StepCode,
    VisitKindCode,
    WorkCode,
)
from fidicula.tables.pricing import work_steps
from fidicula.tables.rows import TableError, TableRow, code_of, read_rows
from fidicula.tables.signs import When, computed_signs, findings, when
from fidicula.tables.work import works

Undecided = Literal["decide", "follow"]


class InstructionRow(TableRow):
    """One thing that somebody can be told to do.

    part : of the instrument, None for none.  records : the work that writes it down, None for none.
    careful : where none does, the work whose caution goes with it.  label : in a word or two, for the rail.
    """

    instruction: InstructionCode
    part: str | None
    records: WorkCode | None
    careful: WorkCode | None
    label: str


@cache
def instructions() -> dict[InstructionCode, InstructionRow]:
    found = {row.instruction: row for row in read_rows("instructions", InstructionRow)}
    for row in found.values():
        _known_works(row.records, "instructions")
        _known_works(row.careful, "instructions")
    return found


class _DecidingRow(TableRow):
    question: QuestionCode
    title: str
    short: str
    part: Part | None
    asked_when: str
    bars: str | None
    before: str | None
    at_measure: MeasureCode | None
    settled_by: str | None
    rules_at: str | None
    undecided: Undecided | None
    says: str
    source: str


class _OutcomeRow(TableRow):
    question: QuestionCode
    outcome: OutcomeCode
    label: str
    offered_when: str | None
    advised_when: str | None
    opens_gate: bool
    waits_hours: float | None
    gives: str | None
    instructs: str | None
    says: str
    source: str


class _StepRow(TableRow):
    step: StepCode
    label: str
    instructs: str
    works: str | None
    done_when: str | None
    redone_after: str | None
    lost_after: str | None
    why: str


class _WaitRow(TableRow):
    work: WorkCode
    steps: str
    hours: float | None
    says: str


UNDER_TENSION = ("change", "outer_strings", "measure", "nut", "post", "crown", "again", "settled", "rest")
"""Steps that load the instrument, or ask for it loaded: they wait while glue dries."""


class VisitKind(TableRow):
    """What an instrument comes for.

    stops : steps of its course in order, and questions that belong there; a visit's course is only as long as that.
    all_looked_at : it is not signed off while an item that it asks for was left blank.
    """

    kind: VisitKindCode
    label: str
    stops: str
    all_looked_at: bool


@dataclass(frozen=True)
class Outcome:
    """One way to decide a question.

    offered_when : it is offered only then; always where it is empty.
    advised_when : the first outcome of a question whose condition holds is what the signs speak for.
    opens_gate : the work behind the question may go on; else it waits until what was decided is done and measured.
    waits_hours : how long it waits, where time does it.
    gives : a sign that shows from then on, for the questions after it.
    instructs : what is then to be done, by its row in instructions.csv; empty where it only lets the work go on.
    """

    outcome: OutcomeCode
    label: str
    offered_when: When
    advised_when: When
    opens_gate: bool
    waits_hours: float | None
    gives: SignCode | None
    instructs: InstructionCode | Literal[""]
    says: str
    source: str

    def is_offered(self, signs: Container[str]) -> bool:
        return not self.offered_when.alternatives or self.offered_when.holds(signs)


@dataclass(frozen=True)
class Deciding:
    """A question that somebody decides.

    short : its stop on the course.  part : of the instrument, None for one about the visit.
    bars : works that wait for it.  settled_by : works that answer it.
    before : the step that it stands before, where that is not the first one that it bars.
    at_measure : the single reading that a decision rests on; when that moves, the decision lapses.
    rules_at : the step whose instruction the question takes over while it is open; None for none.
    undecided : what is instructed there before anybody decided: to decide it, or to follow the recommendation.
    """

    question: QuestionCode
    title: str
    short: str
    part: Part | None
    asked_when: When
    bars: frozenset[WorkCode]
    before: str | None
    at_measure: MeasureCode | None
    settled_by: frozenset[WorkCode]
    rules_at: str | None
    undecided: Undecided | None
    says: str
    outcomes: tuple[Outcome, ...]


@dataclass(frozen=True)
class Step:
    """A stopped place of the course.

    instructs : what is done there, by its row in instructions.csv.
    works : that it is for; any of them done makes it done.  done_when : the signs of the bench that make it done.
    redone_after : works after which it is to be done again.  lost_after : works after which it cannot be done any more.
    """

    step: StepCode
    label: str
    instructs: InstructionCode | Literal[""]
    works: frozenset[WorkCode]
    done_when: When
    redone_after: frozenset[WorkCode]
    lost_after: frozenset[WorkCode]
    why: str


@dataclass(frozen=True)
class Wait:
    """Steps rest for some time after a work. hours : how long.  says : why."""

    work: WorkCode
    steps: frozenset[str]
    hours: float
    says: str


BENCH_SIGNS = frozenset(
    {
        "strings_known",
        "card_full",
        "crown_was_cut",
        "crown_right",
        "nut_right",
        "heights_again",
        "baseline_read",
        "all_looked_at",
        "outer_heights_read",
    }
)
"""Signs of how far the bench has come; they make a step done and decide nothing."""


@cache
def questions() -> dict[QuestionCode, Deciding]:
    """By name, in the order in which they are asked."""
    by_question: dict[str, list[Outcome]] = {}
    known = _known_signs()
    for row in read_rows("decisions", _OutcomeRow):
        by_question.setdefault(row.question, []).append(
            Outcome(
                outcome=row.outcome,
                label=row.label,
                offered_when=when(row.offered_when, known=known, table="decisions"),
                advised_when=when(row.advised_when, known=known, table="decisions"),
                opens_gate=row.opens_gate,
                waits_hours=row.waits_hours,
                gives=_known_sign(row.gives, known),
                instructs=_known_instruction(row.instructs or "", "decisions"),
                says=row.says,
                source=row.source,
            )
        )
    found = {}
    for asked in read_rows("deciding", _DecidingRow):
        found[asked.question] = Deciding(
            question=asked.question,
            title=asked.title,
            short=asked.short,
            part=asked.part,
            asked_when=when(asked.asked_when, known=known, table="deciding"),
            bars=_known_works(asked.bars, "deciding"),
            before=asked.before,
            at_measure=asked.at_measure,
            settled_by=_known_works(asked.settled_by, "deciding"),
            rules_at=asked.rules_at,
            undecided=asked.undecided,
            says=asked.says,
            outcomes=tuple(by_question.pop(asked.question, ())),
        )
        if len(found[asked.question].outcomes) < 2:
            raise TableError(f"decisions.csv: {asked.question} needs two ways to decide it")
        if asked.bars and not any(outcome.opens_gate for outcome in found[asked.question].outcomes):
            raise TableError(f"decisions.csv: nothing decides {asked.question} so that the work can go on")
    if by_question:
        raise TableError(f"decisions.csv: {', '.join(by_question)} is no question of deciding.csv")
    return found


@cache
def steps() -> dict[StepCode, Step]:
    return {
        row.step: Step(
            step=row.step,
            label=row.label,
            instructs=_known_instruction(row.instructs, "steps"),
            works=_known_works(row.works, "steps"),
            done_when=when(row.done_when, known=BENCH_SIGNS, table="steps"),
            redone_after=_known_works(row.redone_after, "steps"),
            lost_after=_known_works(row.lost_after, "steps"),
            why=row.why,
        )
        for row in read_rows("steps", _StepRow)
    }


def steps_for(work: WorkCode) -> frozenset[StepCode]:
    """The steps that a work belongs to."""
    if work not in works():
        raise KeyError(work)
    return frozenset(step.step for step in steps().values() if work in step.works)


@cache
def waits() -> dict[str, tuple[Wait, ...]]:
    """By the step that rests. How long is said where the work's own steps are, or here where they say nothing."""
    found: dict[str, tuple[Wait, ...]] = {}
    for row in read_rows("waits", _WaitRow):
        of_steps = UNDER_TENSION if row.steps == "tension" else tuple(row.steps.split())
        if not steps().keys() >= set(of_steps) or row.work not in works():
            raise TableError(f"waits.csv: {row.work} or {row.steps} is unknown")
        rests = next((step.waits for step in reversed(work_steps()[row.work]) if step.waits is not None), None)
        hours = row.hours if rests is None else rests
        if hours is None or (row.hours is not None and rests is not None):
            raise TableError(f"waits.csv: how long after {row.work} is said once, here or in work_steps.csv")
        wait = Wait(row.work, frozenset(of_steps), hours, row.says)
        for step in of_steps:
            found[step] = (*found.get(step, ()), wait)
    return found


@cache
def visit_kinds() -> dict[VisitKindCode, VisitKind]:
    found = {row.kind: row for row in read_rows("visit_kinds", VisitKind)}
    for row in found.values():
        for stop in row.stops.split():
            if stop not in steps() and stop not in questions():
                raise TableError(f"visit_kinds.csv: {stop} is no step of steps.csv, and no question")
    return found


def _known_instruction(name: str, table: str) -> InstructionCode | Literal[""]:
    code = code_of(instructions(), name)
    if name and code is None:
        raise TableError(f"{table}.csv: {name} is no row of instructions.csv")
    return code or ""


def _known_sign(sign: str | None, known: Collection[SignCode]) -> SignCode | None:
    found = next((one for one in known if one == sign), None)
    if sign is not None and found is None:
        raise TableError(f"decisions.csv: nobody can see or work out “{sign}”")
    return found


def _known_signs() -> set[SignCode]:
    return {*computed_signs(), *findings()}


def _known_works(text: str | None, table: str) -> frozenset[WorkCode]:
    found = set()
    for typed in (text or "").split():
        work = code_of(works(), typed)
        if work is None:
            raise TableError(f"{table}.csv: {typed} is no work of works.csv")
        found.add(work)
    return frozenset(found)
