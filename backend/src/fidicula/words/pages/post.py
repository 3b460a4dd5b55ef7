"""What the page of the sound post says."""

from __future__ import annotations

from fidicula.codes import TargetQuestionCode
from fidicula.core.fitting.post import Gauged, NewPost
from fidicula.core.sound.places import EndPlace
from fidicula.numerals import number, short, signed
from fidicula.words.numbers import give_or_take
from fidicula.words.pages.bar import FIT

TITLE = "The sound post"
QUESTIONS: dict[TargetQuestionCode, str] = {
    "post_setback": "behind the foot",
    "post_inset": "inside the foot",
    "post_stance": "how it stands",
}
OTHER_HAND = (
    "It is built for the other hand: the post stands under the low strings. What is called the treble foot here is the "
    "foot over the post."
)
NO_TARGET = "The width over the feet and the bar's place say where the school puts it: read them first."
ASSUMED_UPRIGHT = "upright: how the bridge leans is not read, or the post's length not said"
LENGTH_MISSING = "Say how long the post is: then its lean is told, and whether it fits elsewhere."
PULLED_FROM = "where the school has it; below zero the other way"
BY_SCHOOL_TITLE = "Target of each school"
BY_SCHOOL_HEAD = ("school", "behind", "inside", "from where it stands")
BY_SCHOOL_SAYS = "The chosen ones are marked."
WANTED = "wanted top"
SET_SLACK = (
    "It was last set with the middle strings slack: firm under tension, it may fall when all strings come off. "
    "Let them down one pair at a time, and look."
)
STATED_TITLE = "The same place, to each side of the post"
STATED_HEAD = ("", "near side", "middle", "far side")
STATED_SAYS = "Say which side a distance is to: behind a digit, “mid” or “far” is understood when it is typed."
NEW_TITLE = "A new post"
OPENS = "opens across its ends"
STEPS_TITLE = "Out, and in again"
STEPS = (
    ["1", "Gauge both ends, photograph them, mark its top on the plate's inside or on a card."],
    [
        "2",
        "Strings slack, top padded; lay it down with the setter, fish it out through the f-hole, never by force.",
    ],
    ["3", "Room with the inside gauge; cut both ends to the plates, grain across the top's grain."],
    ["4", "On the setter, mark toward the f-hole: bottom first, then the top drawn upright."],
    ["5", "Mirror and light: wood to wood all round at both ends, upright or leaning as meant."],
    ["6", "It holds by itself when the body is gently moved; press on it before the setter is withdrawn."],
    ["7", "Gauge both ends, and write down its length, its diameter and its marks."],
)
STEPS_SAYS = "The setter never rests on the f-hole's edge. On a valuable instrument: an experienced luthier."
ROOM_BY_PLATES, ROOM_BY_LEAN = "room by the plates", "room by its lean"
SAME_WITHIN = "The same within a tenth."


def elsewhere(*, schools: str, ways: str) -> str:
    return f"The school ({schools}) has it elsewhere: {ways}."


def target(*, schools: str, top: Gauged) -> str:
    return (
        f"The school ({schools}) puts its top {number(top.setback)} behind the foot and "
        f"{number(top.inset)} inside its edge."
    )


def end(name: str, place: EndPlace, read: Gauged | None) -> str:
    """Where one end stands. read : as a card gauge reads it, None where its place is not known."""
    if read is None:
        return f"{name.capitalize()}: its place is not known; gauge it."
    manner = "" if place.known == "gauged" else f", estimated to ±{give_or_take(place.known_to)}"
    return f"{name.capitalize()}: {number(read.setback)} behind the foot, {number(read.inset)} inside its edge{manner}."


def lean(*, along: float, across: float) -> str:
    """[°]"""
    parts = []
    if abs(along) >= 0.1:
        parts.append(f"{number(abs(along))}° toward the {'tailpiece' if along > 0 else 'bridge'}")
    if abs(across) >= 0.1:
        parts.append(f"{number(abs(across))}° toward the {'treble' if across > 0 else 'bass'} side")
    return f"Its top leans {' and '.join(parts)}." if parts else "It stands upright."


def pull(name: str, toward: str) -> str:
    return f"{name}, toward the {toward}"


def new_rows(cut: NewPost, diameter: float) -> list[list[str]]:
    """What to cut."""
    return [
        ["length in its middle", f"{number(cut.middle, 2)} mm"],
        ["along its long side", f"{number(cut.long_side, 2)} mm"],
        ["along its short side", f"{number(cut.short_side, 2)} mm"],
        ["its top falls over its width by", f"{number(abs(cut.top_bevel), 2)} mm"],
        ["its bottom rises over its width by", f"{number(abs(cut.bottom_bevel), 2)} mm"],
        ["diameter", f"{short(diameter)} mm"],
    ]


def new_says(*, slopes_read: bool) -> str:
    said = "Its long side stands inward where the plates close outward. Cut it a little long and fit it down."
    if slopes_read:
        return said
    return f"The slopes of top and back are not read: both ends are taken as level. {said}"


def why_opens(*, before: float, after: float, length: float, diameter: float) -> str:
    return (
        f"its ends {number(before, 2)} apart now, {number(after, 2)} then; as far as that leans it otherwise, over "
        f"{short(length)}, across {short(diameter)}: the ear may be judging fit, not place"
    )


def behind(name: str) -> str:
    return f"{name} behind the foot"


def inside(name: str) -> str:
    return f"{name} inside the foot's edge"


def why_behind(middle: float) -> str:
    return f"to its near side; its middle stands {number(middle, 2)} behind"


def why_inside(*, foot_width: float | None, middle: float, diameter: float) -> str:
    foot = "?" if foot_width is None else short(foot_width)
    return f"{foot} ÷ 2 − {number(middle, 2)} − {short(diameter)} ÷ 2"


def why_plates(*, slopes: tuple[float, float], over: tuple[float, float]) -> str:
    return (
        f"−(tan {short(slopes[0])}° × {signed(over[0], 2)} + tan {short(slopes[1])}° × {signed(over[1], 2)}): "
        "the plates close outward at each end"
    )


def why_lean(*, now: float, then: float, length: float) -> str:
    return f"its ends {number(now, 2)} apart now, {number(then, 2)} then, over a length of {short(length)}"


def why_fit(fit: str) -> list[str]:
    return [f"A post that fits is {FIT[fit]}.", SAME_WITHIN]
