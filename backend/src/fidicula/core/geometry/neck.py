r"""Neck, stop, projection, and how the board lies: its tilt, and where it points.

nut                edge         bridge
 |------ neck ------|---- stop ----|      string length is measured straight, nut to bridge
"""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from fidicula.core.bands import Band, side_of_band
from fidicula.core.errors import TOLERANCE, DoesNotFitError

ProjectionState = Literal["low", "in_band", "high"]
Remedy = Literal["none", "accept_with_reason", "wedge", "neck_reset"]


@dataclass(frozen=True)
class StopJudgement:
    """neck_to_stop : as measured.  ideal_stop, bridge_shift, string_length_after : [mm]; the shift is positive
    toward the tailpiece.  edge_interval : of the note stopped at the body's edge. [semitones]
    deviation : of the string length as measured from the nominal one. [mm]
    """

    neck_to_stop: float
    ideal_stop: float
    bridge_shift: float
    string_length_after: float
    edge_interval: float
    deviation: float | None


def neck_fits(*, neck_length: float, string_length: float) -> None:
    """Raise DoesNotFitError naming `neck_length` unless the neck ends before the bridge.

    neck_length, string_length : above 0. [mm]
    """
    if neck_length >= string_length - TOLERANCE:
        raise DoesNotFitError(
            "neck_length",
            sentence=(
                f"the neck must be shorter than the string length of {string_length:g} mm; it was {neck_length:g}"
            ),
            value=neck_length,
        )


def judge_stop(
    *,
    neck_length: float,
    stop_length: float,
    string_length: float,
    ratio: tuple[float, float] = (2.0, 3.0),
    nominal_string_length: float | None = None,
) -> StopJudgement:
    """How the stop stands to the neck.

    neck_length : nut to body edge, above 0. [mm]  stop_length : body edge to bridge, above 0. [mm]
    string_length : above neck_length. [mm]  ratio : neck to stop as wanted, each above 0.
    nominal_string_length : to compare with, above 0. [mm]
    Raises DoesNotFitError naming `neck_length`. Source: proportion; equal temperament for the interval.
    """
    neck_fits(neck_length=neck_length, string_length=string_length)
    ideal = neck_length * ratio[1] / ratio[0]
    return StopJudgement(
        neck_to_stop=neck_length / stop_length,
        ideal_stop=ideal,
        bridge_shift=ideal - stop_length,
        string_length_after=string_length + ideal - stop_length,
        edge_interval=12 * math.log2(string_length / (string_length - neck_length)),
        deviation=None if nominal_string_length is None else string_length - nominal_string_length,
    )


@dataclass(frozen=True)
class ProjectionJudgement:
    """Changes are at the bridge, at the heel and at the board's end [mm]; angles in degrees; 0 in band."""

    state: ProjectionState
    change_at_bridge: float
    change_at_heel: float
    change_at_board_end: float
    wedge_angle: float
    reset_angle: float
    remedy: Remedy


def judge_projection(
    *,
    measured: float,
    band: Band,
    string_length: float,
    neck_length: float,
    fingerboard_length: float,
    accept_low: float | None = None,
    accept_high: float | None = None,
    max_wedge: float = 1.2,
) -> ProjectionJudgement:
    """What the projection asks for: nothing, a reason, a wedge under the board, or a neck reset.

    measured : height of the board's line over the belly at the bridge, above 0. [mm]  band : what is wanted. [mm]
    string_length : above neck_length and fingerboard_length. [mm]  neck_length, fingerboard_length : above 0. [mm]
    accept_low, accept_high : what a person may accept with a reason, each for its own side. [mm]
    max_wedge : the thickest wedge at the heel, 0 or more. [mm]
    Raises DoesNotFitError naming `fingerboard_length` or `neck_length`.
    Source: a wedge turns the board about the nut, a reset turns the neck about the body's edge.
    """
    if fingerboard_length >= string_length - TOLERANCE:
        raise DoesNotFitError(
            "fingerboard_length",
            sentence=f"the board must end before the bridge at {string_length:g} mm; it was {fingerboard_length:g}",
            value=fingerboard_length,
        )
    neck_fits(neck_length=neck_length, string_length=string_length)
    where = side_of_band(value=measured, band=band)
    change = 0.0 if where == "in_band" else band.aim - measured
    at_heel = wedge_for_lift(lift=change, neck_length=neck_length, string_length=string_length)
    remedy: Remedy = "none"
    if where == "below":
        accepted = accept_low is not None and measured >= accept_low - TOLERANCE
        wedge: Remedy = "wedge" if at_heel <= max_wedge + TOLERANCE else "neck_reset"
        remedy = "accept_with_reason" if accepted else wedge
    elif where == "above":
        accepted = accept_high is not None and measured <= accept_high + TOLERANCE
        remedy = "accept_with_reason" if accepted else "neck_reset"
    states: dict[str, ProjectionState] = {"below": "low", "in_band": "in_band", "above": "high"}
    return ProjectionJudgement(
        state=states[where],
        change_at_bridge=change,
        change_at_heel=at_heel,
        change_at_board_end=lift_at_board_end(
            lift=change, fingerboard_length=fingerboard_length, string_length=string_length
        ),
        wedge_angle=math.degrees(math.atan(change / string_length)),
        reset_angle=math.degrees(math.atan(change / (string_length - neck_length))),
        remedy=remedy,
    )


def board_tilt(*, bass_edge: float, treble_edge: float, width: float) -> float:
    """How far the board leans across, positive where it is up on the treble side. [°]

    bass_edge, treble_edge : heights over the belly of the lines along the board's two edges, at the bridge. [mm]
    width : between those lines there, above 0. [mm]
    Raises DoesNotFitError naming `width`. Source: right triangle; a round alike on both sides drops out.
    """
    if width <= 0:
        raise DoesNotFitError("width", sentence="the board's edges lie some way apart", value=width)
    return math.degrees(math.atan((treble_edge - bass_edge) / width))


def board_angle(*, arch_height: float, projection: float, board_height_at_edge: float, stop_length: float) -> float:
    """The angle between the board's line and the plane of the ribs, which a bridge stands square to. [degrees]

    arch_height : of the belly at the bridge, over the plane of the ribs. [mm]  projection : over the belly. [mm]
    board_height_at_edge : of the board's crest over the plane of the ribs, at the body's edge. [mm]
    stop_length : edge to bridge, above 0. [mm]  Source: right triangle.
    """
    return math.degrees(math.atan((arch_height + projection - board_height_at_edge) / stop_length))


def width_drawn_out(*, at_nut: float, at_end: float, fingerboard_length: float, string_length: float) -> float:
    """How far the board's two edges, drawn out, lie apart at the bridge. [mm]

    at_nut, at_end : widths of the board there. [mm]  fingerboard_length, string_length : above 0. [mm]
    Source: similar triangles.
    """
    return at_nut + (at_end - at_nut) * string_length / fingerboard_length


def neck_off_middle(*, bass_to_nick: float, treble_to_nick: float) -> float:
    """How far the board's line passes the middle between the nicks, positive on the bass side. [mm]

    bass_to_nick, treble_to_nick : from the board's edge, drawn out, to the f-hole's inner nick. [mm]
    Source: half of what the two sides differ.
    """
    return (treble_to_nick - bass_to_nick) / 2


def wedge_lifts(*, at_heel: float, neck_length: float, string_length: float) -> float:
    """How far a wedge under the board, hinged at the nut, brings the board's line up at the bridge. [mm]

    at_heel : its thickness over the body's edge. [mm]  neck_length, string_length : above 0. [mm]
    Source: similar triangles.
    """
    return at_heel * string_length / neck_length


def wedge_for_lift(*, lift: float, neck_length: float, string_length: float) -> float:
    """How thick a wedge has to be over the body's edge to bring the board's line up at the bridge: the inverse of
    `wedge_lifts`; negative where the board would have to come down. [mm]

    lift : at the bridge. [mm]  neck_length, string_length : above 0. [mm]
    """
    return lift * neck_length / string_length


def lift_at_board_end(*, lift: float, fingerboard_length: float, string_length: float) -> float:
    """How far the board's free end comes up with its line at the bridge, turned about the nut. [mm]

    lift : at the bridge. [mm]  fingerboard_length, string_length : above 0. [mm]  Source: similar triangles.
    """
    return lift * fingerboard_length / string_length
