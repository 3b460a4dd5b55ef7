"""A change of what is known of an instrument's sound, answered with its adjustments."""

from __future__ import annotations

from collections.abc import Callable

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.adjusting.records import load_trail
from fidicula.services.loading.records import check_in_house, load_bench, load_to_change, note_instruction
from fidicula.views.adjustments.model import SoundView
from fidicula.views.adjustments.view import sound_view


class SoundChanges:
    """What use cases around an instrument's sound share."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def _change(self, ticket: str, change: Callable[[UnitOfWork, VisitRecord], None]) -> SoundView:
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            change(uow, loaded)
            loaded = load_bench(uow, ticket)
            view = sound_view(loaded, load_trail(uow, loaded), complaint="")
            note_instruction(uow, loaded.assess())
            uow.commit()
            return view


def last_work_of(loaded: VisitRecord, known: int | None) -> int:
    """The last work before what is said now. known : as the page had it."""
    if known is not None and (known == 0 or any(done.number == known for done in loaded.works)):
        return known
    return max((done.number for done in loaded.works if not done.taken_back), default=0)
