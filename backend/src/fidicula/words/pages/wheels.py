"""What the page of a bass bridge's height wheels says."""

from __future__ import annotations

from fidicula.numerals import number, short, signed
from fidicula.words.numbers import signed_short

TITLE = "Height wheels"
WHY_LEG = "The crown moves as a straight bar over the legs."


def room(side: str, left: float) -> str:
    """left : that the wheel can still come down. [mm]"""
    return f"The {side} wheel can come down {number(left)} mm more."


def at_its_end(side: str, left: float) -> str:
    return f"The {side} wheel reaches its end {number(left)} mm down: the rest comes off the crown or the feet."


def at_board_end(name: str) -> str:
    return f"{name} at the board's end"


def changed(name: str) -> str:
    return f"{at_board_end(name)}, changed by"


def to_aim(aim: float, source: str) -> str:
    return f"to {short(aim)}; {source}"


def why_end(*, change: float, carry: float, there: float) -> str:
    """carry : string length over board length.  there : the change at the bridge. [mm]"""
    by = signed_short(change)
    return f"{by} there is {by} × {number(carry, 3)} = {signed(there, 2)} at the bridge."


def why_turns(*, leg: float, thread: float) -> str:
    return f"{signed(leg, 2)} ÷ {short(thread)} a turn; + raises."
