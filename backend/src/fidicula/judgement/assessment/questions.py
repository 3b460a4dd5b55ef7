"""What somebody has to decide, what the signs speak for, and what bars a work until then. Physics alone is a gate."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import timedelta

from fidicula.codes import SignCode, WorkCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.visits import Decision
from fidicula.judgement.assessment.model import Question
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.assessment.thresholds import SAME_PROJECTION
from fidicula.tables.work import rests_on
from fidicula.tables.workflow import Deciding, Outcome, questions

GROWN = "grown"
"""The sign that something was decided that goes beyond what was agreed."""


def outcome_of(decision: Decision) -> Outcome | None:
    """None where the tables no longer know it."""
    deciding = questions().get(decision.question)
    return next((row for row in deciding.outcomes if row.outcome == decision.outcome), None) if deciding else None


def questions_asked(state: BenchState, signs: frozenset[SignCode]) -> tuple[Question, ...]:
    """The questions that the signs ask, in the order of the table."""
    made = [decision for decision in state.decisions if not decision.taken_back]
    found: list[Question] = []
    shown, grown_at = signs, 0
    for deciding in questions().values():
        if not deciding.asked_when.holds(shown):
            continue
        because = tuple(deciding.asked_when.shown(shown))
        decision = _standing_decision(state, deciding, made, after=grown_at if GROWN in because else None)
        offered = tuple(row for row in deciding.outcomes if row.is_offered(shown))
        recommended = next((row for row in offered if row.advised_when.holds(shown)), None)
        outcome = None if decision is None else outcome_of(decision)
        until = None
        if outcome is not None and decision is not None and outcome.waits_hours is not None and decision.decided_at:
            until = decision.decided_at + timedelta(hours=outcome.waits_hours)
        found.append(Question(deciding, because, offered, recommended, decision, outcome, until))
        if decision is not None and outcome is not None and outcome.gives is not None:
            shown |= {outcome.gives}
            if outcome.gives == GROWN:
                grown_at = max(grown_at, made.index(decision))
    return tuple(found)


def _standing_decision(
    state: BenchState, deciding: Deciding, made: Sequence[Decision], *, after: int | None
) -> Decision | None:
    """The last decision, unless what it was made on has moved, a work settled it, or more was decided since.

    after : index of the decision that it has to come after, None for any.
    """
    known = {row.outcome for row in deciding.outcomes}
    own = [(i, d) for i, d in enumerate(made) if d.question == deciding.question and d.outcome in known]
    if not own or (after is not None and own[-1][0] < after):
        return None
    decision = own[-1][1]
    outcome = outcome_of(decision)
    is_to_do = outcome is not None and bool(outcome.instructs)
    if is_to_do and any(w.work in deciding.settled_by and w.number > decision.after_work for w in state.standing_works):
        return None
    if deciding.at_measure is None:
        return decision
    held = state.held(deciding.at_measure)
    if held is None or decision.at_value is None or abs(decision.at_value - held.value) > SAME_PROJECTION:
        return None
    return decision


def needs_reason(question: Question, outcome: Outcome) -> bool:
    """Past a gate, or against what the signs speak for, somebody says why."""
    return outcome != question.recommended or (outcome.opens_gate and bool(question.deciding.bars))


def to_measure_again(state: BenchState, work: WorkCode = "crown_cut") -> list[MeasurementKey]:
    """Readings that a work would rest on and that do not hold: stale, or doubted and not confirmed."""
    measures = rests_on().get(work, frozenset())
    return [key for key, stand in state.reading_states.items() if key[0] in measures and stand.usable is None]
