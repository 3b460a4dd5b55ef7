"""The drawers: what there is, how much of it, what it costs; and what the shop sets for itself."""

from __future__ import annotations

from collections.abc import Iterable
from datetime import datetime
from decimal import Decimal
from typing import Any
from uuid import UUID

from sqlalchemy import Connection, Select, func, select
from sqlalchemy.dialects.postgresql import distinct_on

from fidicula.db import schema
from fidicula.db.once import add_once
from fidicula.domain.plan import InStock, ShopEntry, StockEntry, StockItem

_item, _entry, _part, _line, _shop = (
    schema.stock_item,
    schema.stock_entry,
    schema.plan_part,
    schema.plan_line,
    schema.shop_entry,
)
_COLUMNS = [column for column in _item.c if column.name not in ("known_by", "added_at")]
MOST = 60
"""Items that a search shows."""


def _like(word: str) -> str:
    escaped = word.replace("\\", r"\\").replace("%", r"\%").replace("_", r"\_")
    return f"%{escaped}%"


class Stock:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def found(self, words: str, *, kind: str = "", family: str = "", limit: int = MOST) -> list[InStock]:
        """Items by words of their label, kind, place or supplier; of a kind and a family, where these are said."""
        asked = select(*_COLUMNS).order_by(_item.c.kind, _item.c.family, _item.c.figure, _item.c.label).limit(limit)
        for word in words.lower().split():
            asked = asked.where(_item.c.known_by.like(_like(word)))
        if kind:
            asked = asked.where(_item.c.kind == kind)
        if family:
            asked = asked.where(_item.c.family.in_([family, ""]))
        return self._counted(asked)

    def by_ids(self, ids: Iterable[UUID]) -> dict[UUID, InStock]:
        return {one.item.id: one for one in self._counted(select(*_COLUMNS).where(_item.c.id.in_(list(ids))))}

    def lock(self, item_id: UUID) -> bool:
        """Let nobody else count or use it until this is over; False where there is none."""
        return (
            self._connection.execute(select(_item.c.id).where(_item.c.id == item_id).with_for_update()).first()
            is not None
        )

    def history(self, item_id: UUID) -> list[StockEntry]:
        """Counts and prices, newest first."""
        rows = self._connection.execute(
            select(*(column for column in _entry.c if column.name != "number"))
            .where(_entry.c.item_id == item_id)
            .order_by(_entry.c.number.desc())
        )
        return [StockEntry(**row._mapping) for row in rows]

    def add(self, new: StockItem) -> None:
        add_once(self._connection, _item, {**vars(new), "details": dict(new.details)}, same=("kind", "label"))

    def enter(self, new: StockEntry) -> None:
        values = {name: value for name, value in vars(new).items() if name != "entered_at"}
        add_once(self._connection, _entry, values, same=("item_id", "what"))

    def settings(self, at: datetime | None = None) -> dict[str, str]:
        """The newest value of each setting, or the newest then; one that the shop never changed is not among them."""
        asked = (
            select(_shop.c.setting, _shop.c.value)
            .ext(distinct_on(_shop.c.setting))
            .order_by(_shop.c.setting, _shop.c.number.desc())
        )
        rows = self._connection.execute(asked if at is None else asked.where(_shop.c.entered_at <= at))
        return {row.setting: row.value for row in rows}

    def setting_history(self, setting: str) -> list[ShopEntry]:
        """Newest first."""
        columns = [column for column in _shop.c if column.name != "number"]
        rows = self._connection.execute(
            select(*columns).where(_shop.c.setting == setting).order_by(_shop.c.number.desc())
        )
        return [ShopEntry(**row._mapping) for row in rows]

    def set(self, new: ShopEntry) -> None:
        values = {name: value for name, value in vars(new).items() if name != "entered_at"}
        add_once(self._connection, _shop, values, same=("setting",))

    def _counted(self, asked: Select[Any]) -> list[InStock]:
        items = [StockItem(**row._mapping) for row in self._connection.execute(asked)]
        ids = [item.id for item in items]
        if not ids:
            return []
        came = self._sums(
            select(_entry.c.item_id, func.sum(_entry.c.value))
            .where(_entry.c.item_id.in_(ids), _entry.c.what == "count")
            .group_by(_entry.c.item_id)
        )
        used, reserved = (self._planned(ids, done=done) for done in (True, False))
        prices = {
            row.item_id: row.value
            for row in self._connection.execute(
                select(_entry.c.item_id, _entry.c.value)
                .ext(distinct_on(_entry.c.item_id))
                .where(_entry.c.item_id.in_(ids), _entry.c.what == "price")
                .order_by(_entry.c.item_id, _entry.c.number.desc())
            )
        }
        none = Decimal(0)
        return [
            InStock(
                item,
                came.get(item.id, none) - used.get(item.id, none),
                reserved.get(item.id, none),
                prices.get(item.id),
            )
            for item in items
        ]

    def _planned(self, ids: list[UUID], *, done: bool) -> dict[UUID, Decimal]:
        """What planned works have used, or hold: of open visits those that are still to do."""
        work, visit = schema.work_done, schema.visit
        is_done = select(work.c.id).where(work.c.id == _line.c.work_id, work.c.taken_back_at.is_(None)).exists()
        asked = (
            select(_part.c.item_id, func.sum(_part.c.count))
            .join(_line, _line.c.id == _part.c.line_id)
            .where(_part.c.item_id.in_(ids), _part.c.taken_back_at.is_(None), _line.c.taken_back_at.is_(None))
            .group_by(_part.c.item_id)
        )
        if done:
            return self._sums(asked.where(is_done))
        return self._sums(
            asked.join(visit, visit.c.id == _line.c.visit_id).where(~is_done, visit.c.closed_at.is_(None))
        )

    def _sums(self, asked: Select[Any]) -> dict[UUID, Decimal]:
        return {row[0]: row[1] for row in self._connection.execute(asked)}
