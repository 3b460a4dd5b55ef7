"""What is wanted of every family and size. Where there is no row there is no figure: nothing is scaled."""

from __future__ import annotations

from functools import cache
from typing import Literal

from pydantic import model_validator

from fidicula.core.bands import Band
from fidicula.core.errors import CoreError
from fidicula.tables.rows import SourcedRow, TableRow, read_rows

Family = Literal["violin", "viola", "cello", "bass"]


class Figure(SourcedRow):
    """One measure of one family and size; a floor has only its low end."""

    family: Family
    size: str
    measure: str
    low: float
    aim: float | None
    high: float | None
    unit: Literal["mm", "degrees"]

    @model_validator(mode="after")
    def _ordered(self) -> Figure:
        if (self.aim is None) != (self.high is None):
            raise ValueError("a band needs low, aim and high; a floor only low")
        if self.aim is not None and self.high is not None:
            try:
                Band(self.low, self.aim, self.high)
            except CoreError as error:
                raise ValueError(error.sentence) from error
        return self

    @property
    def band(self) -> Band:
        if self.aim is None or self.high is None:
            return Band(self.low, self.low, float("inf"))
        return Band(self.low, self.aim, self.high)


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
def _figures() -> dict[tuple[str, str, str], Figure]:
    return {(row.family, row.size, row.measure): row for row in read_rows("figures", Figure)}


def figure(*, family: str, size: str, measure: str) -> Figure | None:
    """The shop's figure, or None where it has none for this family and size."""
    return _figures().get((family, size, measure))


@cache
def sizes() -> tuple[Size, ...]:
    """Every size that has figures, in the families' order."""
    return read_rows("sizes", Size)


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


def spread_factor(*, family: str, count: int, measure: str) -> SpreadFactor | None:
    """How much wider than with four strings a spread is; None where the shop has no figure."""
    return _factors().get((family, count, measure))
