"""The points that the shop checks before an instrument leaves: those that come along, its own, and what it left out."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import NotFoundError, RefusedError
from fidicula.domain.leaving import PointEntry
from fidicula.services.people.audit import note
from fidicula.tables.leaving import closing_points
from fidicula.tables.pricing import FAMILIES

MOST_OWN = 40


@dataclass(frozen=True)
class ShopPoint:
    """A point of the list. families : that it holds for, none for all.  comes_along : it is not the shop's own.

    is_changed : the shop worded it otherwise.  is_asked : else it was left out.
    """

    point: str
    label: str
    look: str
    means: str
    families: list[str]
    comes_along: bool
    is_changed: bool
    is_asked: bool
    by: str
    at: datetime | None


@dataclass(frozen=True)
class PointTyped:
    label: str
    look: str
    means: str
    families: Sequence[str]


class ClosingPoints:
    """Use cases around the shop's list."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def all(self) -> list[ShopPoint]:
        """In the order in which they are asked, those left out last."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return _all(uow.leaving.own_points())

    def enter(self, point: str, typed: PointTyped, *, entry_id: UUID, by: str) -> list[ShopPoint]:
        """Word a point; a name that is not there yet adds one. Raises RefusedError naming `label` or `families`."""
        label = typed.label.strip()
        if not label:
            raise RefusedError("say what is looked at, for instance: case latches close", field="label")
        unknown = [family for family in typed.families if family not in FAMILIES]
        if unknown:
            raise RefusedError(f"a family is {', '.join(FAMILIES)}; it was “{unknown[0]}”", field="families")
        with UnitOfWork(self._engine) as uow:
            own = {entry.point: entry for entry in uow.leaving.own_points()}
            if point not in own and point not in closing_points() and len(own) >= MOST_OWN:
                raise RefusedError(
                    f"the list has {MOST_OWN} points of the shop's own: leave one out first", field="label"
                )
            new = PointEntry(
                entry_id,
                point,
                label,
                typed.look.strip(),
                typed.means.strip(),
                list(typed.families),
                len(own),
                False,
                by,
            )
            _write(uow, new, was="" if point not in own else own[point].label)
            return _all(uow.leaving.own_points())

    def leave_out(self, point: str, *, entry_id: UUID, by: str) -> list[ShopPoint]:
        """It is not asked any more; what was said of it stays on record."""
        with UnitOfWork(self._engine) as uow:
            there = _found(_all(uow.leaving.own_points()), point)
            new = PointEntry(entry_id, point, there.label, there.look, there.means, there.families, 0, True, by)
            _write(uow, new, was=there.label)
            return _all(uow.leaving.own_points())


def _write(uow: UnitOfWork, new: PointEntry, *, was: str) -> None:
    uow.leaving.enter_point(new)
    now = "" if new.retired else new.label
    note(uow, "closing_point.entered", new.label, by=new.entered_by, detail={"was": was, "now": now})
    uow.commit()


def _found(points: Sequence[ShopPoint], point: str) -> ShopPoint:
    for one in points:
        if one.point == point:
            return one
    raise NotFoundError("there is no such point on the list", field="point")


def _all(own: Sequence[PointEntry]) -> list[ShopPoint]:
    by_own = {entry.point: entry for entry in own}
    shipped = [
        _own(by_own[name], comes_along=True)
        if name in by_own
        else ShopPoint(
            point=name,
            label=row.label,
            look=row.look or "",
            means=row.means or "",
            families=(row.families or "").split(),
            comes_along=True,
            is_changed=False,
            is_asked=True,
            by="",
            at=None,
        )
        for name, row in closing_points().items()
    ]
    added = [_own(entry, comes_along=False) for entry in own if entry.point not in closing_points()]
    return sorted([*shipped, *added], key=lambda one: not one.is_asked)


def _own(entry: PointEntry, *, comes_along: bool) -> ShopPoint:
    return ShopPoint(
        point=entry.point,
        label=entry.label,
        look=entry.look,
        means=entry.means,
        families=list(entry.families),
        comes_along=comes_along,
        is_changed=comes_along and not entry.retired,
        is_asked=not entry.retired,
        by=entry.entered_by,
        at=entry.entered_at,
    )
