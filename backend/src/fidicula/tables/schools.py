"""The schools that a shop chooses from, each its own band; two schools are never averaged."""

from __future__ import annotations

from fractions import Fraction
from functools import cache
from typing import Annotated, Literal

from pydantic import BeforeValidator, model_validator

from fidicula.core.bands import Band
from fidicula.tables.rows import SourcedRow, read_rows

Side = Literal["bass", "treble"]
PartOfBand = Literal["whole", "upper_half", "lower_half", "own"]


class EndHeightSchool(SourcedRow):
    school: str
    family: str
    measure: Literal["end_height_bass", "end_height_treble"]
    part_of_band: PartOfBand
    low: float | None
    aim: float | None
    high: float | None

    @model_validator(mode="after")
    def _own_has_figures(self) -> EndHeightSchool:
        if (self.part_of_band == "own") != (self.own_band is not None):
            raise ValueError("a school of its own needs low, aim and high; any other has none")
        return self

    @property
    def own_band(self) -> Band | None:
        if self.low is None or self.aim is None or self.high is None:
            return None
        return Band(self.low, self.aim, self.high)


class EndHeightAdjustment(SourcedRow):
    """What a string material, or a new instrument, adds to the end heights. [mm]"""

    reason: str
    family: str
    bass: float
    treble: float


class NutHeightSchool(SourcedRow):
    school: str
    family: str
    side: Side
    low: float
    aim: float
    high: float

    @property
    def band(self) -> Band:
        return Band(self.low, self.aim, self.high)


class CrownSchool(SourcedRow):
    """factor : times the family's crown radius."""

    school: str
    factor: float


class SlotDepthSchool(SourcedRow):
    """ratio : of the string's diameter."""

    school: str
    ratio: Annotated[float, BeforeValidator(lambda text: float(Fraction(text)))]


@cache
def _end_height_schools() -> dict[tuple[str, str, str], EndHeightSchool]:
    rows = read_rows("end_height_schools", EndHeightSchool)
    return {(row.school, row.family, row.measure): row for row in rows}


def end_height_school(*, school: str, family: str, side: Side) -> EndHeightSchool | None:
    return _end_height_schools().get((school, family, f"end_height_{side}"))


def end_height_schools(family: str) -> tuple[str, ...]:
    """The schools of end heights that have figures for a family, in the table's order."""
    return tuple(dict.fromkeys(school for school, of, _ in _end_height_schools() if of == family))


@cache
def _adjustments() -> dict[tuple[str, str], EndHeightAdjustment]:
    rows = read_rows("end_height_adjustments", EndHeightAdjustment)
    return {(row.reason, row.family): row for row in rows}


def end_height_adjustment(*, reason: str, family: str) -> EndHeightAdjustment | None:
    return _adjustments().get((reason, family))


@cache
def _nut_heights() -> dict[tuple[str, str, str], NutHeightSchool]:
    rows = read_rows("nut_height_schools", NutHeightSchool)
    return {(row.school, row.family, row.side): row for row in rows}


def nut_height_school(*, school: str, family: str, side: Side) -> NutHeightSchool | None:
    return _nut_heights().get((school, family, side))


@cache
def crown_schools() -> dict[str, CrownSchool]:
    return {row.school: row for row in read_rows("crown_schools", CrownSchool)}


@cache
def slot_depth_schools() -> dict[str, SlotDepthSchool]:
    return {row.school: row for row in read_rows("slot_depth_schools", SlotDepthSchool)}
