"""What a document would say, from the plan as it stands."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from decimal import Decimal
from uuid import UUID

from fidicula.core.pricing.estimate import Sum
from fidicula.domain.billing import BilledLine, BilledTax, Content
from fidicula.domain.errors import ConflictError, RefusedError
from fidicula.judgement.pricing.reckoned import Reckoned, ReckonedLine
from fidicula.judgement.visit_record import VisitRecord
from fidicula.tables.work import works
from fidicula.words import billing as say
from fidicula.words import papers as on_papers
from fidicula.words import pricing as say_price
from fidicula.words.numbers import how_many, money


def estimate(reckoned: Reckoned, loaded: VisitRecord) -> Content:
    """All that is planned, at its usual price. Raises ConflictError while nothing is."""
    if not reckoned.wanted:
        raise ConflictError(say.NOTHING_PLANNED)
    return replace(_content(reckoned, loaded, reckoned.wanted), promises=say.PROMISES)


def invoice(reckoned: Reckoned, loaded: VisitRecord, *, billed: set[UUID], paid: Decimal) -> Content:
    """What is done and on no invoice yet. billed : lines that are on one.  paid : that counts against it.

    Raises ConflictError where there is nothing, or where the owner has not agreed to it.
    """
    lines = to_bill(reckoned, billed)
    if not lines:
        raise ConflictError(say.NOTHING_DONE)
    unapproved = [line for line in lines if not reckoned.is_approved(line.line)]
    if unapproved:
        raise ConflictError(say.unapproved([works()[line.line.work].label for line in unapproved]))
    if reckoned.spent > reckoned.agreed:
        currency = reckoned.shop.currency
        raise ConflictError(say_price.beyond(money(reckoned.spent, currency), money(reckoned.agreed, currency)))
    if not (reckoned.shop.values["shop_name"] and reckoned.shop.values["shop_address"]):
        raise RefusedError(say.NO_ADDRESS, field="shop")
    if not loaded.instrument.owner.strip():
        raise RefusedError(say.NO_OWNER, field="owner")
    return replace(_content(reckoned, loaded, lines), paid=paid)


def to_bill(reckoned: Reckoned, billed: set[UUID]) -> list[ReckonedLine]:
    """Lines that are done and on no invoice yet."""
    return [line for line in reckoned.lines if line.is_done and line.line.id not in billed]


def taken_back(content: Content, reason: str) -> Content:
    """The same with every amount the other way round."""
    return replace(
        content,
        lines=tuple(replace(line, amount=-line.amount) for line in content.lines),
        net=-content.net,
        discount=-content.discount,
        taxes=tuple(replace(one, base=-one.base, tax=-one.tax) for one in content.taxes),
        total=-content.total,
        paid=Decimal(0),
        reason=reason,
    )


def _content(reckoned: Reckoned, loaded: VisitRecord, lines: Sequence[ReckonedLine]) -> Content:
    shop, instrument = reckoned.shop.values, loaded.instrument
    sums: Sum = reckoned.sums(lines).usual
    return Content(
        seller=tuple(line for line in (shop["shop_name"], shop["shop_address"], shop["shop_contact"]) if line),
        tax_number=shop["tax_number"],
        buyer=tuple(line for line in (instrument.owner, instrument.asked.get("contact", "")) if line),
        about=(on_papers.subject(instrument, loaded.now.astimezone().date())[0],),
        lines=tuple(_line(reckoned, line) for line in lines),
        net=sums.net,
        discount=sums.discount,
        taxes=tuple(BilledTax(one.rate, one.base, one.tax) for one in sums.by_rate),
        total=sums.total,
        currency=reckoned.shop.currency,
    )


def _line(reckoned: Reckoned, line: ReckonedLine) -> BilledLine:
    took = line.line.minutes
    minutes = say_price.minutes(line.minutes.span) if took is None else f"{took:f} min"
    parts = [
        say_price.part_words(
            reckoned.stock[part.item_id].item.label,
            how_many(part.count),
            money(part.count * part.price, reckoned.shop.currency),
        )
        for part in line.parts
    ]
    counts = line.counts
    return BilledLine(
        line_id=line.line.id,
        label=works()[line.line.work].label,
        detail=say.detail(minutes, parts),
        amount=counts.amount.usual,
        rate=reckoned.shop.amount("tax") if counts.tax is None else counts.tax,
    )
