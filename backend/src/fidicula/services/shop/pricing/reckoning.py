"""A plan in money: read from the records and reckoned once, for everything that shows or checks it."""

from __future__ import annotations

from dataclasses import replace
from datetime import datetime
from uuid import UUID

from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.plan import PlanLine, PlanPart
from fidicula.judgement.pricing.reckoned import Reckoned, agreed_terms, reckoned_line
from fidicula.judgement.pricing.value import said_value
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.shop.pricing.settings import shop_terms


def reckon(uow: UnitOfWork, loaded: VisitRecord) -> Reckoned:
    """Read a visit's plan and put it into money; what was agreed or done stays at what the shop charged then."""
    visit_id = loaded.visit.id
    lines, parts = [_with_terms(uow, line) for line in uow.plan.lines(visit_id)], uow.plan.parts(visit_id)
    approvals = tuple(
        approval if approval.terms else replace(approval, terms=_charged_at(uow, approval.approved_at))
        for approval in uow.plan.approvals(visit_id)
    )
    # One currency at one visit: that of what was agreed first.
    assessment, shop = loaded.assess(), shop_terms(uow)
    if approvals:
        shop = shop.as_agreed({"currency": approvals[0].currency})
    value = said_value(loaded.instrument.asked.get("worth", ""))
    own = uow.plan.own_minutes([line.work for line in lines], loaded.instrument.family)
    least = int(shop.amount("own_minutes_from"))
    by_line: dict[UUID, list[PlanPart]] = {}
    for part in parts:
        by_line.setdefault(part.line_id, []).append(part)
    reckoned = tuple(
        reckoned_line(
            line,
            tuple(by_line.get(line.id, ())),
            assessment,
            shop,
            own.get(line.work, []),
            value=value,
            least=least,
            approvals=approvals,
        )
        for line in lines
    )
    return Reckoned(
        assessment=assessment,
        shop=agreed_terms(shop, approvals),
        today=shop,
        lines=reckoned,
        times=tuple(uow.plan.times(visit_id)),
        approvals=approvals,
        stock=uow.stock.by_ids({part.item_id for part in parts}),
        value=value,
        discount=uow.plan.discount(visit_id),
        refused_before=tuple(uow.plan.refused_before(loaded.instrument.id, visit_id)),
    )


def _with_terms(uow: UnitOfWork, line: PlanLine) -> PlanLine:
    if line.done_at is None or line.terms:
        return line
    return replace(line, terms=_charged_at(uow, line.done_at))


def _charged_at(uow: UnitOfWork, moment: datetime | None) -> dict[str, str]:
    """What the shop charged at a moment, by the log of its settings; for what was agreed before that was kept."""
    return shop_terms(uow, at=moment).kept
