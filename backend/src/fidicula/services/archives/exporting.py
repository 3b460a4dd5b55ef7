"""Writing archives: one instrument with its papers, or the whole house, in constant memory."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from datetime import UTC, datetime
from typing import BinaryIO
from uuid import UUID

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.documents.dossier.archive import (
    INSTRUMENTS,
    PHOTOS,
    RECORDINGS,
    SHOP,
    ArchiveWriter,
    Manifest,
    csv_lines,
)
from fidicula.documents.dossier.instrument import FORMAT, Dossier
from fidicula.documents.dossier.shop import Shop
from fidicula.documents.dossier.values import without_limits
from fidicula.domain.errors import NotFoundError

AT_ONCE = 100
"""So many instruments are read in one way to the database."""
Progress = Callable[[int, int], None]
"""Called with how many are done, and of how many."""
READINGS_CSV = "readings.csv"
_DOSSIER, _SHOP = without_limits(Dossier), without_limits(Shop)


def export_house(engine: Engine, to: BinaryIO, progress: Progress = lambda _done, _of: None) -> int:
    """Everything of every instrument, and what the shop goes by, as it is at one moment. Returns how many there are."""
    with UnitOfWork(engine) as uow, ArchiveWriter(to) as archive:
        uow.archive.begin_reading()
        ids = uow.archive.ids()
        archive.manifest(Manifest("house", FORMAT, len(ids), datetime.now(UTC).isoformat()))
        archive.file(SHOP, _SHOP(uow.archive.shop()).model_dump_json(indent=1).encode())
        files: list[tuple[str, UUID]] = []

        def told() -> Iterator[Dossier]:
            for done, dossier in enumerate(_dossiers(uow, ids), start=1):
                files.extend(_files(dossier))
                if done % AT_ONCE == 0 or done == len(ids):
                    progress(done, len(ids))
                yield dossier

        archive.lines(INSTRUMENTS, told())
        _write_files(uow, archive, files)
        return len(ids)


def export_instrument(engine: Engine, ticket: str, to: BinaryIO, papers: Mapping[str, bytes]) -> None:
    """One instrument with its readings as a table and its papers. papers : PDFs by name. Raises NotFoundError."""
    with UnitOfWork(engine) as uow, ArchiveWriter(to) as archive:
        uow.archive.begin_reading()
        ids = uow.archive.ids(ticket)
        if not ids:
            raise NotFoundError(f"there is no instrument with the ticket {ticket} in the house", field="ticket")
        archive.manifest(Manifest("instrument", FORMAT, 1, datetime.now(UTC).isoformat()))
        (dossier,) = _dossiers(uow, ids)
        archive.lines(INSTRUMENTS, iter([dossier]))
        archive.text(READINGS_CSV, csv_lines(dossier, heads=True))
        _write_files(uow, archive, _files(dossier))
        for name, data in papers.items():
            archive.file(f"papers/{name}.pdf", data)


def _dossiers(uow: UnitOfWork, ids: list[UUID]) -> Iterator[Dossier]:
    for i in range(0, len(ids), AT_ONCE):
        for row in uow.archive.dossiers(ids[i : i + AT_ONCE]):
            yield _DOSSIER(row)


def _files(dossier: Dossier) -> list[tuple[str, UUID]]:
    """Photographs and recordings that its lines name, those taken back too: they are under the seal."""
    return [
        *(("photo", line.id) for visit in dossier.visits for line in visit.record.photographs),
        *(("recording", line.id) for visit in dossier.visits for line in visit.record.recordings),
    ]


def _write_files(uow: UnitOfWork, archive: ArchiveWriter, files: list[tuple[str, UUID]]) -> None:
    for kind, one in files:
        data = uow.archive.picture(one) if kind == "photo" else uow.archive.recording(one)
        if data is not None:
            archive.file((PHOTOS if kind == "photo" else RECORDINGS).format(one), data)
