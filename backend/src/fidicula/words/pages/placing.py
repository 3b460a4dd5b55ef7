"""What the page of the bridge's place says."""

from __future__ import annotations

from collections.abc import Iterator

from fidicula.core.fitting.bridge_place import Moved
from fidicula.judgement.assessment.placing import Placed
from fidicula.numerals import number, short, signed
from fidicula.words.numbers import changed

TITLE = "Where the bridge goes"
NOTHING_READ = "Not measured yet. Read the line of the inner nicks and the stop; each school is then told in mm."
LABELS = {
    "bridge_shift": "bridge moved, + toward the tailpiece",
    "octave": "the octave lies farther back by",
    "pull": "the pull at pitch grows by",
    "setback": "post's top behind the foot",
}
WHERE_IT_STANDS = "where it stands"
WHY_OCTAVE = "Half the string sounds the octave: half of what the bridge moves."
WHY_PULL = "A string's pull at one pitch goes with the square of its length."
WHY_POST = "The post stands where it stood; the foot moves."
TABLE_TITLE = "The schools beside each other"
TABLE_HEAD = ("", "move", "string", "octave", "pull")
POST_HEAD = "post"
TABLE_SAYS = (
    "+ is toward the tailpiece. A rule over an edge is good to half a millimetre; none of these is a mean of two. "
    "The framed one is this instrument's."
)
_ON_IT = 0.25
_STRAIGHT = 0.5


def by_recipe(school: str, shift: float) -> str:
    if abs(shift) < _ON_IT:
        return f"It stands where the chosen school has it: {school}."
    return f"By the chosen school, {school}, it stands {number(abs(shift))} mm too {_near(shift)}."


def cannot_tell(school: str) -> str:
    return f"The chosen school, {school}, cannot be told from what is read; others can."


def nicks_apart(by: float) -> Iterator[str]:
    """by : how much farther from the edge the bass nick lies. [mm]"""
    if abs(by) >= _STRAIGHT:
        side = "bass" if by > 0 else "treble"
        far = number(abs(by))
        yield f"The {side} nick lies {far} mm farther back: the line across runs aslant; the bridge does not."


def centred(aside: float) -> str:
    if abs(aside) < _ON_IT:
        return "It stands in the middle between the f-holes."
    side = "treble" if aside > 0 else "bass"
    return f"It stands {number(abs(aside))} mm to the {side} of the middle between the f-holes."


def lean(degrees: float, *, pull_up: bool) -> str:
    if abs(degrees) < _STRAIGHT:
        return "Its tailpiece face stands square to the top."
    way = "the tailpiece" if degrees > 0 else "the board"
    said = f"Its tailpiece face leans {number(abs(degrees))}° toward {way}"
    return f"{said}: pull it upright before any height is read." if pull_up else f"{said}."


def warp(hollow: float) -> str:
    if abs(hollow) < 0.1:
        return "Its tailpiece face is flat."
    return f"Its tailpiece face is {'hollow' if hollow > 0 else 'bellied'} by {short(abs(hollow))} mm."


def takes(shift: float) -> list[str]:
    if abs(shift) < 0.05:
        return ["it stands there"]
    return [f"{number(abs(shift))} mm toward the {_toward(shift)}"]


def row(label: str, place: Placed, *, string_length: float, then: Moved, setback: float | None) -> list[str]:
    cells = [
        label,
        signed(place.shift) + (" assumed" if place.assumed else ""),
        number(string_length + then.string_length),
        signed(then.octave),
        f"{signed(then.pull * 100)} %",
    ]
    return cells if setback is None else [*cells, number(setback + then.setback)]


def why_length(*, length: float, shift: float) -> list[str]:
    return [changed(length, shift)]


def turned(*, turn: float, cents: float) -> str:
    """A turned bridge makes fifths false: how much it is here."""
    foot = "treble" if turn > 0 else "bass"
    return (
        f"“A turned bridge makes fifths false”: true and small; the {foot} foot {short(abs(turn))} mm farther back is "
        f"{number(cents)} cents between the outer strings."
    )


def _near(shift: float) -> str:
    return "near the board" if shift > 0 else "near the tailpiece"


def _toward(shift: float) -> str:
    return "tailpiece" if shift > 0 else "board"
