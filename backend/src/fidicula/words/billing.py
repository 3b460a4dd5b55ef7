"""What is said of documents, payments and what is open."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date

from fidicula.domain.billing import DocumentKind, Way
from fidicula.words.numbers import day_and_year, listed

TITLES: Mapping[DocumentKind, str] = {"estimate": "Estimate", "invoice": "Invoice", "credit_note": "Credit note"}
WAYS: Mapping[Way, str] = {"cash": "cash", "card": "card", "transfer": "bank transfer"}
HEADS = ("work", "tax", "amount")
NET, DISCOUNT, TOTAL, PAID_BEFORE, TO_PAY = "net", "discount", "total", "paid before", "to pay"
FROM, TO = "From", "For"
PROMISES = (
    "The price includes what can be seen now. If the work shows that more is needed, we stop and ask you first.",
    "A day is promised only where it is written here.",
)
NOTHING_DONE = "no work is done that is not on an invoice yet"
NOTHING_PLANNED = "nothing is planned yet: plan the works first"
NO_ADDRESS = "Name and address of the shop are missing: enter them in the settings before you issue an invoice."
NO_OWNER = "nobody is named as the owner: enter one in the particulars, the invoice is written to them"


def number_and_date(code: str, on: date) -> str:
    return f"Number {code}, {day_and_year(on)}"


def due(kind: DocumentKind, on: date) -> str:
    if kind == "estimate":
        return f"This estimate holds until {day_and_year(on)}."
    return f"Please pay by {day_and_year(on)}."


def tax_of(rate: str, base: str) -> str:
    return f"tax {rate} on {base}"


def tax_number(said: str) -> str:
    return f"Tax number {said}"


def cancels(code: str, on: date, reason: str) -> str:
    return f"This takes back invoice {code} of {day_and_year(on)}: {reason}"


def unapproved(labels: Sequence[str]) -> str:
    return f"the owner has not agreed to {listed(labels)} yet: record the approval first"


def not_done(labels: Sequence[str]) -> str:
    """What is planned and stays off the invoice."""
    return f"Not done, and not on the invoice: {listed(labels)}." if labels else ""


def detail(minutes: str, parts: Sequence[str]) -> str:
    return "; ".join([minutes, *parts])


def paid(amount: str, way: Way, on: date, remark: str) -> str:
    words = f"{amount} {'in' if way == 'cash' else 'by'} {WAYS[way]} on {day_and_year(on)}"
    return f"{words}: {remark}" if remark else words


def too_much(most: str, *, is_billed: bool) -> str:
    if is_billed:
        return f"no more than {most} is open"
    return f"nothing is billed yet: up to {most} can be paid ahead, which is what the plan comes to"


def too_much_back(paid_so_far: str) -> str:
    return f"only {paid_so_far} was paid, and no more can go back"


def balance(is_billed: bool, open_now: str, paid_so_far: str, settled: bool) -> str:
    if not is_billed:
        return f"Nothing is billed yet; {paid_so_far} is paid." if not settled else "Nothing is billed yet."
    return "Everything is paid." if settled else f"{open_now} is open."


def paid_so_far(left: str, is_paid: bool, due_on: date, today: date) -> str:
    if is_paid:
        return "paid"
    return f"{left} open, due {'since' if due_on < today else 'by'} {day_and_year(due_on)}"


def with_total(kind: DocumentKind, code: str, total: str, taken_back: str) -> str:
    return f"{TITLES[kind]} {code}: {total}{f', {taken_back}' if taken_back else ''}"


def with_amount(label: str, detail: str, amount: str) -> str:
    return f"{label}, {detail}: {amount}"


def cost(billed: str, paid_then: str) -> str:
    """Of a visit."""
    return f"{billed} billed, {paid_then} paid at this visit"


def refused_cancel(code: str) -> str:
    return f"{code} is taken back already"


def taken_back_by(code: str) -> str:
    return f"taken back by {code}"
