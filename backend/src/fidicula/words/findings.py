"""What readings say together, in words: how the board leans, where the neck points, how the strings are spaced."""

from __future__ import annotations

import math

from fidicula.judgement.assessment.derived import Where
from fidicula.judgement.assessment.findings import WHERE, off_middle, spacing
from fidicula.judgement.assessment.leaning import tilt_of, width_at_bridge
from fidicula.judgement.assessment.state import BenchState
from fidicula.numerals import number
from fidicula.words.model import FoundView

AS_GOOD_AS_NONE = 0.05
"""Less than this is said to be none. [mm]"""


def found_words(state: BenchState) -> list[FoundView]:
    """One for each that was read, with the measures that it rests on."""
    told = (_tilt(state), _direction(state), *(_spaced(state, where) for where in WHERE), _kidneys(state))
    return [found for found in told if found]


def _side(value: float, positive: str, negative: str) -> str:
    return positive if value > 0 else negative


def _tilt(state: BenchState) -> FoundView | None:
    lean = tilt_of(state)
    width = None if lean is None else width_at_bridge(state)
    if lean is None or width is None:
        return None
    leans = lean.value
    over = abs(math.tan(math.radians(leans)) * width)
    says = "The board lies level across."
    if over >= AS_GOOD_AS_NONE:
        side = _side(leans, "treble", "bass")
        says = (
            f"The board leans up on the {side} side: {number(over)} mm over {number(width, 0)} mm at the bridge, "
            f"{number(abs(leans))}°. The crown follows it."
        )
    return FoundView("board_tilt" if state.held("board_tilt") is not None else "edge_projection", says)


def _direction(state: BenchState) -> FoundView | None:
    off = off_middle(state)
    if off is None:
        return None
    says = "The neck points to the middle between the nicks."
    if abs(off) >= AS_GOOD_AS_NONE:
        side = _side(off, "bass", "treble")
        says = (
            f"The neck points {number(abs(off))} mm to the {side} side of the middle between the nicks: "
            "the bridge stands there, or the strings run off the board's middle."
        )
    return FoundView("neck_to_nick", says)


EVEN = 0.5
"""Openings that differ by less are even to the eye. [mm]"""


def _kidneys(state: BenchState) -> FoundView | None:
    """Whether the bridge's kidneys are alike."""
    bass, treble = state.known("bridge_kidney", 0), state.known("bridge_kidney", 1)
    if bass is None or treble is None or abs(bass.value - treble.value) <= EVEN:
        return None
    wider = _side(bass.value - treble.value, "bass", "treble")
    by = number(abs(bass.value - treble.value))
    return FoundView("bridge_kidney", f"The {wider} kidney is {by} mm wider than the other: cut so on purpose?")


def _spaced(state: BenchState, where: Where) -> FoundView | None:
    found = spacing(state, where)
    if found is None:
        return None
    gaps = ", ".join(number(gap) for gap in found.judged.gaps)
    says = f"Air between the strings at the {where}: {gaps}, uneven by {number(found.judged.unevenness)}."
    worst = max(range(len(found.judged.deviations)), key=lambda i: abs(found.judged.deviations[i]))
    off = found.judged.deviations[worst]
    rule = "equal air" if state.targets.spacing == "equal_gaps" else "equal centres"
    if abs(off) >= AS_GOOD_AS_NONE:
        name = state.instrument.string_names[worst]
        says += f" For {rule}, {name} sits {number(abs(off))} too far to the {_side(off, 'treble', 'bass')} side."
    if found.by_edge and abs(found.judged.sway) >= AS_GOOD_AS_NONE:
        side = _side(found.judged.sway, "treble", "bass")
        says += f" The group stands {number(abs(found.judged.sway))} to the {side} side."
    return FoundView(f"spacing_{where}", says)
