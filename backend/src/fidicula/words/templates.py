"""What stands on a template that is printed at true size."""

from __future__ import annotations

from fidicula.domain.instruments import Instrument
from fidicula.domain.strings import StringSet
from fidicula.numerals import number, short

BRIDGE_TITLE, BRIDGE_NOTE = "spacing at the bridge", "lay it on the crown, its middle on the bridge's"
NUT_TITLE = "spacing at the nut"
FLOORS_TITLE = "Nut slots, their floors from the side"
FLOORS_NOTE = "The front edge at the left: the floor lies level there and falls toward the peg."
FRONT_TITLE = "nut from its front"
FRONT_NOTE = "lower line: the board; upper: the strings' undersides where they are wanted, never below"
WEDGE_TITLE = "wedge gauge for heights"
CARD_TITLE = "card gauge for bar and post"
CARD_NOTE = "stiff card: one end against the foot, read where bar or post begins"
CROWN_TITLE = "crown template"
TICKS = "ticks on the crown: the strings; short level lines: the straightedge's marks"
PROVISIONAL = "PROVISIONAL: it rests on what was not measured"


def instrument(of: Instrument, string_set: StringSet | None) -> str:
    hand = "left-handed: mirrored" if of.left_handed else "seen from the tailpiece"
    strings = "" if string_set is None else f"; {string_set.name}"
    return f"{of.family} {of.size}, {hand}{strings}"


def crown(radius: float, *, is_firm: bool) -> list[str]:
    said = [f"crown radius {number(radius)}; full line: wanted; dashed: the crown as it is", TICKS]
    return said if is_firm else [*said, PROVISIONAL]


def nut(width: float) -> str:
    return f"as wide as the nut, {short(width)}"


def wedge(high: float) -> str:
    return f"from 0 to {short(high)}; it reads the shortest way, not straight up"
