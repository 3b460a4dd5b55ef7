"""The steps of a visit: which are done, which wait, which a question bars, and where the work stands."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import datetime, timedelta
from typing import Literal

from fidicula.codes import MeasureCode, StepCode, TargetQuestionCode, VisitKindCode, WorkCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.core.work.workflow import StepFacts, stop_states
from fidicula.domain.visits import CourseMark
from fidicula.judgement.assessment.edges import lean_wanted, unsure_heights, unsure_nuts
from fidicula.judgement.assessment.inspection import came_without_tension, left_blank
from fidicula.judgement.assessment.model import CutFacts, Question, StepAssessment
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.assessment.thresholds import WORTH_FILING, WORTH_LOWERING, WORTH_TAKING, strings_in_band
from fidicula.judgement.measures import CARD
from fidicula.tables.rows import row_of
from fidicula.tables.workflow import Deciding, Step, Wait, steps, steps_for, visit_kinds, waits

_NEEDS_NO_STRINGS = frozenset({"strings", "baseline", "change", "rest", "look", "find", "mask", "feet", "marks"})
_USUAL_KIND: VisitKindCode = "bridge"
_LETS_GO = steps()["baseline"].lost_after


@dataclass(frozen=True)
class _Step:
    """One stop before its state is known. says : everything of it but its state."""

    says: StepAssessment
    facts: StepFacts


def course_of(
    state: BenchState,
    kind: VisitKindCode,
    cut: CutFacts,
    asked: Sequence[Question],
    chosen: Mapping[TargetQuestionCode, str],
    *,
    now: datetime,
) -> tuple[StepAssessment, ...]:
    """The stops of a visit of a kind. chosen : the school for each question, the shop's order of work among them."""
    keys = _ordered(kind, chosen)
    signs = _bench_signs(state, kind, cut, asked, keys)
    barring = [one for one in asked if one.deciding.bars]
    stops: list[_Step] = []
    for key in keys:
        step = row_of(steps(), key)
        if step is None:
            stops += [_question_stop(one, now) for one in barring if one.question == key]
            continue
        there = {stop.says.key for stop in stops}
        stops += [
            _question_stop(one, now)
            for one in barring
            if _stands_before(one.deciding, step, keys) and one.question not in there
        ]
        stops.append(_step_stop(state, step, signs, barring, kind, now))
    states = stop_states([stop.facts for stop in stops])
    course = [
        replace(stop.says, state=at, until=stop.says.until if at == "waiting" else None)
        for stop, at in zip(stops, states, strict=True)
    ]
    at = next((i for i, stop in enumerate(course) if stop.key in _LAST), len(course))
    return (*course[:at], *_planned_stops(state, keys), *course[at:])


_LAST = frozenset({"again", "settled", "rest"})
"""What is planned is done before these."""


def _planned_stops(state: BenchState, keys: Sequence[str]) -> list[StepAssessment]:
    """Planned works that no step of this visit stands for. The work never stands at one: it is begun from the plan."""
    of_steps = {work for key in keys if (step := row_of(steps(), key)) is not None for work in step.works}
    done = {work.work for work in state.standing_works}
    return [
        StepAssessment(f"planned:{work}", "done" if work in done else "ahead", planned=work)
        for work in dict.fromkeys(state.planned)
        if work not in of_steps
    ]


def first_planned(stops: Sequence[StepAssessment]) -> WorkCode | Literal[""]:
    """The first planned work that is still to do; empty for none."""
    return next((stop.planned for stop in stops if stop.planned and stop.state != "done"), "")


def _stands_before(deciding: Deciding, step: Step, keys: Sequence[str]) -> bool:
    """Whether a question has its stop before a step: where its row says, or before the first step that it bars."""
    if deciding.question in keys:
        return False
    first_barred = bool(deciding.bars & step.works) and deciding.before not in keys
    barred_here = any(deciding.bars & other.works for key in keys if (other := row_of(steps(), key)) is not None)
    return first_barred or (deciding.before == step.step and barred_here)


_HABITS: tuple[tuple[StepCode, TargetQuestionCode, StepCode], ...] = (
    ("nut", "nut_order", "crown"),
    ("post", "post_order", "again"),
)
"""Steps that a recipe puts after another."""


def _ordered(kind: VisitKindCode, chosen: Mapping[TargetQuestionCode, str]) -> list[str]:
    """The stops of a kind of visit, in the order of the shop's recipe; habits move, gates do not."""
    keys = (row_of(visit_kinds(), kind) or visit_kinds()[_USUAL_KIND]).stops.split()
    for step, question, after in _HABITS:
        if chosen.get(question) == "bridge_first" and step in keys and after in keys:
            keys.remove(step)
            keys.insert(keys.index(after) + 1, step)
    return keys


def card_taken(state: BenchState) -> tuple[int, int]:
    """How many readings of the card hold, and how many there are."""
    keys = [(row.measure, position) for row in CARD.values() for position in row.positions(state.count)]
    return sum(_holds(state, key) or _is_told(state, key) for key in keys), len(keys)


def _is_told(state: BenchState, key: MeasurementKey) -> bool:
    """Whether a reading that holds no more is followed by what was done since."""
    one = state.reading_states.get(key)
    return one is not None and one.state == "stale" and state.derived(key) is not None


def _holds(state: BenchState, key: MeasurementKey) -> bool:
    one = state.reading_states.get(key)
    return one is not None and one.state == "current"


def _all_hold(state: BenchState, measure: MeasureCode) -> bool:
    return all(_holds(state, (measure, i)) for i in range(state.count))


HEIGHTS_CHANGED = frozenset({"crown_cut", "slots_filed", "strings_changed"})
"""After these the heights are measured again, under tension."""


def _bench_signs(
    state: BenchState, kind: VisitKindCode, cut: CutFacts, asked: Sequence[Question], keys: Sequence[str]
) -> set[str]:
    """How far the bench has come, by the names of `BENCH_SIGNS`."""
    done = {work.work for work in state.standing_works}
    taken, of = card_taken(state)
    right = crown_is_right(state, cut, asked)
    shown = {
        "strings_known": state.string_set is not None,
        "card_full": taken == of and not lean_wanted(state),
        "crown_was_cut": bool({"crown_cut", "slots_filed"} & done),
        "crown_right": right,
        "nut_right": nut_is_right(state, cut) and not unsure_nuts(state) and not _is_undecided(asked, "nut_low"),
        "heights_again": (bool(HEIGHTS_CHANGED & done) and _all_hold(state, "end_height"))
        or (right and "change" not in keys),
        "baseline_read": _baseline_was_read(state),
        "all_looked_at": not left_blank(state, kind),
        "outer_heights_read": bool({"crown_cut"} & done)
        and all(_holds(state, ("end_height", i)) for i in (0, state.count - 1)),
    }
    return {sign for sign, shows in shown.items() if shows}


def crown_is_right(state: BenchState, cut: CutFacts, asked: Sequence[Question]) -> bool:
    """Whether nothing has to come off: every string in band, or as its aim; once begun, each brought to its aim."""
    if any(one.bars("crown_cut") for one in asked):
        return False
    if cut.begun:
        return all(s.landed for s in cut.strings) and is_lowered(cut)
    as_aimed = all(s.wood is not None and abs(s.wood) < WORTH_TAKING for s in cut.strings)
    in_band = strings_in_band(state, cut) and not unsure_heights(state, cut)
    return cut.state == "firm" and (in_band or as_aimed)


def is_lowered(cut: CutFacts) -> bool:
    """Whether the crown stands no higher beside any string than its slot is to be deep, as far as it was read."""
    if cut.beside_done:
        return True
    return all(s.beside is not None and s.beside < WORTH_LOWERING for s in cut.strings)


def nut_is_right(state: BenchState, cut: CutFacts) -> bool:
    """Whether every height at the nut holds and none has anything to file."""
    return _all_hold(state, "nut_height") and all((s.nut_to_file or 0.0) < WORTH_FILING for s in cut.strings)


def _is_undecided(asked: Sequence[Question], question: str) -> bool:
    return any(one.question == question and one.outcome is None for one in asked)


def _baseline_was_read(state: BenchState) -> bool:
    return not baseline_keys(state)


def baseline_keys(state: BenchState) -> list[MeasurementKey]:
    """What of the baseline was not read before the first work that touches it: heights, projection, string length."""
    first = min((work.number for work in state.standing_works if work.work in _LETS_GO), default=None)
    read = {
        (reading.measure, reading.position)
        for reading in (*state.readings, *state.projections)
        if first is None or (reading.after_work or 0) < first
    }
    wanted: list[MeasurementKey] = [
        *(("end_height", i) for i in range(state.count)),
        ("projection", None),
        ("string_length", None),
    ]
    return [key for key in wanted if key not in read]


def _question_stop(asked: Question, now: datetime) -> _Step:
    until = asked.waits_until
    says = StepAssessment(
        asked.question,
        "ahead",
        is_question=True,
        is_decided=asked.outcome is not None,
        outcome="" if asked.outcome is None else asked.outcome.outcome,
        until=until,
    )
    return _Step(says, StepFacts(done=asked.is_open, waits=until is not None and until > now))


def _step_stop(
    state: BenchState, step: Step, signs: set[str], barring: Sequence[Question], kind: VisitKindCode, now: datetime
) -> _Step:
    numbers = {work.work: work.number for work in state.standing_works}
    redone = max((numbers.get(work, 0) for work in step.redone_after), default=0)
    worked = max((numbers.get(work, 0) for work in step.works), default=0)
    mark = newest_mark(state.marks, step.step)
    said = mark.mark if mark is not None and mark.after_work >= redone else ""
    shows = step.done_when.holds(signs)
    rest = _wait(state, step, mark, now)
    count, of = _count(state, step, kind)
    lost = not shows and (
        any(numbers.get(work) for work in step.lost_after) or (step.step == "baseline" and came_without_tension(state))
    )
    is_redone = redone > worked and not shows and bool(redone) and said != "done"
    says = StepAssessment(
        step.step,
        "ahead",
        by_hand=(not step.works and not step.done_when.alternatives) or step.step == "post",
        mark_id=None if mark is None else str(mark.id),
        until=None if rest is None else rest.until,
        waits_after="" if rest is None else rest.after,
        reason="" if rest is None else rest.reason,
        count=count,
        of=of,
        redone_after=next(w.work for w in state.standing_works if w.number == redone) if is_redone else "",
        is_lost=lost,
    )
    facts = StepFacts(
        done=said == "done" or worked > redone or shows,
        passed=lost or (mark is not None and mark.mark == "passed"),
        waits=rest is not None,
        barred=(state.string_set is None and step.step not in _NEEDS_NO_STRINGS)
        or any(one.deciding.bars & step.works and not one.is_open for one in barring),
    )
    return _Step(says, facts)


def newest_mark(marks: Sequence[CourseMark], step: str) -> CourseMark | None:
    """What was said of a step last."""
    return next((mark for mark in reversed(marks) if mark.step == step and not mark.taken_back), None)


def _count(state: BenchState, step: Step, kind: VisitKindCode) -> tuple[int | None, int | None]:
    if step.step == "measure":
        return card_taken(state)
    if step.step == "look":
        return len(left_blank(state, kind)), None
    if step.step == "again":
        stale = [key for key, one in state.reading_states.items() if one.state == "stale"]
        return sum(state.derived(key) is None for key in stale), None
    return None, None


@dataclass(frozen=True)
class Rest:
    """A step rests until then, after a work or for a reason that somebody gave."""

    until: datetime
    step: StepCode
    after: WorkCode | Literal[""] = ""
    reason: str = ""


def resting(state: BenchState, kind: WorkCode, now: datetime) -> Rest | None:
    """What a work waits for, whether or not this visit's course has its step."""
    rests = [_wait(state, steps()[step], newest_mark(state.marks, step), now) for step in steps_for(kind)]
    return max((rest for rest in rests if rest is not None), key=lambda rest: rest.until, default=None)


def rest_at(state: BenchState, step: StepCode, now: datetime) -> Rest | None:
    """Until when a step rests, and why; None where it does not."""
    return _wait(state, steps()[step], newest_mark(state.marks, step), now)


def _was_ended(marks: Sequence[CourseMark], wait: Wait, work: int) -> bool:
    """Whether somebody said of one of its steps that it need not wait after that work."""
    newest = [mark for step in wait.steps if (mark := newest_mark(marks, step)) is not None]
    return any(mark.mark == "go_on" and mark.after_work >= work for mark in newest)


def _wait(state: BenchState, step: Step, mark: CourseMark | None, now: datetime) -> Rest | None:
    """Until when a step rests, and why; None where it does not, or no longer."""
    found: list[Rest] = []
    for row in waits().get(step.step, ()):
        work = next((w for w in reversed(state.standing_works) if w.work == row.work), None)
        if work is not None and not _was_ended(state.marks, row, work.number):
            found.append(Rest(work.done_at + timedelta(hours=row.hours), step.step, after=row.work))
    if mark is not None and mark.mark == "wait" and mark.until is not None:
        found.append(Rest(mark.until, step.step, reason=mark.reason))
    return max((rest for rest in found if rest.until > now), key=lambda rest: rest.until, default=None)
