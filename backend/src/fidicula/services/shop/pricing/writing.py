"""What a planned work leaves on the log of works once it is done."""

from __future__ import annotations

from datetime import UTC, datetime
from uuid import UUID

from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.errors import ConflictError
from fidicula.domain.work_details import StringsFitted
from fidicula.domain.works import NewWork, WorkDone
from fidicula.judgement.pricing.reckoned import Reckoned, ReckonedLine
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.bench.gates import check_may_be_done
from fidicula.services.bench.said import set_out

_STRINGS = "strings_changed"


def written_since(loaded: VisitRecord, reckoned: Reckoned, line: ReckonedLine) -> WorkDone | None:
    """The newest work of its kind that was written down since it was planned and belongs to no other line."""
    taken = {one.line.work_id for one in reckoned.lines}
    since = line.line.added_at or datetime.now(UTC)
    return next(
        (
            work
            for work in reversed(loaded.works)
            if work.work == line.line.work and not work.taken_back and work.id not in taken and work.done_at >= since
        ),
        None,
    )


def work_of(
    uow: UnitOfWork, loaded: VisitRecord, reckoned: Reckoned, line: ReckonedLine, *, work_id: UUID, by: str
) -> NewWork:
    """The work as it is kept. Raises ConflictError for one that may not be done as things stand."""
    kind = line.line.work
    if kind == _STRINGS:
        items = (reckoned.stock[part.item_id].item for part in line.parts)
        set_id = next((item.string_set_id for item in items if item.string_set_id is not None), None)
        chosen = None if set_id is None else uow.string_sets.by_id(set_id)
        if chosen is None:
            raise ConflictError(
                "say which strings went on: record them on the strings page, or choose a set as its part"
            )
        if tuple(string.name for string in chosen.strings) != loaded.instrument.string_names:
            raise ConflictError(
                f"the set {chosen.name} does not fit the strings {' '.join(loaded.instrument.string_names)}"
            )
        detail = StringsFitted(set=chosen.name)
        return NewWork(work_id, loaded.visit.id, kind, by, detail, chosen.id)
    check_may_be_done(reckoned.assessment, kind)
    return NewWork(work_id, loaded.visit.id, kind, by, set_out(reckoned.assessment, kind, ""))
