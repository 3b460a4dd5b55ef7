"""The questions as the screen shows them."""

from __future__ import annotations

from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.model import Question
from fidicula.judgement.assessment.projection import JudgedProjection
from fidicula.judgement.assessment.questions import needs_reason
from fidicula.tables.work import works
from fidicula.views.sheet.model import DecidedView, DecisionView, OptionView
from fidicula.words import questions as say
from fidicula.words.names import sign_name


def question_views(a: Assessment) -> list[DecisionView]:
    """What is asked, those that bar a work and are not decided first."""
    views = [_view(one, a.projection) for one in a.questions]
    return sorted(views, key=lambda view: (view.is_open or not view.bars, view.decided is not None))


def _view(asked: Question, projection: JudgedProjection | None) -> DecisionView:
    deciding = asked.deciding
    out = projection if asked.question == "projection" else None
    title = deciding.title
    if out is not None:
        title = say.projection_title(title, out)
    decision, outcome = asked.decision, asked.outcome
    return DecisionView(
        question=asked.question,
        title=title,
        says=deciding.says,
        because=[sign_name(sign) for sign in asked.because],
        bars=[row.label for row in works().values() if row.work in deciding.bars],
        is_open=asked.is_open,
        recommended=None if asked.recommended is None else asked.recommended.label,
        decided=None
        if decision is None or outcome is None
        else DecidedView(
            id=str(decision.id),
            outcome=decision.outcome,
            label=outcome.label,
            reason=decision.reason,
            by=decision.decided_by,
            at=decision.decided_at,
            waits_until=asked.waits_until,
        ),
        options=[
            OptionView(
                outcome=row.outcome,
                label=row.label,
                says=row.says,
                figures=say.remedy(row.outcome, None if out is None else out.judged),
                recommended=row == asked.recommended,
                needs_reason=needs_reason(asked, row),
            )
            for row in asked.options
        ],
    )
