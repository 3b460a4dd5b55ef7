"""What sayings of the bench come to in numbers: how much longer, tighter or further apart something is."""

from __future__ import annotations

import math

from fidicula.core.errors import CoreError

_OCTAVE_CENTS = 1200.0


def pull_growth(*, string_length: float, longer: float) -> float:
    """By which share the pull grows where a string is longer and tuned to the same pitch, 0.03 for 3 %.

    string_length : as it is. [mm]  longer : by so much, below zero for shorter. [mm]
    Raises CoreError naming `string_length` or `longer` where nothing would be left of the string.
    Source: a string's pull at one pitch goes with the square of its length.
    """
    _check_length(string_length)
    if string_length + longer <= 0:
        raise CoreError("longer", sentence="a string cannot become shorter than it is long", value=longer)
    return ((string_length + longer) / string_length) ** 2 - 1


def cents_of_length(*, string_length: float, difference: float) -> float:
    """How far two strings are apart in pitch that differ in length alone. [cents]

    string_length : of the shorter one. [mm]  difference : of their lengths. [mm]
    Raises CoreError naming `string_length` or `difference`. Source: pitch goes with one over the length.
    """
    _check_length(string_length)
    if string_length + difference <= 0:
        raise CoreError("difference", sentence="the other string has to have a length too", value=difference)
    return _OCTAVE_CENTS * math.log2((string_length + difference) / string_length)


def pull_of_cents(cents: float) -> float:
    """By which share the pull grows where a string is tuned higher by so many cents, 0.023 for 2.3 %.

    cents : below zero for lower.  Source: pull goes with the square of the pitch.
    """
    return math.exp2(2 * cents / _OCTAVE_CENTS) - 1


def gape_of_shift(*, shift: float, length: float, diameter: float) -> float:
    """How far a square end of a post gapes at its edge once one end stands further by `shift`. [mm]

    shift : of one end along a plate. [mm]  length, diameter : of the post. [mm]
    Raises CoreError naming `length` or `diameter`. Source: the lean's slope over the width of the end.
    """
    for name, value in (("length", length), ("diameter", diameter)):
        if value <= 0:
            raise CoreError(name, sentence=f"the post's {name} is over 0 mm; it was {value:g}", value=value)
    return abs(shift) / length * diameter


def shift_of_lean(*, degrees: float, length: float) -> float:
    """How far a post's ends stand apart that leans so much. [mm]

    degrees : off upright.  length : of the post, above 0. [mm]
    Raises CoreError naming `length`. Source: the sine of the lean over its length.
    """
    if length <= 0:
        raise CoreError("length", sentence=f"the post's length is over 0 mm; it was {length:g}", value=length)
    return length * math.sin(math.radians(abs(degrees)))


def _check_length(string_length: float) -> None:
    if string_length <= 0:
        raise CoreError(
            "string_length", sentence=f"the string length is over 0 mm; it was {string_length:g}", value=string_length
        )
