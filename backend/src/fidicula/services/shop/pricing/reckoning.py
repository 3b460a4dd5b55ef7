"""A plan in money: read from the records and reckoned once, for everything that shows or checks it."""

from __future__ import annotations

from uuid import UUID

from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.plan import PlanPart
from fidicula.judgement.pricing.reckoned import Reckoned, reckoned_line
from fidicula.judgement.pricing.value import said_value
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.shop.pricing.settings import shop_terms


def reckon(uow: UnitOfWork, loaded: VisitRecord) -> Reckoned:
    """Read a visit's plan and put it into money."""
    assessment, shop = loaded.assess(), shop_terms(uow)
    visit_id = loaded.visit.id
    lines, parts = uow.plan.lines(visit_id), uow.plan.parts(visit_id)
    value = said_value(loaded.instrument.asked.get("worth", ""))
    own = uow.plan.own_minutes([line.work for line in lines], loaded.instrument.family)
    least = int(shop.amount("own_minutes_from"))
    by_line: dict[UUID, list[PlanPart]] = {}
    for part in parts:
        by_line.setdefault(part.line_id, []).append(part)
    reckoned = tuple(
        reckoned_line(
            line, tuple(by_line.get(line.id, ())), assessment, shop, own.get(line.work, []), value=value, least=least
        )
        for line in lines
    )
    return Reckoned(
        assessment=assessment,
        shop=shop,
        lines=reckoned,
        times=tuple(uow.plan.times(visit_id)),
        approvals=tuple(uow.plan.approvals(visit_id)),
        stock=uow.stock.by_ids({part.item_id for part in parts}),
        value=value,
        discount=uow.plan.discount(visit_id),
    )
