"""What the shop sets for itself: rates, tax, limits; each with its history, as figures have."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from decimal import Decimal
from uuid import UUID

from babel.numbers import list_currencies

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import NotFoundError, RefusedError
from fidicula.domain.plan import ShopEntry
from fidicula.judgement.pricing.terms import HALVES, ShopTerms
from fidicula.services.people.audit import note
from fidicula.services.shop.pricing.typed import typed_amount
from fidicula.tables.pricing import ShopSetting, shop_settings

_LONGEST = 200
_LIMITS = ("say_from", "discuss_from", "advise_against_from")


@dataclass(frozen=True)
class SettingLine:
    value: str
    entered_by: str
    entered_at: datetime | None


@dataclass(frozen=True)
class SettingView:
    """One setting. value : as text.  starting : what it starts from.  history : newest first."""

    setting: str
    label: str
    kind: str
    unit: str
    says: str
    value: str
    starting: str
    is_own: bool
    history: list[SettingLine]


def shop_terms(uow: UnitOfWork, *, at: datetime | None = None) -> ShopTerms:
    """As they are today, or as they were at a moment."""
    own = uow.stock.settings(at)
    return ShopTerms({name: own.get(name, row.value) for name, row in shop_settings().items()})


class Settings:
    """Use cases around the shop's settings."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def all(self) -> list[SettingView]:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            own = uow.stock.settings()
            return [
                _view(row, own.get(row.setting), uow.stock.setting_history(row.setting))
                for row in shop_settings().values()
            ]

    def enter(self, setting: str, typed: str, *, entry_id: UUID, by: str) -> list[SettingView]:
        """Change one. Raises NotFoundError, or RefusedError naming `value`."""
        row = shop_settings().get(setting)
        if row is None:
            raise NotFoundError(f"there is no setting “{setting}”", field="setting")
        value = _checked(row, typed)
        with UnitOfWork(self._engine) as uow:
            now = {**shop_terms(uow).values, setting: value}
            limits = [Decimal(now[name]) for name in _LIMITS]
            if setting in _LIMITS and limits != sorted(limits):
                told = "the limits go upward: say it, discuss it, advise against it; change the other one first"
                raise RefusedError(told, field="value")
            was = shop_terms(uow).values[setting]
            uow.stock.set(ShopEntry(entry_id, setting, value, by))
            note(uow, "setting.entered", row.label, by=by, detail={"was": was, "now": value})
            uow.commit()
        return self.all()


def _checked(row: ShopSetting, typed: str) -> str:
    match row.kind:
        case "code":
            code = typed.strip().upper()
            if code not in list_currencies():
                raise RefusedError("type a currency by its three letters, for instance EUR", field="value")
            return code
        case "text":
            return typed.strip()[:_LONGEST]
        case "choice":
            if typed.strip() not in HALVES:
                raise RefusedError("a half goes up, or to the even one: type up or even", field="value")
            return typed.strip()
    amount = typed_amount(typed, what=row.label, field="value")
    if row.kind == "count" and amount != amount.to_integral_value():
        raise RefusedError(f"{row.label}: a whole number will do, for instance 3", field="value")
    if (row.least is not None and amount < row.least) or (row.most is not None and amount > row.most):
        raise RefusedError(f"{row.label}: from {row.least} to {row.most}; it was {typed.strip()}", field="value")
    return str(amount)


def _view(row: ShopSetting, own: str | None, history: list[ShopEntry]) -> SettingView:
    return SettingView(
        setting=row.setting,
        label=row.label,
        kind=row.kind,
        unit=row.unit or "",
        says=row.says or "",
        value=row.value if own is None else own,
        starting=row.value,
        is_own=own is not None,
        history=[SettingLine(line.value, line.entered_by, line.entered_at) for line in history],
    )
