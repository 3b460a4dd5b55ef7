"""Damage: looks at marks, and who signed for what was found."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID


@dataclass(frozen=True)
class DamageLook:
    """One look at one mark. thing : the mark, the same for every look at it.

    along : from the top edge, on the neck from the nut.  across : from the middle, + to the treble; on a side toward
    the front.  to_along, to_across : where it ends; None for what has one place.  length : along it. [mm]
    after_work : the last work that was known.  since : works that were done after it, at any visit.
    """

    id: UUID
    visit_id: UUID
    thing: UUID
    kind: str
    face: str
    along: float
    across: float
    to_along: float | None
    to_across: float | None
    length: float | None
    ends: str
    state: str
    under_tension: bool
    words: str
    after_work: int
    seen_by: str
    seen_at: datetime | None = None
    since: frozenset[str] = frozenset()


@dataclass(frozen=True)
class DamageSigned:
    """Somebody signed for what was found. lines : that stood then.  signature : strokes, as everywhere."""

    id: UUID
    visit_id: UUID
    who: str
    lines: tuple[UUID, ...]
    signature: str
    entered_by: str
    signed_at: datetime | None = None
