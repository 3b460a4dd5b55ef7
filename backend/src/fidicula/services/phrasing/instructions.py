"""The instruction in words: title, reason, at most three steps, and the caution where the risk is."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from fidicula.core.fitting.tailpiece import nearest_eighth
from fidicula.services.assessment.assess import Assessment
from fidicula.services.assessment.thresholds import WORTH_TAKING, outer_in_band
from fidicula.services.instruction.model import AmountName, Instruction
from fidicula.services.numbers import (
    answered,
    day_and_clock,
    listed,
    lower_first,
    number,
    rounded_down,
    sentence,
    short,
    to_take,
)
from fidicula.services.phrasing.model import Phrase
from fidicula.services.phrasing.names import key_name, key_names, sign_name
from fidicula.services.phrasing.slips import slip_phrase
from fidicula.tables.course import instructions, steps, waits
from fidicula.tables.schools import school
from fidicula.tables.work import works

CUT = "Cut in the vise, blade away from you. Too low cannot be put back."
FILE = "Stop 0.1 mm above the target, string up and measure again. Too low cannot be filed back."
WHEELS = "Two people. Turn a little on each wheel in turn, and watch that the bridge stays upright."
POST = "Strings slack, the setter off the f-hole's edge, no force: a post too tight cracks the top."
NECK = "Never on a swollen instrument. Read the projection twice, days apart, and the same."
BOARD = "Plane with the grain. Wear a mask: ebony dust is harmful."
TAIL = "Pad the top under the tailpiece. A falling tailpiece scratches it."

Build = Callable[[Assessment, Instruction], Phrase]


def phrase(a: Assessment, found: Instruction) -> Phrase:
    """An instruction in words."""
    build = _PHRASES.get(found.code, _plain)
    said = build(a, found)
    return Phrase(said.title, [*_reasons(a, found), *said.says, *_overruled(a)], said.do, said.caution)


def rail_words() -> dict[str, str]:
    """What the rail calls each instruction, and each step and question that is waited for."""
    from fidicula.tables.course import questions

    found = {row.instruction: row.label for row in instructions().values()}
    found |= {step.step: step.label.lower() for step in steps().values()}
    for deciding in questions().values():
        found[f"decide:{deciding.question}"] = f"{deciding.short.lower()}?"
        found[deciding.question] = deciding.short.lower()
    return found


def by_string(a: Assessment, found: Instruction, name: AmountName) -> dict[str, float]:
    """The amounts of a name, by the string's name."""
    names = a.state.instrument.string_names
    return {names[one.position]: one.value for one in found.amounts if one.name == name and one.position is not None}


def one(found: Instruction, name: AmountName) -> float | None:
    return next((amount.value for amount in found.amounts if amount.name == name), None)


def _label(code: str) -> str:
    return sentence(instructions()[code].label).rstrip(".")


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
        return Phrase(option.label, [option.says], [], None)
    step = steps().get(found.stop)
    return Phrase(_label(found.code), [] if step is None else [sentence(step.why)], [], None)


def _handed_over(_a: Assessment, _found: Instruction) -> Phrase:
    return Phrase("Handed over", [], [], None)


def _hand_over(a: Assessment, _found: Instruction) -> Phrase:
    title = "In band: ready to hand over" if outer_in_band(a.state) else "Ready to hand over"
    return Phrase(title, ["Every step of this visit is done or skipped.", *_to_aim(a)], [], None)


def _to_aim(a: Assessment) -> list[str]:
    """What it would take to reach the aim, where the strings stand in band; nothing that has to be done."""
    over = [f"{s.name} {to_take(s.wood)}" for s in a.cut.strings if s.wood is not None and s.wood >= WORTH_TAKING]
    if not over or not outer_in_band(a.state):
        return []
    return [f"In band. Only to reach the aim exactly, it would take {listed(over)} mm of wood."]


def _name_strings(_a: Assessment, _found: Instruction) -> Phrase:
    return Phrase(
        "Choose the strings",
        ["Slots and spacing depend on the strings' diameters.", "Inspection and the single lengths need no strings."],
        ["Choose the set that is on it, or enter its diameters."],
        None,
    )


def _enter_figures(_a: Assessment, found: Instruction) -> Phrase:
    return Phrase(
        "No figure for this instrument",
        [f"No figure for {listed(list(found.missing))}. Nothing is scaled from another size."],
        ["Enter the figure, take the reading, or choose a school that has figures."],
        None,
    )


def _check_shape(a: Assessment, _found: Instruction) -> Phrase:
    return Phrase("This shape cannot be", [impossible_words(a)], ["Measure it again."], None)


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
    return Phrase(f"Decide: {lower_first(asked.deciding.title)}", says, do, None)


def _wait(a: Assessment, found: Instruction) -> Phrase:
    until = "" if found.until is None else f" until {day_and_clock(found.until)}"
    asked = found.question
    if asked is not None:
        label = "Wait" if asked.outcome is None else asked.outcome.label
        says = [] if asked.outcome is None else [asked.outcome.says]
        return Phrase(f"{label}{until}", says, [], None)
    step = steps().get(found.stop)
    name = "This step" if step is None else step.label
    return Phrase(f"{name} waits{until}", [sentence(wait_words(found.stop, found.waits_after, found.reason))], [], None)


def wait_words(step: str, after: str, reason: str) -> str:
    """What a step waits for: a work before it, or what somebody said."""
    row = next((row for row in waits().get(step, ()) if row.work == after), None)
    return reason if row is None else row.says


def _measure(a: Assessment, found: Instruction) -> Phrase:
    names = key_names(a.state.instrument, found.keys)
    first = names[:2]
    says = []
    if found.again:
        says.append("The old readings do not hold any more; no cut may rest on them.")
    elif found.reason:
        says.append(f"{_label(found.reason)}: these readings are needed for it.")
    elif a.cut.state == "none" and any(key[0] == "end_height" for key in found.keys):
        says.append("Two heights at the board's end already give a provisional cut.")
    title = f"Measure {'again: ' if found.again else ''}{listed(first)}"
    do = [f"Then {listed(names[2:])}."] if len(names) > 2 else []
    return Phrase(title, [*says, *_provisional(a)], do, None)


def _provisional(a: Assessment) -> list[str]:
    """A cut that rests on figures is shown, and named as such."""
    over = [f"{s.name} {to_take(s.wood)}" for s in a.cut.strings if s.wood is not None and s.wood >= WORTH_TAKING]
    if not over or outer_in_band(a.state):
        return _to_aim(a)
    sure = "Provisional" if a.cut.state == "provisional" else "From these readings"
    return [f"{sure}: {listed(over)} mm of wood to take."]


def _baseline(a: Assessment, found: Instruction) -> Phrase:
    names = key_names(a.state.instrument, found.keys)
    return Phrase(f"Measure {listed(names[:2])}", [sentence(steps()["baseline"].why)],
                  [f"Then {listed(names[2:])}."] if len(names) > 2 else [], None)  # fmt: skip


def _mark_line(a: Assessment, found: Instruction) -> Phrase:
    marks = [f"{name} {number(mark, 1)}" for name, mark in by_string(a, found, "mark_height").items()]
    do = [f"Set up from the marks: {listed(marks)} mm over the board's line."] if marks else []
    return Phrase("Mark the board's line on the bridge", [steps()["marks"].why], do, None)


def _cut_from_blank(a: Assessment, found: Instruction) -> Phrase:
    marks = [f"{name} {number(mark, 1)}" for name, mark in by_string(a, found, "mark_height").items()]
    return Phrase(
        "Cut the crown from the blank, left high",
        ["By the marks and the template. Nothing is measured under tension yet."],
        [f"The strings go to {listed(marks)} mm over the board's line: leave 0.5 mm more."] if marks else [],
        CUT,
    )


def _cut_crown(a: Assessment, found: Instruction) -> Phrase:
    if by_string(a, found, "mark_height"):
        return _cut_from_blank(a, found)
    take, wood = by_string(a, found, "take"), by_string(a, found, "of_wood")
    is_whole = all(rounded_down(take[name]) == rounded_down(wood[name]) for name in take)
    shares = [f"{name} {to_take(take[name])}" for name in take]
    says = [f"{listed(list(take))} {'is' if len(take) == 1 else 'are'} above the target."]
    if not is_whole:
        left = [f"{name} {number(rounded_down(wood[name]) - rounded_down(take[name]))}" for name in take]
        says.append(f"Left for the next pass, with what measuring cannot tell: {listed(left)} mm.")
    says += _left_over(a)
    do = [f"Take {listed(shares)} mm of wood.", "String up, tune, and measure the heights again."]
    title = "Cut the crown" if a.cut.state == "firm" else "Cut the crown, provisionally"
    return Phrase(title, says, do, CUT)


def _left_over(a: Assessment) -> list[str]:
    """What is left of what the last pass was to bring down."""
    left = [
        f"{s.name} {number(max(0.0, s.wood))} of {number(s.left_before)}"
        for s in a.cut.strings
        if s.left_before is not None and s.wood is not None and s.left_before >= WORTH_TAKING
    ]
    return [f"Left after the last pass: {listed(left)} mm."] if left else []


def _lower_crown(a: Assessment, found: Instruction) -> Phrase:
    take = by_string(a, found, "take")
    shares = [f"{name} {to_take(value)}" for name, value in take.items()]
    return Phrase(
        "Take the crown down beside the deep strings",
        ["The strings stay where they are. Only the wood beside them comes down."],
        [f"Take {listed(shares)} mm of wood beside the strings."] if shares else [],
        CUT,
    )


def _file_nut(a: Assessment, found: Instruction) -> Phrase:
    by, to = by_string(a, found, "file_by"), by_string(a, found, "file_to")
    each = [f"{name} by {to_take(by[name], 2)}, to {number(to[name], 2)}" for name in by]
    return Phrase(
        "File the nut",
        ["It is felt in first position. What it gives is counted in the cut."],
        [f"{sentence('; '.join(each)).rstrip('.')} mm.", "String up and measure again."],
        FILE,
    )


def _turn_wheels(a: Assessment, found: Instruction) -> Phrase:
    turns = {one.side: one.value for one in found.amounts if one.name == "turns"}
    legs = {one.side: one.value for one in found.amounts if one.name == "leg"}
    do = [
        f"The {side} wheel {turns_words(turn)}: {number(abs(legs[side]), 2)} mm."
        for side, turn in turns.items()
        if nearest_eighth(turn)
    ]
    return Phrase(
        "Turn the wheels",
        ["The crown stays as it is."],
        [*do, "Tune, and measure the heights again."] if do else ["Nothing has to be turned."],
        WHEELS,
    )


_EIGHTHS = {1: "⅛", 2: "¼", 3: "⅜", 4: "½", 5: "⅝", 6: "¾", 7: "⅞"}


def turns_words(turns: float) -> str:
    """“1⅝ turns down”, “½ turn up”, to the nearest eighth."""
    eighths = round(abs(nearest_eighth(turns)) * 8)
    whole, rest = divmod(eighths, 8)
    said = f"{whole or ''}{_EIGHTHS.get(rest, '')}" or "0"
    return f"{said} {'turn' if eighths <= 8 else 'turns'} {'up' if turns > 0 else 'down'}"


def _fit_wedge(a: Assessment, found: Instruction) -> Phrase:
    heel, lift = one(found, "at_heel"), one(found, "at_bridge")
    says = [] if lift is None else [f"It brings the board's line up by {number(lift)} mm at the bridge."]
    do = [] if heel is None else [f"A wedge {number(heel)} mm thick at the heel, nothing at the nut."]
    return Phrase("Fit a wedge under the board", says, [*do, "Let the glue dry, then measure the projection."], NECK)


def _reset_neck(a: Assessment, found: Instruction) -> Phrase:
    change = one(found, "at_bridge")
    way = "" if change is None else f"{'up' if change > 0 else 'down'} by {number(abs(change))} mm at the bridge"
    return Phrase("Reset the neck", [f"The board's line goes {way}."] if way else [], [], NECK)


def _dress_board(a: Assessment, found: Instruction) -> Phrase:
    most = [f"up to {number(o.value, 2)} mm on the {o.side} side" for o in found.amounts if o.name == "most_off"]
    return Phrase(
        "Dress the board",
        ["It comes before nut and bridge: heights, projection and crown follow it."],
        [f"Plane {listed(most)}."] if most else [],
        BOARD,
    )


def _new_bridge(a: Assessment, found: Instruction) -> Phrase:
    width = one(found, "width")
    do = [] if width is None else [f"Take a blank {short(width)} mm wide over the feet."]
    return Phrase("Make a new bridge", [], [*do, "Mask the top, fit the feet, then mark and cut."], None)


def _recut_slots(a: Assessment, found: Instruction) -> Phrase:
    closer = one(found, "closer")
    marks = list(by_string(a, found, "mark").values())
    says = [] if not closer else [f"The strings stand {number(closer)} mm too close on each side."]
    do = [f"Mark the new spacing from the lowest string: {' / '.join(short(mark, 1) for mark in marks)} mm."]
    return Phrase("Cut new slots", says, [*do, "Take the crown below the old slots first, or fill them."], CUT)


def _move_tailpiece(a: Assessment, found: Instruction) -> Phrase:
    move = one(found, "move")
    if move is None or abs(move) < 0.05:
        return Phrase("The tailpiece stays", [], [], None)
    way = "toward the saddle" if move > 0 else "toward the bridge"
    return Phrase(
        "Set the tailgut",
        [],
        [f"Move the tailpiece {number(abs(move))} mm {way}.", "Measure it again after a night: the gut stretches."],
        TAIL,
    )


_LEANS = {
    "upright": "Its bottom straight under its top.",
    "with_bridge": "Its bottom nearer to the bridge than its top, as far as the bridge leans back.",
}


def _set_post(a: Assessment, found: Instruction) -> Phrase:
    setback, inset = one(found, "setback"), one(found, "inset")
    do = []
    if setback is not None and inset is not None:
        do = [f"Its top {number(setback)} mm behind the foot, {number(inset)} mm inside its edge, or by its old marks."]
        do.append(_LEANS[a.chosen["post_stance"]])
    title = "Set the sound post" if found.code == "set_post" else "Refit the sound post"
    says = ["Until it stands, nothing that needs tension."] if found.code == "set_post" else []
    work = school("post_work", a.chosen["post_work"])
    if work is not None:
        says.append(sentence(f"{work.label}: {work.says}"))
    return Phrase(title, says, [*do, "Gauge both ends with the card gauge, and write them down."], POST)


def _fill_slot(a: Assessment, found: Instruction) -> Phrase:
    missing = [f"{name} {number(value, 2)}" for name, value in by_string(a, found, "height_added").items()]
    title = "Fill the nut slot" if found.code == "fill_slot" else "Make a new nut"
    return Phrase(title, [f"Missing under the strings: {listed(missing)} mm."] if missing else [], [], None)


def _settle(a: Assessment, found: Instruction) -> Phrase:
    return Phrase("Check again after settling", [sentence(steps()["rest"].why)], [], None)


def _inspect(a: Assessment, found: Instruction) -> Phrase:
    stop = next((one for one in a.stops if one.key == "look"), None)
    left = "" if stop is None or not stop.count else f"{stop.count} {'item' if stop.count == 1 else 'items'} left"
    return Phrase("Inspect the instrument", [sentence(left)] if left else [], [], None)


_PHRASES: Mapping[str, Build] = {
    "handed_over": _handed_over,
    "hand_over": _hand_over,
    "name_strings": _name_strings,
    "enter_figures": _enter_figures,
    "check_shape": _check_shape,
    "check_readings": _check_readings,
    "decide": _decide,
    "wait": _wait,
    "measure": _measure,
    "baseline": _baseline,
    "inspect": _inspect,
    "mark_line": _mark_line,
    "cut_crown": _cut_crown,
    "lower_crown": _lower_crown,
    "file_nut": _file_nut,
    "turn_wheels": _turn_wheels,
    "fit_wedge": _fit_wedge,
    "reset_neck": _reset_neck,
    "dress_board": _dress_board,
    "new_bridge": _new_bridge,
    "recut_slots": _recut_slots,
    "move_tailpiece": _move_tailpiece,
    "set_post": _set_post,
    "refit_post": _set_post,
    "fill_slot": _fill_slot,
    "new_nut": _fill_slot,
    "settle": _settle,
}


def record_label(work: str) -> str:
    """What the button says that writes a work down."""
    return "" if not work else f"Record: {works()[work].label.lower()}"
