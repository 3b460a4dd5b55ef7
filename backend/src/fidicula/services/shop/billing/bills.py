"""Documents are issued, cancelled and paid; what was issued never changes."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, timedelta
from uuid import UUID

from fidicula.codes import WorkCode
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.documents.paper.model import Paper
from fidicula.documents.paper.pdf import paper_pdf
from fidicula.domain.billing import Content, Document, DocumentKind, Payment, Way
from fidicula.domain.errors import ConflictError, MeanwhileError, NotFoundError, RefusedError
from fidicula.domain.plan import PlanLine
from fidicula.domain.typed_days import day_of
from fidicula.services.loading.records import check_in_house, load_bench, load_to_change
from fidicula.services.shop.billing import drafts
from fidicula.services.shop.billing.account import Account, account_of
from fidicula.services.shop.billing.shown import billing_view
from fidicula.services.shop.billing.view import BillingView
from fidicula.services.shop.pricing.plan import LONGEST
from fidicula.services.shop.pricing.typed import typed_amount
from fidicula.tables.pricing import jobs
from fidicula.views.papers.billed import document_paper
from fidicula.words import billing as say
from fidicula.words.numbers import money


@dataclass(frozen=True)
class Paying:
    """As somebody types it. amount : below zero for money that goes back.  paid_on : a day."""

    amount: str
    way: Way
    paid_on: str
    remark: str = ""


class Bills:
    """Use cases around money that changes hands."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def view(self, ticket: str) -> BillingView:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return billing_view(account_of(uow, load_bench(uow, ticket)))

    def paper(self, ticket: str, document_id: UUID) -> Paper:
        """A document as it was issued. Raises NotFoundError."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            documents = uow.billing.documents(loaded.instrument.id)
        found = _document(documents, document_id)
        cancelled = next((one for one in documents if one.id == found.cancels), None)
        return document_paper(found, cancelled)

    def pdf(self, ticket: str, document_id: UUID) -> bytes:
        return paper_pdf(self.paper(ticket, document_id))

    def issue(self, ticket: str, kind: DocumentKind, *, total: str, document_id: UUID, by: str) -> BillingView:
        """Issue an estimate or an invoice of what is planned or done now. total : as it was shown, a plain number.

        Raises MeanwhileError naming `total` where it changed since, ConflictError where it cannot be written yet.
        """

        def change(uow: UnitOfWork, of: Account) -> None:
            if any(one.id == document_id for one in of.documents):
                return
            shop = of.reckoned.today
            content = drafts.estimate(of.reckoned, of.loaded) if kind == "estimate" else of.invoice()
            if total != str(content.total):
                now = money(content.total, content.currency)
                raise MeanwhileError({"total": f"the sum changed meanwhile: it is {now} now"})
            today = of.loaded.now.astimezone().date()
            days = int(shop.amount("estimate_holds" if kind == "estimate" else "pay_within"))
            _issue(uow, of, kind, content, document_id, by, due_on=today + timedelta(days=days))

        return self._change(ticket, change)

    def cancel(self, ticket: str, invoice_id: UUID, *, reason: str, document_id: UUID, by: str) -> BillingView:
        """Take a whole invoice back by a credit note. Raises RefusedError naming `reason`, ConflictError."""

        def change(uow: UnitOfWork, of: Account) -> None:
            if any(one.id == document_id for one in of.documents):
                return
            invoice = _document(of.documents, invoice_id)
            if invoice.kind != "invoice":
                raise ConflictError("only an invoice is cancelled by a credit note")
            if invoice.id in of.cancelled:
                raise ConflictError(say.refused_cancel(invoice.code))
            if not reason.strip():
                raise RefusedError("say why: the reason stands on the credit note", field="reason")
            content = drafts.taken_back(invoice.content, reason.strip())
            _issue(uow, of, "credit_note", content, document_id, by, cancels=invoice)

        return self._change(ticket, change)

    def pay(self, ticket: str, paying: Paying, *, payment_id: UUID, by: str) -> BillingView:
        """Write down what was paid, or what went back. Raises RefusedError naming `amount` or `paid_on`."""

        def change(uow: UnitOfWork, of: Account) -> None:
            if any(one.id == payment_id for one in of.payments):
                return
            back = paying.amount.strip().startswith(("-", "\u2212"))
            typed = paying.amount.strip().lstrip("-\u2212")
            amount, currency = typed_amount(typed, what="the amount", field="amount"), of.reckoned.shop.currency
            if amount <= 0:
                raise RefusedError("the amount that was paid, for instance 45.00", field="amount")
            # What is open may be from a day of finer steps.
            if amount not in (of.most_to_pay, of.reckoned.shop.rounding.of(amount)):
                step = money(of.reckoned.shop.rounding.step, currency)
                raise RefusedError(f"amounts go by steps of {step} here", field="amount")
            if back and amount > of.balance.paid:
                raise RefusedError(say.too_much_back(money(of.balance.paid, currency)), field="amount")
            if not back and amount > of.most_to_pay:
                most = money(of.most_to_pay, currency)
                raise RefusedError(say.too_much(most, is_billed=of.balance.open > 0), field="amount")
            day = day_of(paying.paid_on)
            if day is None:
                raise RefusedError("the day it was paid, for instance 2026-11-23", field="paid_on")
            if day > of.loaded.now.astimezone().date():
                raise RefusedError("that day has not come yet", field="paid_on")
            signed = -amount if back else amount
            payment = Payment(payment_id, of.visit_id, signed, currency, paying.way, day, paying.remark.strip(), by)
            uow.billing.pay(payment)

        return self._change(ticket, change)

    def take_back_payment(self, ticket: str, payment_id: UUID, *, by: str) -> BillingView:
        """It was written down by mistake."""

        def change(uow: UnitOfWork, of: Account) -> None:
            found = next((one for one in of.payments if one.id == payment_id), None)
            if found is None:
                raise NotFoundError("that payment is not among this instrument's")
            uow.billing.take_back_payment(payment_id, by)

        return self._change(ticket, change)

    def price_work(self, ticket: str, work_id: UUID, *, minutes: str, line_id: UUID, by: str) -> BillingView:
        """Put a work that was done at the bench on the plan, with its minutes as typed. Raises RefusedError."""

        def change(uow: UnitOfWork, of: Account) -> None:
            check_in_house(of.loaded)
            work = next((one for one in of.unplanned if one.id == work_id), None)
            if work is None:
                if any(line.line.work_id == work_id for line in of.reckoned.lines):
                    return
                raise NotFoundError("that work is not among those of this visit")
            took = typed_amount(minutes, what="minutes", field="minutes", most=LONGEST)
            if took <= 0:
                raise RefusedError("how many minutes it took, for instance 45", field="minutes")
            last = max((line.line.place for line in of.reckoned.lines), default=0.0)
            uow.plan.add_line(_done_line(work.work, of.visit_id, line_id, last + 1, by))
            uow.plan.finish(line_id, minutes=took, by=work.done_by, work_id=work_id, terms=of.reckoned.today.kept)

        return self._change(ticket, change)

    def _change(self, ticket: str, change: Callable[[UnitOfWork, Account], None]) -> BillingView:
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            change(uow, account_of(uow, loaded))
            view = billing_view(account_of(uow, load_to_change(uow, ticket)))
            uow.commit()
            return view


def _document(documents: list[Document], document_id: UUID) -> Document:
    found = next((one for one in documents if one.id == document_id), None)
    if found is None:
        raise NotFoundError("that document is not among this instrument's")
    return found


def _issue(
    uow: UnitOfWork,
    of: Account,
    kind: DocumentKind,
    content: Content,
    document_id: UUID,
    by: str,
    *,
    due_on: date | None = None,
    cancels: Document | None = None,
) -> None:
    today = of.loaded.now.astimezone().date()
    code = uow.billing.next_code(kind, today)
    uow.billing.issue(
        Document(
            id=document_id,
            visit_id=of.visit_id if cancels is None else cancels.visit_id,
            kind=kind,
            code=code,
            issued_on=today,
            due_on=due_on,
            cancels=None if cancels is None else cancels.id,
            total=content.total,
            currency=content.currency,
            content=content,
            issued_by=by,
        )
    )


def _done_line(work: WorkCode, visit_id: UUID, line_id: UUID, place: float, by: str) -> PlanLine:
    return PlanLine(
        id=line_id,
        visit_id=visit_id,
        work=work,
        grade=jobs()[work].grade,
        origin="wish",
        because="",
        reason="",
        place=place,
        added_by=by,
    )
