"""What the history of an instrument consists of. These values go to the screen as they are."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime

from fidicula.codes import MeasureCode
from fidicula.views.sheet.model import LogLine


@dataclass(frozen=True)
class Changed:
    """A place that is not as it was at the last visit. change : with its sign, in words.  measure, position : of it."""

    what: str
    measure: MeasureCode
    position: int | None
    before: str
    came: str
    now: str
    change: str


@dataclass(frozen=True)
class ChartPoint:
    """A value at a visit. at : when it was read."""

    at: datetime
    value: float
    visit_id: str


@dataclass(frozen=True)
class ChartLine:
    """One place over the visits. name : of the string, empty for a single measure.  low, high : what is wanted now."""

    name: str
    points: list[ChartPoint]
    low: float | None
    high: float | None


@dataclass(frozen=True)
class Chart:
    """A measure that was read at more than one visit. places : decimals that its values need."""

    measure: MeasureCode
    label: str
    unit: str
    places: int
    lines: list[ChartLine]


@dataclass(frozen=True)
class HistoryPhoto:
    id: str
    item: str
    label: str
    words: str
    at: datetime


@dataclass(frozen=True)
class HistoryEntry:
    """What was written down at a visit, in words. kind : works, strings, post, decided, found, heard, added."""

    kind: str
    says: str
    by: str
    at: datetime | None


@dataclass(frozen=True)
class HistoryDocument:
    """An estimate, invoice or credit note. lines : each work with its minutes and amount, in words."""

    id: str
    says: str
    lines: list[str]


@dataclass(frozen=True)
class HistoryVisit:
    """One visit. readings : how many were taken.  is_sealed : whether a seal holds.  additions : what was added.

    cost : what was billed and paid, in words, empty for nothing.
    """

    id: str
    kind: str
    label: str
    complaint: str
    opened_at: datetime
    closed_at: datetime | None
    closed_by: str
    readings: int
    is_sealed: bool
    entries: list[HistoryEntry]
    photos: list[HistoryPhoto]
    additions: list[HistoryEntry]
    documents: list[HistoryDocument]
    cost: str


@dataclass(frozen=True)
class InstrumentHistory:
    """An instrument over its visits, newest first. changed_since : of the visit before, None where there was none.

    humidity : of the room, by visit.
    """

    ticket: str
    changed_since: datetime | None
    changed: list[Changed]
    done_since: list[str]
    charts: list[Chart]
    humidity: list[ChartPoint]
    visits: list[HistoryVisit]


@dataclass(frozen=True)
class LogOfVisit:
    """Everything that was written down at one visit, newest first."""

    visit_id: str
    label: str
    opened_at: datetime
    lines: list[LogLine]
