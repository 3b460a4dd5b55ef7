"""The drawers: what there is, found while typing; counted, priced, reordered."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from uuid import UUID, uuid5

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import NotFoundError, RefusedError
from fidicula.domain.plan import InStock, StockEntry, StockItem
from fidicula.services.people.audit import note
from fidicula.services.people.ranks import check_price
from fidicula.services.shop.pricing.settings import shop_terms
from fidicula.services.shop.pricing.typed import typed_amount
from fidicula.tables.pricing import FAMILIES, StockKind, stock_kinds
from fidicula.words.numbers import how_many, money

MOST_COUNT = Decimal(100_000)


@dataclass(frozen=True)
class NewItem:
    """figure, counted, price, reorder_at : as typed.  details : by name, for instance wood, grade, seasoned since."""

    kind: str
    family: str
    label: str
    figure: str = ""
    counted: str = ""
    price: str = ""
    place: str = ""
    reorder_at: str = ""
    supplier: str = ""
    details: dict[str, str] | None = None
    string_set_id: UUID | None = None


@dataclass(frozen=True)
class StockView:
    """One item. free : on hand and not reserved.  is_low : at or under its reorder level."""

    id: str
    kind: str
    kind_label: str
    family: str
    label: str
    figure: str
    place: str
    on_hand: str
    reserved: str
    free: str
    price: str
    reorder_at: str
    is_low: bool
    supplier: str
    details: dict[str, str]
    string_set_id: str | None


@dataclass(frozen=True)
class StockLine:
    """A count that came or went, or a price from then on, in words."""

    what: str
    value: str
    reason: str
    entered_by: str
    entered_at: datetime | None


@dataclass(frozen=True)
class KindView:
    kind: str
    label: str
    figure: str
    unit: str


class Drawers:
    """Use cases around what the shop has in its drawers."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def kinds(self) -> list[KindView]:
        return [KindView(row.kind, row.label, row.figure or "", row.unit or "") for row in stock_kinds().values()]

    def found(self, words: str, *, kind: str = "", family: str = "") -> list[StockView]:
        """Items by words, of a kind and a family where these are said."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            currency = shop_terms(uow).currency
            return [_view(one, currency) for one in uow.stock.found(words, kind=kind, family=family)]

    def history(self, item_id: UUID) -> list[StockLine]:
        """Counts and prices, newest first."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            if not uow.stock.by_ids([item_id]):
                raise NotFoundError("that is not in the drawers", field="item")
            currency = shop_terms(uow).currency
            return [_line(entry, currency) for entry in uow.stock.history(item_id)]

    def add(self, new: NewItem, *, item_id: UUID, by: str) -> StockView:
        """Put something new into the drawers. Raises RefusedError naming the field."""
        kind = stock_kinds().get(new.kind)
        if kind is None:
            raise RefusedError(f"it is one of: {', '.join(row.label for row in stock_kinds().values())}", field="kind")
        if new.family and new.family not in FAMILIES:
            raise RefusedError("it is for violin, viola, cello or bass, or for any", field="family")
        if not new.label.strip():
            raise RefusedError("give it a name, so that it can be found", field="label")
        counted = typed_amount(new.counted or "0", what="how many", field="counted", most=MOST_COUNT)
        reorder = typed_amount(new.reorder_at or "0", what="reorder at", field="reorder_at", most=MOST_COUNT)
        price = typed_amount(new.price, what="the price", field="price") if new.price.strip() else None
        item = StockItem(
            id=item_id,
            kind=new.kind,
            family=new.family,
            label=new.label.strip(),
            figure=_figure(kind, new.figure),
            place=new.place.strip(),
            reorder_at=reorder,
            supplier=new.supplier.strip(),
            string_set_id=new.string_set_id,
            added_by=by,
            details=new.details or {},
        )
        with UnitOfWork(self._engine) as uow:
            if new.string_set_id is not None and uow.string_sets.by_id(new.string_set_id) is None:
                raise NotFoundError("that set of strings is not on the shelf", field="string_set_id")
            uow.stock.add(item)
            if counted:
                uow.stock.enter(StockEntry(uuid5(item_id, "count"), item_id, "count", counted, "", by))
            if price is not None:
                uow.stock.enter(StockEntry(uuid5(item_id, "price"), item_id, "price", price, "", by))
            note(uow, "stock.added", item.label, by=by, detail={"now": new.counted or "0", "price": new.price.strip()})
            view = _view(uow.stock.by_ids([item_id])[item_id], shop_terms(uow).currency)
            uow.commit()
            return view

    def enter(
        self, item_id: UUID, *, what: str, typed: str, comes: bool, reason: str, entry_id: UUID, by: str
    ) -> StockView:
        """A count that comes or goes, or a new price. Raises RefusedError naming `value`: what nobody has cannot go."""
        with UnitOfWork(self._engine) as uow:
            if not uow.stock.lock(item_id):
                raise NotFoundError("that is not in the drawers", field="item")
            found = uow.stock.by_ids([item_id])[item_id]
            if what == "price":
                check_price()
                value = typed_amount(typed, what="the price", field="value")
                uow.stock.enter(StockEntry(entry_id, item_id, "price", value, reason.strip(), by))
            elif what == "count":
                value = typed_amount(typed, what="how many", field="value", most=MOST_COUNT)
                is_new = all(entry.id != entry_id for entry in uow.stock.history(item_id))
                if is_new and not comes and value > found.on_hand:
                    here = how_many(found.on_hand)
                    raise RefusedError(f"there are {here} of {found.item.label}: no more can go", field="value")
                signed = value if comes else -value
                uow.stock.enter(StockEntry(entry_id, item_id, "count", signed, reason.strip(), by))
            else:
                raise RefusedError("it is a count or a price", field="what")
            act = "stock.priced" if what == "price" else "stock.counted"
            note(
                uow, act, found.item.label, by=by, detail={"now": f"{value if comes or what == 'price' else -value:f}"}
            )
            view = _view(uow.stock.by_ids([item_id])[item_id], shop_terms(uow).currency)
            uow.commit()
            return view


def _figure(kind: StockKind, typed: str) -> Decimal | None:
    if kind.figure is None or not typed.strip():
        return None
    figure = typed_amount(typed, what=kind.figure, field="figure")
    if (kind.lowest is not None and figure < kind.lowest) or (kind.highest is not None and figure > kind.highest):
        asked = f"from {kind.lowest} to {kind.highest} {kind.unit}"
        told = f"the {kind.label}'s {kind.figure} is {asked}; it was {typed.strip()}"
        raise RefusedError(told, field="figure")
    return figure


def _view(one: InStock, currency: str) -> StockView:
    item, kind = one.item, stock_kinds()[one.item.kind]
    return StockView(
        id=str(item.id),
        kind=item.kind,
        kind_label=kind.label,
        family=item.family,
        label=item.label,
        figure="" if item.figure is None else f"{how_many(item.figure)} {kind.unit}",
        place=item.place,
        on_hand=how_many(one.on_hand),
        reserved=how_many(one.reserved) if one.reserved else "",
        free=how_many(one.free),
        price="" if one.price is None else money(one.price, currency),
        reorder_at=how_many(item.reorder_at) if item.reorder_at else "",
        is_low=one.free <= item.reorder_at and item.reorder_at > 0,
        supplier=item.supplier,
        details=dict(item.details),
        string_set_id=None if item.string_set_id is None else str(item.string_set_id),
    )


def _line(entry: StockEntry, currency: str) -> StockLine:
    if entry.what == "price":
        return StockLine("price", money(entry.value, currency), entry.reason, entry.entered_by, entry.entered_at)
    sign = "+" if entry.value > 0 else "−"
    return StockLine("count", f"{sign}{how_many(abs(entry.value))}", entry.reason, entry.entered_by, entry.entered_at)
