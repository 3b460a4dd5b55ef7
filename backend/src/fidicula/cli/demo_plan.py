"""What the demo's shop has in its drawers, and what is planned and approved at a visit."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any
from uuid import uuid4

from fidicula.db.unit_of_work import Engine
from fidicula.domain.strings import StringSet
from fidicula.services.shop.pricing.approving import Approving
from fidicula.services.shop.pricing.drawers import Drawers, NewItem
from fidicula.services.shop.pricing.plan import Adding, Plans


def load_stock(
    engine: Engine, entries: list[dict[str, Any]], sets: Mapping[tuple[str, str], StringSet], *, by: str
) -> None:
    drawers = Drawers(engine)
    for entry in entries:
        values = dict(entry)
        name = values.pop("set", None)
        set_id = None if name is None else sets[entry["family"], name].id
        drawers.add(NewItem(**values, string_set_id=set_id), item_id=uuid4(), by=by)


def load_plan(engine: Engine, ticket: str, entry: Mapping[str, Any], *, by: str) -> None:
    """Planned and approved; then what was found underway, which is not."""
    plans = Plans(engine)
    told = plans.add(ticket, Adding(entry["works"], "wish"), line_id=uuid4(), by=by)
    approving = Approving(entry["who"], entry["how"], told.total)
    plans.approve(ticket, approving, approval_id=uuid4(), by=by)
    for work, reason in entry["underway"].items():
        plans.add(ticket, Adding([work], "underway", reason=reason), line_id=uuid4(), by=by)
