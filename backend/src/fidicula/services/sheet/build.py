"""The whole sheet, from the records of one instrument."""

from __future__ import annotations

from datetime import UTC, datetime

from fidicula.db.records import Instrument, StringSet, Visit
from fidicula.services.measures import said_of_all
from fidicula.services.sheet.cells import cells
from fidicula.services.sheet.cut import Computed, compute, cut_view
from fidicula.services.sheet.drawing import drawing
from fidicula.services.sheet.gate import gate_view, to_measure_again
from fidicula.services.sheet.heed import heed, no_risk_from
from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.model import (
    BenchSheet,
    Cell,
    CutView,
    GateView,
    InstrumentView,
    ProblemView,
    RecipeLine,
    SetView,
    Stop,
    StringOn,
    Undoable,
)
from fidicula.services.sheet.whys import whys
from fidicula.services.sheet.words import WORTH_FILING, WORTH_TAKING, outer_in_band, words
from fidicula.services.targets.rules import Rules
from fidicula.services.targets.sources import SOURCE_WORDS
from fidicula.tables.schools import school
from fidicula.tables.work import visit_kinds
from fidicula.tables.work import works as work_rows


def build_sheet(state: BenchState, visit: Visit, rules: Rules) -> BenchSheet:
    """Everything that the bench sheet shows, computed anew from the log."""
    instrument = state.instrument
    outcome = compute(state)
    problem = outcome if isinstance(outcome, ProblemView) else None
    computed = outcome if isinstance(outcome, Computed) else None
    cut = cut_view(state, computed)
    card = cells(state)
    gate, again = gate_view(state), to_measure_again(state)
    return BenchSheet(
        instrument=_instrument_view(instrument, visit),
        strings=_set_view(state.string_set),
        last_work=state.last_work,
        cells=card,
        recipe=_recipe_line(instrument, rules),
        cut=cut,
        gate=gate,
        measure_again=[state.name(place) for place in again],
        problem=problem,
        drawing=drawing(state, computed) if computed is not None else None,
        words=words(state, cut, problem, computed),
        whys=whys(state, computed),
        course=_course(state, card, cut, gate, visit.kind),
        undoable=_undoable(state, visit.opened_at),
        may_cut=(gate is None or gate.is_open)
        and not again
        and any(s.wood is not None and s.wood >= WORTH_TAKING for s in cut.strings),
        may_file_nut=any((s.nut_to_file or 0.0) >= WORTH_FILING for s in cut.strings),
    )


def _instrument_view(instrument: Instrument, visit: Visit) -> InstrumentView:
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
        heed=heed(instrument, visit, today=datetime.now(UTC).astimezone().date()),
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


def _course(state: BenchState, card: list[Cell], cut: CutView, gate: GateView | None, kind: str) -> list[Stop]:
    """The stopped places of this visit, as far as the bench sheet goes."""
    barred = gate is not None and not gate.is_open
    heights = [cell for cell in card if cell.measure == "end_height"]
    taken = sum(cell.state == "taken" for cell in card)
    stale = sum(cell.state == "stale" for cell in card)
    was_cut = any(work.work == "crown_cut" for work in state.standing_works)
    settled = (
        not barred
        and cut.state == "firm"
        and (outer_in_band(state) or all(s.wood is not None and abs(s.wood) < WORTH_TAKING for s in cut.strings))
    )
    strings_known = state.string_set is not None
    measured = all(cell.state == "taken" for cell in card)
    stops = [
        ("strings", "Strings", state.string_set.name if state.string_set else "", strings_known),
        ("measure", "Measure", f"{taken} of {len(card)}", measured or was_cut),
        *_projection_stop(gate),
        (
            "crown",
            "Crown",
            cut.state if cut.state == "provisional" and not was_cut else "",
            was_cut or settled,
        ),
        (
            "again",
            "Heights again",
            f"{stale} stale" if stale else "",
            ((was_cut or kind == "strings") and all(cell.state == "taken" for cell in heights)) or settled,
        ),
        ("settled", "In band", "", settled),
    ]
    of_kind = visit_kinds().get(kind, visit_kinds()["bridge"]).stops.split()
    stops = [stop for stop in stops if stop[0] in of_kind or (stop[0] == "projection" and "crown" in of_kind)]
    course: list[Stop] = []
    here_found = False
    for key, label, note, done in stops:
        if done:
            course.append(Stop(key, label, note, "done"))
        elif not here_found:
            here_found = True
            course.append(Stop(key, label, note, "here"))
        else:
            free = strings_known and not (barred and key == "crown")
            course.append(Stop(key, label, note, "ahead" if free else "barred"))
    return course


def _projection_stop(gate: GateView | None) -> list[tuple[str, str, str, bool]]:
    """A stop of its own only where the projection is out."""
    if gate is None:
        return []
    return [("projection", "Projection", gate.decided.label.lower() if gate.decided else "to decide", gate.is_open)]


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
    choice = state.instrument.choice
    if choice.id is not None and choice.chosen_at is not None and choice.chosen_at >= since:
        found.append((choice.chosen_at, Undoable("choice", str(choice.id), "the choice of recipe")))
    return max(found, key=lambda entry: entry[0])[1] if found else None
