"""An estimate as a PDF for the owner: selectable text, the typeface embedded, a drawing of what is wrong."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass


@dataclass(frozen=True)
class Step:
    label: str
    minutes: str


@dataclass(frozen=True)
class Point:
    """x : along.  y : upward."""

    x: float
    y: float


@dataclass(frozen=True)
class Name:
    """What stands at a place along a drawing."""

    x: float
    words: str


@dataclass(frozen=True)
class Row:
    """One work. detail : lines under it, small.  steps : what it takes, with minutes."""

    label: str
    detail: Sequence[str]
    minutes: str
    amount: str
    steps: Sequence[Step]


@dataclass(frozen=True)
class Curve:
    """Points along a line, level by level. kind : in words.  is_wanted : else as it is now."""

    kind: str
    is_wanted: bool
    points: Sequence[Point]


@dataclass(frozen=True)
class Figure:
    """A drawing. stretch : heights are drawn so many times larger than lengths, in words.  names : under the points."""

    title: str
    stretch: str
    curves: Sequence[Curve]
    names: Sequence[Name]


@dataclass(frozen=True)
class EstimatePaper:
    """Everything in words, as it is printed."""

    title: str
    subject: Sequence[str]
    rows: Sequence[Row]
    sums: Sequence[Sequence[str]]
    notes: Sequence[str]
    figures: Sequence[Figure]
    heads: Sequence[str]
    sum_heads: Sequence[str]
    sign: str


def as_pdf(paper: EstimatePaper) -> bytes:
    """A4, as many pages as it needs."""
    # What writes it takes longer to load than all that the first page needs.
    from fidicula.documents.estimate_pdf import written

    return written(paper)
