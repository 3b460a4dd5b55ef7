"""Readings, and the tools that they were taken with."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from fidicula.codes import (
    MeasureCode,
    ToolCode,
)
from fidicula.core.geometry.board import HeightDirection
from fidicula.core.readings.doubt import DoubtCode


@dataclass(frozen=True)
class Reading:
    """doubt : why it is doubted, by code; doubt_about : what it is compared with. [its unit]

    simulated : no device of the shop sent it.
    """

    number: int
    id: UUID
    visit_id: UUID
    measure: MeasureCode
    position: int | None
    typed: str
    value: float
    tool: ToolCode
    direction: HeightDirection | None
    taken_by: str
    taken_at: datetime
    recorded_at: datetime
    after_work: int | None
    corrected_by: int | None
    repeats: bool
    doubt: DoubtCode | None
    suggested: float | None
    confirmed: bool
    taken_back: bool
    doubt_about: float | None = None
    simulated: bool = False


@dataclass(frozen=True)
class ToolCheck:
    """A tool was checked on lengths that are known, or was said to read true. known, read : in one order. [mm]"""

    id: UUID
    tool: ToolCode
    known: tuple[float, ...]
    read: tuple[float, ...]
    checked_by: str
    checked_at: datetime


@dataclass(frozen=True)
class NewReading:
    """A reading on its way in; its number and time of arrival come from the database.

    corrected_by : number of a newer reading that is there already.
    """

    id: UUID
    visit_id: UUID
    measure: MeasureCode
    position: int | None
    typed: str
    value: float
    tool: ToolCode
    direction: HeightDirection | None
    taken_by: str
    taken_at: datetime
    after_work: int | None
    repeats: bool
    doubt: DoubtCode | None
    suggested: float | None
    corrected_by: int | None = None
    doubt_about: float | None = None
    simulated: bool = False


@dataclass(frozen=True)
class LastTime:
    """What was read at an earlier visit. [mm]  works_since : what was done after it and before this visit."""

    value: float
    direction: HeightDirection | None
    taken_at: datetime
    tool: ToolCode
    works_since: frozenset[str] = frozenset()
