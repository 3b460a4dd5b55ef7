"""The whole sheet, from the records of one instrument."""

from __future__ import annotations

from datetime import UTC, date, datetime

from fidicula.db.records import Instrument, StringSet, Visit
from fidicula.services.measures import said_of_all
from fidicula.services.sheet.asks import asks
from fidicula.services.sheet.cells import cells
from fidicula.services.sheet.course import course_of, next_of
from fidicula.services.sheet.cut import Computed, compute, cut_view
from fidicula.services.sheet.drawing import drawing
from fidicula.services.sheet.findings import findings
from fidicula.services.sheet.heed import heed, no_risk_from
from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.model import (
    AskedView,
    BenchSheet,
    CutView,
    InstrumentView,
    ProblemView,
    RecipeLine,
    SetView,
    StringOn,
    Undoable,
)
from fidicula.services.sheet.projection import judged_projection
from fidicula.services.sheet.questions import Asked, asked_questions, question_views, to_measure_again
from fidicula.services.sheet.seen import proposals
from fidicula.services.sheet.signs import signs_of
from fidicula.services.sheet.thresholds import WORTH_FILING, WORTH_TAKING
from fidicula.services.sheet.whys import whys
from fidicula.services.sheet.words import words
from fidicula.services.targets.rules import Rules
from fidicula.services.targets.sources import SOURCE_WORDS
from fidicula.tables.course import steps, visit_kinds
from fidicula.tables.schools import school
from fidicula.tables.work import works as work_rows

MARK_WORDS = {"done": "done", "passed": "passed over", "wait": "waits", "go_on": "waits no longer"}


def build_sheet(state: BenchState, visit: Visit, rules: Rules, *, now: datetime | None = None) -> BenchSheet:
    """Everything that the bench sheet shows, computed anew from the log. now : None for the clock's."""
    instrument, now = state.instrument, now or datetime.now(UTC)
    today = now.astimezone().date()
    outcome = compute(state)
    problem = outcome if isinstance(outcome, ProblemView) else None
    computed = outcome if isinstance(outcome, Computed) else None
    cut = cut_view(state, computed)
    card = cells(state)
    projection = judged_projection(state)
    asked = asked_of(state, visit, cut, today=today)
    course = course_of(state, visit, card, cut, asked, rules.chosen(instrument.choice), now=now)
    again = to_measure_again(state)
    barred = any(one.bars("crown_cut") for one in asked)
    return BenchSheet(
        instrument=_instrument_view(instrument, visit, today),
        strings=_set_view(state.string_set),
        last_work=state.last_work,
        cells=card,
        recipe=_recipe_line(instrument, rules),
        cut=cut,
        questions=question_views(asked, projection),
        proposals=proposals(state),
        crown_barred=barred,
        asks=asks(state, rules.tool_checks, now=now),
        findings=findings(state),
        measure_again=[state.name(place) for place in again],
        problem=problem,
        drawing=drawing(state, computed) if computed is not None else None,
        words=words(state, cut, problem, computed, asked),
        whys=whys(state, computed),
        course=course,
        next=next_of(course, asked, visit),
        undoable=_undoable(state, visit.opened_at),
        may_cut=not barred and not again and any(s.wood is not None and s.wood >= WORTH_TAKING for s in cut.strings),
        may_file_nut=any((s.nut_to_file or 0.0) >= WORTH_FILING for s in cut.strings),
    )


def asked_of(state: BenchState, visit: Visit, cut: CutView, *, today: date) -> list[Asked]:
    """The questions that are asked of an instrument now. today : where the shop is."""
    projection = judged_projection(state)
    return asked_questions(state, signs_of(state, visit, cut, projection[2] if projection else None, today=today))


def questions_of(state: BenchState, visit: Visit, *, today: date) -> list[AskedView]:
    """The questions as the sheet shows them. today : where the shop is."""
    outcome = compute(state)
    cut = cut_view(state, outcome if isinstance(outcome, Computed) else None)
    return question_views(asked_of(state, visit, cut, today=today), judged_projection(state))


def _instrument_view(instrument: Instrument, visit: Visit, today: date) -> InstrumentView:
    return InstrumentView(
        ticket=instrument.ticket,
        family=instrument.family,
        size=instrument.size,
        string_names=list(instrument.string_names),
        left_handed=instrument.left_handed,
        is_new=instrument.is_new,
        owner=instrument.owner,
        description=instrument.description,
        complaint=visit.complaint,
        visit_id=str(visit.id),
        visit_kind=visit.kind,
        visit_label=visit_kinds()[visit.kind].label if visit.kind in visit_kinds() else visit.kind,
        handed_over_at=visit.closed_at,
        handed_over_by=visit.closed_by,
        climate=visit.climate,
        deadline=visit.deadline,
        no_risk_from=no_risk_from(visit),
        promised=visit.promised,
        asked=dict(instrument.asked),
        freeze_days=visit.freeze_days,
        is_fleet=instrument.is_fleet,
        heed=heed(instrument, visit, today=today),
    )


def _set_view(string_set: StringSet | None) -> SetView | None:
    if string_set is None:
        return None
    return SetView(
        id=str(string_set.id),
        name=string_set.name,
        material=string_set.material,
        strings=[StringOn(string.name, string.diameter) for string in string_set.strings],
    )


def _recipe_line(instrument: Instrument, rules: Rules) -> RecipeLine:
    chosen, choice = rules.chosen(instrument.choice), instrument.choice
    own = [
        row.label
        for question, name in chosen.items()
        if rules.recipe(choice).get(question) != name and (row := school(question, name)) is not None
    ]
    own += [
        f"{said_of_all(measure)} {SOURCE_WORDS[source['from']].format(of=source.get('of', ''))}"
        for measure, source in choice.sources.items()
    ]
    name = choice.recipe if choice.recipe in rules.recipes else None
    return RecipeLine(
        name=name or rules.shop_recipe, own=own, heights_at_mark=chosen["height_reference"] == "bridge_mark"
    )


def _undoable(state: BenchState, since: datetime) -> Undoable | None:
    """The newest reading, work, decision or choice of targets of this visit that stands."""
    found: list[tuple[datetime, Undoable]] = []
    reading = max((r for r in state.readings if not r.taken_back), key=lambda r: r.recorded_at, default=None)
    if reading is not None:
        words = f"{state.name((reading.measure, reading.position))} {reading.typed}"
        found.append((reading.recorded_at, Undoable("reading", str(reading.id), words)))
    work = max(state.standing_works, key=lambda w: w.done_at, default=None)
    if work is not None:
        found.append((work.done_at, Undoable("work", str(work.id), work_rows()[work.work].done_label)))
    decision = next((d for d in reversed(state.decisions) if not d.taken_back), None)
    if decision is not None and decision.decided_at is not None:
        found.append((decision.decided_at, Undoable("decision", str(decision.id), "the decision")))
    mark = next((m for m in reversed(state.marks) if not m.taken_back), None)
    if mark is not None and mark.made_at is not None and mark.step in steps():
        said = f"{steps()[mark.step].label} {MARK_WORDS[mark.mark]}"
        found.append((mark.made_at, Undoable("mark", str(mark.id), said)))
    line = next((entry for entry in reversed(state.seen) if not entry.taken_back), None)
    if line is not None and line.seen_at is not None:
        found.append((line.seen_at, Undoable("seen", str(line.id), f"what was seen: {line.item}")))
    choice = state.instrument.choice
    if choice.id is not None and choice.chosen_at is not None and choice.chosen_at >= since:
        found.append((choice.chosen_at, Undoable("choice", str(choice.id), "the choice of recipe")))
    return max(found, key=lambda entry: entry[0])[1] if found else None
