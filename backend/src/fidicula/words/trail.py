"""What is said along a trail: what broke it off, where the post stood, the ways back, what was heard and preferred."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date

from fidicula.core.sound.places import Direction
from fidicula.core.sound.ratings import Heard as Quality
from fidicula.domain.work_details import End, PostMoved
from fidicula.numerals import number, short, signed
from fidicula.tables.sound import act_choices
from fidicula.words.acts import TOWARD, amount_words, tap_words, ways_words
from fidicula.words.numbers import day_and_year, give_or_take, listed, plural, sentence

BREAKS: Mapping[str, str] = {
    "bridge_moved": "the bridge was moved",
    "new_bridge": "there is another bridge",
    "neck_reset": "the neck was reset",
    "feet_refitted": "the bridge's feet were fitted again",
    "bridge_straightened": "the bridge was straightened",
    "strings_changed": "the strings were changed",
    "tension_let_off": "the tension was let off",
    "post_set": "the post was set again",
    "bridge_wood": "wood was taken off the bridge",
    "crown_cut": "the crown was cut",
    "tailgut_changed": "the tailgut was changed",
    "other_post": "there is another post",
    "other_strings": "there are other strings on it",
}
BACK: Mapping[str, str] = {
    "": "",
    "post_fallen": "the post lies inside: set it first, then gauge it",
    "no_earlier": "there is no earlier place on record",
}
HALF: Mapping[str, str] = {
    "": "",
    "post_fallen": BACK["post_fallen"],
    "not_moved": "the post was not moved yet",
    "way_unknown": "which way it went is not recorded: gauge it, then go back to a place",
}
"""Why there is no way back, or half back, by code."""
BRIDGE_ASTRAY = "The bridge does not stand where it belongs: places told from its foot wait until it does."
NO_TAP = "a tap has not been gauged here; taken for a tenth, give or take as much"
NOT_SAID_HOW = "not said which end, or which way"
BY_OTHERS = "heard by somebody else only"
NOT_YET = "not heard yet"
NOT_HEARD = "not heard: what it did cannot be told"
NOT_BEFORE = "not heard before it: what it did cannot be told"
SET_SINCE = "set since"


def as_it_came(when: date) -> str:
    return f"as it came, {day_and_year(when)}"


def fallen(last_gauged: int | None) -> str:
    """last_gauged : the place where it was last gauged, None where it never was."""
    where = f"place {last_gauged} is where it was last gauged" if last_gauged else "it was never gauged"
    return f"The post lies inside: {where}. Nothing of it holds until it stands and is gauged."


def estimated(ends: Sequence[str]) -> str:
    return f"Estimated since it was last gauged: {listed(ends)}."


def not_gauged(ends: Sequence[str]) -> str:
    return f"Not gauged where it stands now: {listed(ends)}."


def way_back(
    taps: Sequence[tuple[End, Direction, float]], ways: Mapping[End, Sequence[float]], *, known_to: float | None
) -> str:
    """The way to an earlier place. known_to : of an estimate, which gauging makes sure; None for a sure one. [mm]"""
    said = ", ".join(tap_words(*one) for one in taps) if taps else ways_words(ways)
    if known_to is None:
        return said
    return f"{said} (an estimate, ±{give_or_take(known_to)} mm: gauge both ends when there is time)"


def manner(listened: Mapping[str, str | int], strings: Sequence[str]) -> str:
    """How it was listened to, and which string fell behind: “Teo in the room, a scale; the D a little behind”."""
    words = {name: str(value) for name, value in listened.items()}
    choices = act_choices()
    where = choices["listened_from"].get(words.get("where", ""), "")
    who = " ".join(one for one in (words.get("listener", ""), where) if one)
    told = [who, *(words.get(name, "") for name in ("played", "bow", "room", "distance"))]
    said = ", ".join(one for one in told if one)
    behind = listened.get("behind")
    if isinstance(behind, int) and behind < len(strings):
        by = choices["behind_by"].get(words.get("behind_by", ""), "")
        fell = f"the {strings[behind]} falls behind{f', {by}' if by else ''}"
        said = f"{said}; {fell}" if said else fell
    return said


def opens(*, shift: float, gape: float) -> str:
    """[mm]"""
    return f"{short(shift)} mm at one end opens {number(gape, 2)} across it: look at its fit after each move."


def tap(mean: float, *, known_to: float, taps: float) -> str:
    """How far a tap goes here. [mm]"""
    return f"a tap went {number(mean, 2)} ±{give_or_take(known_to, 2)} mm here, over {short(taps)} gauged"


def stop(acts: int, place: int) -> str:
    return f"{plural(acts, 'act', 'acts')} since it sounded best: back to place {place}, and some days of playing."


def quality(heard: Quality, names: Sequence[str]) -> str:
    name, position = heard
    return name if position is None else f"{name} of the {names[position]}"


def unheard(acts: int) -> str:
    """acts : since somebody was last heard."""
    return f"{plural(acts, 'act', 'acts')} since it was last heard: which of them did it cannot be told"


def answered(end: str, direction: Direction, moves: Sequence[PostMoved], changed: Sequence[tuple[str, float]]) -> str:
    """What moves of an end in a direction brought. changed : each quality with its mean change."""
    amounts = listed([amount_words(how) for how in moves])
    times = "" if len(moves) == 1 else f" in {plural(len(moves), 'act', 'acts')}, on the mean"
    said = ", ".join(f"{name} {_change(by)}" for name, by in changed)
    return f"{end} {TOWARD[direction]}, {amounts}{times}: {said or 'nothing that was heard'}"


def _change(by: float) -> str:
    return signed(by, 0 if abs(by - round(by)) < 0.05 else 1)


def first_step(end: str, direction: Direction) -> str:
    where = "each end, the bottom first" if end == "both" else f"the {end}"
    return f"one light tap at {where}, {TOWARD[direction]}; then listen"


def chosen(choice: str, names: Sequence[str]) -> str:
    """names : which was the first, and which the second."""
    first, second = names
    liked = {"first": first, "second": second}.get(choice, "no difference")
    return f"first {first}, second {second}: {liked}"


def can_show(*, trials: int, needed: int, guess: float) -> str:
    """guess : how often a guess prefers one of both as often, 0 to 1."""
    return f"{trials} comparisons: {needed} must agree. Guessing does that {number(guess * 100, 1)} % of the time."


def given_up(player: str, done: int, trials: int) -> str:
    return f"{player}: given up after {done} of {trials}; nothing follows from it"


GONE = "a recording that is not there any more"


def no_difference(names: Sequence[str]) -> str:
    return f"Between {listed(names)} no difference was heard."


def preferred(name: str, over: str, *, times: int, others: int, trials: int, guess: float, sure: bool) -> str:
    """guess : how often a guess prefers one of both as often, 0 to 1."""
    rest = trials - times - others
    counted = f"{name} was preferred {times} of {trials} times, {over} {others}"
    if rest:
        counted += f", no difference {rest}"
    said = (
        "that is more than a guess"
        if sure
        else f"guessing does as well {number(guess * 100, 0)} % of the time, so no difference is shown"
    )
    return sentence(f"{counted}: {said}")
