"""What is too little to act on, and what stands in band; one place for words, signs and the course."""

from __future__ import annotations

from fidicula.core.bands import Band, band_between, side_of_band
from fidicula.judgement.assessment.model import CutFacts
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.targets.wanted import Wanted

WORTH_TAKING = 0.1
"""Less wood than this is within what measuring can tell. [mm]"""

WORTH_FILING = 0.05
"""Less than this over the nut's aim is left alone. [mm]"""

SAME_PROJECTION = 0.25
"""Readings of the projection that differ by less are the same: measuring it twice does as much. [mm]"""

FIRST_STOP = 0.1
"""So far above the nut's aim the file rests, until the string was up and measured. [mm]"""

FIRST_STOP_FROM = 0.3
"""A nut slot that has further to go is filed to that stop first."""

OTHER_AIR = 15.0
"""Air that differs by so much from last time's moves wood. [% of humidity]"""

NEAR_ENOUGH_BEHIND = 0.008
"""An afterlength that differs by less of the string length from what is wanted is left as it is."""

UNEVEN_SHARE = 0.05
"""A string that stands off its place by more of the step between two strings is seen, and heard in double stops."""

WALKED_SHARE = 0.004
"""A string length that differs by more of itself from last time's says that the bridge stands elsewhere."""


WORTH_MOVING = 0.25
"""A bridge that stands nearer than this to a place stands there: a rule over an edge tells no less. [mm]"""

WORTH_LOWERING = 0.15
"""A slot that is deeper than wanted by less is left as it is. [mm]"""


def strings_in_band(state: BenchState, cut: CutFacts) -> bool:
    """Whether the height of every string holds and stands in its band; an inner one's where it is read."""
    for position, band in enumerate(end_bands(state, cut)):
        held = state.held("end_height", position)
        if held is None or band is None:
            if position in (0, state.count - 1):
                return False
        elif side_of_band(value=held.value, band=band) != "in_band":
            return False
    return True


def end_bands(state: BenchState, cut: CutFacts) -> list[Band | None]:
    """What each string may be at the board's end, as it was read. [mm]"""
    turned = [state.turned_as_read(("end_height", i), upright) for i, upright in enumerate(ends_wanted(state, cut))]
    return [None if one is None else one.band for one in turned]


def ends_wanted(state: BenchState, cut: CutFacts) -> list[Wanted | None]:
    """What each string may be at the board's end, straight up; None where that is not known. [mm]

    An inner string follows the crown, and may differ from that by what lies between what the outer two may; such a
    target has no source of its own.
    """
    last = state.count - 1
    found = [state.wanted_upright(("end_height", i)) for i in range(state.count)]
    low, high = found[0], found[last]
    if low is None or high is None:
        return found
    for i, string in enumerate(cut.strings):
        if found[i] is None and string.target_end is not None:
            found[i] = Wanted(band_between(low.band, high.band, share=i / last, aim=string.target_end), "")
    return found
