r"""Where a post stands, told from the treble foot: gauged, or carried on from the last gauged place.

     toward the bridge: behind smaller
               |
bass side -----+----- treble side, the f-hole: across greater
               |
     toward the tailpiece: behind greater
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Literal

from fidicula.core.errors import DoesNotFitError
from fidicula.core.fitting.post import Point

Direction = Literal["bridge", "tailpiece", "treble", "bass"]
End = Literal["top", "bottom"]
Known = Literal["gauged", "estimated", "unknown"]

UNIT: dict[Direction, Point] = {
    "bridge": (-1.0, 0.0),
    "tailpiece": (1.0, 0.0),
    "treble": (0.0, 1.0),
    "bass": (0.0, -1.0),
}
OPPOSITE: dict[Direction, Direction] = {
    "bridge": "tailpiece",
    "tailpiece": "bridge",
    "treble": "bass",
    "bass": "treble",
}
A_TAP = 0.1
"""What a tap may move an end by where this instrument has not shown it. [mm] Source: custom of the bench."""
GAUGE_KNOWS = 0.2
"""How well a card gauge knows an end's place. [mm]"""
ALIKE = 0.05
"""Less than this is no way. [mm]"""


@dataclass(frozen=True)
class EndPlace:
    """One end of a post. at : None where nobody can tell. [mm]

    known_to : ± in each direction. [mm]
    """

    at: Point | None
    known: Known
    known_to: float = 0.0


NOWHERE = EndPlace(None, "unknown")


@dataclass(frozen=True)
class TapLength:
    """What a tap moved an end by on one instrument. [mm]

    mean, known_to : over the taps whose end was gauged before and after.  taps : how many those were.
    """

    mean: float
    known_to: float
    taps: float


def gauged(at: Point, *, known_to: float = GAUGE_KNOWS) -> EndPlace:
    """An end whose place was read. at : [mm]  known_to : ± of the gauge, above 0. [mm]"""
    return EndPlace(at, "gauged", known_to)


def moved(end: EndPlace, *, direction: Direction, length: float, known_to: float) -> EndPlace:
    """Where an end is after a move that nobody gauged: estimated.

    end : before it.  direction : of the bench.  length : 0 or more. [mm]  known_to : ± of the length. [mm]
    Raises DoesNotFitError.
    """
    if length < 0 or not math.isfinite(length):
        raise DoesNotFitError("length", sentence=f"a move is 0 mm or more; it was {length:g}", value=length)
    if end.at is None:
        return NOWHERE
    along, across = UNIT[direction]
    at = end.at[0] + along * length, end.at[1] + across * length
    return EndPlace(at, "estimated", end.known_to + known_to)


def shifted(end: EndPlace, *, by: Point, known_to: float) -> EndPlace:
    """Where an end is after it was taken a whole way: estimated. by : [mm]  end : before it.  known_to : ±. [mm]"""
    if end.at is None:
        return NOWHERE
    return EndPlace((end.at[0] + by[0], end.at[1] + by[1]), "estimated", end.known_to + known_to)


def way(*, start: Point, goal: Point) -> Point:
    """The way from one place to another: [toward the tailpiece, toward the treble side]. [mm]

    start, goal : of the same end, told from the same foot. [mm]
    """
    return goal[0] - start[0], goal[1] - start[1]


def steps_of(vector: Point) -> list[tuple[Direction, float]]:
    """A way in the directions of the bench, without those that are no way. [mm]

    vector : [toward the tailpiece, toward the treble side]. [mm]
    """
    along, across = vector
    found: list[tuple[Direction, float]] = []
    if abs(along) >= ALIKE:
        found.append(("tailpiece" if along > 0 else "bridge", abs(along)))
    if abs(across) >= ALIKE:
        found.append(("treble" if across > 0 else "bass", abs(across)))
    return found


def tap_length(shown: Sequence[tuple[float, float]]) -> TapLength | None:
    """What a tap moved an end by, from taps whose end was gauged before and after; None without any.

    shown : taps, and how far that end went in their direction. [mm]
    Those that went nowhere or back are left out: a gauge that is known to 0.2 shows that of a single tap.
    """
    told = [(taps, length) for taps, length in shown if taps > 0 and length > 0]
    if not told:
        return None
    taps = sum(count for count, _ in told)
    mean = sum(length for _, length in told) / taps
    off = max(abs(length / count - mean) for count, length in told)
    return TapLength(mean, max(off, GAUGE_KNOWS * math.sqrt(2) / taps), taps)
