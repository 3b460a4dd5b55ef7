"""The assessment of one instrument: everything that is known of it, judged once; whatever is said of it reads this."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from fidicula.codes import QuestionCode, SignCode, TargetQuestionCode, WorkCode
from fidicula.domain.visits import Visit
from fidicula.judgement.assessment.computing import Computed, Impossibility, compute
from fidicula.judgement.assessment.cut import cut_facts
from fidicula.judgement.assessment.model import CutFacts, Question, Slip, StepAssessment
from fidicula.judgement.assessment.parts import PartAssessment, parts_of
from fidicula.judgement.assessment.projection import JudgedProjection, judged_projection
from fidicula.judgement.assessment.questions import questions_asked
from fidicula.judgement.assessment.signs import signs_of
from fidicula.judgement.assessment.slips import slips_of
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.assessment.workflow import course_of
from fidicula.judgement.targets.rules import Rules
from fidicula.tables.work import works
from fidicula.tables.workflow import questions


@dataclass(frozen=True)
class Assessment:
    """state : readings, works and targets.  chosen : the school for each question.

    computed : the bridge; None where something is missing.  impossible : which reading makes its shape impossible.
    projection : judged, None where it is in band or not known.  signs : all that show.
    blanks : widths on the shelf, where they are known. [mm]
    questions : in the order of the table.  slips : those that stop a cut first.  stops : of the visit, in order.
    parts : each part of the instrument by itself.
    """

    state: BenchState
    visit: Visit
    chosen: Mapping[TargetQuestionCode, str]
    now: datetime
    computed: Computed | None
    impossible: Impossibility | None
    cut: CutFacts
    projection: JudgedProjection | None
    signs: frozenset[SignCode]
    questions: tuple[Question, ...]
    slips: tuple[Slip, ...]
    blanks: tuple[float, ...]
    stops: tuple[StepAssessment, ...]
    parts: tuple[PartAssessment, ...]

    def question(self, name: QuestionCode) -> Question | None:
        if name not in questions():
            raise KeyError(name)
        return next((one for one in self.questions if one.question == name), None)

    def barring(self, work: WorkCode) -> Question | None:
        """The first question that a work waits for."""
        if work not in works():
            raise KeyError(work)
        return next((one for one in self.questions if one.bars(work)), None)

    @property
    def here(self) -> StepAssessment | None:
        """The stop that the work stands at."""
        return next((stop for stop in self.stops if stop.state == "here"), None)


def assess(state: BenchState, visit: Visit, rules: Rules, *, blanks: Sequence[float] = ()) -> Assessment:
    """Everything judged, once, at the time of the state. blanks : widths of bridge blanks on the shelf. [mm]"""
    now = state.now
    outcome = compute(state)
    computed = outcome if isinstance(outcome, Computed) else None
    cut = cut_facts(state, computed)
    projection = judged_projection(state)
    judged = None if projection is None else projection.judged
    signs = signs_of(state, visit, cut, judged, today=now.astimezone().date())
    questions = questions_asked(state, signs)
    chosen = rules.chosen(state.instrument.choice)
    return Assessment(
        state=state,
        visit=visit,
        chosen=chosen,
        now=now,
        computed=computed,
        impossible=outcome if isinstance(outcome, Impossibility) else None,
        cut=cut,
        projection=projection,
        signs=signs,
        questions=questions,
        slips=slips_of(state, rules.tool_checks, now=now),
        blanks=tuple(blanks),
        stops=course_of(state, visit.kind, cut, questions, chosen, now=now),
        parts=parts_of(state, cut, questions),
    )
