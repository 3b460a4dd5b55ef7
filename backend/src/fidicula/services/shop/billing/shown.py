"""From an account to what is shown of it."""

from __future__ import annotations

from fidicula.domain.billing import Document
from fidicula.domain.errors import ServiceError
from fidicula.services.shop.billing.account import Account
from fidicula.services.shop.billing.view import BillingView, DocumentView, OpenWork, PaymentView
from fidicula.tables.work import works
from fidicula.words import billing as say
from fidicula.words.numbers import money, sentence


def billing_view(of: Account) -> BillingView:
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
        balance=_balance(of),
        suggested=str(of.suggested),
        ways=dict(say.WAYS),
        today=of.loaded.now.astimezone().date(),
    )


def _balance(of: Account) -> str:
    balance, currency = of.balance, of.reckoned.shop.currency
    settled = balance.open == 0 if of.standing else balance.ahead == 0
    return say.balance(bool(of.standing), money(balance.open, currency), money(balance.ahead, currency), settled)


def _document_view(of: Account, one: Document) -> DocumentView:
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
