"""The shop's short lists: what blanks, slot files and templates it keeps."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from uuid import UUID

from fidicula.core.errors import CoreError
from fidicula.core.readings.typed import millimetres
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import NotFoundError, RefusedError
from fidicula.numerals import short
from fidicula.services.people.audit import note
from fidicula.tables.shelf import ShelfList, shelf_lists

MOST = 60


@dataclass(frozen=True)
class ShelfView:
    """One list. values : upward. [unit]  is_own : the shop has changed it."""

    name: str
    label: str
    unit: str
    values: list[float]
    is_own: bool


def lists_of(uow: UnitOfWork, family: str) -> dict[str, tuple[float, ...]]:
    """Every list of a family: the shop's own, else what it starts from."""
    own = uow.shelf.of_family(family)
    return {name: own.get(name, row.values) for (name, of), row in shelf_lists().items() if of == family}


class Shelf:
    """Use cases around the lists."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def lists(self, family: str) -> list[ShelfView]:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            own = uow.shelf.of_family(family)
        return [
            ShelfView(name, row.label, row.unit, list(own.get(name, row.values)), name in own)
            for (name, of), row in shelf_lists().items()
            if of == family
        ]

    def enter(self, family: str, name: str, typed: Sequence[str], *, entry_id: UUID, by: str) -> list[ShelfView]:
        """Change a list. typed : as somebody types them, in any order; twice the same counts once.

        Raises NotFoundError for a list that there is not, and RefusedError naming `values`.
        """
        row = shelf_lists().get((name, family))
        if row is None:
            raise NotFoundError(f"there is no list “{name}” for a {family}", field="list")
        if len(typed) > MOST:
            raise RefusedError(f"a list holds up to {MOST} sizes", field="values")
        values = tuple(sorted({_value(row, one) for one in typed if one.strip()}))
        with UnitOfWork(self._engine) as uow:
            uow.shelf.enter(id=entry_id, name=name, family=family, values=values, by=by)
            note(uow, "shelf.entered", f"{family} {name}", by=by)
            uow.commit()
        return self.lists(family)


def _value(row: ShelfList, typed: str) -> float:
    try:
        value = millimetres(typed, what=row.label)
    except CoreError as error:
        raise RefusedError(error.sentence, field="values") from error
    if not row.smallest <= value <= row.largest:
        raise RefusedError(
            f"{row.label}: {short(value)} is none; from {short(row.smallest)} to {short(row.largest)} {row.unit}",
            field="values",
        )
    return value
