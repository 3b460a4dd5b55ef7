"""What an instrument follows, and the workshop's own figures and recipes."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from uuid import UUID

from fidicula.codes import (
    FigureCode,
    MeasureCode,
    TargetQuestionCode,
)


@dataclass(frozen=True)
class TargetChoice:
    """What an instrument follows.

    recipe : its name, None for the shop's own choice.  schools : where it differs from the recipe, by question.
    sources : where a measure's target comes from, if not from the recipe, by measure.
    """

    recipe: str | None = None
    schools: Mapping[TargetQuestionCode, str] = field(default_factory=dict)
    sources: Mapping[MeasureCode, Mapping[str, str]] = field(default_factory=dict)
    id: UUID | None = None
    reason: str = ""
    chosen_by: str = ""
    chosen_at: datetime | None = None


@dataclass(frozen=True)
class FigureEntry:
    """A line of the figures' log; withdrawn: from here on the starting figure stands again."""

    id: UUID
    family: str
    size: str
    measure: FigureCode
    question: str
    school: str
    low: float | None
    aim: float | None
    high: float | None
    source: str
    confirmed_by: str | None
    withdrawn: bool
    entered_by: str
    entered_at: datetime | None = None


@dataclass(frozen=True)
class RecipeEntry:
    """A line of the recipes' log: the newest of a family and name stands, unless it was retired."""

    id: UUID
    family: str
    name: str
    schools: Mapping[TargetQuestionCode, str]
    retired: bool
    entered_by: str
    entered_at: datetime | None = None
