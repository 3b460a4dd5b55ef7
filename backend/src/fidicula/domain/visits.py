"""A visit, and what is decided, seen and marked at it."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from uuid import UUID

from fidicula.codes import (
    FindingCode,
    ItemCode,
    OutcomeCode,
    QuestionCode,
    VisitKindCode,
)
from fidicula.domain.instruments import Instrument

UNREADABLE = "unreadable"
"""Instead of an instruction: the records of this visit contradict each other. The subject says how."""


@dataclass(frozen=True)
class Visit:
    """climate : where it came from, damp or dry, or empty.  freeze_days : without risky work before the deadline.

    has_earlier : the instrument was here before this visit.
    instruction, subject, waits_for, waits_until : what was to be done after the last entry, by code, for the rail.
    """

    id: UUID
    instrument_id: UUID
    kind: VisitKindCode
    complaint: str
    opened_at: datetime
    closed_at: datetime | None
    closed_by: str | None = None
    climate: str = ""
    deadline: date | None = None
    freeze_days: int = 3
    promised: date | None = None
    has_earlier: bool = False
    instruction: str = ""
    subject: str = ""
    waits_for: str = ""
    waits_until: datetime | None = None


@dataclass(frozen=True)
class Decision:
    """How a question was decided at a visit.

    at_value : of the reading that it was decided on. [mm]  after_work : the last work before it.
    """

    id: UUID
    visit_id: UUID
    question: QuestionCode
    outcome: OutcomeCode
    reason: str
    at_value: float | None
    decided_by: str
    decided_at: datetime | None = None
    taken_back: bool = False
    after_work: int = 0


@dataclass(frozen=True)
class Seen:
    """What somebody saw at one item of an instrument. findings : by name.  after_work : the last work before it."""

    id: UUID
    visit_id: UUID
    item: ItemCode
    verdict: str
    findings: tuple[FindingCode, ...]
    words: str
    seen_by: str
    after_work: int
    seen_at: datetime | None = None
    taken_back: bool = False


@dataclass(frozen=True)
class CourseMark:
    """What somebody said of a step. mark : done, passed, wait (until a time) or go_on (a wait is over).

    after_work : the last work before it.
    """

    id: UUID
    visit_id: UUID
    step: str
    mark: str
    reason: str
    until: datetime | None
    after_work: int
    made_by: str
    made_at: datetime | None = None
    taken_back: bool = False


@dataclass(frozen=True)
class OpenVisit:
    """What the rail needs of an instrument in the house."""

    instrument: Instrument
    visit: Visit
