"""Readings that cannot all be right: both are named, and nothing is cut until one is read again, or confirmed."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Literal

from fidicula.codes import MeasureCode
from fidicula.core.geometry.neck import board_tilt
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.leaning import width_at_bridge
from fidicula.judgement.assessment.model import Slip
from fidicula.judgement.assessment.state import BenchState

LENGTH_SHARE = {"violin": 0.005, "viola": 0.005, "cello": 0.007, "bass": 0.012}
"""A string length may differ by so much of itself from what neck and stop make with the family's figures."""
FOOT_SLACK = 1.0
"""By so much more than half a foot the stops to its middle and to its back may differ. [mm]"""
RADII = 1.35
"""Radii of one board differ by no more than this from its nut to its end."""
ROOM_IN_POSTS = (4.0, 30.0)
"""A post is so many of its diameters long."""
TILTS = 1.5
"""A board's lean as read, and as its edges tell it, differ by no more. [degrees]"""


def contradictions(state: BenchState) -> Iterator[Slip]:
    """One each, for readings that stand and that nobody confirmed."""
    for slip in (
        *_neck_and_stop(state),
        *_stops(state),
        *_radii(state),
        *_room(state),
        *_tilt(state),
        *_inside(state),
    ):
        if not all(_is_confirmed(state, key) for key in slip.keys):
            yield slip


def _is_confirmed(state: BenchState, key: MeasurementKey) -> bool:
    stand = state.reading_states.get(key)
    return stand is not None and state.by_number[stand.reading.number].confirmed


def _read(state: BenchState, *keys: MeasurementKey) -> tuple[float, ...] | None:
    """What was read at this visit and stands; None where one was not."""
    found = []
    for key in keys:
        stand = state.reading_states.get(key)
        if stand is None or stand.usable is None:
            return None
        found.append(stand.usable)
    return tuple(found)


LengthCode = Literal["neck_length", "stop_length", "string_length"]
_LENGTHS: tuple[LengthCode, ...] = ("neck_length", "stop_length", "string_length")


def _aim(state: BenchState, figure: LengthCode) -> float | None:
    """What the figures want of one, whether a cut rests on it or not."""
    wanted = state.wanted((figure, None)) or state.targets.figure(figure)
    return None if wanted is None else wanted.band.aim


def _slip(subject: str, keys: tuple[MeasurementKey, ...], values: tuple[float, ...], expected: float = 0.0) -> Slip:
    return Slip("contradiction", keys, values, (expected,), stops=True, subject=subject)


def _neck_and_stop(state: BenchState) -> Iterator[Slip]:
    """Neck and stop make a string length, by the ratio of the family's own figures."""
    keys: tuple[MeasurementKey, ...] = (("neck_length", None), ("stop_length", 0), ("string_length", None))
    values, aims = _read(state, *keys), [_aim(state, name) for name in _LENGTHS]
    if values is None or not all(aims):
        return
    neck, stop, length = (one or 0.0 for one in aims)
    expected = (values[0] + values[1]) * length / (neck + stop)
    if abs(values[2] - expected) > LENGTH_SHARE[state.instrument.family] * expected:
        yield _slip("neck_and_stop", keys, values, expected)


def _stops(state: BenchState) -> Iterator[Slip]:
    """To the back of the foot it is half a foot more than to its middle."""
    keys: tuple[MeasurementKey, ...] = (("stop_length", 0), ("stop_length", 1))
    values, foot = _read(state, *keys), state.read_or_figure("bridge_foot_thickness")
    if values is None or foot is None:
        return
    if abs(values[1] - values[0] - foot.value / 2) > foot.value / 2 + FOOT_SLACK:
        yield _slip("stops", keys, values, foot.value / 2)


def _radii(state: BenchState) -> Iterator[Slip]:
    measures: tuple[MeasureCode, ...] = ("fingerboard_radius_nut", "fingerboard_radius_middle", "fingerboard_radius")
    keys: list[MeasurementKey] = [(name, None) for name in measures]
    read = {key: one[0] for key in keys if (one := _read(state, key)) is not None}
    if len(read) > 1 and max(read.values()) > RADII * min(read.values()):
        low, high = min(read, key=lambda key: read[key]), max(read, key=lambda key: read[key])
        yield _slip("radii", (low, high), (read[low], read[high]))


def _room(state: BenchState) -> Iterator[Slip]:
    """The room for a post beside the thickness of a post."""
    keys: tuple[MeasurementKey, ...] = (("post_room", None),)
    values, post = _read(state, *keys), state.targets.figure("post_diameter")
    if values is None or post is None:
        return
    if not ROOM_IN_POSTS[0] <= values[0] / post.band.aim <= ROOM_IN_POSTS[1]:
        yield _slip("room", keys, values, post.band.aim)


def _tilt(state: BenchState) -> Iterator[Slip]:
    keys: tuple[MeasurementKey, ...] = (("board_tilt", None), ("edge_projection", 0), ("edge_projection", 1))
    values, width = _read(state, *keys), width_at_bridge(state)
    if values is None or not width:
        return
    told = board_tilt(bass_edge=values[1], treble_edge=values[2], width=width)
    if abs(values[0] - told) > TILTS:
        yield _slip("tilt", keys, values, told)


def _inside(state: BenchState) -> Iterator[Slip]:
    """Strings lie inside the board's width, and over the bridge's feet."""
    wide: tuple[MeasurementKey, MeasurementKey]
    for wide in (
        (("nut_spread", None), ("fingerboard_width", 0)),
        (("bridge_spread", None), ("bridge_foot_width", None)),
    ):
        values = _read(state, *wide)
        if values is not None and values[0] >= values[1]:
            yield _slip("inside", wide, values)
