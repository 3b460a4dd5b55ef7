"""What is derived for a place from other readings, where nobody measured it itself."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, get_args

from fidicula.codes import MeasureCode
from fidicula.core.errors import CoreError
from fidicula.core.fitting.nut import between_cards
from fidicula.core.readings.conversions import FootPlace, SpacingForm, radius_by_chord, stop_to, string_steps
from fidicula.core.readings.states import MeasurementKey, ReadingState

FOOT_PLACES: tuple[FootPlace, ...] = get_args(FootPlace)
"""In the order of the places of `stop_length`."""


@dataclass(frozen=True)
class Derived:
    """value, known_to : [mm].  by : what it was told by, by code."""

    value: float
    known_to: float
    by: str


@dataclass(frozen=True)
class Spaced:
    """Where strings were read to sit, by one way of reading it. [mm]

    steps : of each string's middle from the lowest string's.  mark : of the lowest string's middle from the wood's bass
    edge; None where that was not read.  known_to : of the spread.
    """

    steps: tuple[float, ...]
    mark: float | None
    known_to: float
    by: str


Where = Literal["nut", "bridge"]
SPACING_MEASURES: Mapping[Where, Mapping[SpacingForm, MeasureCode]] = {
    "nut": {"marks": "string_mark_nut", "centres": "string_centres_nut", "gaps": "string_gap_nut"},
    "bridge": {"marks": "string_mark_bridge", "centres": "string_centres_bridge", "gaps": "string_gap_bridge"},
}


def spaced(
    where: Where, reading_states: Mapping[MeasurementKey, ReadingState], diameters: Sequence[float], string_count: int
) -> Spaced | None:
    """where : nut or bridge.  diameters : none where no strings are named; the air between them tells nothing then.

    None where it was read in no way to its end, or what was read cannot be.
    """
    for form, measure in SPACING_MEASURES[where].items():
        count = string_count - (0 if form == "marks" else 1)
        read = [_usable((measure, i), reading_states) for i in range(count)]
        known = [one for one in read if one is not None]
        if not count or len(known) < count:
            continue
        values = [value for value, _ in known]
        try:
            # Marks and middles are the same whatever the strings' thickness.
            thick = diameters if form == "gaps" else [0.0] * string_count
            steps = string_steps(form, measured=values, diameters=thick)
        except CoreError:
            continue
        apart = [known[0][1] + known[-1][1]] if form == "marks" else [known_to for _, known_to in known]
        return Spaced(steps, values[0] if form == "marks" else None, sum(apart), form)
    return None


def derived_at(
    place: MeasurementKey,
    reading_states: Mapping[MeasurementKey, ReadingState],
    diameters: Sequence[float],
    string_count: int,
) -> Derived | None:
    """None where nothing tells it, or what does cannot be."""
    if place[0] in ("nut_spread", "bridge_spread"):
        where: Where = "nut" if place[0] == "nut_spread" else "bridge"
        return _spread(spaced(where, reading_states, diameters, string_count))
    told = _TOLD.get(place[0])
    if told is None:
        return None
    try:
        return told(place, reading_states)
    except CoreError:
        return None


def _usable(place: MeasurementKey, reading_states: Mapping[MeasurementKey, ReadingState]) -> tuple[float, float] | None:
    """A reading that holds, with its ±."""
    stand = reading_states.get(place)
    if stand is None or stand.usable is None:
        return None
    return stand.usable, stand.known_to


def _spread(found: Spaced | None) -> Derived | None:
    return None if found is None else Derived(found.steps[-1], found.known_to, found.by)


def _radius(_place: MeasurementKey, reading_states: Mapping[MeasurementKey, ReadingState]) -> Derived | None:
    chord, rise = _usable(("board_chord", None), reading_states), _usable(("board_rise", None), reading_states)
    if chord is None or rise is None:
        return None
    radius, known_to = radius_by_chord(chord=chord[0], rise=rise[0], chord_known_to=chord[1], rise_known_to=rise[1])
    return Derived(radius, known_to, "chord_and_rise")


def _stop(place: MeasurementKey, reading_states: Mapping[MeasurementKey, ReadingState]) -> Derived | None:
    thickness = _usable(("bridge_foot_thickness", None), reading_states)
    if thickness is None or place[1] is None:
        return None
    for position, measured_to in enumerate(FOOT_PLACES):
        measured = _usable(("stop_length", position), reading_states)
        if measured is not None and position != place[1]:
            value = stop_to(
                FOOT_PLACES[place[1]], measured=measured[0], measured_to=measured_to, foot_thickness=thickness[0]
            )
            return Derived(value, measured[1] + thickness[1], f"stop_to_{measured_to}")
    return None


def _by_cards(place: MeasurementKey, reading_states: Mapping[MeasurementKey, ReadingState]) -> Derived | None:
    passes, stops = _usable(("nut_passes", place[1]), reading_states), _usable(("nut_stops", place[1]), reading_states)
    if passes is None or stops is None:
        return None
    value, known_to = between_cards(passes=passes[0], stops=stops[0])
    return Derived(value, known_to, "cards")


_TOLD: Mapping[str, Callable[[MeasurementKey, Mapping[MeasurementKey, ReadingState]], Derived | None]] = {
    "fingerboard_radius": _radius,
    "stop_length": _stop,
    "nut_height": _by_cards,
}

TOLD_BY_OTHERS = frozenset((*_TOLD, "nut_spread", "bridge_spread"))
"""The measures that other readings can tell."""
