"""What the page of tension and load says."""

from __future__ import annotations

from collections.abc import Sequence

from fidicula.core.mechanics.load import KGF, BridgeAngles
from fidicula.numerals import number, short

TITLE = "Tension and load"
CAUTION = "Let tension off and on a little at a time, the bridge held upright: it slaps down, and a post falls."
NO_STRINGS = "No strings named. Load and tension follow from the set."
NOT_YET = "The bridge cannot be computed yet: the bench sheet says what is missing."
ASSUMED_CROWN = "the crown as it is wanted: the heights at the board's end are not read"
ASSUMED_HALVES = "the same angle on both sides of the bridge; read the heights over the ribs to have both"
LABELS = {
    "saddle_height": "saddle height",
    "break_angle": "break angle over the bridge",
    "tension": "total tension",
    "same": "the same",
    "down": "force on the top",
    "bass_foot": "on the bass foot",
    "treble_foot": "on the treble foot",
    "break": "over the bridge",
    "lean": "lean of the bisector, + toward tailpiece",
}
WHY_KG = f"÷ {short(KGF, 3)}"
WHY_FEET = "By moments about the feet: each string presses on both, the nearer more."
WHY_BREAK = "180 − front − rear"
WHY_LEAN = "(rear − front) ÷ 2"
TABLE_TITLE = "String by string"
TABLE_HEAD = ("", "tension, N", "kg", "force, N")


def without_figures(names: Sequence[str]) -> str:
    return f"The set has no figures for {', '.join(names)}: enter its density or tension."


def stance(angles: BridgeAngles) -> str:
    way = "back" if angles.halving_lean >= 0 else "forward"
    return (
        f"The strings fall {number(angles.front)}° toward the board and {number(angles.rear)}° toward the "
        f"tailpiece; a bridge that halves it leans its top {number(abs(angles.halving_lean))}° {way}, "
        "the tailpiece face square to the top it stands by the other school."
    )


def assumed_feet(*, apart: float, share: float) -> str:
    return f"feet {number(apart)} apart, {short(share)} of the width over them"


def assumed_angle(angle: float) -> str:
    return f"{short(angle)}° over the bridge"


def why_by_heights(
    *, arch: float, projection: float, board_at_edge: float, stop: float, crown: float, saddle: float, behind: float
) -> str:
    """behind : from the bridge to the saddle. [mm]"""
    return (
        f"Front: the board rises {short(arch)} + {short(projection)} − {short(board_at_edge)} "
        f"over a stop of {short(stop)}, the string over it; behind: {short(arch)} + "
        f"{number(crown)} − {short(saddle)} over {short(behind)}."
    )


def why_halved(angle: float, halved: BridgeAngles) -> str:
    return f"{short(angle)}° over the bridge, halved: {short(halved.front)}° on each side."


def finding(*, tension: float, down: float, bass: float, treble: float, lean: float, over_treble: str) -> list[str]:
    """tension : of all strings. [N]  over_treble : what stands under the treble foot."""
    said = [
        f"All strings pull with {number(tension, 0)} N, {number(tension / KGF)} kg: this is often called the "
        "weight on the top.",
        f"What presses on the top is less: {number(down, 0)} N, {number(down / KGF)} kg, "
        f"{number(treble / down * 100, 0)} % of it on the treble foot, over the {over_treble}.",
    ]
    if bass < 0 or treble < 0:
        said.append(f"The {'bass' if bass < 0 else 'treble'} foot would lift: a string stands outside of the feet.")
    if abs(lean) >= 0.05:
        side = "the tailpiece" if lean > 0 else "the board"
        said.append(f"A bridge that halves the angle leans its top {number(abs(lean))}° toward {side}.")
    return said


def why_down(angles: BridgeAngles, stance_why: str) -> str:
    return f"sin {number(angles.front, 2)}° + sin {number(angles.rear, 2)}° of each string's pull. {stance_why}"


def row(name: str, tension: float, force: float) -> list[str]:
    return [name, number(tension), number(tension / KGF, 2), number(force)]
