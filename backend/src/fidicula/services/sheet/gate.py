"""What bars a work: an undecided question, or readings that do not hold. Physics alone is a gate."""

from __future__ import annotations

from dataclasses import dataclass

from fidicula.core.bands import standing
from fidicula.core.errors import CoreError
from fidicula.core.geometry.neck import ProjectionJudgement, judge_projection
from fidicula.core.readings.standing import Place
from fidicula.db.records import Decision
from fidicula.services.sheet.geometry import SINGLES
from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.model import DecidedView, GateView, OutcomeView
from fidicula.tables.work import Outcome, gates, outcomes

LAPSES_OVER = 0.25
"""A decision on a reading lapses when the reading moves by more than measuring it twice does. [mm]"""


@dataclass(frozen=True)
class ProjectionQuestion:
    """The projection is measured and out of its band."""

    value: float
    judged: ProjectionJudgement
    low: float
    high: float
    decision: Decision | None

    @property
    def is_open(self) -> bool:
        """Whether the crown may be cut all the same."""
        return self.decision is not None and outcome_of(self.decision).opens_gate


def outcome_of(decision: Decision) -> Outcome:
    return next(row for row in outcomes(decision.question) if row.outcome == decision.outcome)


def projection_question(state: BenchState) -> ProjectionQuestion | None:
    """None where the projection is in band, or not known."""
    held, wanted = state.held("projection"), state.wanted(("projection", None))
    if held is None or held.assumed or wanted is None or state.singles is None:
        return None
    if standing(value=held.value, band=wanted.band) == "in_band":
        return None
    others = state.targets.others
    neck = others.get("neck_length")
    if neck is None:
        return None
    accepted, thickest = others.get("projection_accepted_high"), others.get("max_wedge_at_heel")
    try:
        judged = judge_projection(
            measured=held.value,
            band=wanted.band,
            string_length=state.singles["string_length"].value,
            neck_length=neck.band.aim,
            fingerboard_length=state.singles["fingerboard_length"].value,
            accept_high=accepted.band.aim if accepted is not None and state.instrument.is_new else None,
            **({} if thickest is None else {"max_wedge": thickest.band.aim}),
        )
    except CoreError:
        return None
    made = [d for d in state.decisions if d.question == "projection" and not d.taken_back]
    last = made[-1] if made else None
    if last is not None and (last.at_value is None or abs(last.at_value - held.value) > LAPSES_OVER):
        last = None
    return ProjectionQuestion(held.value, judged, wanted.band.low, wanted.band.high, last)


def gate_view(state: BenchState) -> GateView | None:
    """The question that bars the crown, with its answers and what each would take; None where there is none."""
    question = projection_question(state)
    if question is None:
        return None
    side = "under" if question.judged.state == "low" else "over"
    return GateView(
        question="projection",
        title=f"Projection {question.value:.1f}, {side} {question.low:g} to {question.high:g}",
        says=gates()["crown_cut"].says,
        is_open=question.is_open,
        decided=None if question.decision is None else _decided(question.decision),
        outcomes=[_outcome(row, question.judged) for row in outcomes("projection")],
    )


def _decided(decision: Decision) -> DecidedView:
    return DecidedView(
        id=str(decision.id),
        outcome=decision.outcome,
        label=outcome_of(decision).label,
        reason=decision.reason,
        by=decision.decided_by,
        at=decision.decided_at,
    )


def _outcome(row: Outcome, judged: ProjectionJudgement) -> OutcomeView:
    figures = {
        "wedge": f"{judged.change_at_heel:.1f} at the heel, {judged.change_at_board_end:.1f} at the board's end; "
        f"the board turns by {judged.wedge_angle:.2f}°",
        "reset": f"{judged.change_at_bridge:+.1f} at the bridge; the neck turns by {judged.reset_angle:.2f}°",
    }.get(row.outcome, "")
    return OutcomeView(
        outcome=row.outcome,
        label=row.label,
        says=row.says,
        figures=figures.replace("-", "−"),
        advised=row.advised_when == judged.remedy,
        needs_reason=row.opens_gate or row.advised_when != judged.remedy,
    )


def to_measure_again(state: BenchState) -> list[Place]:
    """Readings that a cut would rest on and that do not hold: stale, or doubted and not confirmed."""
    measures = ("end_height", "nut_height", "slot_depth", *SINGLES)
    return [place for place, stand in state.standings.items() if place[0] in measures and stand.usable is None]
