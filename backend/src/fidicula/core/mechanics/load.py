r"""Tension and load.

           bridge
   front  /|\  rear         down force of a string: T·(sin front + sin rear)
 ________/ | \________
board      |     tailpiece  the feet share it by moments about each other
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass

from fidicula.core.geometry.neck import board_angle

KGF = 9.80665
"""Newtons in a kilogram's weight."""


@dataclass(frozen=True)
class BridgeAngles:
    """String against the body's plane, toward the fingerboard and toward the tailpiece. [degrees]"""

    front: float
    rear: float

    @property
    def over_bridge(self) -> float:
        """Between the string's two sides: 180° where it runs straight on. [degrees] Source: angles on a line."""
        return 180 - self.front - self.rear

    @property
    def halving_lean(self) -> float:
        """How far the middle plane of a bridge leans that halves the angle, top toward the tailpiece positive. [°]"""
        return (self.rear - self.front) / 2

    @classmethod
    def halved(cls, over_bridge: float) -> BridgeAngles:
        """The same angle on both sides. over_bridge : between the string's two sides, up to 180. [degrees]"""
        half = (180 - over_bridge) / 2
        return cls(front=half, rear=half)


@dataclass(frozen=True)
class BodyGeometry:
    """What the angles follow from. [mm] Heights are over the rib plane unless they say otherwise.

    arch_height : of the belly at the bridge.  projection : over the belly.  board_height_at_edge : of the board's
    crest at the body's edge.  stop_length : edge to bridge.  clearance_at_bridge : mark height of the middle.
    nut_height : of the strings over the board.  crown_height : over the belly.  saddle_height : its top.
    bridge_to_saddle : along the body.
    """

    arch_height: float
    projection: float
    board_height_at_edge: float
    stop_length: float
    clearance_at_bridge: float
    nut_height: float
    crown_height: float
    saddle_height: float
    bridge_to_saddle: float


def angles_of(*, geometry: BodyGeometry, string_length: float) -> BridgeAngles:
    """The strings' angles on both sides of the bridge. [degrees]

    geometry : heights and lengths of the body.  string_length : above 0. [mm]  Source: right triangles.
    """
    g = geometry
    board = board_angle(
        arch_height=g.arch_height,
        projection=g.projection,
        board_height_at_edge=g.board_height_at_edge,
        stop_length=g.stop_length,
    )
    over_board = math.degrees(math.atan((g.clearance_at_bridge - g.nut_height) / string_length))
    rear = math.atan((g.arch_height + g.crown_height - g.saddle_height) / g.bridge_to_saddle)
    return BridgeAngles(front=board + over_board, rear=math.degrees(rear))


def tension_at(
    *,
    tension: float,
    string_length: float,
    reference_length: float | None = None,
    pitch: float | None = None,
    reference_pitch: float | None = None,
) -> float:
    """A string's tension at another length and pitch than it is quoted for. [N]

    tension : as quoted, above 0. [N]  string_length : above 0. [mm]
    reference_length : that it is quoted for; None where it is the same. [mm]
    pitch, reference_pitch : sounding and quoted; both or neither count. [Hz]
    Source: tension goes with the square of length and of pitch.
    """
    found = tension
    if reference_length is not None:
        found *= (string_length / reference_length) ** 2
    if pitch is not None and reference_pitch is not None:
        found *= (pitch / reference_pitch) ** 2
    return found


def tension_of_density(*, linear_density: float, string_length: float, pitch: float) -> float:
    """T = μ(2Sf)². [N]

    linear_density : above 0. [g/m]  string_length : above 0. [mm]  pitch : above 0. [Hz]
    Source: the ideal string's fundamental.
    """
    return linear_density / 1000 * (2 * string_length / 1000 * pitch) ** 2


def down_force(*, tension: float, angles: BridgeAngles) -> float:
    """What one string presses on the bridge, square to the body's plane. [N]

    tension : above 0. [N]  angles : on both sides of the bridge.  Source: statics.
    """
    return tension * (math.sin(math.radians(angles.front)) + math.sin(math.radians(angles.rear)))


def feet_loads(*, offsets: Sequence[float], forces: Sequence[float], foot_spread: float) -> tuple[float, float]:
    """What the bass and the treble foot carry; negative where a foot would lift. [N]

    offsets : of the strings at the bridge, negative on the bass side. [mm]  forces : theirs, downward. [N]
    foot_spread : between the feet's middles, above 0. [mm]  Source: moments about each foot.
    """
    treble = sum(f * (y + foot_spread / 2) for y, f in zip(offsets, forces, strict=True)) / foot_spread
    return sum(forces) - treble, treble
