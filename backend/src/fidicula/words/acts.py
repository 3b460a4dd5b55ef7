"""Acts of adjusting in words: which end went where, what was tried on the bridge, which strings were put on."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Literal

from fidicula.codes import WorkCode
from fidicula.core.fitting.post import Point
from fidicula.core.sound.places import Direction, steps_of
from fidicula.domain.work_details import (
    BridgeTrial,
    BridgeWood,
    CrownBeside,
    CrownCut,
    End,
    NutFiled,
    Plain,
    PostMoved,
    PostSet,
    SlotsFiled,
    StringsFitted,
    WheelsTurned,
    WorkDetail,
)
from fidicula.numerals import number, short
from fidicula.tables.sound import act_choices
from fidicula.tables.work import works
from fidicula.words.numbers import to_take, turns_words

TOWARD: Mapping[str, str] = {
    "bridge": "toward the bridge",
    "tailpiece": "toward the tailpiece",
    "treble": "toward the treble side",
    "bass": "toward the bass side",
}
ENDS: tuple[End, ...] = ("top", "bottom")
DIRECTIONS: Mapping[str, Direction] = {
    "bridge": "bridge",
    "tailpiece": "tailpiece",
    "treble": "treble",
    "bass": "bass",
}


def way_words(end: str, vector: Point) -> str:
    """A way of one end: “top 0.4 mm toward the tailpiece”."""
    steps = [f"{number(length)} mm {TOWARD[direction]}" for direction, length in steps_of(vector)]
    return f"{end} {' and '.join(steps)}" if steps else f"{end} stays"


def tap_words(end: End, direction: Direction, taps: float) -> str:
    """A way in taps: “top, 1.5 taps toward the bridge”."""
    return f"{end}, {amount_words(PostMoved(taps=taps))} {TOWARD[direction]}"


def ways_words(vectors: Mapping[End, Sequence[float]]) -> str:
    """Ways of both ends, by end."""
    return ", ".join(way_words(end, (vectors[end][0], vectors[end][1])) for end in ENDS if end in vectors)


def amount_words(moved: PostMoved) -> str:
    """Taps or millimetres."""
    if moved.mm is not None:
        return f"{short(moved.mm)} mm"
    taps = moved.taps or 0.0
    if taps == 0.5:
        return "half a tap"
    return f"{short(taps)} {'tap' if taps == 1 else 'taps'}"


def act_words(work: WorkCode | Literal[""], detail: WorkDetail) -> str:
    """What was done, for the adjustment history and for the log."""
    done = works()[work].done_label if work else ""
    match detail:
        case PostMoved():
            return _moved_words(detail)
        case BridgeTrial() if detail.what:
            tried = act_choices()["trial"].get(detail.what, "something")
            place = act_choices()["place"].get(detail.place, "")
            off = " taken off" if work == "bridge_trial_off" else ""
            mass = "" if detail.mass is None else f" of {short(detail.mass)} g"
            return _with_words(f"{tried}{mass} {place}{off}", detail.words)
        case BridgeWood() if detail.off:
            return _with_words(_wood_words(detail), detail.words)
        case StringsFitted() if detail.set:
            return f"{', '.join(detail.which)} of {detail.set}" if detail.which else detail.set
        case WheelsTurned() if any(detail.turns):
            each = [
                f"{side} {turns_words(turn)}"
                for side, turn in zip(("bass", "treble"), detail.turns, strict=True)
                if turn
            ]
            return f"{done}: {', '.join(each)}"
        case PostSet() if detail.tension:
            return _with_words(
                f"{done}, {act_choices()['tension'].get(detail.tension, detail.tension)}",
                detail.words,
            )
        case Plain() | WheelsTurned() | PostSet() if detail.words:
            return _with_words(done, detail.words)
    return done


def set_out_words(detail: WorkDetail, names: Sequence[str]) -> str:
    """“G by 0.34, D by 0.28 mm”: what a work at the strings was to take; empty where it says nothing of them."""
    match detail:
        case CrownCut():
            by, places = detail.passes, 1
        case NutFiled() | SlotsFiled() | CrownBeside():
            by, places = detail.by, 2
        case _:
            return ""
    each = [f"{name} by {to_take(value, places)}" for name, value in zip(names, by, strict=False) if value]
    return f"{', '.join(each)} mm" if each else ""


def _wood_words(detail: BridgeWood) -> str:
    place = act_choices()["place"].get(detail.place, "")
    left = ""
    if detail.left is not None:
        is_opening = detail.place in act_choices()["opening"]
        left = f", now {short(detail.left)} wide" if is_opening else f", {short(detail.left)} left"
    return f"{short(detail.off)} mm of wood taken {place}{left}"


def _moved_words(moved: PostMoved) -> str:
    half = moved.half_of is not None
    if moved.vector is not None:
        led = "half back" if half else f"back to place {moved.place}" if moved.place else "moved"
        return _with_manner(f"{led}: {ways_words(moved.vector)}", moved)
    if moved.end is None or moved.direction is None:
        return "the post was moved; which end and which way is not recorded"
    led = "half back: " if half else ""
    return _with_manner(f"{led}{moved.end}, {amount_words(moved)} {TOWARD[moved.direction]}", moved)


def _with_manner(words: str, moved: PostMoved) -> str:
    """With how it was done, where that was said."""
    tension = act_choices()["tension"].get(moved.tension, "")
    tool = act_choices()["setter"].get(moved.tool, "")
    return _with_words(words, ", ".join(part for part in (tension, tool, moved.words) if part))


def _with_words(words: str, more: str) -> str:
    return f"{words} ({more})" if more else words
