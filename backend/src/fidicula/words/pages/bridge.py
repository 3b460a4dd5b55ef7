"""What the page of the bridge's crown says."""

from __future__ import annotations

import math
from collections.abc import Sequence

from fidicula.codes import MeasureCode
from fidicula.judgement.assessment.model import StringCutFacts
from fidicula.judgement.assessment.thresholds import WORTH_TAKING
from fidicula.numerals import number, short
from fidicula.words.numbers import give_or_take, listed, sentence, to_take

TITLE = "The bridge's crown"
LABELS = {
    "crown_radius": "crown radius",
    "bridge_spread": "spread at the bridge",
    "nut_spread": "spread at the nut",
    "projection": "projection",
    "shift": "strings shifted at the bridge, + to the treble",
}
WHY_MARK = "From the nut's height to the board's end, and on to the bridge."
WHY_BOW = "Between the lines to both neighbours: under this the bow takes two strings at once."
VISE_TITLE = "At the vise"
VISE_HEAD = ("", "mark height", "end height", "string drop", "wood", "this pass", "spacing", "slot depth", "slot file")
VISE_SAYS = "Targets in mm; spacing from the middle of the lowest string."
THICKNESS_TITLE = "Thickness, and what to plane"
THICKNESS_HEAD = ("", "now", "wanted", "off the front")
THICKNESS_SAYS = "Straight from feet to crown, off the front alone; the tailpiece face is not planed."
LEFT_TITLE = "Wood left"
LEFT_HEAD = ("", "now", "target")
LEFT_SAYS = "Waist and openings last, and only on instruments worth it; the tailpiece face stays flat and square."
_PLACES = {"end_height": "at the board's end", "nut_height": "at the nut"}


def wanted_at(name: str, measure: MeasureCode) -> str:
    return f"{name} {_PLACES[measure]}, wanted"


def nearest(*, problem: str, label: str, value: float) -> str:
    return f"{sentence(problem)} The nearest {label} that can be had is {short(value)}."


def too_low(strings: Sequence[StringCutFacts]) -> str:
    names = listed([f"{one.name} {number(-(one.wood or 0))}" for one in strings])
    return f"The bridge is too low for this at {names} mm: wood cannot be put back."


def wood_at(name: str) -> str:
    return f"{name} wood to take"


def mark_at(name: str) -> str:
    return f"{name} over the straightedge's mark"


def bow_at(name: str) -> str:
    return f"bow clearance at {name}"


def why_wood(string: StringCutFacts, *, slot: float) -> list[str]:
    return [
        f"The string drops {number(string.drop or 0, 2)}.",
        f"Its slot target is {number(slot, 2)} deep.",
        f"±{give_or_take(string.uncertainty or 0, 2)}, by the tools and what is assumed.",
    ]


def why_crown(template: float | None) -> str:
    """template : the nearest one on hand. [mm]"""
    return "No template on hand." if template is None else f"Nearest template on hand: {short(template)}."


def why_bow(rise: float | None) -> list[str]:
    return [WHY_BOW, *([f"It rises {number(rise, 2)} over the line through them."] if rise else [])]


def vise_row(
    string: StringCutFacts, *, mark: float, slot: float, file: float | None, by_slots: bool = False
) -> list[str]:
    """mark : from the middle of the lowest string. [mm]  file : for its slot, None where none fits.

    by_slots : the rough crown is cut, and the string goes down by its slot.
    """
    if by_slots:
        now = f"slot {to_take(string.slot_by, 2)}" if string.slot_by else "–"
    else:
        now = "–" if not string.next_pass or string.next_pass < WORTH_TAKING else to_take(string.next_pass)
    return [
        string.name,
        _shown(string.target_mark),
        _shown(string.target_end),
        _shown(string.drop),
        "–" if string.wood is None else f"{wood(string.wood)} ±{give_or_take(string.uncertainty or 0)}",
        now,
        number(mark, 1),
        number(slot, 2),
        "none fits" if file is None else short(file),
    ]


def wood(amount: float) -> str:
    """As over the bridge: what can be taken is rounded down, what is missing is rounded up."""
    return to_take(amount) if amount >= 0 else number(-math.ceil(-amount * 10 - 1e-6) / 10)


def never_under(band: str, floor: float) -> str:
    return f"{band}, never under {short(floor)}"


def _shown(value: float | None) -> str:
    return "–" if value is None else number(value, 2)


_UP = {0.0: "at the feet", 0.25: "a quarter up", 0.5: "half way", 0.75: "three quarters up", 1.0: "at the crown"}


def thickness_row(share: float, *, read: float, wanted: float, off: float) -> list[str]:
    """One height of the bridge. off : what comes off there; below zero the wood is missing. [mm]"""
    takes = to_take(off) if off >= 0.1 else "thin" if off <= -0.2 else "–"
    return [_UP[share], short(read), short(wanted), takes]
