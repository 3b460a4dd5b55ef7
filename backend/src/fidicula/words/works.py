"""What an instruction to work says: what to do with which amounts, and the caution that belongs to it."""

from __future__ import annotations

from fidicula.codes import ToolCode
from fidicula.core.fitting.bridge_wood import over_pencil
from fidicula.core.fitting.tailpiece import nearest_eighth
from fidicula.core.rounding import rounded_down
from fidicula.core.work.convergence import LEFT_ALONE
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.thresholds import FIRST_STOP, WORTH_MOVING, WORTH_TAKING
from fidicula.judgement.instruction.model import AmountName, Instruction
from fidicula.numerals import number, short
from fidicula.tables.schools import school
from fidicula.tables.work import tools
from fidicula.tables.workflow import steps
from fidicula.words.amounts import by_string, one
from fidicula.words.model import Phrase
from fidicula.words.numbers import give_or_take, listed, sentence, to_take, told_within, turns_words

PENCIL: ToolCode = "pencil"
"""The tool that draws the board's line half its own thickness too high."""


def mark_line(a: Assessment, found: Instruction) -> Phrase:
    marks = [f"{name} {number(mark, 1)}" for name, mark in by_string(a, found, "mark_height").items()]
    do = [f"Set up from the marks: {listed(marks)} mm over the board's line."] if marks else []
    if marks:
        drawn = [
            f"{name} {number(over_pencil(over_line=mark, pencil=2 * tools()[PENCIL].offset), 1)}"
            for name, mark in by_string(a, found, "mark_height").items()
        ]
        less = number(tools()[PENCIL].offset)
        do.append(f"From a line that a pencil drew, laid on the board, {less} less: {listed(drawn)}.")
    return Phrase("Mark the board's line on the bridge", [steps()["marks"].why], do)


def cut_from_blank(a: Assessment, found: Instruction) -> Phrase:
    marks = [f"{name} {number(mark, 1)}" for name, mark in by_string(a, found, "mark_height").items()]
    return Phrase(
        "Cut the crown from the blank, left high",
        ["By the marks and the template. Nothing is measured under tension yet."],
        [f"The strings go to {listed(marks)} mm over the board's line: leave 0.5 mm more."] if marks else [],
    )


def cut_crown(a: Assessment, found: Instruction) -> Phrase:
    if by_string(a, found, "mark_height"):
        return cut_from_blank(a, found)
    take, wood = by_string(a, found, "take"), by_string(a, found, "of_wood")
    shares = [f"{name} {to_take(take[name])}" for name in take]
    says = [f"{listed(list(take))} {'is' if len(take) == 1 else 'are'} above the target."]
    left = [f"{name} {number(rounded_down(wood[name]) - rounded_down(take[name]))}" for name in take]
    says.append(f"Left for the slots and the last going over: {listed(left)} mm.")
    says += _left_over(a)
    if a.cut.settling:
        says.append(f"{number(a.cut.settling, 2)} mm of it, because strings that are new come down as they settle.")
    do = [
        f"Take {listed(shares)} mm of wood. {_SEATS[a.chosen['slot_depth']]}",
        "String up, tune, let it settle, and tune again.",
        "Measure the heights again." if a.chosen["judging"] == "by_number" else TOUCHED,
    ]
    title = "Cut the crown" if a.cut.state == "firm" else "Cut the crown, provisionally"
    return Phrase(title, says, do)


TOUCHED = "Measure the heights again; before the last pass the player's hand decides."

_SEATS = {
    "third": "Seat each string no deeper than a third.",
    "half": "Seat each string no deeper than half.",
    "none": "A shallow mark for each string, no slot.",
}
"""By the school of how deep a string lies in the crown."""


def _left_over(a: Assessment) -> list[str]:
    """What is left of what the last pass was to bring down."""
    left = [
        f"{s.name} {number(max(0.0, s.wood))} of {number(s.left_before)}"
        for s in a.cut.strings
        if s.left_before is not None and s.wood is not None and s.left_before >= WORTH_TAKING
    ]
    return [f"Left after the last pass: {listed(left)} mm."] if left else []


def lower_crown(a: Assessment, found: Instruction) -> Phrase:
    shares = [f"{name} {to_take(value, 2)}" for name, value in by_string(a, found, "beside").items()]
    return Phrase(
        "Take the crown down beside the deep strings",
        ["The strings stay where they are. Only the wood beside them comes down."],
        [f"Take {listed(shares)} mm of wood beside the strings."] if shares else [],
    )


def anew(a: Assessment) -> list[str]:
    """Strings that were read far from what was set out at them."""
    names = [a.state.instrument.string_names[i] for i, one in a.state.weighed.items() if one.anew]
    return [f"Far from what was set out at {listed(names)}: only the new readings count there."] if names else []


def file_slots(a: Assessment, found: Instruction) -> Phrase:
    by = by_string(a, found, "slot_by")
    filed = [s for s in a.cut.strings if s.name in by]
    known = [f"{s.name} ±{give_or_take(s.drop_known_to, 2)}" for s in filed if s.drop_known_to]
    left = [s.name for s in filed if s.drop is not None and s.drop - by[s.name] > LEFT_ALONE]
    says = ["A string's height is set by the floor of its slot.", *anew(a)]
    if known:
        says.append(f"The way down is known to {listed(known)} mm.")
    if left:
        says.append(f"Some is left at {listed(left)}: the file misses too, and too low cannot be put back.")
    return Phrase(
        "File the slots at the bridge",
        says,
        [
            f"Deepen the slots: {listed([f'{name} by {to_take(value, 2)}' for name, value in by.items()])} mm.",
            "One string at a time: lay it aside, file, put it back.",
            "Tune, let it settle, tune again, and measure these strings.",
        ],
    )


def file_nut(a: Assessment, found: Instruction) -> Phrase:
    """First to a stop; from there, once it was measured, to where it is left."""
    by, now, to = (by_string(a, found, name) for name in ("file_by", "file_first", "file_to"))
    first = [name for name in by if now[name] < by[name]]
    last = [name for name in by if name not in first]
    do = []
    if first:
        each = [f"{n} by {to_take(now[n], 2)}, to {number(to[n] + FIRST_STOP, 2)}" for n in first]
        do.append(f"First {'; '.join(each)} mm. String up and measure.")
        targets = listed([f"{name} {number(to[name], 2)}" for name in first])
        do.append(f"Then, as measured, on to {targets} mm.")
    if last:
        each = [f"{name} by {to_take(now[name], 2)}, to {number(to[name], 2)}" for name in last]
        do.append(f"A stroke at a time: {'; '.join(each)} mm. String up and measure.")
    known = max((one.uncertainty for one in found.amounts), default=0.0)
    says = ["It is felt in first position. What it gives is counted in the cut."]
    if known:
        says.append(f"Its heights are known to ±{give_or_take(known, 2)} mm. A little of that stays over the aim.")
    return Phrase("File the nut", says, do)


def of(found: Instruction, name: AmountName) -> str:
    """How much, whichever way, with what it is known to: “1.4 ±0.3”; empty where it is not told."""
    amount = next((one for one in found.amounts if one.name == name), None)
    return "" if amount is None else told_within(abs(amount.value), amount.uncertainty)


def turn_wheels(a: Assessment, found: Instruction) -> Phrase:
    turns = {one.side: one.value for one in found.amounts if one.name == "turns"}
    legs = {one.side: one.value for one in found.amounts if one.name == "leg"}
    known = {one.side: one.uncertainty for one in found.amounts if one.name == "leg"}
    do = [
        f"The {side} wheel {turns_words(turn)}: {told_within(abs(legs[side]), known[side])} mm."
        for side, turn in turns.items()
        if nearest_eighth(turn)
    ]
    ends = [
        f"The {one.side} wheel reaches its end {number(one.value)} mm down: turn it no further. The rest comes off the "
        "crown or the feet."
        for one in found.amounts
        if one.name == "room"
    ]
    return Phrase(
        "Turn the wheels",
        ["The crown stays as it is.", *ends],
        [*do, "Tune, and measure the heights again."] if do else ["Nothing has to be turned."],
    )


def fit_wedge(a: Assessment, found: Instruction) -> Phrase:
    heel, lift = one(found, "at_heel"), one(found, "at_bridge")
    says = [] if lift is None else [f"It brings the board's line up by {of(found, 'at_bridge')} mm at the bridge."]
    do = [] if heel is None else [f"A wedge {of(found, 'at_heel')} mm thick at the heel, nothing at the nut."]
    return Phrase("Fit a wedge under the board", says, [*do, "Let the glue dry, then measure the projection."])


def reset_neck(a: Assessment, found: Instruction) -> Phrase:
    change = one(found, "at_bridge")
    way = "" if change is None else f"{'up' if change > 0 else 'down'} by {of(found, 'at_bridge')} mm at the bridge"
    return Phrase("Reset the neck", [f"The board's line goes {way}."] if way else [], [])


def dress_board(a: Assessment, found: Instruction) -> Phrase:
    most = [
        f"up to {told_within(o.value, o.uncertainty)} mm on the {o.side} side"
        for o in found.amounts
        if o.name == "most_off"
    ]
    return Phrase(
        "Dress the board",
        ["It comes before nut and bridge: heights, projection and crown follow it."],
        [f"Plane {listed(most)}."] if most else [],
    )


def new_bridge(a: Assessment, found: Instruction) -> Phrase:
    width = one(found, "width")
    do = [] if width is None else [f"Take a blank {short(width)} mm wide over the feet."]
    return Phrase("Make a new bridge", [], [*do, "Mask the top, fit the feet, then mark and cut."])


def recut_slots(a: Assessment, found: Instruction) -> Phrase:
    closer = one(found, "closer")
    marks = list(by_string(a, found, "mark").values())
    says = [] if not closer else [f"The strings stand {of(found, 'closer')} mm too close on each side."]
    do = [f"Mark the new spacing from the lowest string: {' / '.join(short(mark, 1) for mark in marks)} mm."]
    return Phrase("Cut new slots", says, [*do, "Take the crown below the old slots first, or fill them."])


def set_bridge(_a: Assessment, _found: Instruction) -> Phrase:
    return Phrase(
        "Set up the bridge",
        ["Until it stands, no string does."],
        [
            "In its print on the top; without one, its back edge on the line between the inner nicks.",
            "Upright, its tailpiece face square to the top; both feet without a gap.",
            "Strings slack, top and tailpiece padded.",
        ],
    )


def string_up(_a: Assessment, _found: Instruction) -> Phrase:
    return Phrase(
        "Put the strings on",
        ["Heights, projection and the post are read under tension."],
        [
            "Outer ones first, then the inner ones, each no more than half way up; then all to pitch in turns.",
            "Pull the bridge upright as they come. New strings instead: record that strings were changed.",
        ],
    )


def move_bridge(_a: Assessment, found: Instruction) -> Phrase:
    move, question = one(found, "move"), found.question
    option = None
    if question is not None:
        option = next((row for row in question.deciding.outcomes if row.outcome == found.option), None)
    do = []
    if move is not None and abs(move) >= WORTH_MOVING:
        do.append(f"Move it {of(found, 'move')} mm toward the {'tailpiece' if move > 0 else 'board'}.")
    do.append("Mark where it stands first; strings a little slack, top and tailpiece padded.")
    do.append("Then string length, heights and the post's place again.")
    return Phrase("Move the bridge", [] if option is None else [option.says], do)


def move_tailpiece(a: Assessment, found: Instruction) -> Phrase:
    move = one(found, "move")
    if move is None or abs(move) < 0.05:
        return Phrase("The tailpiece stays", [], [])
    way = "toward the saddle" if move > 0 else "toward the bridge"
    return Phrase(
        "Set the tailgut",
        [],
        [f"Move the tailpiece {of(found, 'move')} mm {way}.", "Measure it again after a night: the gut stretches."],
    )


_LEANS = {
    "upright": "Its bottom straight under its top.",
    "bottom_to_bass": "Its bottom a little to the bass of its top.",
    "with_bridge": "Its bottom nearer to the bridge than its top, as far as the bridge leans back.",
}


def set_post(a: Assessment, found: Instruction) -> Phrase:
    setback, inset = one(found, "setback"), one(found, "inset")
    do = []
    if setback is not None and inset is not None:
        side = school("post_statement", a.chosen["post_statement"])
        to = "" if side is None else f", {side.label}"
        place = f"{number(setback)} mm behind the foot, {number(inset)} mm inside its edge{to}"
        do = [f"Its top {place}; or by its old marks."]
        do.append(_LEANS[a.chosen["post_stance"]])
    title = "Set the sound post" if found.code == "set_post" else "Refit the sound post"
    says = ["Until it stands, nothing that needs tension."] if found.code == "set_post" else []
    says.append("One that is set under tension may fall when the strings are let off: write down how they were.")
    work = school("post_work", a.chosen["post_work"])
    if work is not None:
        says.append(sentence(f"{work.label}: {work.says}"))
    return Phrase(title, says, [*do, "Gauge both ends with the card gauge, and write them down."])


def fill_slot(a: Assessment, found: Instruction) -> Phrase:
    known = {one.position: one.uncertainty for one in found.amounts if one.name == "height_added"}
    missing = [
        f"{a.state.instrument.string_names[i or 0]} {told_within(value, known[i])}"
        for i, value in found.values("height_added").items()
    ]
    title = "Fill the nut slot" if found.code == "fill_slot" else "Make a new nut"
    return Phrase(title, [f"Missing under the strings: {listed(missing)} mm."] if missing else [], [])
