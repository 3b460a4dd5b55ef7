"""What the page of the nut's slots says."""

from __future__ import annotations

from collections.abc import Sequence

from fidicula.core.fitting.nut import SlotTurn
from fidicula.numerals import number, short

TITLE = "The nut's slots"
PLUCKED = "A plucked open string that buzzes does not bear at the front edge: the slot's floor falls away to the peg."
SLOTS_TITLE = "The slots"
SLOTS_HEAD = ("", "string", "slot depth", "slot width", "slot file", "nut's top", "turn to its peg")
FLOORS_TITLE = "The floors from the side"
FLOORS_X, FLOORS_Y = "behind the front edge, mm", "falls, mm"
SPACING_TITLE = "Spacing at the nut"
WANTED_ROW = "target, from the bass edge"
PRESENT_ROW = "now"


def wanted_at(name: str) -> str:
    return f"{name} at the nut, target"


def at_nut(name: str) -> str:
    return f"{name} at the nut"


def at_board_end(name: str) -> str:
    return f"{name} at the board's end"


def why_filed(*, height: float, aim: float, off: float) -> str:
    return f"{number(height, 2)} − {number(aim, 2)} = {number(off, 2)} to file; a slot is never filled by a file."


def why_end(*, off: float, carry: float, gives: float) -> str:
    """carry : string length over board length, what the board's end makes of a height at the bridge."""
    return f"{number(off, 2)} × (1 − 1 ÷ {number(carry, 3)}) = {number(gives, 2)}: the string turns about the bridge."


def slot_row(
    name: str,
    *,
    diameter: float,
    deep: float,
    wide: tuple[float, float],
    file: float | None,
    top: float | None,
    turn: str,
) -> list[str]:
    return [
        name,
        number(diameter, 2),
        number(deep, 2),
        f"{number(wide[0], 2)} to {number(wide[1], 2)}",
        "none fits" if file is None else short(file),
        "–" if top is None else number(top, 2),
        turn,
    ]


def slots_says(width_school: str, turn_school: str) -> str:
    """What stands under the slots. width_school : how wide they are made.  turn_school : how the outer ones turn."""
    said = "The string bears at the very front edge, and no slot bites it. Lubricate each: pencil in the slot."
    if turn_school == "outer_inward":
        said = f"{said} The outer two turn slightly inward from the line to their pegs."
    if width_school == "exact":
        return f"{said} “An exact slot stops the string from turning”: unproven; binding shows in tuning and windings."
    return said


def bound(name: str, *, card: float, over: bool) -> str:
    """One card alone tells a bound. [mm]"""
    if over:
        return f"{name}: over {number(card, 2)}, for that card passes. Try the next one: between two it is a number."
    return f"{name}: under {number(card, 2)}, for that card does not pass. Try the next thinner one."


def wide(name: str, *, width: float, low: float, high: float) -> str:
    what = "narrow: the string binds" if width < low else "wide: the string wanders"
    return f"{name}'s slot is {number(width, 2)} wide, wanted {number(low, 2)} to {number(high, 2)}: too {what}."


def top(name: str, *, top: float, wanted: float) -> str:
    """top, wanted : of the nut over the board, beside the string. [mm]"""
    return f"Beside {name} the nut stands {number(top)} over the board; {number(wanted)} is wanted once it is filed."


def deep(name: str, *, depth: float, diameter: float) -> str:
    """Over half of a string lies in the nut. [mm]"""
    return (
        f"The {name} lies {number(depth, 2)} deep, over half of its {number(diameter, 2)}: it is choked. "
        "Take the nut's top down beside it; its floor stays."
    )


def floors(falls: str) -> str:
    return f"Level at the front edge, each falls by {falls} mm at the back."


def turn(found: SlotTurn) -> str:
    if abs(found.plan_angle) < 0.05:
        return f"falls {number(found.fall_angle)}°, straight on"
    way = "treble" if found.plan_angle > 0 else "bass"
    return f"falls {number(found.fall_angle)}°, {number(abs(found.plan_angle))}° to the {way}"


def spacing(*, gaps: Sequence[float], width: float) -> str:
    return f"Air between them: {', '.join(number(gap, 2) for gap in gaps)}. The nut is {short(width)} wide."
