"""What a paper is made of, read once."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cached_property

from fidicula.core.readings.states import MeasurementKey
from fidicula.db.damage import DamageSigned
from fidicula.db.records import Instrument, Photo
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.services.assessment.assess import Assessment
from fidicula.services.leaving.handing import checklist_of
from fidicula.services.leaving.view import Checklist
from fidicula.services.loaded import Loaded, load_bench
from fidicula.services.pricing.reckoned import Reckoned, reckon
from fidicula.services.targets.sources import as_found
from fidicula.services.targets.wanted import Taken
from fidicula.tables.work import works


@dataclass(frozen=True)
class PaperSource:
    """One visit. came : as it was first read at it.  plan : in money."""

    loaded: Loaded
    assessment: Assessment
    checklist: Checklist
    came: Mapping[MeasurementKey, Taken]
    photos: Sequence[Photo]
    plan: Reckoned
    address: str
    damage_signed: Sequence[DamageSigned] = ()

    @property
    def instrument(self) -> Instrument:
        return self.loaded.instrument

    def shop(self, setting: str) -> str:
        """What the shop says of itself."""
        return self.plan.shop.values[setting]

    @property
    def when(self) -> date:
        """The day that it was signed, or today."""
        seal = self.checklist.seal
        at = self.assessment.now if seal is None else seal.signed_at
        return at.astimezone().date()

    @cached_property
    def done(self) -> list[str]:
        """Works of this visit, in order, without what only names what is there."""
        return [work.work for work in self.assessment.state.standing_works if work.work != "strings_named"]

    @property
    def done_labels(self) -> list[str]:
        return [works()[work].done_label for work in self.done]


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
