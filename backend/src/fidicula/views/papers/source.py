"""What a paper is made of, read once."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date
from functools import cached_property

from fidicula.codes import WorkCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.damage import DamageSigned
from fidicula.domain.instruments import Instrument
from fidicula.domain.photos import Photo
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.pricing.reckoned import Reckoned
from fidicula.judgement.targets.wanted import Taken
from fidicula.judgement.visit_record import VisitRecord
from fidicula.tables.work import works
from fidicula.views.handover import Checklist
from fidicula.views.sheet.build import sheet_of
from fidicula.views.sheet.model import BenchSheet


@dataclass(frozen=True)
class PaperSource:
    """One visit. came : as it was first read at it.  plan : in money."""

    loaded: VisitRecord
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
    def sheet(self) -> BenchSheet:
        return sheet_of(self.assessment, self.loaded.rules)

    @cached_property
    def done(self) -> list[WorkCode]:
        """Works of this visit, in order, without what only names what is there."""
        return [work.work for work in self.assessment.state.standing_works if work.work != "strings_named"]

    @property
    def done_labels(self) -> list[str]:
        return [works()[work].done_label for work in self.done]
