r"""The fingerboard's lengthwise scoop: the gap under a straightedge that rests on both ends.

nut end                           free end
  |=================================|   straightedge
   \_ gap                       _ /
     \___________.____________/         target gap: 4·relief·(x/L)(1 - x/L)
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import pairwise
from typing import TYPE_CHECKING, Literal, Protocol

from fidicula.core.errors import TOLERANCE, DoesNotFitError

if TYPE_CHECKING:
    import numpy as np
    from numpy.typing import NDArray

    Places = NDArray[np.float64]

BoardFault = Literal["hump", "wave", "too_flat", "too_deep"]

HUMP = 0.05
WAVE = 0.05
"""How far a gap must be off to be a fault. [mm]"""


@dataclass(frozen=True)
class Station:
    """x : along the board from the nut. [mm]  gap : under the straightedge, negative on a hump. [mm]"""

    x: float
    gap: float


@dataclass(frozen=True)
class DressedStation:
    """A station with its target gap, and what to plane off. [mm]"""

    x: float
    gap: float
    target_gap: float
    removal: float


@dataclass(frozen=True)
class Dressing:
    """relief : the largest gap; relief_at : where.  base_removal : what comes off everywhere.

    target_relief : the scoop that it is dressed to. [mm]
    """

    relief: float
    relief_at: float
    faults: tuple[BoardFault, ...]
    stations: tuple[DressedStation, ...]
    base_removal: float
    max_removal: float
    target_relief: float


def with_ends(*, stations: Sequence[Station], fingerboard_length: float) -> list[Station]:
    """The stations in order, with both ends as gap 0.

    stations : on the board, none twice. [mm]  fingerboard_length : above 0. [mm]
    Raises DoesNotFitError naming `stations`.
    """
    ordered = sorted(stations, key=lambda station: station.x)
    for station in ordered:
        if not -TOLERANCE <= station.x <= fingerboard_length + TOLERANCE:
            raise DoesNotFitError(
                "stations",
                sentence=f"the station at {station.x:g} mm is not on the board of {fingerboard_length:g} mm",
                value=station.x,
            )
        at_end = station.x <= TOLERANCE or station.x >= fingerboard_length - TOLERANCE
        if at_end and abs(station.gap) > TOLERANCE:
            raise DoesNotFitError(
                "stations",
                sentence=f"the straightedge rests on the board's ends: the gap at {station.x:g} mm must be 0",
                value=station.gap,
            )
    for left, right in pairwise(ordered):
        if right.x - left.x <= TOLERANCE:
            raise DoesNotFitError("stations", sentence=f"the station at {right.x:g} mm is given twice", value=right.x)
    inner = [s for s in ordered if TOLERANCE < s.x < fingerboard_length - TOLERANCE]
    return [Station(0.0, 0.0), *inner, Station(fingerboard_length, 0.0)]


class BoardGap(Protocol):
    """How far a board lies under its straight line."""

    def __call__(self, x: float, /) -> float:
        """At one place. x : along the board from the nut. [mm]"""
        ...

    def along(self, places: Places) -> Places:
        """At many places at once. places : shape (n,), along the board. [mm]"""
        ...


@dataclass(frozen=True)
class _Parabola:
    relief: float
    length: float

    def __call__(self, x: float, /) -> float:
        return 4 * self.relief * (x / self.length) * (1 - x / self.length)

    def along(self, places: Places) -> Places:
        return 4 * self.relief * (places / self.length) * (1 - places / self.length)


@dataclass(frozen=True)
class _Straight:
    """Straight lines between stations, and on beyond the last."""

    known: tuple[Station, ...]

    def __call__(self, x: float, /) -> float:
        right = min(max(bisect_right(self.known, x, key=lambda station: station.x), 1), len(self.known) - 1)
        a, b = self.known[right - 1], self.known[right]
        return a.gap + (b.gap - a.gap) * (x - a.x) / (b.x - a.x)

    def along(self, places: Places) -> Places:
        import numpy as np

        return np.interp(places, [s.x for s in self.known], [s.gap for s in self.known])


@dataclass(frozen=True)
class GapBetween:
    """Under a string between the board's two sides. share : of the way from the bass side, 0 to 1."""

    bass: BoardGap
    treble: BoardGap
    share: float

    def __call__(self, x: float, /) -> float:
        return removal_across(bass=self.bass(x), treble=self.treble(x), share=self.share)

    def along(self, places: Places) -> Places:
        bass = self.bass.along(places)
        return bass + (self.treble.along(places) - bass) * self.share


def gap_along(
    *, fingerboard_length: float, relief: float | None = None, stations: Sequence[Station] | None = None
) -> BoardGap:
    """The board's gap at any place: a parabola of a relief, or straight lines between stations. [mm]

    fingerboard_length : above 0. [mm]  relief : 0 or more, at the middle. [mm]
    stations : measured gaps; the ends count as 0. [mm]  Neither means a straight board.
    Raises DoesNotFitError naming `stations` where both are given, or a station is not on the board.
    """
    if stations is None:
        return _Parabola(relief or 0.0, fingerboard_length)
    if relief is not None:
        raise DoesNotFitError("stations", sentence="give the board's relief or its stations, not both")
    return _Straight(tuple(with_ends(stations=stations, fingerboard_length=fingerboard_length)))


def plan_dressing(
    *, fingerboard_length: float, stations: Sequence[Station], target_relief: float, tolerance: float = 0.15
) -> Dressing:
    """Faults of a board, and what to plane off at each station.

    fingerboard_length : above 0. [mm]  stations : measured gaps. [mm]
    target_relief : the gap wanted in the middle, 0 or more. [mm]
    tolerance : how far the relief may be off it, 0 or more. [mm]
    Raises DoesNotFitError naming `stations`. Source: a parabola under the lowest point that planing can reach.
    """
    known = with_ends(stations=stations, fingerboard_length=fingerboard_length)
    wanted = gap_along(fingerboard_length=fingerboard_length, relief=target_relief)
    base = max(0.0, *(station.gap - wanted(station.x) for station in known))
    dressed = tuple(DressedStation(s.x, s.gap, wanted(s.x), wanted(s.x) - s.gap + base) for s in known)
    deepest = max(known, key=lambda station: station.gap)
    return Dressing(
        relief=deepest.gap,
        relief_at=deepest.x,
        faults=_faults(known, deepest.gap, target_relief, tolerance),
        stations=dressed,
        base_removal=base,
        max_removal=max(station.removal for station in dressed),
        target_relief=target_relief,
    )


def _faults(known: list[Station], relief: float, target: float, tolerance: float) -> tuple[BoardFault, ...]:
    gaps = [station.gap for station in known]
    faults: list[BoardFault] = []
    if min(gaps) < -HUMP - TOLERANCE:
        faults.append("hump")
    if any(gaps[i] < min(max(gaps[:i]), max(gaps[i + 1 :])) - WAVE - TOLERANCE for i in range(1, len(gaps) - 1)):
        faults.append("wave")
    if relief < target - tolerance - TOLERANCE:
        faults.append("too_flat")
    if relief > target + tolerance + TOLERANCE:
        faults.append("too_deep")
    return tuple(faults)


def radius_of_arc(*, chord: float, sagitta: float) -> float:
    """Radius of the arc over a chord. [mm]

    chord : above 0. [mm]  sagitta : rise of the arc over it, above 0. [mm]  Source: the intersecting chords.
    """
    return chord * chord / (8 * sagitta) + sagitta / 2


def edge_left(*, thickness: float, max_removal: float) -> float:
    """What is left of the board's edge where most comes off: the cautious reading. [mm]

    thickness : of the edge as read, above 0. [mm]  max_removal : of the dressing on that side, 0 or more. [mm]
    """
    return thickness - max_removal


def removal_across(*, bass: float, treble: float, share: float) -> float:
    """Wood to remove a board between its sides, where both are planed by something else. [mm]

    bass, treble : off each side. [mm]  share : of the way from the bass side to the treble, 0 to 1.
    Source: a straight plane across.
    """
    return bass + (treble - bass) * share
