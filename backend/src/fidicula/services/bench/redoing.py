"""What was taken back by mistake stands again, as long as nothing was entered since."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime
from uuid import UUID

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import ConflictError, NotFoundError
from fidicula.judgement.targets.sources import reading_states_of
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading.records import changed_sheet, check_in_house, load_to_change
from fidicula.views.sheet.model import BenchSheet


class Redoing:
    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def redo(self, ticket: str, kind: str, id: UUID) -> BenchSheet:
        """Let a line stand again; one that stands already stays. kind : as `Undoable` names it.

        Raises ConflictError where something was entered since, and NotFoundError for what is not of this visit.
        """
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            since = uow.undone.since(kind, id, loaded.visit.id)
            if since is None:
                if kind != "reading" or uow.log.reading(id) is None:
                    _check_there(loaded, kind, id)
                return changed_sheet(uow, ticket)
            if any(at > since for at in _entered(loaded)):
                raise ConflictError("something was entered since: enter it again instead")
            uow.undone.give_back(kind, id, corrects=_corrected(uow, loaded, id) if kind == "reading" else None)
            return changed_sheet(uow, ticket)


def _entered(loaded: VisitRecord) -> Iterator[datetime]:
    """When what stands was entered."""
    yield from (one.recorded_at for one in loaded.readings if not one.taken_back)
    yield from (one.done_at for one in loaded.works if not one.taken_back)
    yield from (one.decided_at for one in loaded.decisions if not one.taken_back and one.decided_at)
    yield from (one.seen_at for one in loaded.seen if not one.taken_back and one.seen_at)
    yield from (one.made_at for one in loaded.marks if not one.taken_back and one.made_at)


def _check_there(loaded: VisitRecord, kind: str, id: UUID) -> None:
    of = {
        "work": [line.id for line in loaded.works],
        "decision": [line.id for line in loaded.decisions],
        "seen": [line.id for line in loaded.seen],
        "mark": [line.id for line in loaded.marks],
    }
    if id not in of.get(kind, []):
        raise NotFoundError("that is not written down at this visit")


def _corrected(uow: UnitOfWork, loaded: VisitRecord, id: UUID) -> int | None:
    """The reading that stands in its place now, and stood there before it."""
    again = uow.log.reading(id)
    stand = None
    if again is not None and not again.repeats:
        states = reading_states_of(loaded.state().log, loaded.works)
        stand = states.get((again.measure, again.position))
    if again is None or stand is None or stand.reading.after_work != (again.after_work or 0):
        return None
    return stand.reading.number
