"""The conditions that a question about the house consists of, and what it can name."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from fidicula.codes import Family, MeasureCode, WorkCode


@dataclass(frozen=True)
class OfFamily:
    """Of one of these families."""

    families: tuple[str, ...]


@dataclass(frozen=True)
class OfSize:
    """Of this size, as it is written."""

    size: str


@dataclass(frozen=True)
class HasWords:
    """Found by these words. where : owner, ticket, strings, kind, or empty for anything that is said of it."""

    where: str
    words: str


@dataclass(frozen=True)
class Measured:
    """The last reading of a measure lies between two values; None is open. [the measure's unit]

    place : of the string, or its place by name; empty for a single measure, or for any of its places.
    is_strict : the limits themselves are not counted in.
    """

    measure: MeasureCode
    place: str
    low: float | None
    high: float | None
    is_strict: bool = True


@dataclass(frozen=True)
class WasDone:
    """A work was done so many times. most : None for any number.  since, until : days, both counted in."""

    work: WorkCode
    least: int
    most: int | None
    since: date | None
    until: date | None


@dataclass(frozen=True)
class TensionChanged:
    """Other strings went on whose tension, all together, is another."""

    since: date | None


@dataclass(frozen=True)
class IsDue:
    """It should come again by a day, from a day on; None for any."""

    since: date | None
    until: date


@dataclass(frozen=True)
class CameFor:
    """A visit of a kind began within days, both counted in."""

    kind: str
    since: date | None
    until: date | None


@dataclass(frozen=True)
class IsHere:
    """Whether it is in the house."""

    is_here: bool


Condition = OfFamily | OfSize | HasWords | Measured | WasDone | TensionChanged | IsDue | CameFor | IsHere


@dataclass(frozen=True)
class Vocabulary:
    """What a question can name. Every phrase in small letters.

    families : by phrase.  measures : by phrase, the measure and whether it is read at places.  places : names of
    strings and places, by measure; “” where all measures share them.  works, kinds : by phrase.
    """

    families: dict[str, Family]
    measures: dict[str, MeasureCode]
    places: dict[str, tuple[str, ...]]
    works: dict[str, WorkCode]
    kinds: dict[str, str]
