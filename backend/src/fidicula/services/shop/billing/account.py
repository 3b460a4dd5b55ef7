"""An instrument's money: its plan, its documents and its payments, read together."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property
from uuid import UUID

from fidicula.core.pricing.balance import Balance
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.billing import Content, Document, Payment
from fidicula.domain.works import WorkDone
from fidicula.judgement.pricing.reckoned import Reckoned
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.shop.billing import drafts
from fidicula.services.shop.pricing.reckoning import reckon
from fidicula.tables.pricing import jobs

_NOTHING = Decimal(0)


@dataclass(frozen=True)
class Account:
    """Documents and payments of all visits, oldest first."""

    loaded: VisitRecord
    reckoned: Reckoned
    documents: list[Document]
    payments: list[Payment]

    @property
    def visit_id(self) -> UUID:
        return self.loaded.visit.id

    @cached_property
    def cancelled(self) -> set[UUID]:
        return {one.cancels for one in self.documents if one.cancels is not None}

    @cached_property
    def standing(self) -> list[Document]:
        """Invoices of all visits that no credit note took back."""
        return [one for one in self.documents if one.kind == "invoice" and one.id not in self.cancelled]

    @cached_property
    def balance(self) -> Balance:
        return Balance([one.total for one in self.standing], sum((one.amount for one in self.payments), _NOTHING))

    @property
    def is_billed(self) -> bool:
        """Whether an invoice of this visit stands."""
        return any(one.visit_id == self.visit_id for one in self.standing)

    @property
    def most_to_pay(self) -> Decimal:
        """What can be paid now; ahead of an invoice, what was agreed at this visit, or what is planned. [currency]"""
        if self.is_billed:
            return self.balance.open
        approval, planned = self.reckoned.approval, self.reckoned.whole.usual.total
        return self.balance.most_to_pay(planned if approval is None else approval.up_to)

    @property
    def suggested(self) -> Decimal:
        """What is likely paid next: what is open, or the deposit on what was agreed. [currency]"""
        if self.balance.open > 0 or self.is_billed or self.reckoned.approval is None:
            return self.balance.open
        return max(self.reckoned.whole.deposit - self.balance.ahead, _NOTHING)

    def left_of(self, invoice: Document) -> Decimal:
        """What of an invoice that stands is not paid. [currency]"""
        return self.balance.left_of(self.standing.index(invoice))

    def invoice(self) -> Content:
        """What an invoice would say now. Raises ConflictError or RefusedError."""
        billed = {line.line_id for one in self.standing for line in one.content.lines}
        return drafts.invoice(self.reckoned, self.loaded, billed=billed, paid=self.balance.ahead)

    @property
    def unplanned(self) -> list[WorkDone]:
        """Works of the visit that have a price and are on no line of the plan."""
        on_plan = {line.line.work_id for line in self.reckoned.lines}
        return [
            work
            for work in self.loaded.works
            if work.visit_id == self.visit_id and not work.taken_back and work.id not in on_plan and work.work in jobs()
        ]


def account_of(uow: UnitOfWork, loaded: VisitRecord) -> Account:
    """Read as things stand in this unit of work."""
    one = loaded.instrument.id
    return Account(loaded, reckon(uow, loaded), uow.billing.documents(one), uow.billing.payments(one))
