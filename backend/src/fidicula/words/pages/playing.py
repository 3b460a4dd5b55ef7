"""What the page of buzz clearance and finger force says."""

from __future__ import annotations

from collections.abc import Sequence

from fidicula.codes import MeasureCode
from fidicula.core.mechanics.stopped import StoppedClearance
from fidicula.numerals import number, short
from fidicula.words.pages.notes import note_of

TITLE = "Buzz clearance and finger force"
CAUTION = "An estimate on the safe side: it shows where to listen. Play it before anything is planed."
NO_STRINGS = "No strings named. How far they swing follows from the set."
NO_RATTLE = "No string touches the board, played like this."
SHARE = "of the swing toward the board"
SHOWN = "string"
NOTE = "semitones over the open string"
LEFT_OUT = "strings without a height of their own, or of no known pitch, are left out"
MAP_TITLE = "Buzz clearance"
MAP_SAYS = "In mm, semitones over the open string. A framed value is below zero: the string touches."
PRESS_TITLE = "Finger force"
PRESS_ACROSS = "semitones over the open string"
_PLACES = {"end_height": "at the board's end", "nut_height": "at the nut"}


def board_passes_bridge(board: float, length: float) -> str:
    return f"the board ends before the bridge; it was {short(board)} mm long, and the strings {short(length)}"


def least_room(name: str) -> str:
    return f"{name} least clearance"


def pressed(name: str, where: str) -> str:
    return f"{name} pressed in {where}"


def changed(name: str, measure: MeasureCode) -> str:
    return f"{name} {_PLACES[measure]}, changed by"


def scoop(side: str) -> str:
    return f"scoop, {side} side"


def assumed_between(name: str, value: float) -> str:
    return f"{name} {number(value, 2)}, between the outer two"


def assumed_scoop(deepest: float, side: str) -> str:
    return f"scoop of {short(deepest)} on the {side} side"


def why_least(name: str, least: StoppedClearance) -> str:
    return (
        f"At {note_of(name, least.semitone)}, stopped {number(least.stop, 0)} from the nut: it swings "
        f"{number(least.amplitude, 2)} and has {number(least.margin, 2)} left at {number(least.at, 0)}."
    )


def rattles(name: str, semitones: Sequence[int]) -> str:
    notes = [note_of(name, semitone) for semitone in semitones]
    where = " and ".join(notes) if len(notes) < 3 else f"{len(notes)} notes from {notes[0]} on"
    return f"{name} would rattle at {where}."


def margin(room: float) -> str:
    """The room left; a little less than none keeps its sign, because it rattles."""
    return number(min(room, -0.01), 2) if -0.05 <= room < 0 else number(room)


def map_row(name: str, stops: Sequence[StoppedClearance]) -> list[str]:
    return [name, *(f"{note_of(name, stop.semitone)} {margin(stop.margin)}" for stop in stops)]


def why_press(name: str, semitone: int, tension: float) -> str:
    return f"At {note_of(name, semitone)}: {number(tension, 0)} N × gap × (1 ÷ x + 1 ÷ (S − x))."


def press_says(ranges: Sequence[tuple[str, float, float]]) -> str:
    """ranges : of each string, its first and its last force. [N]"""
    return f"Press: {'; '.join(f'{name} {number(first)} to {number(last)} N' for name, first, last in ranges)}."
