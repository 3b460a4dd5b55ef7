"""What to measure, in words."""

from __future__ import annotations

from fidicula.codes import InstructionCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.core.work.convergence import needed_for
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.thresholds import WORTH_TAKING, strings_in_band
from fidicula.judgement.instruction.model import Instruction
from fidicula.judgement.instruction.role import speaks_of_wood
from fidicula.numerals import number
from fidicula.tables.workflow import instructions
from fidicula.words.model import Phrase
from fidicula.words.names import key_names
from fidicula.words.numbers import give_or_take, listed, sentence, times, to_take
from fidicula.words.works import (
    anew,
)


def is_doubted(a: Assessment, key: MeasurementKey) -> bool:
    stand = a.state.reading_states.get(key)
    return stand is not None and stand.state == "doubted"


def measure(a: Assessment, found: Instruction) -> Phrase:
    if found.repeats:
        return repeat(a, found)
    if "contradict" in found.notes:
        return contradict(a, found)
    names = key_names(a.state.instrument, found.keys)
    first = names[:2]
    says = []
    if found.again:
        says.append("The old readings do not hold any more; no cut may rest on them.")
    elif doubted := [key for key in found.keys if is_doubted(a, key)]:
        says.append(
            f"Doubted: {listed(key_names(a.state.instrument, doubted))}. Confirm what was read, or read it again."
        )
    elif found.leads_to:
        says.append(f"{instruction_label(found.leads_to)}: these readings are needed for it.")
    elif a.cut.state == "none" and any(key[0] == "end_height" for key in found.keys):
        says.append("Two heights at the board's end already give a provisional cut.")
    title = f"Measure {'again: ' if found.again else ''}{listed(first)}"
    do = [f"Then {listed(names[2:])}."] if len(names) > 2 else []
    return Phrase(title, [*says, *provisional(a)], do)


def contradict(a: Assessment, found: Instruction) -> Phrase:
    """Repeats that chance does not explain: which is right?"""
    names = key_names(a.state.instrument, found.keys)
    each = [
        f"{a.cut.strings[key[1] or 0].name} {number(a.state.reading_states[key].repeat_spread, 2)}"
        for key in found.keys
    ]
    return Phrase(
        f"Measure again: {listed(names[:2])}",
        [f"These readings contradict each other: {listed(each)} mm apart. Which is right?"],
        ["Read again. The new reading takes the place of those."],
    )


def repeat(a: Assessment, found: Instruction) -> Phrase:
    """More readings of the same, with what they are wanted for."""
    if found.keys == (("projection", None),):
        return Phrase(
            "Measure the projection once more",
            ["It is out of its band by less than its readings tell."],
            ["Lift the straightedge off, lay it on again, and read it."],
        )
    if "edge" in found.notes:
        what = "at the nut" if found.keys[0][0] == "nut_height" else "at the board's end"
        names = [a.state.instrument.string_names[position or 0] for _, position in found.keys]
        return Phrase(
            f"Measure once more {what}: {listed(names)}",
            ["It stands nearer to the edge of its band than its readings tell, and what is taken does not come back."],
            ["Lift the tool off, set it again, and read."],
        )
    if found.keys[0][0] == "slot_depth":
        names = [a.cut.strings[position or 0].name for _, position in found.keys]
        return Phrase(
            "Measure the deep slots once more",
            ["They are deeper than a third of the string. One slip of the decimal mark would cost the crown."],
            [f"Slot depth: {listed(names)}."],
        )
    each, why = [], []
    for key in found.keys:
        string = a.cut.strings[key[1] or 0]
        each.append(f"{string.name} {times(found.times.get(key, 1))}")
        if string.drop is not None and string.drop_chance is not None:
            needed = number(needed_for(string.drop), 2)
            known = give_or_take(string.drop_chance, 2)
            why.append(f"{string.name}: its readings tell ±{known} at the bridge, ±{needed} is needed.")
    leads_to = "" if found.leads_to is None else f"{instruction_label(found.leads_to)}: "
    return Phrase(
        "Measure the same again",
        [sentence(f"{leads_to}one more reading of the same string makes it surer."), *anew(a), *why],
        [f"At the board's end: {listed(each)}."],
    )


def provisional(a: Assessment) -> list[str]:
    """A cut that rests on figures is shown, and named as such."""
    over = [f"{s.name} {to_take(s.wood)}" for s in a.cut.strings if s.wood is not None and s.wood >= WORTH_TAKING]
    if a.cut.begun and not a.cut.rough:
        return []
    if not over or strings_in_band(a.state, a.cut):
        return to_aim(a)
    if not speaks_of_wood(a):
        return []
    sure = "Provisional" if a.cut.state == "provisional" else "From these readings"
    return [f"{sure}: {listed(over)} mm of wood to take."]


def instruction_label(code: InstructionCode) -> str:
    return sentence(instructions()[code].label).rstrip(".")


def to_aim(a: Assessment) -> list[str]:
    """What it would take to reach the aim, where the strings stand in band; nothing that has to be done."""
    over = [f"{s.name} {to_take(s.wood)}" for s in a.cut.strings if s.wood is not None and s.wood >= WORTH_TAKING]
    if not over or a.cut.begun or not strings_in_band(a.state, a.cut):
        return []
    return [f"In band. Only to reach the aim exactly, it would take {listed(over)} mm of wood."]
