"""What is too little to act on, and what stands in band; one place for words, signs and the course."""

from __future__ import annotations

from fidicula.core.bands import side_of_band
from fidicula.services.assessment.state import BenchState

WORTH_TAKING = 0.1
"""Less wood than this is within what measuring can tell. [mm]"""

WORTH_FILING = 0.05
"""Less than this over the nut's aim is left alone. [mm]"""

SAME_PROJECTION = 0.25
"""Readings of the projection that differ by less are the same: measuring it twice does as much. [mm]"""

OTHER_AIR = 15.0
"""Air that differs by so much from last time's moves wood. [% of humidity]"""

NEAR_ENOUGH_BEHIND = 0.008
"""An afterlength that differs by less of the string length from what is wanted is left as it is."""

UNEVEN_SHARE = 0.05
"""A string that stands off its place by more of the step between two strings is seen, and heard in double stops."""

WALKED_SHARE = 0.004
"""A string length that differs by more of itself from last time's says that the bridge stands elsewhere."""


def outer_in_band(state: BenchState) -> bool:
    """Whether the heights of both outer strings are measured, hold, and stand in their bands."""
    for position in (0, state.count - 1):
        place = ("end_height", position)
        stand, wanted = state.reading_states.get(place), state.wanted_as_read(place)
        if stand is None or stand.usable is None or wanted is None:
            return False
        if side_of_band(value=stand.usable, band=wanted.band) != "in_band":
            return False
    return True
