"""What stands so near the edge of its band that its readings do not tell on which side: one more decides."""

from __future__ import annotations

from collections.abc import Mapping

from fidicula.core.bands import Band, near_edge, outside_by, side_of_band
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.model import CutFacts
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.assessment.thresholds import end_bands

READ_SO_OFTEN = 3
"""What stands at the edge of its band is read up to so many times; then its mean decides."""


def unsure_heights(state: BenchState, cut: CutFacts) -> tuple[MeasurementKey, ...]:
    """Strings to read once more before anybody says that the bridge serves, or cuts it.

    None where another string is surely out of its band, for then the crown is cut and all are read again.
    """
    found: list[MeasurementKey] = []
    for position, band in enumerate(end_bands(state, cut)):
        held = state.held("end_height", position)
        if held is None or band is None:
            continue
        if abs(outside_by(value=held.value, band=band)) > held.chance:
            return ()
        if _is_unsure(state, ("end_height", position), band, held.value, held.chance):
            found.append(("end_height", position))
    return tuple(found)


def unsure_nuts(state: BenchState) -> tuple[MeasurementKey, ...]:
    """Heights at the nut that stand under their band by less than their readings tell: what is too low wants a new nut.

    One over its band by less than that is left as it is: a file takes for good, and it can be filed at any time.
    """
    found = []
    for position in range(state.count):
        place: MeasurementKey = ("nut_height", position)
        held, wanted = state.held(*place), state.wanted_as_read(place)
        if held is None or held.assumed or wanted is None:
            continue
        if side_of_band(value=held.value, band=wanted.band) == "below" and _is_unsure(
            state, place, wanted.band, held.value, held.chance
        ):
            found.append(place)
    return tuple(found)


def _is_unsure(state: BenchState, place: MeasurementKey, band: Band, value: float, chance: float) -> bool:
    stand = state.reading_states.get(place)
    if stand is None or stand.state != "current" or stand.count >= READ_SO_OFTEN:
        return False
    return near_edge(value=value, band=band, known_to=chance)


def lean_wanted(state: BenchState) -> tuple[MeasurementKey, ...]:
    """The board's lean, where a string's height was read with a wedge or a card: it turns what they find."""
    by_wedge = any(
        _is_by_wedge(state, ("end_height", position), state.reading_states) for position in range(state.count)
    )
    return (("board_tilt", None),) if by_wedge and state.lean is None else ()


def _is_by_wedge(state: BenchState, place: MeasurementKey, states: Mapping[MeasurementKey, object]) -> bool:
    return place in states and state.direction(*place) == "shortest"
