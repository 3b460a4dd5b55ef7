"""The sentence that puts a saying of the bench beside this instrument's numbers, by page."""

from __future__ import annotations

from collections.abc import Sequence

from fidicula.core.mechanics.perspective import (
    cents_of_length,
    gape_of_shift,
    pull_growth,
    pull_of_cents,
    shift_of_lean,
)
from fidicula.judgement.assessment.state import BenchState
from fidicula.words.pages import perspective as say

MIN_STRINGS = 2
_LEAN = 1.0
"""An example. [degrees]"""
_LONGER_MM, _SHARP_CENTS, _TURNED_MM, _SHIFT_MM = 5.0, 20.0, 1.0, 0.5


def perspective_of(page: str, state: BenchState) -> str:
    """Empty where the page has none, or where a number that it needs is not read."""
    length = state.held("string_length")
    if length is None or length.assumed:
        return ""
    match page:
        case "neck":
            growth = pull_growth(string_length=length.value, longer=_LONGER_MM)
            return say.longer(string_length=length.value, by=_LONGER_MM, growth=growth)
        case "strings":
            return say.sharp(cents=_SHARP_CENTS, growth=pull_of_cents(_SHARP_CENTS))
        case "tail":
            cents = cents_of_length(string_length=length.value, difference=_TURNED_MM)
            return say.turned(by=_TURNED_MM, cents=cents)
        case "bridge":
            waist, mass = state.known("bridge_waist"), state.known("bridge_mass")
            if mass is not None:
                return say.seasoned(mass=mass.value)
            return "" if waist is None else say.least_wood(waist=waist.value)
    return ""


def of_strings(pulls: Sequence[tuple[str, float]], *, pull: float) -> str:
    """Where the strings' forces on the bridge are told. pulls : name and force, low first. [N]  pull : of all. [N]"""
    if len(pulls) < MIN_STRINGS or pulls[-1][1] <= max(force for _, force in pulls[:-1]):
        return say.amplifies(pull=pull, down=sum(force for _, force in pulls))
    return say.top_string(name=pulls[-1][0], most=pulls[-1][1], low=pulls[0])


def of_post(*, length: float | None, diameter: float | None, leaning: bool = False) -> str:
    """Where the post itself is described. leaning : it is wanted to lean with its bridge."""
    if length is None or diameter is None:
        return ""
    if leaning:
        shift = shift_of_lean(degrees=_LEAN, length=length)
        gape = gape_of_shift(shift=shift, length=length, diameter=diameter)
        return say.leaning(degrees=_LEAN, shift=shift, length=length, gape=gape)
    gape = gape_of_shift(shift=_SHIFT_MM, length=length, diameter=diameter)
    return say.tenth(shift=_SHIFT_MM, gape=gape, diameter=diameter)
