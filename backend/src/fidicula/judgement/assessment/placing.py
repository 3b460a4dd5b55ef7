"""Where each school has the bridge, from where it stands; nothing that is not read is said of it."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import get_args

from fidicula.core.errors import CoreError
from fidicula.core.fitting.bridge_place import PlaceSchool, shift_to_nicks, shift_to_ratio
from fidicula.judgement.assessment.state import BenchState

SCHOOLS: tuple[PlaceSchool, ...] = get_args(PlaceSchool)
_BESIDE_SHARE = 0.004
"""Less of the string length than this is within what a rule over an edge can tell."""
LEANS = 1.5
"""A tailpiece face that leans toward the board by more is seen, and goes on leaning. [degrees]"""


@dataclass(frozen=True)
class Placed:
    """shift : toward the tailpiece from where it stands. [mm]  assumed : it rests on a figure."""

    shift: float
    assumed: bool


def placed(state: BenchState) -> Mapping[PlaceSchool, Placed]:
    """Each school that can be told."""
    found = {school: _placed(state, school) for school in SCHOOLS}
    return {school: place for school, place in found.items() if place is not None}


def nick_line(state: BenchState) -> float | None:
    """From the edge of the top to the line across the nicks; one side alone says it too. [mm]"""
    read = [held.value for side in (0, 1) if (held := state.known("nick_stop", side)) is not None]
    return sum(read) / len(read) if read else None


def is_beside(state: BenchState, school: PlaceSchool) -> bool:
    """Whether the bridge stands off the place that a school has for it, by more than reading it tells."""
    place, length = placed(state).get(school), state.held("string_length")
    return place is not None and length is not None and abs(place.shift) > _BESIDE_SHARE * length.value


def leans_forward(state: BenchState) -> bool:
    """Whether its tailpiece face was read to lean toward the board."""
    lean = state.known("bridge_lean")
    return lean is not None and lean.value < -LEANS


def _placed(state: BenchState, school: PlaceSchool) -> Placed | None:
    try:
        return _shift(state, school)
    except CoreError:
        return None


def _shift(state: BenchState, school: PlaceSchool) -> Placed | None:
    if school == "footprint":
        old = state.known("old_footprint")
        return None if old is None else Placed(old.value, assumed=False)
    if school == "length":
        length, nominal = state.known("string_length"), state.wanted(("string_length", None))
        return None if length is None or nominal is None else Placed(nominal.band.aim - length.value, assumed=False)
    stop = state.known("stop_length", 0)
    if stop is None:
        return None
    if school == "ratio":
        neck, ratio = state.known("neck_length"), state.targets.figure("neck_to_stop")
        if neck is None or ratio is None:
            return None
        shift = shift_to_ratio(neck_length=neck.value, stop_length=stop.value, neck_to_stop=ratio.band.aim)
        return Placed(shift, assumed=False)
    line = nick_line(state)
    foot = state.read_or_figure("bridge_foot_thickness", figure="bridge_foot_thickness")
    if line is None or foot is None:
        return None
    shift = shift_to_nicks(school, nick_line=line, stop_length=stop.value, foot_thickness=foot.value)
    return Placed(shift, foot.assumed and school != "nicks")
