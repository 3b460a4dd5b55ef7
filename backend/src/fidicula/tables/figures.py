"""What is wanted of every family and size. Where there is no row there is no figure: nothing is scaled."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from fractions import Fraction
from functools import cache
from typing import Annotated, Literal

from pydantic import BeforeValidator, model_validator

from fidicula.codes import Family, FigureCode
from fidicula.core.bands import Band
from fidicula.core.errors import CoreError
from fidicula.tables.rows import SourcedRow, TableError, TableRow, read_rows

Shape = Literal["band", "floor", "ceiling", "value", "change", "factor"]
"""Which of low, aim and high a figure has; a factor is a value that may have a range."""

_PARTS: Mapping[Shape, tuple[bool, bool, bool]] = {
    "band": (True, True, True),
    "floor": (True, False, False),
    "ceiling": (False, False, True),
    "value": (False, True, False),
    "change": (False, True, False),
}


class FigureMeasure(TableRow):
    """What a figure is of. part : of the instrument, for finding it."""

    measure: FigureCode
    label: str
    unit: str
    shape: Shape
    part: str


@cache
def figure_measures() -> dict[FigureCode, FigureMeasure]:
    return {row.measure: row for row in read_rows("figure_measures", FigureMeasure)}


@dataclass(frozen=True)
class FigureKey:
    """Which fact a figure is.

    size : empty for one that holds in every size.  family : empty for one that holds in every family.
    question, school : the choice that it belongs to; both empty for the plain figure of family and size.
    """

    family: str
    size: str
    measure: FigureCode
    question: str = ""
    school: str = ""


def _read_fraction(text: object) -> object:
    return float(Fraction(text)) if isinstance(text, str) and "/" in text else text


Number = Annotated[float | None, BeforeValidator(_read_fraction)]


class FigureValues(SourcedRow):
    """low, aim, high : as many as the measure's shape has. [the measure's unit]

    Raises ValueError, in words, for a part that is missing or too many, and for an unordered band.
    """

    measure: FigureCode
    low: Number = None
    aim: Number = None
    high: Number = None

    @model_validator(mode="after")
    def _as_shaped(self) -> FigureValues:
        kind = figure_measures().get(self.measure)
        if kind is None:
            raise ValueError(f"{self.measure} is no measure of figure_measures.csv")
        given = (self.low is not None, self.aim is not None, self.high is not None)
        if kind.shape == "factor":
            if given not in ((False, True, False), (True, True, True)):
                raise ValueError("a factor has an aim, alone or with both its ends")
        elif given != _PARTS[kind.shape]:
            words = [name for name, has in zip(("low", "aim", "high"), _PARTS[kind.shape], strict=True) if has]
            raise ValueError(f"{', '.join(words)}: {'each is' if len(words) > 1 else 'it is'} needed, and nothing else")
        if all(given):
            try:
                _ = self.band
            except CoreError as error:
                raise ValueError(error.sentence) from error
        return self

    @property
    def band(self) -> Band:
        """The figure as a band; a single value is a band without width, a floor has no upper end."""
        known = [value for value in (self.low, self.aim, self.high) if value is not None]
        low = self.low if self.low is not None else (self.aim if self.aim is not None else float("-inf"))
        high = self.high if self.high is not None else (self.aim if self.aim is not None else float("inf"))
        return Band(low, self.aim if self.aim is not None else known[0], high)

    @property
    def value(self) -> float:
        """The one number to go by: the aim, or the end that a floor or a ceiling has."""
        return self.band.aim


class Figure(FigureValues):
    """One measure of one family and size; the size is empty where it holds in every size."""

    family: Family
    size: str | None = None

    @property
    def key(self) -> FigureKey:
        return FigureKey(self.family, self.size or "", self.measure)


class SchoolFigure(FigureValues):
    """One measure of one school; family and size are empty where it holds in all of them."""

    question: str
    school: str
    family: Family | None = None
    size: str | None = None

    @property
    def key(self) -> FigureKey:
        return FigureKey(self.family or "", self.size or "", self.measure, self.question, self.school)


class Size(TableRow):
    family: Family
    size: str
    body_length: float


class StringName(TableRow):
    family: Family
    count: int
    position: int
    name: str
    pitch: float


class SpreadFactor(SourcedRow):
    family: Family
    count: int
    measure: Literal["nut_spread", "bridge_spread"]
    factor: float


@cache
def starting_figures() -> Mapping[FigureKey, FigureValues]:
    """What the shop starts from, by key."""
    found: dict[FigureKey, FigureValues] = {}
    rows: tuple[Figure | SchoolFigure, ...] = (
        *read_rows("figures", Figure),
        *read_rows("school_figures", SchoolFigure),
    )
    for row in rows:
        if row.key in found:
            raise TableError(f"{row.key} stands twice in the figures")
        found[row.key] = row
    return found


@dataclass(frozen=True)
class FigureBook:
    """The figures in force. own : the shop's, each in the place of the starting one of its key."""

    own: Mapping[FigureKey, FigureValues] = field(default_factory=dict)

    def at(self, key: FigureKey) -> FigureValues | None:
        """The figure of exactly this key, or None where the shop has none."""
        return self.own.get(key) or starting_figures().get(key)

    def find(
        self, *, family: str, size: str, measure: FigureCode, question: str = "", school: str = ""
    ) -> FigureValues | None:
        """The figure that holds for an instrument: of its size, else one said to hold in every size, else none."""
        for key_family, key_size in ((family, size), (family, ""), ("", "")):
            found = self.at(FigureKey(key_family, key_size, measure, question, school))
            if found is not None:
                return found
        return None

    def of_school(self, *, family: str, question: str, school: str) -> bool:
        """Whether a school has any figure for a family, in any size."""
        return any(
            key.question == question and key.school == school and key.family in ("", family)
            for key in (*self.own, *_school_keys())
        )


@cache
def _school_keys() -> tuple[FigureKey, ...]:
    return tuple(key for key in starting_figures() if key.school)


@cache
def measures_of_school(question: str, school: str) -> tuple[FigureCode, ...]:
    """What figures a school needs, in the table's order."""
    return tuple(
        dict.fromkeys(key.measure for key in _school_keys() if (key.question, key.school) == (question, school))
    )


@cache
def sizes() -> tuple[Size, ...]:
    """Every size that has figures, in the families' order."""
    return read_rows("sizes", Size)


def body_length(family: str, size: str) -> float:
    """Of a size, or of the family's longest where a size is one of the shop's own. [mm]"""
    of = {row.size: row.body_length for row in sizes() if row.family == family}
    return of.get(size, max(of.values()))


@cache
def _string_names() -> dict[tuple[str, int], tuple[str, ...]]:
    names: dict[tuple[str, int], tuple[str, ...]] = {}
    for row in read_rows("strings", StringName):
        names[row.family, row.count] = (*names.get((row.family, row.count), ()), row.name)
    return names


def string_names(*, family: str, count: int) -> tuple[str, ...] | None:
    """Usual names of a family's strings, low string first; None for a count that has no usual names."""
    return _string_names().get((family, count))


def default_stringings() -> dict[str, dict[int, tuple[str, ...]]]:
    """For each family, the usual names by how many strings there are."""
    found: dict[str, dict[int, tuple[str, ...]]] = {}
    for (family, count), names in _string_names().items():
        found.setdefault(family, {})[count] = names
    return found


@cache
def _factors() -> dict[tuple[str, int, str], SpreadFactor]:
    return {(row.family, row.count, row.measure): row for row in read_rows("spread_factors", SpreadFactor)}


def spread_factor(*, family: str, count: int, measure: FigureCode) -> SpreadFactor | None:
    """How much wider than with four strings a spread is; None where the shop has no figure."""
    return _factors().get((family, count, measure))


@cache
def string_pitches(family: str) -> Mapping[str, float]:
    """The pitch of each of a family's strings by its name, at an A of 440. [Hz]"""
    return {row.name: row.pitch for row in read_rows("strings", StringName) if row.family == family}
