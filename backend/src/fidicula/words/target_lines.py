"""What stands in the list of all targets of one instrument."""

from __future__ import annotations

from fidicula.numerals import short

NO_FIGURE = "no figure, enter the shop's own"
FOLLOWS_CROWN = "follows the crown"
CARRIED_ON = "the same height, carried on to the bridge"
CENTRED = "centred on the board"
NEAREST_ARC = "nearest arc to the strings' own heights"
PRESENT_LESS_WANTED = "present less wanted"
SPREAD_AND_SPACING = "spread and spacing"
NEAR_SADDLE = "as near the saddle as it will go: the gap there decides"
LABELS = {
    "nut_centre": "string group off the middle, to the treble",
    "back_square": "lean of the bridge's tailpiece face, + toward the tailpiece",
    "both": "lean of the bridge's middle plane, + toward the tailpiece",
    "bridge_place": "where the bridge goes",
    "post_statement": "which side of the post a distance is to",
    "post_stance": "lean of the post, + toward the tailpiece",
    "post_work": "post under tension",
    "post_moves": "which end of the post moves first",
    "slot_turn": "how the outer nut slots turn",
    "board_edges": "the board's long edges",
    "peg_grip": "a peg that slips",
    "judging": "the last pass",
}


def at_board_end(name: str) -> str:
    return f"{name} at the board's end"


def over_mark(name: str) -> str:
    return f"{name} over the bridge's mark"


def at_nut(name: str) -> str:
    return f"{name} at the nut"


def from_middle(name: str) -> str:
    return f"{name} from the middle, at the bridge"


def wood(name: str) -> str:
    return f"{name}: wood to take off"


def beside_highest(margin: float, source: str) -> str:
    return f"{short(margin)} mm beside the highest string; {source}"


def of_string_length(length: float, divisor: float, source: str) -> str:
    return f"string length {short(length)} ÷ {short(divisor)}; {source}"
