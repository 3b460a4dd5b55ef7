"""Documents are issued, cancelled and paid; what was issued never changes."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date, timedelta
from decimal import Decimal
from uuid import UUID

from fidicula.codes import WorkCode
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.documents.paper.model import Paper
from fidicula.documents.paper.pdf import paper_pdf
from fidicula.domain.billing import Content, Document, DocumentKind, Payment, Way
from fidicula.domain.errors import ConflictError, MeanwhileError, NotFoundError, RefusedError, ServiceError
from fidicula.domain.plan import PlanLine
from fidicula.domain.typed_days import day_of
from fidicula.domain.works import WorkDone
from fidicula.judgement.pricing.reckoned import Reckoned
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading.records import check_in_house, load_bench, load_to_change
from fidicula.services.shop.billing import drafts
from fidicula.services.shop.billing.view import BillingView, DocumentView, OpenWork, PaymentView
from fidicula.services.shop.pricing.plan import LONGEST
from fidicula.services.shop.pricing.reckoning import reckon
from fidicula.services.shop.pricing.typed import typed_amount
from fidicula.tables.pricing import jobs
from fidicula.tables.work import works
from fidicula.views.papers.billed import document_paper
from fidicula.words import billing as say
from fidicula.words.numbers import money, sentence

_NOTHING = Decimal(0)


@dataclass(frozen=True)
class Paying:
    """As somebody types it. amount : below zero for money that goes back.  paid_on : a day."""

    amount: str
    way: Way
    paid_on: str
    remark: str = ""


@dataclass(frozen=True)
class _Money:
    """An instrument's plan, documents and payments, under its lock or as they are read."""

    loaded: VisitRecord
    reckoned: Reckoned
    documents: list[Document]
    payments: list[Payment]

    @property
    def visit_id(self) -> UUID:
        return self.loaded.visit.id

    @property
    def cancelled(self) -> set[UUID]:
        return {one.cancels for one in self.documents if one.cancels is not None}

    @property
    def standing(self) -> list[Document]:
        """Invoices of all visits that no credit note took back."""
        return [one for one in self.documents if one.kind == "invoice" and one.id not in self.cancelled]

    @property
    def is_billed(self) -> bool:
        """Whether an invoice of this visit stands."""
        return any(one.visit_id == self.visit_id for one in self.standing)

    @property
    def billed_lines(self) -> set[UUID]:
        return {line.line_id for one in self.standing for line in one.content.lines}

    @property
    def billed(self) -> Decimal:
        return sum((one.total for one in self.standing), _NOTHING)

    @property
    def paid(self) -> Decimal:
        return sum((one.amount for one in self.payments), _NOTHING)

    @property
    def open(self) -> Decimal:
        return self.billed - self.paid

    @property
    def paid_ahead(self) -> Decimal:
        """What was paid and is on no invoice yet."""
        return max(self.paid - self.billed, _NOTHING)

    @property
    def most_to_pay(self) -> Decimal:
        """What can be paid now: what is open on invoices, and what was agreed at this visit while it is not billed."""
        still_open = max(self.open, _NOTHING)
        if self.is_billed:
            return still_open
        agreed = self.reckoned.approval
        whole = self.reckoned.whole.usual.total if agreed is None else agreed.up_to
        return still_open + max(whole - self.paid_ahead, _NOTHING)

    @property
    def suggested(self) -> Decimal:
        """What is likely paid next: what is open, or the deposit on what was agreed."""
        if self.open > 0 or self.is_billed or self.reckoned.approval is None:
            return max(self.open, _NOTHING)
        return max(self.reckoned.whole.deposit - self.paid_ahead, _NOTHING)

    def left_of(self, invoice: Document) -> Decimal:
        """What of an invoice is not paid: what was paid goes to the oldest first. [currency]"""
        paid = self.paid
        for one in self.standing:
            left = max(one.total - paid, _NOTHING)
            if one.id == invoice.id:
                return left
            paid -= one.total - left
        return _NOTHING

    def invoice(self) -> Content:
        return drafts.invoice(self.reckoned, self.loaded, billed=self.billed_lines, paid=self.paid_ahead)

    @property
    def unplanned(self) -> list[WorkDone]:
        """Works of the visit that have a price and are on no line of the plan."""
        on_plan = {line.line.work_id for line in self.reckoned.lines}
        return [
            work
            for work in self.loaded.works
            if work.visit_id == self.visit_id and not work.taken_back and work.id not in on_plan and work.work in jobs()
        ]


class Bills:
    """Use cases around money that changes hands."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def view(self, ticket: str) -> BillingView:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return _view(_read(uow, load_bench(uow, ticket)))

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

        def change(uow: UnitOfWork, of: _Money) -> None:
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

        def change(uow: UnitOfWork, of: _Money) -> None:
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

        def change(uow: UnitOfWork, of: _Money) -> None:
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
            if back and amount > of.paid:
                raise RefusedError(say.too_much_back(money(of.paid, currency)), field="amount")
            if not back and amount > of.most_to_pay:
                most = money(of.most_to_pay, currency)
                raise RefusedError(say.too_much(most, is_billed=of.open > 0), field="amount")
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

        def change(uow: UnitOfWork, of: _Money) -> None:
            found = next((one for one in of.payments if one.id == payment_id), None)
            if found is None:
                raise NotFoundError("that payment is not among this instrument's")
            uow.billing.take_back_payment(payment_id, by)

        return self._change(ticket, change)

    def price_work(self, ticket: str, work_id: UUID, *, minutes: str, line_id: UUID, by: str) -> BillingView:
        """Put a work that was done at the bench on the plan, with its minutes as typed. Raises RefusedError."""

        def change(uow: UnitOfWork, of: _Money) -> None:
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

    def _change(self, ticket: str, change: Callable[[UnitOfWork, _Money], None]) -> BillingView:
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            change(uow, _read(uow, loaded))
            view = _view(_read(uow, load_to_change(uow, ticket)))
            uow.commit()
            return view


def _read(uow: UnitOfWork, loaded: VisitRecord) -> _Money:
    instrument_id = loaded.instrument.id
    return _Money(
        loaded, reckon(uow, loaded), uow.billing.documents(instrument_id), uow.billing.payments(instrument_id)
    )


def _document(documents: list[Document], document_id: UUID) -> Document:
    found = next((one for one in documents if one.id == document_id), None)
    if found is None:
        raise NotFoundError("that document is not among this instrument's")
    return found


def _issue(
    uow: UnitOfWork,
    of: _Money,
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


def _view(of: _Money) -> BillingView:
    reckoned, currency = of.reckoned, of.reckoned.shop.currency
    try:
        draft, stopped = of.invoice(), ""
    except ServiceError as error:
        draft, stopped = None, error.sentence
    waiting = [works()[line.line.work].label for line in reckoned.wanted if not line.is_done]
    return BillingView(
        ticket=of.loaded.instrument.ticket,
        documents=[_document_view(of, one) for one in reversed(of.documents)],
        payments=[
            PaymentView(
                str(one.id), say.paid(money(one.amount, one.currency), one.way, one.paid_on, one.remark), one.entered_by
            )
            for one in reversed(of.payments)
        ],
        works=[OpenWork(str(one.id), works()[one.work].label) for one in of.unplanned],
        to_invoice="" if draft is None else money(draft.total, currency),
        total="" if draft is None else str(draft.total),
        stopped=sentence(stopped),
        stays_off=say.not_done(waiting),
        estimate_total=str(reckoned.whole.usual.total) if reckoned.wanted else "",
        balance=say.balance(bool(of.standing), money(of.open, currency), money(of.paid_ahead, currency), _settled(of)),
        suggested=str(of.suggested),
        ways=dict(say.WAYS),
        today=of.loaded.now.astimezone().date(),
    )


def _settled(of: _Money) -> bool:
    return of.open <= 0 if of.standing else of.paid_ahead == 0


def _document_view(of: _Money, one: Document) -> DocumentView:
    by = next((other for other in of.documents if other.cancels == one.id), None)
    today, state = of.loaded.now.astimezone().date(), ""
    if by is not None:
        state = say.taken_back_by(by.code)
    elif one.kind == "invoice" and one.due_on is not None:
        state = say.paid_so_far(money(of.left_of(one), one.currency), of.left_of(one) == 0, one.due_on, today)
    return DocumentView(
        id=str(one.id),
        kind=one.kind,
        code=one.code,
        title=say.TITLES[one.kind],
        issued_on=one.issued_on,
        total=money(one.total, one.currency),
        due="" if one.due_on is None else say.due(one.kind, one.due_on),
        state=state,
        may_cancel=one.kind == "invoice" and by is None,
    )
