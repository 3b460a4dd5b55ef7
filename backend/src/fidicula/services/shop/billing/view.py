"""What is billed and paid of an instrument, as it is shown."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date

from fidicula.domain.billing import DocumentKind, Way


@dataclass(frozen=True)
class DocumentView:
    """One document. state : in words, for instance that it is taken back."""

    id: str
    kind: DocumentKind
    code: str
    title: str
    issued_on: date
    total: str
    due: str
    state: str
    may_cancel: bool


@dataclass(frozen=True)
class PaymentView:
    id: str
    says: str
    by: str


@dataclass(frozen=True)
class OpenWork:
    """A work that was done at the bench and is not on the plan: nobody has priced it. id : of the work."""

    id: str
    label: str


@dataclass(frozen=True)
class BillingView:
    """Of an instrument's visit, with the documents of all its visits, newest first.

    to_invoice : what an invoice would come to now, in words, empty where it cannot be written; then `stopped` says why.
    total : the same as a plain number, to be sent back.  stays_off : planned works that are not done.
    balance : what is open, in words.  suggested : what is likely paid next, as a plain number: that, or the deposit.
    """

    ticket: str
    documents: list[DocumentView]
    payments: list[PaymentView]
    works: list[OpenWork]
    to_invoice: str
    total: str
    stopped: str
    stays_off: str
    estimate_total: str
    balance: str
    suggested: str
    ways: dict[Way, str]
    today: date
