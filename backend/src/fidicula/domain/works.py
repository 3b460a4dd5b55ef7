"""Works that were done."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from fidicula.codes import (
    WorkCode,
)
from fidicula.domain.work_details import PLAIN, WorkDetail


@dataclass(frozen=True)
class WorkDone:
    """number : order of arrival; the causal clock that readings stand against."""

    number: int
    id: UUID
    visit_id: UUID
    work: WorkCode
    done_by: str
    done_at: datetime
    detail: WorkDetail
    string_set_id: UUID | None
    taken_back: bool


@dataclass(frozen=True)
class NewWork:
    """done_at : None for now."""

    id: UUID
    visit_id: UUID
    work: WorkCode
    done_by: str
    detail: WorkDetail = PLAIN
    string_set_id: UUID | None = None
    done_at: datetime | None = None
