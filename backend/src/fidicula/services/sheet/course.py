"""The course of a visit: its steps, the questions that bar them, what waits, and what is next."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta

from fidicula.core.work.course import StopFacts, StopState, stop_states
from fidicula.db.records import CourseMark, Visit
from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.model import Cell, CutView, NextView, Stop
from fidicula.services.sheet.questions import Asked
from fidicula.services.sheet.seen import left_blank
from fidicula.services.sheet.thresholds import WORTH_FILING, WORTH_TAKING, outer_in_band
from fidicula.tables.course import Deciding, Step, steps, visit_kinds, waits
from fidicula.tables.work import works as work_rows

_NEEDS_NO_STRINGS = frozenset({"strings", "baseline", "change", "rest", "look"})
_USUAL_KIND = "bridge"
_LETS_GO = steps()["baseline"].lost_after


@dataclass(frozen=True)
class _Place:
    """One stop before its state is known."""

    key: str
    label: str
    note: str
    says: str
    until: datetime | None
    facts: StopFacts
    is_question: bool = False
    is_decided: bool = False
    by_hand: bool = False
    mark_id: str | None = None


def course_of(
    state: BenchState,
    visit: Visit,
    card: Sequence[Cell],
    cut: CutView,
    asked: Sequence[Asked],
    chosen: dict[str, str],
    *,
    now: datetime,
) -> list[Stop]:
    """The stopped places of this visit. chosen : the shop's school for each question, its order of work among them."""
    keys = _ordered(visit.kind, chosen)
    signs = _bench_signs(state, visit.kind, card, cut, asked, keys)
    barring = [one for one in asked if one.deciding.bars]
    places: list[_Place] = []
    for key in keys:
        if key not in steps():
            places += [_question_place(one, now) for one in barring if one.deciding.question == key]
            continue
        step = steps()[key]
        there = {place.key for place in places}
        places += [
            _question_place(one, now)
            for one in barring
            if _stands_before(one.deciding, step, keys) and one.deciding.question not in there
        ]
        places.append(_step_place(state, step, signs, barring, card, visit.kind, now))
    states = stop_states([place.facts for place in places])
    return [_stop(place, at) for place, at in zip(places, states, strict=True)]


def _stands_before(deciding: Deciding, step: Step, keys: Sequence[str]) -> bool:
    """Whether a question has its stop before a step: where its row says, or before the first step that it bars."""
    if deciding.question in keys:
        return False
    first_barred = bool(deciding.bars & step.works) and deciding.before not in keys
    barred_here = any(deciding.bars & steps()[key].works for key in keys if key in steps())
    return first_barred or (deciding.before == step.step and barred_here)


def _stop(place: _Place, at: StopState) -> Stop:
    return Stop(
        key=place.key,
        label=place.label,
        note=place.note,
        state=at,
        says=place.says,
        until=place.until if at == "waiting" else None,
        is_question=place.is_question,
        is_decided=place.is_decided,
        by_hand=place.by_hand,
        mark_id=place.mark_id,
    )


def _ordered(kind: str, chosen: dict[str, str]) -> list[str]:
    """The stops of a kind of visit, in the order of the shop's recipe; habits move, gates do not."""
    keys = visit_kinds().get(kind, visit_kinds()[_USUAL_KIND]).stops.split()
    for step, question, after in (("nut", "nut_order", "crown"), ("post", "post_order", "again")):
        if chosen.get(question) == "bridge_first" and step in keys and after in keys:
            keys.remove(step)
            keys.insert(keys.index(after) + 1, step)
    return keys


def _bench_signs(
    state: BenchState, kind: str, card: Sequence[Cell], cut: CutView, asked: Sequence[Asked], keys: Sequence[str]
) -> set[str]:
    """How far the bench has come, by the names of `BENCH_SIGNS`."""
    done = {work.work for work in state.standing_works}
    barred = any(one.bars("crown_cut") for one in asked)
    heights_hold = all(cell.state == "taken" for cell in card if cell.measure == "end_height")
    nut_holds = all(cell.state == "taken" for cell in card if cell.measure == "nut_height")
    right = (
        not barred
        and cut.state == "firm"
        and (outer_in_band(state) or all(s.wood is not None and abs(s.wood) < WORTH_TAKING for s in cut.strings))
    )
    shown = {
        "strings_known": state.string_set is not None,
        "card_full": all(cell.state == "taken" for cell in card if cell.on_card),
        "crown_was_cut": "crown_cut" in done,
        "crown_right": right,
        "nut_right": nut_holds and all((s.nut_to_file or 0.0) < WORTH_FILING for s in cut.strings),
        "heights_again": (bool({"crown_cut", "strings_changed"} & done) and heights_hold)
        or (right and "change" not in keys),
        "baseline_read": _baseline_was_read(state),
        "all_looked_at": not left_blank(state, kind),
    }
    return {sign for sign, shows in shown.items() if shows}


def _baseline_was_read(state: BenchState) -> bool:
    """Whether heights, projection and string length were read before the first work that touches them."""
    first = min((work.number for work in state.standing_works if work.work in _LETS_GO), default=None)
    read = {
        (reading.measure, reading.position)
        for reading in (*state.readings, *state.projections)
        if first is None or (reading.after_work or 0) < first
    }
    wanted = {*(("end_height", i) for i in range(state.count)), ("projection", None), ("string_length", None)}
    return wanted <= read


def _question_place(asked: Asked, now: datetime) -> _Place:
    until, outcome = asked.waits_until, asked.outcome
    return _Place(
        key=asked.deciding.question,
        label=asked.deciding.short,
        note=outcome.label.lower() if outcome is not None else "to decide",
        says=outcome.says if outcome is not None else asked.deciding.says,
        until=until,
        facts=StopFacts(done=asked.is_open, waits=until is not None and until > now),
        is_question=True,
        is_decided=outcome is not None,
    )


def _step_place(
    state: BenchState,
    step: Step,
    signs: set[str],
    barring: Sequence[Asked],
    card: Sequence[Cell],
    kind: str,
    now: datetime,
) -> _Place:
    numbers = {work.work: work.number for work in state.standing_works}
    redone = max((numbers.get(work, 0) for work in step.redone_after), default=0)
    worked = max((numbers.get(work, 0) for work in step.works), default=0)
    mark = newest_mark(state.marks, step.step)
    said = mark.mark if mark is not None and mark.after_work >= redone else ""
    shows = step.done_when.holds(signs)
    until, because = _wait(state, step, mark, now)
    note = _note(state, step, card, kind)
    lost = not shows and any(numbers.get(work) for work in step.lost_after)
    if lost:
        note = "not taken"
    if redone > worked and not shows and redone and said != "done":
        name = next(work for work in state.standing_works if work.number == redone).work
        note = f"since {work_rows()[name].done_label}"
    return _Place(
        key=step.step,
        label=step.label,
        note=note,
        says=because or step.why,
        until=until,
        facts=StopFacts(
            done=said == "done" or worked > redone or shows,
            passed=lost or (mark is not None and mark.mark == "passed"),
            waits=until is not None,
            barred=(state.string_set is None and step.step not in _NEEDS_NO_STRINGS)
            or any(one.deciding.bars & step.works and not one.is_open for one in barring),
        ),
        by_hand=(not step.works and not step.done_when.alternatives) or step.step == "post",
        mark_id=None if mark is None else str(mark.id),
    )


def newest_mark(marks: Sequence[CourseMark], step: str) -> CourseMark | None:
    """What was said of a step last."""
    return next((mark for mark in reversed(marks) if mark.step == step and not mark.taken_back), None)


def _note(state: BenchState, step: Step, card: Sequence[Cell], kind: str) -> str:
    if step.step == "strings":
        return state.string_set.name if state.string_set else ""
    if step.step == "measure":
        needed = [cell for cell in card if cell.on_card]
        return f"{sum(cell.state == 'taken' for cell in needed)} of {len(needed)}"
    if step.step == "look":
        blank = len(left_blank(state, kind))
        return f"{blank} blank" if blank else ""
    if step.step == "again":
        stale = sum(cell.state == "stale" for cell in card)
        return f"{stale} stale" if stale else ""
    return ""


def _wait(state: BenchState, step: Step, mark: CourseMark | None, now: datetime) -> tuple[datetime | None, str]:
    """Until when a step rests and why; None where it does not, or no longer."""
    found: list[tuple[datetime, str]] = []
    for row in waits().get(step.step, ()):
        work = next((w for w in reversed(state.standing_works) if w.work == row.work), None)
        if work is None or (mark is not None and mark.mark == "go_on" and mark.after_work >= work.number):
            continue
        found.append((work.done_at + timedelta(hours=row.hours), row.says))
    if mark is not None and mark.mark == "wait" and mark.until is not None:
        found.append((mark.until, mark.reason))
    still = [entry for entry in found if entry[0] > now]
    return max(still, key=lambda entry: entry[0]) if still else (None, "")


def next_of(course: Sequence[Stop], asked: Sequence[Asked], visit: Visit) -> NextView:
    """What is next, and why."""
    if visit.closed_at is not None:
        return NextView("", "It was handed over", "", None)
    here = next((stop for stop in course if stop.state == "here"), None)
    if here is not None:
        question = next((one for one in asked if one.deciding.question == here.key), None)
        if not here.is_question or question is None:
            return NextView(here.key, here.label, here.says, None)
        if question.outcome is None:
            return NextView(here.key, f"Decide: {question.deciding.title}", question.deciding.says, None)
        return NextView(here.key, question.outcome.label, question.outcome.says, None)
    waiting = [stop for stop in course if stop.state == "waiting" and stop.until is not None]
    if waiting:
        first = min(waiting, key=lambda stop: stop.until or datetime.max)
        return NextView(first.key, f"{first.label} waits", first.says, first.until)
    barred = next((stop for stop in course if stop.state == "barred"), None)
    if barred is not None:
        return NextView(barred.key, f"{barred.label} is barred", barred.says, None)
    return NextView("", "Hand it over", "Every step of this visit is done or passed over.", None)
