"""Where the bridge goes: how far each school has it from where it stands, and what moving it brings.

Along the instrument; toward the tailpiece is positive.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from fidicula.core.errors import CoreError
from fidicula.core.mechanics.perspective import cents_of_length, pull_growth

PlaceSchool = Literal["nicks", "third", "ratio", "length", "footprint"]
"""The nicks halve the foot; their line lies a third of the foot before its back; neck to stop by a ratio; the string is
as long as its figure; the foot stands on the old one's print."""

_BEFORE_BACK: dict[Literal["nicks", "third"], float] = {"nicks": 1 / 2, "third": 1 / 3}
"""How far before the back of the foot the nicks' line lies, in parts of the foot's thickness."""


def shift_to_nicks(
    school: Literal["nicks", "third"], *, nick_line: float, stop_length: float, foot_thickness: float
) -> float:
    """How far the bridge has to move for the nicks' line to lie where a school has it under the foot. [mm]

    nick_line : from the edge of the top to the line across the inner nicks. [mm]
    stop_length : to the foot's middle, where it stands. [mm]  foot_thickness : front to back, above 0. [mm]
    Raises CoreError naming `foot_thickness`. Source: plain lengths.
    """
    if foot_thickness <= 0:
        raise CoreError("foot_thickness", sentence="a foot has a thickness over 0 mm", value=foot_thickness)
    return nick_line + (_BEFORE_BACK[school] - 1 / 2) * foot_thickness - stop_length


def shift_to_ratio(*, neck_length: float, stop_length: float, neck_to_stop: float) -> float:
    """How far the bridge has to move for the neck to be to the stop as wanted. [mm]

    neck_length : nut to edge. [mm]  stop_length : edge to the foot's middle. [mm]
    neck_to_stop : wanted, 2/3 for a violin, above 0.  Raises CoreError naming `neck_to_stop`. Source: plain lengths.
    """
    if neck_to_stop <= 0:
        raise CoreError("neck_to_stop", sentence="the ratio of neck to stop is over 0", value=neck_to_stop)
    return neck_length / neck_to_stop - stop_length


@dataclass(frozen=True)
class Moved:
    """What a moved bridge brings.

    string_length, octave : longer by. [mm]  pull : grows by this share at the same pitch.  setback : of the post behind
    the foot. [mm]
    """

    string_length: float
    octave: float
    pull: float
    setback: float


def moved_by(*, shift: float, string_length: float) -> Moved:
    """What it brings to move the bridge, toward the tailpiece positive.

    shift : along the instrument. [mm]  string_length : as it is. [mm]
    Raises CoreError naming `string_length` or `longer`. Source: half the string sounds the octave; a string's pull at
    one pitch goes with the square of its length; the post stands where it stood.
    """
    return Moved(shift, shift / 2, pull_growth(string_length=string_length, longer=shift), -shift)


def aside(*, bass_gap: float, treble_gap: float) -> float:
    """How far the bridge stands to the treble of the middle between the f-holes. [mm]

    bass_gap, treble_gap : from the outer edge of each foot to its f-hole. [mm]  Below zero: to the bass.
    """
    return (bass_gap - treble_gap) / 2


def cents_of_turn(*, turn: float, foot_width: float, spread: float, string_length: float) -> float:
    """What a bridge turned as seen from above does to the pitch of the outer strings against each other. [cents]

    turn : how much farther back one foot stands than the other. [mm]  foot_width : over the feet, above 0. [mm]
    spread : middle to middle of the outer strings. [mm]  string_length : [mm]
    Raises CoreError naming `foot_width`, `string_length` or `difference`. Source: the turn carried to the strings, and
    pitch with one over the length.
    """
    if foot_width <= 0:
        raise CoreError("foot_width", sentence="the width over the feet is over 0 mm", value=foot_width)
    return cents_of_length(string_length=string_length, difference=abs(turn) / foot_width * spread)
