"""What the page of strings says."""

from __future__ import annotations

from collections.abc import Sequence

from fidicula.codes import MeasureCode
from fidicula.core.mechanics.load import KGF
from fidicula.core.readings.in_hand import InHand
from fidicula.domain.strings import StringSet
from fidicula.numerals import number, short

TITLE = "Strings"
NO_STRINGS = "No strings named. Tension, load and heights follow from the set."
CANNOT_BE_TOLD = "Not known yet whether the present crown can serve: the bench sheet says what is missing."
ONCE_READ = "Not known yet whether the present crown can serve: measure every string's heights."
LABELS = {"tension": "total tension", "down": "force on the top", "cents": "it sounds better tuned sharp by"}
BELOW_NOUGHT = "below zero: tuned flat"
LOOSE = "lies loose in its slots"
TABLE_TITLE = "String by string"
TABLE_HEAD = ("", "diameter", "tension now, N", "with the set", "slots")
GAUGE_HEAD = ("on the shelf", "pulls, N", "off")
GAUGE_SAYS = "Better a little sharp asks for a heavier string, flat for a lighter one; the nearest is marked."
_PLACES = {"end_height": "at the board's end, target", "nut_height": "at the nut, target"}


def on_now(name: str) -> str:
    return f"{name}, on it now"


def tried(string_set: StringSet) -> str:
    return f"{string_set.name} is tried, {string_set.material}; nothing is put on yet."


def outside(name: str, side: str) -> str:
    return f"{name} would stand {side} its band at the board's end"


def in_hand(name: str, *, like: InHand, measured: float, stated: float) -> str:
    """A string that is not as thick as its set says. [mm]"""
    return (
        f"The {name} measures {number(measured, 2)}, {like} than the {number(stated, 2)} of its set: another string "
        "than its envelope says, or a worn one. Slots and heights are worked out from the set."
    )


def crown_serves(
    set_name: str, *, low: Sequence[tuple[str, float]], high: Sequence[tuple[str, float]], outside: Sequence[str]
) -> str:
    """low, high : strings whose crown is that much too low, or has to come down. [mm]  outside : of their bands."""
    if low:
        rest = f"{'; '.join(outside)}." if outside else "The outer strings stay in their bands, so it may serve."
        return f"The present crown is too low for {set_name} at {_amounts(low)} mm: wood cannot be put back. {rest}"
    if high:
        return f"The present crown serves {set_name} once it comes down: {_amounts(high)} mm of wood."
    return f"The present crown serves {set_name} as it is."


def _amounts(strings: Sequence[tuple[str, float]]) -> str:
    return ", ".join(f"{name} {number(amount)}" for name, amount in strings)


def why_down(force: float) -> str:
    return f"{number(force / KGF)} kg, by the strings' angles over the bridge: see the page load"


def wanted_at(name: str, measure: MeasureCode) -> str:
    return f"{name} {_PLACES[measure]}"


def gauge_title(name: str, *, wanted: float, tension: float) -> str:
    """tension : of the string that is on. [N]"""
    change = (wanted / tension - 1) * 100
    way = "as it is" if abs(change) < 0.05 else f"{number(abs(change))} % {'heavier' if change > 0 else 'lighter'}"
    return f"Gauge of the {name}: {number(wanted)} N wanted, {way}"


def why_by_density(name: str, *, density: float, string_length: float, pitch: float, tension: float) -> str:
    """density : [g/m]"""
    return f"{name}: {short(density)} g/m × (2 × {short(string_length)} mm × {number(pitch)} Hz)² = {number(tension)} N"


def why_as_stated(
    name: str, *, stated: float, quoted_at: float, string_length: float, share: float, tension: float
) -> str:
    """stated : by the set, for a string length of `quoted_at`. [N, mm]  share : of this pitch in an A of 440."""
    return (
        f"{name}: {short(stated)} N as the set states for {short(quoted_at)} mm at 440 Hz, "
        f"× ({short(string_length)} ÷ {short(quoted_at)})² × {number(share, 3)}² = {number(tension)} N"
    )


def no_figures(name: str) -> str:
    return f"{name}: the set has no figures"
