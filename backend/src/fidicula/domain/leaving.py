"""How a visit ends, as it is kept."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from typing import Any, Literal
from uuid import UUID

PointVerdict = Literal["right", "not_right"]


@dataclass(frozen=True)
class PointCheck:
    """What somebody saw at a point of the check at pitch. after_work : the last work before it."""

    id: UUID
    visit_id: UUID
    point: str
    verdict: PointVerdict
    words: str
    after_work: int
    checked_by: str
    checked_at: datetime | None = None


@dataclass(frozen=True)
class Seal:
    """A visit signed off. hashes : of each list of its record.  hash : of all, with what was signed.

    points : the checklist as it was signed.  next_check : when it should come again, None for not said.
    received_by, signature : who took it, and their strokes as points of a path.
    opened_again_at, opened_again_by : where the visit went on after all.
    """

    id: UUID
    visit_id: UUID
    format: int
    hashes: Mapping[str, str]
    hash: str
    points: Sequence[Mapping[str, Any]]
    next_check: date | None
    next_check_why: str
    received_by: str
    signature: str
    signed_by: str
    signed_at: datetime
    opened_again_at: datetime | None = None
    opened_again_by: str | None = None


@dataclass(frozen=True)
class Addition:
    """What was added to a sealed visit."""

    id: UUID
    visit_id: UUID
    words: str
    added_by: str
    added_at: datetime | None = None


@dataclass(frozen=True)
class PointEntry:
    """A line of the log of the shop's own points: the newest of a point stands.

    families : that it holds for, none for all.  place : its order.  retired : it is not asked any more.
    """

    id: UUID
    point: str
    label: str
    look: str
    means: str
    families: Sequence[str]
    place: int
    retired: bool
    entered_by: str
    entered_at: datetime | None = None


@dataclass(frozen=True)
class CheckDue:
    """An instrument that should come again."""

    ticket: str
    family: str
    size: str
    owner: str
    due: date
    why: str
    signed_by: str
