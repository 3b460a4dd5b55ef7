"""What the page of a bass bridge's height wheels says."""

from __future__ import annotations

from fidicula.services.numbers import number, short, signed, signed_short

TITLE = "Height wheels"
CAUTION = (
    "Strings slack by a tone or two, a little on each wheel in turn, the feet held: two people, a bass is heavy. "
    "Look to the bridge's stance after every turn."
)
WHY_LEG = "The crown moves as a straight bar over the legs."


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
