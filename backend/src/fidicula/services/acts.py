"""Acts of adjusting in words: which end went where, what was tried on the bridge, which strings were put on."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from typing import Any

from fidicula.core.fitting.post import Place
from fidicula.core.sound.places import Direction, steps_of
from fidicula.tables.sound import act_choices
from fidicula.tables.work import works

TOWARD: Mapping[str, str] = {
    "bridge": "toward the bridge",
    "tailpiece": "toward the tailpiece",
    "treble": "toward the treble side",
    "bass": "toward the bass side",
}
DIRECTIONS: Mapping[str, Direction] = {
    "bridge": "bridge",
    "tailpiece": "tailpiece",
    "treble": "treble",
    "bass": "bass",
}


def way_words(end: str, vector: Place) -> str:
    """A way of one end: “top 0.4 mm toward the tailpiece”."""
    steps = [f"{length:.1f} mm {TOWARD[direction]}" for direction, length in steps_of(vector)]
    return f"{end} {' and '.join(steps)}" if steps else f"{end} stays"


def ways_words(vectors: Mapping[str, Sequence[float]]) -> str:
    """Ways of both ends, by end."""
    return ", ".join(way_words(end, (vectors[end][0], vectors[end][1])) for end in ("top", "bottom") if end in vectors)


def amount_words(detail: Mapping[str, Any]) -> str:
    """Taps or millimetres."""
    if detail.get("mm") is not None:
        return f"{detail['mm']:g} mm"
    taps = detail.get("taps") or 0
    if taps == 0.5:
        return "half a tap"
    return "1 tap" if taps == 1 else f"{taps:g} taps"


def act_words(work: str, detail: Mapping[str, Any]) -> str:
    """What was done, for the trail and for the log."""
    if work == "post_moved":
        return _moved_words(detail)
    place = act_choices()["place"].get(str(detail.get("place", "")), "")
    if work in ("bridge_trial", "bridge_trial_off") and detail:
        tried = act_choices()["trial"].get(str(detail.get("what", "")), "something")
        return _sentence(f"{tried} {place}{' taken off' if work == 'bridge_trial_off' else ''}", detail)
    if work == "bridge_wood" and detail:
        after = detail.get("left")
        is_opening = detail.get("place") in act_choices()["opening"]
        left = "" if after is None else f", now {after:g} wide" if is_opening else f", {after:g} left"
        return _sentence(f"{detail['off']:g} mm of wood taken {place}{left}", detail)
    if work in ("strings_changed", "strings_named") and detail.get("set"):
        which = detail.get("which", [])
        return f"{', '.join(which)} of {detail['set']}" if which else str(detail["set"])
    return works()[work].done_label


def _moved_words(detail: Mapping[str, Any]) -> str:
    if "vector" in detail:
        named = detail.get("place")
        led = "half back" if "half_of" in detail else f"back to place {named}" if named else "moved"
        return _sentence(f"{led}: {ways_words(detail['vector'])}", detail)
    if "end" not in detail:
        return "the post was moved; not said how"
    led = "half back: " if "half_of" in detail else ""
    words = f"{led}{detail['end']}, {amount_words(detail)} {TOWARD[detail['direction']]}"
    return _sentence(words, detail)


def _sentence(words: str, detail: Mapping[str, Any]) -> str:
    """With how it was done, where that was said."""
    tension = act_choices()["tension"].get(str(detail.get("tension", "")), "")
    tool = act_choices()["setter"].get(str(detail.get("tool", "")), "")
    said = [part for part in (tension, tool, str(detail.get("words", ""))) if part]
    return f"{words} ({', '.join(said)})" if said else words
