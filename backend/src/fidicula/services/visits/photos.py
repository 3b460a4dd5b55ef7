"""Photographs of a visit: as files, or from the inspection camera."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.devices.ports import DeviceError, InspectionCamera
from fidicula.documents.pictures import PictureError, kept_picture
from fidicula.domain.errors import BusyError, ConflictError, NotFoundError, RefusedError
from fidicula.domain.photos import NewPhoto, Photo
from fidicula.hosting.worker import Worker, WorkerBusyError, WorkerLimitError
from fidicula.services.loading.records import check_in_house, load_to_change
from fidicula.services.people.ranks import check_undo
from fidicula.tables.signs import items, shots

MOST_BYTES = 48 * 1024 * 1024
"""Of one photograph as it comes."""

_worker = Worker(memory=360_000_000, seconds=20, waiting=8)
"""Pictures are opened one after the other, where a hostile one can do no harm."""


@dataclass(frozen=True)
class PhotoView:
    """camera : what took it; a stand-in says that it is one; empty for a file."""

    id: str
    item: str
    label: str
    words: str
    camera: str
    width: int
    height: int
    by: str
    at: datetime


@dataclass(frozen=True)
class ShotView:
    """A shot worth taking. how : lit and aimed.  is_taken : there is one of its item by the inspection camera."""

    shot: str
    item: str
    label: str
    how: str
    is_taken: bool


@dataclass(frozen=True)
class PhotoSheet:
    """camera : what the inspection camera is called."""

    photos: list[PhotoView]
    shots: list[ShotView]
    camera: str


class Photos:
    """Use cases around photographs. Every change answers with all of the visit's."""

    def __init__(self, engine: Engine, camera: InspectionCamera | None) -> None:
        """camera : None where none is connected."""
        self._engine = engine
        self._camera = camera

    def of(self, ticket: str) -> PhotoSheet:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return self._sheet(uow, ticket)

    def add(
        self, ticket: str, *, photo_id: UUID, item: str, data: bytes, words: str, by: str, thing: UUID | None = None
    ) -> PhotoSheet:
        """Keep a photograph, turned and sized. thing : a mark of the damage map that it shows.

        Raises RefusedError for what is none.
        """
        return self._keep(
            ticket, photo_id=photo_id, item=item, data=data, words=words, shot="", camera="", by=by, thing=thing
        )

    def inspect(self, ticket: str, *, photo_id: UUID, shot: str, by: str) -> PhotoSheet:
        """Take one of the shots worth taking. Raises ConflictError where the camera does not answer."""
        if shot not in shots():
            raise RefusedError(f"“{shot}” is none of the shots worth taking", field="shot")
        try:
            if self._camera is None:
                raise ConflictError("no inspection camera is connected here: add the picture as a file")
            data = self._camera.take(shot)
        except DeviceError as error:
            raise ConflictError(str(error)) from error
        row = shots()[shot]
        return self._keep(
            ticket,
            photo_id=photo_id,
            item=row.item,
            data=data,
            words="",
            shot=shot,
            camera="" if self._camera is None else self._camera.label,
            by=by,
        )

    def picture(self, photo_id: UUID, *, small: bool) -> bytes:
        """A photograph as a JPEG file."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            found = uow.photos.picture(photo_id, small=small)
        if found is None:
            raise NotFoundError("that photograph is not here")
        return found

    def take_back(self, ticket: str, photo_id: UUID, by: str) -> PhotoSheet:
        """It no longer shows; it stays in the records."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            photo = next((one for one in uow.photos.of_visit(loaded.visit.id) if one.id == photo_id), None)
            if photo is None:
                raise NotFoundError("that photograph is not of this visit")
            check_undo(uow, "this photograph", of=photo.taken_by, by=by)
            uow.photos.take_back(photo_id, by)
            uow.commit()
            return self._sheet(uow, ticket)

    def _keep(
        self,
        ticket: str,
        *,
        photo_id: UUID,
        item: str,
        data: bytes,
        words: str,
        shot: str,
        camera: str,
        by: str,
        thing: UUID | None = None,
    ) -> PhotoSheet:
        if item not in items():
            raise RefusedError(f"“{item}” is nothing that is looked over", field="item")
        try:
            picture = _worker.run(kept_picture, data)
        except PictureError as error:
            raise RefusedError(str(error), field="picture") from error
        except WorkerLimitError as error:
            raise RefusedError("the picture takes too much to open: a smaller one will do", field="picture") from error
        except WorkerBusyError as error:
            raise BusyError("other pictures are being opened; this one is sent again") from error
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            if thing is not None and all(look.thing != thing for look in loaded.damage):
                raise RefusedError("that mark is not on the damage map of this instrument", field="thing")
            uow.photos.add(
                NewPhoto(
                    id=photo_id,
                    visit_id=loaded.visit.id,
                    item=item,
                    words=words,
                    shot=shot,
                    camera=camera,
                    width=picture.width,
                    height=picture.height,
                    jpeg=picture.jpeg,
                    small=picture.small,
                    taken_by=by,
                    thing=thing,
                )
            )
            uow.commit()
            return self._sheet(uow, ticket)

    def _sheet(self, uow: UnitOfWork, ticket: str) -> PhotoSheet:
        found = uow.instruments.by_ticket(ticket)
        if found is None:
            raise NotFoundError(f"there is no instrument with the ticket {ticket} in the house", field="ticket")
        instrument, visit = found
        photos = uow.photos.of_visit(visit.id)
        taken = {photo.shot for photo in photos}
        return PhotoSheet(
            photos=[_view(photo) for photo in photos],
            shots=[
                ShotView(row.shot, row.item, row.label, row.how, row.shot in taken)
                for row in shots().values()
                if row.fits(instrument.family)
            ],
            camera="" if self._camera is None else self._camera.label,
        )


def _view(photo: Photo) -> PhotoView:
    return PhotoView(
        id=str(photo.id),
        item=photo.item,
        label=items()[photo.item].label if photo.item in items() else photo.item,
        words=photo.words or (shots()[photo.shot].label if photo.shot in shots() else ""),
        camera=photo.camera,
        width=photo.width,
        height=photo.height,
        by=photo.taken_by,
        at=photo.taken_at,
    )
