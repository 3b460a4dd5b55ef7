"""Documents with numbers of their own, payments, and works that nobody has priced."""

from __future__ import annotations

from typing import Annotated, Literal
from urllib.parse import quote
from uuid import UUID

from fastapi import APIRouter, Response
from pydantic import BaseModel, ConfigDict, Field

from fidicula.api.auth import Acting, may
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Sentence, Ticket
from fidicula.documents.paper.model import Paper
from fidicula.domain.billing import Way
from fidicula.services.shop.billing.bills import Paying
from fidicula.services.shop.billing.view import BillingView

router = APIRouter(prefix="/api/instruments/{ticket}/billing", tags=["billing"], responses=RESPONSES)

Typed = Annotated[str, Field(max_length=40)]


class Body(BaseModel):
    model_config = ConfigDict(extra="forbid")


class IssueBody(Body):
    """total : that was shown, as a plain number."""

    id: UUID
    kind: Literal["estimate", "invoice"]
    total: Typed


class CancelBody(Body):
    id: UUID
    reason: Sentence


class PayBody(Body):
    """amount, paid_on : as typed; below zero is money that goes back."""

    id: UUID
    amount: Typed
    way: Way
    paid_on: Typed
    remark: Sentence = ""


class PriceBody(Body):
    """id : of the line that is made.  minutes : as typed."""

    id: UUID
    minutes: Typed


@router.get("")
def billing(services: AllServices, ticket: Ticket) -> BillingView:
    """What is billed, paid and open."""
    return services.bills.view(ticket)


@router.post("/documents", dependencies=[may("bill")])
def issue(services: AllServices, ticket: Ticket, body: IssueBody, person: Acting) -> BillingView:
    """Issue an estimate or an invoice; it gets its number and never changes."""
    return services.bills.issue(ticket, body.kind, total=body.total, document_id=body.id, by=person.name)


@router.get("/documents/{document_id}.pdf", response_class=Response)
def document_pdf(services: AllServices, ticket: Ticket, document_id: UUID) -> Response:
    """A document as it was issued, to print."""
    name = quote(f"{services.bills.paper(ticket, document_id).file}.pdf")
    headers = {"content-disposition": f"inline; filename*=utf-8''{name}"}
    return Response(services.bills.pdf(ticket, document_id), media_type="application/pdf", headers=headers)


@router.get("/documents/{document_id}")
def document(services: AllServices, ticket: Ticket, document_id: UUID) -> Paper:
    """A document as it was issued."""
    return services.bills.paper(ticket, document_id)


@router.post("/documents/{document_id}/cancel", dependencies=[may("bill")])
def cancel(services: AllServices, ticket: Ticket, document_id: UUID, body: CancelBody, person: Acting) -> BillingView:
    """Take a whole invoice back by a credit note."""
    return services.bills.cancel(ticket, document_id, reason=body.reason, document_id=body.id, by=person.name)


@router.post("/payments", dependencies=[may("bill")])
def pay(services: AllServices, ticket: Ticket, body: PayBody, person: Acting) -> BillingView:
    """Write down what was paid, or what went back."""
    paying = Paying(body.amount, body.way, body.paid_on, body.remark)
    return services.bills.pay(ticket, paying, payment_id=body.id, by=person.name)


@router.post("/payments/{payment_id}/take-back", dependencies=[may("bill")])
def take_back_payment(services: AllServices, ticket: Ticket, payment_id: UUID, person: Acting) -> BillingView:
    """It was written down by mistake."""
    return services.bills.take_back_payment(ticket, payment_id, by=person.name)


@router.post("/works/{work_id}", dependencies=[may("bill")])
def price_work(services: AllServices, ticket: Ticket, work_id: UUID, body: PriceBody, person: Acting) -> BillingView:
    """Put a work that was done at the bench on the plan, with its minutes."""
    return services.bills.price_work(ticket, work_id, minutes=body.minutes, line_id=body.id, by=person.name)
