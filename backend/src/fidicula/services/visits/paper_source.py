"""Reading what a paper is made of."""

from __future__ import annotations

from fidicula.db.unit_of_work import UnitOfWork
from fidicula.services.loading.records import load_bench
from fidicula.services.loading.taken_targets import as_found
from fidicula.services.shop.pricing.reckoning import reckon
from fidicula.services.visits.handover.handing import checklist_of
from fidicula.views.papers.source import PaperSource


def load_source(uow: UnitOfWork, ticket: str, *, address: str = "") -> PaperSource:
    """address : of the application, for a code that opens the instrument there."""
    loaded = load_bench(uow, ticket)
    return PaperSource(
        loaded=loaded,
        assessment=loaded.assess(),
        checklist=checklist_of(uow, loaded),
        came=as_found(uow, loaded.visit, ""),
        photos=uow.photos.of_visit(loaded.visit.id),
        plan=reckon(uow, loaded),
        address=address,
        damage_signed=uow.damage.signed(loaded.instrument.id),
    )
