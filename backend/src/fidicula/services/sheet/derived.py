"""What a place is told by other readings, where nobody measured it itself."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import get_args

from fidicula.core.errors import CoreError
from fidicula.core.readings.conversions import FootPlace, radius_by_chord, stop_to
from fidicula.core.readings.standing import Place, Standing

FOOT_PLACES: tuple[FootPlace, ...] = get_args(FootPlace)
"""In the order of the places of `stop_length`."""


@dataclass(frozen=True)
class Derived:
    """value, known_to : [mm].  by : what it was told by, in words."""

    value: float
    known_to: float
    by: str


def derived_at(place: Place, standings: Mapping[Place, Standing]) -> Derived | None:
    """None where nothing tells it, or what does cannot be."""
    told = _TOLD.get(place[0])
    if told is None:
        return None
    try:
        return told(place, standings)
    except CoreError:
        return None


def _usable(place: Place, standings: Mapping[Place, Standing]) -> tuple[float, float] | None:
    """A reading that holds, with its ±."""
    stand = standings.get(place)
    if stand is None or stand.usable is None:
        return None
    return stand.usable, max(stand.resolution, stand.repeat_spread / 2)


def _radius(_place: Place, standings: Mapping[Place, Standing]) -> Derived | None:
    chord, rise = _usable(("board_chord", None), standings), _usable(("board_rise", None), standings)
    if chord is None or rise is None:
        return None
    radius, known_to = radius_by_chord(chord=chord[0], rise=rise[0], chord_known_to=chord[1], rise_known_to=rise[1])
    return Derived(radius, known_to, "chord and rise")


def _stop(place: Place, standings: Mapping[Place, Standing]) -> Derived | None:
    thickness = _usable(("bridge_foot_thickness", None), standings)
    if thickness is None or place[1] is None:
        return None
    for position, measured_to in enumerate(FOOT_PLACES):
        measured = _usable(("stop_length", position), standings)
        if measured is not None and position != place[1]:
            value = stop_to(
                FOOT_PLACES[place[1]], measured=measured[0], measured_to=measured_to, foot_thickness=thickness[0]
            )
            return Derived(value, measured[1] + thickness[1], f"the stop to the foot's {measured_to}")
    return None


_TOLD: Mapping[str, Callable[[Place, Mapping[Place, Standing]], Derived | None]] = {
    "fingerboard_radius": _radius,
    "stop_length": _stop,
}
