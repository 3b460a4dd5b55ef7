"""Photographs of a visit, kept with the records so that one backup holds everything."""

from __future__ import annotations

from uuid import UUID

from sqlalchemy import Connection, func, select, update

from fidicula.db import schema
from fidicula.db.once import add_once
from fidicula.domain.photos import NewPhoto, Photo

_t = schema.photo
_WITHOUT_PICTURES = [c for c in _t.c if c.name not in ("jpeg", "small", "number", "taken_back_at", "taken_back_by")]


class Photos:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def of_visit(self, visit_id: UUID) -> list[Photo]:
        """A visit's photographs in order, without those taken back."""
        rows = self._connection.execute(
            select(*_WITHOUT_PICTURES)
            .where(_t.c.visit_id == visit_id, _t.c.taken_back_at.is_(None))
            .order_by(_t.c.number)
        )
        return [Photo(**row._mapping) for row in rows]

    def add(self, new: NewPhoto) -> None:
        """Add a photograph; one of this id that is there already stays as it is."""
        add_once(self._connection, _t, vars(new))

    def picture(self, photo_id: UUID, *, small: bool) -> bytes | None:
        """None for one that is not here, or was taken back."""
        column = _t.c.small if small else _t.c.jpeg
        found = select(column).where(_t.c.id == photo_id, _t.c.taken_back_at.is_(None))
        return self._connection.execute(found).scalar_one_or_none()

    def take_back(self, photo_id: UUID, by: str) -> None:
        self._connection.execute(
            update(_t).where(_t.c.id == photo_id).values(taken_back_at=func.now(), taken_back_by=by)
        )
