"""What somebody has to decide, what the signs speak for, and what bars a work until then. Physics alone is a gate."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from fidicula.core.bands import Band
from fidicula.core.geometry.neck import ProjectionJudgement
from fidicula.core.readings.standing import Place
from fidicula.db.records import Decision
from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.model import AskedView, DecidedView, OutcomeView
from fidicula.services.sheet.signs import standing_seen
from fidicula.services.sheet.thresholds import SAME_PROJECTION
from fidicula.tables.course import Deciding, Outcome, questions
from fidicula.tables.signs import computed_signs, findings
from fidicula.tables.work import rests_on
from fidicula.tables.work import works as work_rows

GROWN = "grown"
"""The sign that something was decided that goes beyond what was agreed."""


@dataclass(frozen=True)
class Asked:
    """One question that is open at an instrument, or was and is decided.

    because : the signs that ask it.  advised : what they speak for, None where they leave it open.
    """

    deciding: Deciding
    because: tuple[str, ...]
    advised: Outcome | None
    decision: Decision | None

    @property
    def outcome(self) -> Outcome | None:
        """What was decided."""
        return None if self.decision is None else outcome_of(self.decision)

    @property
    def is_open(self) -> bool:
        """Whether the works behind it may go on."""
        return self.outcome is not None and self.outcome.opens_gate

    @property
    def waits_until(self) -> datetime | None:
        """Until when what was decided takes, where time does it."""
        if self.outcome is None or self.outcome.waits_hours is None or self.decision is None:
            return None
        return None if self.decision.decided_at is None else self.decision.decided_at + _hours(self.outcome.waits_hours)

    def bars(self, work: str) -> bool:
        return work in self.deciding.bars and not self.is_open


def _hours(hours: float) -> timedelta:
    return timedelta(hours=hours)


def outcome_of(decision: Decision) -> Outcome | None:
    """None where the tables no longer know it."""
    asked = questions().get(decision.question)
    return next((row for row in asked.outcomes if row.outcome == decision.outcome), None) if asked else None


def asked_questions(state: BenchState, signs: frozenset[str]) -> list[Asked]:
    """The questions that the signs ask, in the order of the table; those that bar a work come with the others."""
    made = [decision for decision in state.decisions if not decision.taken_back]
    found: list[Asked] = []
    shown, grown_at = signs, 0
    for deciding in questions().values():
        because = _because(state, deciding, shown)
        if because is None:
            continue
        decision = _standing_decision(state, deciding, made, after=grown_at if GROWN in because else None)
        advised = next((row for row in deciding.outcomes if row.advised_when.holds(shown)), None)
        asked = Asked(deciding, tuple(because), advised, decision)
        found.append(asked)
        if decision is not None and asked.outcome is not None and asked.outcome.gives is not None:
            shown |= {asked.outcome.gives}
            if asked.outcome.gives == GROWN:
                grown_at = max(grown_at, made.index(decision))
    return found


def _because(state: BenchState, deciding: Deciding, signs: frozenset[str]) -> list[str] | None:
    """The signs that ask a question; None where none does, or a later work answered it."""
    if not deciding.asked_when.holds(signs):
        return None
    because = deciding.asked_when.shown(signs)
    seen = [line for line in standing_seen(state).values() if set(line.findings) & set(because)]
    if seen and set(because) <= {finding for line in seen for finding in line.findings}:
        seen_after = max(line.after_work for line in seen)
        if any(work.work in deciding.settled_by and work.number > seen_after for work in state.standing_works):
            return None
    return because


def _standing_decision(
    state: BenchState, deciding: Deciding, made: Sequence[Decision], *, after: int | None
) -> Decision | None:
    """The last decision, unless the reading that it was made on has moved, or more was decided since.

    after : index of the decision that it has to come after, None for any.
    """
    known = {row.outcome for row in deciding.outcomes}
    own = [(i, d) for i, d in enumerate(made) if d.question == deciding.question and d.outcome in known]
    if not own or (after is not None and own[-1][0] < after):
        return None
    decision = own[-1][1]
    if deciding.at_measure is None:
        return decision
    held = state.held(deciding.at_measure)
    if held is None or decision.at_value is None or abs(decision.at_value - held.value) > SAME_PROJECTION:
        return None
    return decision


def question_views(
    asked: Sequence[Asked], projection: tuple[float, Band, ProjectionJudgement] | None
) -> list[AskedView]:
    """What is asked, those that bar a work and are not decided first."""
    views = [_view(one, projection) for one in asked]
    return sorted(views, key=lambda view: (view.is_open or not view.bars, view.decided is not None))


def _view(asked: Asked, projection: tuple[float, Band, ProjectionJudgement] | None) -> AskedView:
    deciding = asked.deciding
    out = projection if deciding.question == "projection" else None
    title = deciding.title
    if out is not None:
        value, band, judged = out
        side = "under" if judged.state == "low" else "over"
        title = f"{title} {value:.1f}, {side} {band.low:g} to {band.high:g}"
    decision, outcome = asked.decision, asked.outcome
    return AskedView(
        question=deciding.question,
        title=title,
        says=deciding.says,
        because=[said_of(sign) for sign in asked.because],
        bars=[row.label for row in work_rows().values() if row.work in deciding.bars],
        is_open=asked.is_open,
        advised=None if asked.advised is None else asked.advised.label,
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
        outcomes=[
            OutcomeView(
                outcome=row.outcome,
                label=row.label,
                says=row.says,
                figures=_figures(row, out[2] if out else None),
                advised=row is asked.advised,
                needs_reason=needs_reason(asked, row),
            )
            for row in deciding.outcomes
        ],
    )


def needs_reason(asked: Asked, outcome: Outcome) -> bool:
    """Past a gate, or against what the signs speak for, somebody says why."""
    return outcome is not asked.advised or (outcome.opens_gate and bool(asked.deciding.bars))


def said_of(sign: str) -> str:
    """A sign in words."""
    if sign in findings():
        row = findings()[sign]
        return f"{row.item}: {row.label}"
    return computed_signs()[sign].says


def _figures(row: Outcome, judged: ProjectionJudgement | None) -> str:
    """What a remedy at the projection takes."""
    if judged is None:
        return ""
    figures = {
        "wedge": f"{judged.change_at_heel:.1f} at the heel, {judged.change_at_board_end:.1f} at the board's end; "
        f"the board turns by {judged.wedge_angle:.2f}°",
        "reset": f"{judged.change_at_bridge:+.1f} at the bridge; the neck turns by {judged.reset_angle:.2f}°",
    }.get(row.outcome, "")
    return figures.replace("-", "−")


def to_measure_again(state: BenchState, work: str = "crown_cut") -> list[Place]:
    """Readings that a work would rest on and that do not hold: stale, or doubted and not confirmed."""
    measures = rests_on().get(work, frozenset())
    return [place for place, stand in state.standings.items() if place[0] in measures and stand.usable is None]
