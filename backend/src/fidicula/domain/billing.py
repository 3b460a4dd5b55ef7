"""Documents with a number of their own, and payments: what stands on them never changes."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from decimal import Decimal
from typing import Literal
from uuid import UUID

DocumentKind = Literal["estimate", "invoice", "credit_note"]
Way = Literal["cash", "card", "transfer"]


@dataclass(frozen=True)
class BilledLine:
    """One line. line_id : of the plan.  detail : its time and parts, in words.  amount : before tax.  rate : of tax."""

    line_id: UUID
    label: str
    detail: str
    amount: Decimal
    rate: Decimal


@dataclass(frozen=True)
class BilledTax:
    """All lines of one rate. [%] base : what it is on, the discount taken off. [currency]"""

    rate: Decimal
    base: Decimal
    tax: Decimal


@dataclass(frozen=True)
class Content:
    """What a document says, in full, so that nothing on it is ever computed again.

    seller, buyer : lines of an address.  about : the instrument and its complaint.  paid : before it was issued.
    promises : what an estimate promises and does not.
    """

    seller: tuple[str, ...]
    tax_number: str
    buyer: tuple[str, ...]
    about: tuple[str, ...]
    lines: tuple[BilledLine, ...]
    net: Decimal
    discount: Decimal
    taxes: tuple[BilledTax, ...]
    total: Decimal
    currency: str
    paid: Decimal = Decimal(0)
    reason: str = ""
    promises: tuple[str, ...] = ()


@dataclass(frozen=True)
class Document:
    """code : as it is called, for instance I-2026-0007.  due_on : an invoice's day, or the last day of an estimate.

    cancels : the invoice that a credit note takes back.  total : below zero on a credit note. [currency]
    """

    id: UUID
    visit_id: UUID
    kind: DocumentKind
    code: str
    issued_on: date
    due_on: date | None
    cancels: UUID | None
    total: Decimal
    currency: str
    content: Content
    issued_by: str
    issued_at: datetime | None = None


@dataclass(frozen=True)
class Payment:
    """What was paid at a visit, a deposit too. amount : below zero for money that went back. [currency]"""

    id: UUID
    visit_id: UUID
    amount: Decimal
    currency: str
    way: Way
    paid_on: date
    remark: str
    entered_by: str
    entered_at: datetime | None = None
