"""What a checklist and a seal consist of. These values go to the screen as they are."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Literal

from fidicula.codes import Part
from fidicula.domain.leaving import PointVerdict

PointGroup = Literal["part", "pitch", "things", "damage", "waiting", "planned", "decided"]
PointState = Literal["right", "open", "not_right", "unchecked", "not_read", "assumed", "noted"]
"""In order; something is open there; looked at and not right; nobody looked; nobody read it; a figure stands in;
said for the record."""


@dataclass(frozen=True)
class PointEvidence:
    """What a point rests on, in words. kind : of what.  photo : its id, if it is one."""

    kind: Literal["reading", "seen", "work", "photo", "decision", "thing"]
    says: str
    photo: str = ""


@dataclass(frozen=True)
class ClosingPointView:
    """One point of the checklist. look : how it is looked at.  means : what it would mean to leave it so.

    reason : why it was left open, once it was signed.
    """

    key: str
    group: PointGroup
    label: str
    part: Part | None
    state: PointState
    is_open: bool
    says: str
    look: str
    means: str
    evidence: list[PointEvidence]
    verdict: PointVerdict | None = None
    words: str = ""
    by: str = ""
    at: datetime | None = None
    reason: str = ""


@dataclass(frozen=True)
class AdditionView:
    id: str
    words: str
    by: str
    at: datetime | None


@dataclass(frozen=True)
class SealView:
    """A signed visit. verdict : whether its record is as it was sealed.  changed : what is not, in words.

    late : readings that came after it, from a browser where they had waited.  short : of the hash, for paper.
    """

    visit_id: str
    signed_by: str
    signed_at: datetime
    hash: str
    short: str
    verdict: Literal["intact", "changed", "opened_again"]
    says: str
    changed: list[str]
    late: int
    next_check: date | None
    next_check_why: str
    received_by: str
    signature: str


@dataclass(frozen=True)
class Checklist:
    """What this visit did and left, point by point. proposed_check, proposed_why : when it should come again.

    seal : once it was signed.  may_sign : whether it is in the house.
    """

    ticket: str
    visit_id: str
    may_sign: bool
    points: list[ClosingPointView]
    proposed_check: date
    proposed_why: str
    left_as_found: str
    owner: str
    seal: SealView | None
    additions: list[AdditionView] = field(default_factory=list)
