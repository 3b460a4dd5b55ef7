"""Wanted heights at the nut and at the board's end, string by string, from one school each."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from fidicula.core.bands import Band

PartOfBand = Literal["whole", "upper_half", "lower_half", "own"]


def end_height_band(*, family_band: Band, part: PartOfBand, additions: Sequence[float] = ()) -> Band:
    """The wanted end height of an outer string. [mm]

    family_band : the figure of this family and size, or the school's own band. [mm]
    part : which part of it the school takes; `whole` and `own` take it as it is.
    additions : what string material and a new instrument add. [mm]
    Source: the shop's schools.
    """
    band = family_band
    if part == "upper_half":
        band = band.upper_half()
    elif part == "lower_half":
        band = band.lower_half()
    return band.shifted(sum(additions))


def bands_across(*, bass: Band, treble: Band, count: int) -> tuple[Band, ...]:
    """One band a string, falling evenly from the lowest string's to the highest's. [mm]

    bass, treble : of the outer strings. [mm]  count : of strings, two or more.
    Source: the shop's way of reading a card that gives only the outer strings.
    """

    def between(low: float, high: float, share: float) -> float:
        return low + (high - low) * share

    shares = [i / (count - 1) for i in range(count)]
    return tuple(
        Band(
            between(bass.low, treble.low, share),
            between(bass.aim, treble.aim, share),
            between(bass.high, treble.high, share),
        )
        for share in shares
    )
