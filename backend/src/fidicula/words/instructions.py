"""The instruction in words: title, reason, at most three steps, and the caution where the risk is."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from fidicula.codes import WorkCode
from fidicula.domain.visits import UNREADABLE
from fidicula.domain.work_details import PostSet
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.damage import damage_marks
from fidicula.judgement.assessment.thresholds import strings_in_band
from fidicula.judgement.instruction.model import Instruction
from fidicula.numerals import short
from fidicula.tables.rows import row_of
from fidicula.tables.sound import act_choices
from fidicula.tables.work import works
from fidicula.tables.workflow import instructions, steps, waits
from fidicula.words.measuring import instruction_label, measure, to_aim
from fidicula.words.model import Phrase
from fidicula.words.names import key_name, key_names, sign_name
from fidicula.words.numbers import answered, day_and_clock, listed, lower_first, sentence
from fidicula.words.parts import label_of, part_words
from fidicula.words.slips import slip_phrase
from fidicula.words.works import (
    cut_crown,
    dress_board,
    file_nut,
    file_slots,
    fill_slot,
    fit_wedge,
    lower_crown,
    mark_line,
    move_bridge,
    move_tailpiece,
    new_bridge,
    recut_slots,
    reset_neck,
    set_bridge,
    set_post,
    string_up,
    turn_wheels,
)

Build = Callable[[Assessment, Instruction], Phrase]


def phrase(a: Assessment, found: Instruction) -> Phrase:
    """An instruction in words."""
    build = _PHRASES.get(found.code, _plain)
    said = build(a, found)
    return Phrase(said.title, [*_reasons(a, found), *said.says, *_overruled(a)], said.do, caution_of(found, a))


_LETS_GO = frozenset({"strings_changed", "tension_let_off", "tailgut_changed", "tailpiece_fitted", "saddle_fitted"})
"""Works as which strings slacken."""
_UNDER_TENSION = frozenset({"full", "middle_slack"})


def caution_of(found: Instruction, a: Assessment | None = None) -> str | None:
    """The danger of what is to be done, and its remedy; None where there is none, or nothing is done."""
    row = instructions()[found.code]
    work = row.records or row.careful
    danger = None if work is None else works()[work].danger
    if a is None or work not in _LETS_GO:
        return danger
    set_last = next((w for w in reversed(a.state.standing_works) if w.work == "post_set"), None)
    if set_last is None or not isinstance(set_last.detail, PostSet) or set_last.detail.tension not in _UNDER_TENSION:
        return danger
    how = act_choices()["tension"][set_last.detail.tension]
    return f"{danger or ''} The post was set {how}: it may fall as they slacken.".strip()


def open_visit_words() -> dict[str, str]:
    """What the rail calls each instruction, each work done, and each step and question that is waited for."""
    from fidicula.tables.workflow import questions

    found: dict[str, str] = {row.instruction: row.label for row in instructions().values()}
    found[UNREADABLE] = "cannot be read"
    found |= {step.step: step.label.lower() for step in steps().values()}
    found |= {f"done:{row.work}": row.done_label for row in works().values()}
    found |= {f"do_planned:{row.work}": row.label.lower() for row in works().values()}
    for deciding in questions().values():
        found[f"decide:{deciding.question}"] = f"{deciding.short.lower()}?"
        found[deciding.question] = deciding.short.lower()
    return found


def _reasons(a: Assessment, found: Instruction) -> list[str]:
    """What led here, where it was a question."""
    asked = found.question
    if asked is None or found.code == "decide":
        return []
    option = next((row for row in asked.deciding.outcomes if row.outcome == found.option), None)
    if option is None:
        return []
    if found.is_decided and asked.decision is not None:
        return [answered(asked.deciding.title, f"decided by {asked.decision.decided_by}.")]
    return [sentence(listed([sign_name(sign) for sign in asked.because]))]


def _overruled(a: Assessment) -> list[str]:
    """What was decided past a gate, or against what the signs speak for, with its reason."""
    return [
        answered(asked.deciding.title, f"{asked.outcome.label}, {asked.decision.decided_by}: {asked.decision.reason}")
        for asked in a.questions
        if asked.outcome is not None and asked.decision is not None and asked.decision.reason
    ]


def _plain(a: Assessment, found: Instruction) -> Phrase:
    """By the option that led here, else by the step."""
    option = None
    if found.question is not None:
        option = next((row for row in found.question.deciding.outcomes if row.outcome == found.option), None)
    if option is not None:
        return Phrase(option.label, [option.says], [])
    step = row_of(steps(), found.stop)
    return Phrase(instruction_label(found.code), [] if step is None else [sentence(step.why)], [])


def _handed_over(_a: Assessment, _found: Instruction) -> Phrase:
    return Phrase("Handed over", [], [])


def _hand_over(a: Assessment, _found: Instruction) -> Phrase:
    left_open = [part for part in a.parts if part.is_open]
    what = "Strings in band" if left_open else "In band"
    title = f"{what}: ready to hand over" if strings_in_band(a.state, a.cut) else "Ready to hand over"
    says = [f"{label_of(part.part, a.state.instrument.family)} {part_words(part, a.state)}." for part in left_open]
    return Phrase(title, ["Every step of this visit is done or skipped.", *says, *to_aim(a)], [])


def _do_planned(_a: Assessment, found: Instruction) -> Phrase:
    planned = works()[found.planned].label if found.planned else ""
    return Phrase(
        f"Next on the plan: {lower_first(planned)}",
        ["The plan says what it takes, and whether the owner has approved it."],
        [],
    )


def _name_strings(_a: Assessment, _found: Instruction) -> Phrase:
    return Phrase(
        "Choose the strings",
        ["Slots and spacing depend on the strings' diameters.", "Inspection and the single lengths need no strings."],
        ["Choose the set that is on it, or enter its diameters."],
    )


def _enter_figures(_a: Assessment, found: Instruction) -> Phrase:
    return Phrase(
        "No figure for this instrument",
        [f"No figure for {listed(list(found.missing))}. Nothing is scaled from another size."],
        ["Enter the figure, take the reading, or choose a school that has figures."],
    )


def _check_shape(a: Assessment, _found: Instruction) -> Phrase:
    return Phrase("This shape cannot be", [impossible_words(a)], ["Measure it again."])


def impossible_words(a: Assessment) -> str:
    """Which reading makes the shape impossible."""
    wrong = a.impossible
    if wrong is None:
        return ""
    said = sentence(wrong.says)
    if wrong.measure is not None and wrong.value is not None:
        origin = "assumed from the shop's figures" if wrong.is_assumed else "measured"
        name = key_name(a.state.instrument, (wrong.measure, None))
        return f"{said} Check the {name}: {short(wrong.value)} mm, {origin}."
    if wrong.measure == "bridge_spread":
        return f"{said} Check the spread at the bridge and the board's radius, or choose another crown."
    return said


def _check_readings(a: Assessment, found: Instruction) -> Phrase:
    return slip_phrase(a, found)


def _decide(a: Assessment, found: Instruction) -> Phrase:
    asked = found.question
    assert asked is not None
    says = [sentence(listed([sign_name(sign) for sign in asked.because])), sentence(asked.deciding.says)]
    do = [] if asked.recommended is None else [f"Recommended: {lower_first(asked.recommended.label)}."]
    return Phrase(f"Decide: {lower_first(asked.deciding.title)}", says, do)


def _wait(a: Assessment, found: Instruction) -> Phrase:
    until = "" if found.until is None else f" until {day_and_clock(found.until)}"
    asked = found.question
    if asked is not None:
        label = "Wait" if asked.outcome is None else asked.outcome.label
        says = [] if asked.outcome is None else [asked.outcome.says]
        return Phrase(f"{label}{until}", says, [])
    step, after = row_of(steps(), found.stop), works().get(found.waits_after) if found.waits_after else None
    name = "This step" if step is None else step.label
    title = f"{name} waits{until}" if after is None else f"{after.label}: let it rest{until}"
    return Phrase(title, [sentence(wait_words(found.stop, found.waits_after, found.reason))], [])


def wait_words(step: str, after: str, reason: str) -> str:
    """What a step waits for: a work before it, or what somebody said."""
    row = next((row for row in waits().get(step, ()) if row.work == after), None)
    return reason if row is None else row.says


def _baseline(a: Assessment, found: Instruction) -> Phrase:
    names = key_names(a.state.instrument, found.keys)
    return Phrase(f"Measure {listed(names[:2])}", [sentence(steps()["baseline"].why)],
                  [f"Then {listed(names[2:])}."] if len(names) > 2 else [])  # fmt: skip


def _settle(a: Assessment, found: Instruction) -> Phrase:
    return Phrase("Check again after settling", [sentence(steps()["rest"].why)], [])


def _inspect(a: Assessment, found: Instruction) -> Phrase:
    stop = next((one for one in a.stops if one.key == "look"), None)
    left = "" if stop is None or not stop.count else f"{stop.count} {'item' if stop.count == 1 else 'items'} left"
    return Phrase("Inspect the instrument", [sentence(left)] if left else [], [])


def _see_damage(a: Assessment, found: Instruction) -> Phrase:
    marks = [mark for mark in damage_marks(a.state.damage) if mark.is_worked_on]
    places = listed([mark.kind.label for mark in marks])
    return Phrase("Look at the damage again", [sentence(f"worked on since it was last seen: {places}")], [])


_PHRASES: Mapping[str, Build] = {
    "handed_over": _handed_over,
    "hand_over": _hand_over,
    "do_planned": _do_planned,
    "name_strings": _name_strings,
    "enter_figures": _enter_figures,
    "check_shape": _check_shape,
    "check_readings": _check_readings,
    "decide": _decide,
    "wait": _wait,
    "measure": measure,
    "baseline": _baseline,
    "inspect": _inspect,
    "see_damage": _see_damage,
    "mark_line": mark_line,
    "cut_crown": cut_crown,
    "file_slots": file_slots,
    "lower_crown": lower_crown,
    "file_nut": file_nut,
    "turn_wheels": turn_wheels,
    "fit_wedge": fit_wedge,
    "reset_neck": reset_neck,
    "dress_board": dress_board,
    "new_bridge": new_bridge,
    "recut_slots": recut_slots,
    "move_tailpiece": move_tailpiece,
    "move_bridge": move_bridge,
    "set_bridge": set_bridge,
    "string_up": string_up,
    "set_post": set_post,
    "refit_post": set_post,
    "fill_slot": fill_slot,
    "new_nut": fill_slot,
    "settle": _settle,
}


def record_label(work: WorkCode) -> str:
    """What the button says that writes a work down."""
    return "" if not work else f"Record: {works()[work].label.lower()}"
