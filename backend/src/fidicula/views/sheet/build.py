"""The whole sheet, from the assessment and the instruction of one instrument."""

from __future__ import annotations

from datetime import date
from typing import Literal

from fidicula.codes import WorkCode
from fidicula.domain.instruments import Instrument
from fidicula.domain.strings import StringSet
from fidicula.domain.visits import Visit
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.columns import columns
from fidicula.judgement.assessment.deadline import no_risk_from
from fidicula.judgement.assessment.slips import last_reading
from fidicula.judgement.instruction.instruct import instruct
from fidicula.judgement.instruction.model import Instruction
from fidicula.judgement.measures import MEASURES
from fidicula.judgement.targets.rules import Rules
from fidicula.tables.schools import school
from fidicula.tables.workflow import visit_kinds
from fidicula.views.sheet.cells import cells
from fidicula.views.sheet.drawing import drawing
from fidicula.views.sheet.model import (
    BenchSheet,
    CutView,
    InstrumentView,
    Notice,
    PartView,
    ProblemView,
    RecipeLine,
    SetView,
    StringOn,
)
from fidicula.views.sheet.questions import question_views
from fidicula.views.sheet.stops import stop_views
from fidicula.views.sheet.told import AmountView, InstructionView, RecordView, SlipView, ToReadView
from fidicula.words.cut import assumed_words
from fidicula.words.deadline import heed
from fidicula.words.findings import found_words
from fidicula.words.following import source_words
from fidicula.words.inspection import proposals
from fidicula.words.instructions import impossible_words, phrase, record_label
from fidicula.words.parts import label_of, part_mark, part_words
from fidicula.words.resting import rests_words
from fidicula.words.slips import slip_words
from fidicula.words.undoing import undoable


def sheet_of(a: Assessment, rules: Rules, told: Instruction | None = None) -> BenchSheet:
    """The sheet of an assessment. told : its instruction, where that is known already."""
    found, state = told or instruct(a), a.state
    return BenchSheet(
        instrument=_instrument_view(state.instrument, a.visit, a.now.astimezone().date()),
        strings=_set_view(state.string_set),
        last_work=state.last_work,
        cells=cells(state, a.cut),
        wanted_heights=_wanted_heights(a, rules),
        recipe=_recipe_line(state.instrument, rules),
        cut=CutView(found.cut_role, a.cut.state, list(a.cut.strings), assumed_words(a)),
        instruction=instruction_view(a, found),
        questions=question_views(a),
        proposals=proposals(state),
        notices=[
            Notice(slip_words(a, slip), slip.subject if slip.act == "check_tool" else "")
            for slip in a.slips
            if not slip.stops and not (slip.act == "check_tool" and a.visit.closed_at)
        ],
        findings=found_words(state),
        problem=_problem(a),
        drawing=None if a.computed is None else drawing(state, a.computed),
        parts=[
            PartView(
                one.part,
                label_of(one.part, state.instrument.family),
                one.state,
                part_mark(one, found),
                part_words(one, a.state),
                bool(one.done),
                one.is_open,
            )
            for one in a.parts
        ],
        course=stop_views(a),
        undoable=undoable(state, a.visit.opened_at),
        rests=rests_words(a),
    )


def _wanted_heights(a: Assessment, rules: Rules) -> list[float | None]:
    if _at_mark(a.state.instrument, rules):
        return [one.target_mark for one in a.cut.strings]
    column = columns(a.state)["end_height"]
    ends = [one.target_end for one in a.cut.strings]
    return [None if end is None else column.value(a.state, i, end, "vertical")[0] for i, end in enumerate(ends)]


def _at_mark(instrument: Instrument, rules: Rules) -> bool:
    return rules.chosen(instrument.choice)["height_reference"] == "bridge_mark"


def instruction_view(a: Assessment, found: Instruction) -> InstructionView:
    said = phrase(a, found)
    slip = found.slip
    ids = [] if slip is None else [last_reading(a.state, key) for key in slip.keys]
    return InstructionView(
        code=found.code,
        part=found.part,
        stop=found.stop,
        title=said.title,
        says=said.says,
        do=said.do,
        caution=said.caution,
        record=_record(found.records),
        also=[RecordView(work, record_label(work)) for work in found.also],
        question=found.question.question if found.code == "decide" and found.question is not None else "",
        until=found.until,
        makes_stale=[MEASURES[measure].label for measure in found.makes_stale if measure in MEASURES],
        slip=None if slip is None else SlipView(slip.code, slip.act, [str(one.id) for one in ids if one is not None]),
        amounts=[AmountView(one.name, one.value, one.position, one.side, one.uncertainty) for one in found.amounts],
        read=[ToReadView(*key, found.times.get(key, 1)) for key in found.keys],
        repeats=found.repeats,
    )


def _record(work: WorkCode | Literal[""]) -> RecordView | None:
    return RecordView(work, record_label(work)) if work else None


def _problem(a: Assessment) -> ProblemView | None:
    if a.impossible is None:
        return None
    return ProblemView(sentence=impossible_words(a), measure=a.impossible.measure, position=None)


def _instrument_view(instrument: Instrument, visit: Visit, today: date) -> InstrumentView:
    return InstrumentView(
        ticket=instrument.ticket,
        family=instrument.family,
        size=instrument.size,
        string_names=list(instrument.string_names),
        left_handed=instrument.left_handed,
        opposite_build=instrument.opposite_build,
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
    own += [source_words(measure, source) for measure, source in choice.sources.items()]
    name = choice.recipe if choice.recipe in rules.recipes else None
    return RecipeLine(name or rules.shop_recipe, own, heights_at_mark=_at_mark(instrument, rules))
