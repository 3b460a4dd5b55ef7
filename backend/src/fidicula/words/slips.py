"""What looks like a slip, in words: one sentence, and what puts it right."""

from __future__ import annotations

from fidicula.core.readings.estimate import known_within
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.model import Slip
from fidicula.judgement.instruction.model import Instruction
from fidicula.judgement.measures import MEASURES
from fidicula.numerals import short
from fidicula.tables.rows import row_of
from fidicula.tables.work import Tool, tools
from fidicula.words.model import Phrase
from fidicula.words.names import key_name
from fidicula.words.numbers import day, give_or_take, listed
from fidicula.words.tool_checks import found_off

_TITLES = {
    "contradiction": "Check: which reading is right?",
    "bass_treble_swapped": "Check: bass and treble swapped?",
    "strings_swapped": "Check: two strings swapped?",
    "wrong_instrument": "Check: is this the right instrument?",
    "changed_without_work": "Check: was something done?",
}
_DO = {
    "contradiction": "Read one of them again, or confirm them as they are.",
    "bass_treble_swapped": "Swap the readings, or confirm them as they are.",
    "strings_swapped": "Choose the set again, or correct its diameters.",
    "wrong_instrument": "Move these readings to another ticket, undo them, or confirm them.",
    "changed_without_work": "Record the work, correct the reading, or confirm it.",
}


def slip_phrase(a: Assessment, found: Instruction) -> Phrase:
    slip = found.slip
    assert slip is not None
    says = [slip_words(a, slip), "No cut until this is put right."]
    return Phrase(_TITLES[slip.code], says, [_DO[slip.code]])


def slip_words(a: Assessment, slip: Slip) -> str:
    """One sentence or two."""
    names, instrument = a.state.instrument.string_names, a.state.instrument
    match slip.code:
        case "bass_treble_swapped":
            high, low = slip.values
            where = MEASURES[slip.keys[0][0]].label
            return (
                f"{names[-1]} is higher than {names[0]} {where}: {short(high)} and {short(low)}. "
                "Were bass and treble swapped?"
            )
        case "strings_swapped":
            low, high = slip.values
            return (
                f"{names[0]} is thinner than {names[-1]}: {short(low)} and {short(high)}. "
                "Were two strings of the set swapped?"
            )
        case "wrong_instrument":
            each = [
                f"{key_name(instrument, key)} {short(value)}, before {short(before)}"
                for key, value, before in zip(slip.keys, slip.values, slip.before, strict=True)
            ]
            return f"Is this {instrument.ticket}? Not as before: {listed(each)}."
        case "changed_without_work":
            each = [
                f"{key_name(instrument, key)} was {short(before)} and is {short(value)}"
                for key, value, before in zip(slip.keys, slip.values, slip.before, strict=True)
            ]
            return f"{listed(each)}, with no work recorded. Was the crown cut, or is this a slip?"
        case "contradiction":
            return contradiction_words(a, slip)
        case "other_air":
            return (
                f"The air is at {short(slip.values[0])} %, last time it was {short(slip.before[0])} %: "
                "projection, heights, pegs and post may have moved. Does it need days in this air first?"
            )
        case "tool_unchecked":
            tool = _tool(slip)
            if slip.at is not None:
                return (
                    f"The {tool.label}'s check was due on {day(slip.at.astimezone().date())}: does it still read true?"
                )
            within = give_or_take(known_within(chance=0.0, gauge=tool.gauge), 2)
            return (
                f"Nobody has checked the {tool.label} on a known length: all that it reads may be off by {within} mm. "
                "A check makes its readings count for more."
            )
        case "tool_off":
            return f"{found_off(_tool(slip).tool, slip.values[0])} Set it, then check it again."


def contradiction_words(a: Assessment, slip: Slip) -> str:
    """Both readings by their names, and what they would make of each other."""
    instrument = a.state.instrument
    named = [f"{key_name(instrument, key)} {short(value)}" for key, value in zip(slip.keys, slip.values, strict=True)]
    (expected,) = slip.before
    match slip.subject:
        case "neck_and_stop":
            made = f"a string length of about {short(expected, 1)}"
            return f"{named[0]} and {named[1]} make {made}; read was {short(slip.values[2])}."
        case "stops":
            return f"{named[0]} and {named[1]}: half a foot, {short(expected, 1)}, should lie between them."
        case "radii":
            return f"{named[0]} beside {named[1]}: one board is not as different as that."
        case "room":
            return f"{named[0]}: a post {short(expected)} thick does not stand in that."
        case "tilt":
            return f"{named[0]}°, but the board's edges tell {short(expected, 1)}°."
        case _:
            return f"{named[0]} is not less than {named[1]}."


def _tool(slip: Slip) -> Tool:
    """The tool that a slip is about."""
    tool = row_of(tools(), slip.subject)
    if tool is None:
        raise KeyError(slip.subject)
    return tool
