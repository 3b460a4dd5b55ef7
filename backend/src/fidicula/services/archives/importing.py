"""Taking archives in: everything is looked at first, and all of it comes in, or nothing."""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Iterator, Mapping, Sequence
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from itertools import islice
from pathlib import Path
from typing import Any, Literal
from uuid import UUID

from fidicula.db.archive import UnfitError
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.documents.dossier.archive import INSTRUMENTS, SHOP, ArchiveError, ArchiveReader
from fidicula.documents.dossier.instrument import Dossier
from fidicula.documents.pictures import PictureError, small_of
from fidicula.domain.errors import RefusedError
from fidicula.domain.tickets import next_ticket
from fidicula.services.archives.checking import TRIED_ALL, Checker, try_out
from fidicula.services.people.audit import note

Progress = Callable[[int, int], None]
Choice = Literal["same", "other", "skip"]
AT_ONCE = 100
MOST_SHOWN = 200


@dataclass(frozen=True)
class Clash:
    """A ticket of the archive that is taken here. is_same : it is this very instrument, by its id.

    adds : visits that are not here yet.
    """

    ticket: str
    says: str
    is_same: bool
    adds: int


@dataclass
class ArchiveView:
    """What an archive holds, before anything is taken in. clashes : tickets that are taken; each wants a choice.

    shop : whether it brings what a shop goes by; takes_shop : and that comes in, for nothing is here yet.
    """

    kind: str
    made_at: str
    instruments: int = 0
    visits: int = 0
    readings: int = 0
    photographs: int = 0
    recordings: int = 0
    shop: bool = False
    takes_shop: bool = False
    clashes: list[Clash] = field(default_factory=list)
    more_clashes: int = 0


@dataclass(frozen=True)
class TakenIn:
    """What came in. renamed : tickets that were taken, and what they are called now."""

    instruments: int
    visits: int
    readings: int
    skipped: int
    renamed: dict[str, str]


def look_at(engine: Engine, path: Path, progress: Progress = lambda _done, _of: None) -> ArchiveView:
    """Read an archive through and check every line, without writing anything. Raises RefusedError naming the place."""
    try:
        with ArchiveReader(path) as archive, UnitOfWork(engine, only_reads=True) as uow:
            manifest = archive.manifest
            view = ArchiveView(manifest.kind, manifest.made_at)
            view.shop = archive.shop() is not None
            view.takes_shop = view.shop and uow.archive.is_empty()
            checker = Checker()
            for batch in _batches(archive.instruments()):
                _count(view, batch)
                for dossier in batch:
                    checker.check(dossier)
                _find_clashes(uow, view, batch)
                progress(view.instruments, manifest.instruments)
            if view.instruments != manifest.instruments:
                told = f"it says that it holds {manifest.instruments} instruments, and holds {view.instruments}"
                raise ArchiveError(f"{told}: it may be cut short; export it once more")
            return view
    except ArchiveError as error:
        raise RefusedError(error.sentence, field="file") from error


def take_in(
    engine: Engine,
    path: Path,
    choices: Mapping[str, Choice],
    *,
    by: str,
    progress: Progress = lambda _done, _of: None,
) -> TakenIn:
    """Take an archive in, all of it or nothing. choices : for each ticket that is taken; "" for all that have none.

    Raises RefusedError naming `file` or the ticket.
    """
    try:
        with ArchiveReader(path) as archive, UnitOfWork(engine) as uow:
            found = _Taking(uow, archive, choices).all(progress)
            note(uow, "archive.taken_in", archive.manifest.kind, by=by, detail={"instruments": str(found.instruments)})
            uow.commit()
            return found
    except ArchiveError as error:
        raise RefusedError(error.sentence, field="file") from error


class _Taking:
    """One archive on its way in."""

    def __init__(self, uow: UnitOfWork, archive: ArchiveReader, choices: Mapping[str, Choice]) -> None:
        self._uow, self._archive, self._choices = uow, archive, choices
        self._instruments = self._visits = self._readings = self._skipped = self._seen = 0
        self._renamed: dict[str, str] = {}
        self._tickets: set[str] = set()
        self._checker = Checker()
        self._try_all = archive.manifest.instruments <= TRIED_ALL
        self._is_new_house = False

    def all(self, progress: Progress) -> TakenIn:
        self._uow.archive.begin_writing()
        shop = self._archive.shop()
        if shop is not None and self._uow.archive.is_empty():
            self._is_new_house = True
            try:
                self._uow.archive.put_shop(shop.model_dump())
            except UnfitError as error:
                raise ArchiveError(f"the records do not take it: {error}", SHOP) from error
        self._tickets = set(self._uow.instruments.tickets())
        for batch in _batches(self._archive.instruments()):
            self._take(batch)
            self._seen += len(batch)
            progress(self._seen, self._archive.manifest.instruments)
        return TakenIn(self._instruments, self._visits, self._readings, self._skipped, self._renamed)

    def _take(self, batch: Sequence[Dossier]) -> None:
        taken, ids = self._uow.archive.here(
            [one.instrument.ticket for one in batch], [one.instrument.id for one in batch]
        )
        for dossier in batch:
            self._checker.check(dossier)
        rows: list[dict[str, Any]] = []
        files: dict[UUID, dict[str, bytes]] = {}
        for dossier in batch:
            row = self._row(dossier, taken, dossier.instrument.id in ids)
            if row is None:
                self._skipped += 1
                continue
            rows.append(row)
            self._instruments += 1
            self._visits += len(row["visits"])
            self._readings += sum(len(visit["record"]["readings"]) for visit in row["visits"])
            files.update(self._files(row))
        if rows:
            self._put(rows, files)
            called = {new: ticket for ticket, new in self._renamed.items()}
            try_out(self._uow, self._to_try(batch), lambda ticket: called.get(ticket, ticket))

    def _put(self, rows: list[dict[str, Any]], files: dict[UUID, dict[str, bytes]]) -> None:
        """What the checks do not know of and the records do not take is refused by them."""
        try:
            self._uow.archive.put(rows, files)
            self._put_documents(rows)
        except UnfitError as error:
            lines = f"lines {self._seen + 1} to {self._seen + len(rows)}" if len(rows) > 1 else f"line {self._seen + 1}"
            raise ArchiveError(f"the records do not take it: {error}", f"{INSTRUMENTS}, {lines}") from error

    def _put_documents(self, rows: list[dict[str, Any]]) -> None:
        """Into a new house with their numbers, which go on from there; into another with a mark."""
        documents = [
            {**line, "visit_id": visit["record"]["visit"]["id"]}
            for row in rows
            for visit in row["visits"]
            for line in visit["documents"]
        ]
        self._uow.archive.put_documents(documents, keep_numbers=self._is_new_house)

    def _to_try(self, batch: Sequence[Dossier]) -> list[str]:
        """Tickets, as they are called here, of those that are opened before they are kept."""
        wanted = [
            one.instrument.ticket
            for one in batch
            if self._try_all or any(visit.record.visit.closed_at is None for visit in one.visits)
        ]
        there = set(self._uow.instruments.tickets())
        return [ticket for ticket in (self._renamed.get(one, one) for one in wanted) if ticket in there]

    def _row(self, dossier: Dossier, taken: Mapping[str, UUID], is_here: bool) -> dict[str, Any] | None:
        """What of it comes in; None for nothing."""
        ticket = dossier.instrument.ticket
        row = {**dossier.model_dump(), "id": dossier.instrument.id}
        if not is_here and ticket not in taken and ticket not in self._renamed.values():
            self._tickets.add(ticket)
            return row
        choice = self._choices.get(ticket) or self._choices.get("")
        if choice is None:
            raise RefusedError(
                f"the ticket {ticket} is taken here: say whether it is the same instrument, another, or left out",
                field=ticket,
            )
        if choice == "skip":
            return None
        if choice == "same":
            return self._added_to(row, dossier, taken, is_here=is_here)
        if is_here:
            told = f"{ticket} is this very instrument, by its id: choose “same”, or leave it out"
            raise RefusedError(told, field=ticket)
        new = next_ticket(sorted(self._tickets))
        self._tickets.add(new)
        self._renamed[ticket] = new
        row["instrument"]["ticket"] = new
        return row

    def _added_to(
        self, row: dict[str, Any], dossier: Dossier, taken: Mapping[str, UUID], *, is_here: bool
    ) -> dict[str, Any] | None:
        """The visits that are not here, of an instrument that is."""
        one = dossier.instrument.id if is_here else taken[dossier.instrument.ticket]
        there = self._uow.archive.visit_ids(one)
        new = [visit for visit in row["visits"] if visit["record"]["visit"]["id"] not in there]
        if any(visit["record"]["visit"]["closed_at"] is None for visit in new) and self._uow.archive.is_open(one):
            told = "it is in the house here and in the archive: hand it over here first, or leave it out"
            raise RefusedError(f"{dossier.instrument.ticket}: {told}", field=dossier.instrument.ticket)
        if not new:
            return None
        del row["instrument"]
        return {**row, "id": one, "visits": new, "targets": [], "particulars": [], "audit": []}

    def _files(self, row: Mapping[str, Any]) -> Iterator[tuple[UUID, dict[str, bytes]]]:
        """Pictures and sound that it names, each checked against what the record says of it."""
        for visit in row["visits"]:
            for line in visit["record"]["photographs"]:
                jpeg = self._archive.picture(line["id"])
                _check_bytes(jpeg, line["sha256"], f"photographs/{line['id']}.jpg")
                yield line["id"], {"jpeg": jpeg, "small": _small(jpeg, f"photographs/{line['id']}.jpg")}
            for line in visit["record"]["recordings"]:
                sound = self._archive.recording(line["id"])
                _check_bytes(sound, line["sha256"], f"recordings/{line['id']}")
                yield line["id"], {"sound": sound}


def _small(jpeg: bytes, place: str) -> bytes:
    try:
        return small_of(jpeg)
    except PictureError as error:
        raise ArchiveError("it is no photograph", place) from error


def _check_bytes(data: bytes, sha256: str, place: str) -> None:
    if hashlib.sha256(data).hexdigest() != sha256:
        raise ArchiveError("it is not what the record says: it was changed, or is damaged", place)


def _batches(dossiers: Iterator[Dossier]) -> Iterator[list[Dossier]]:
    """One batch is read ahead while the database is busy with the one before."""
    with ThreadPoolExecutor(1) as ahead:
        waiting = ahead.submit(_batch, dossiers)
        while batch := waiting.result():
            waiting = ahead.submit(_batch, dossiers)
            yield batch


def _batch(dossiers: Iterator[Dossier]) -> list[Dossier]:
    return list(islice(dossiers, AT_ONCE))


def _count(view: ArchiveView, batch: Sequence[Dossier]) -> None:
    view.instruments += len(batch)
    for dossier in batch:
        view.visits += len(dossier.visits)
        for visit in dossier.visits:
            view.readings += len(visit.record.readings)
            view.photographs += len(visit.record.photographs)
            view.recordings += len(visit.record.recordings)


def _find_clashes(uow: UnitOfWork, view: ArchiveView, batch: Sequence[Dossier]) -> None:
    taken, ids = uow.archive.here([one.instrument.ticket for one in batch], [one.instrument.id for one in batch])
    for dossier in batch:
        instrument = dossier.instrument
        is_same = instrument.id in ids
        if not is_same and instrument.ticket not in taken:
            continue
        if len(view.clashes) >= MOST_SHOWN:
            view.more_clashes += 1
            continue
        there = uow.archive.visit_ids(instrument.id if is_same else taken[instrument.ticket])
        adds = sum(visit.record.visit.id not in there for visit in dossier.visits)
        words = " ".join(one for one in (instrument.family, instrument.size, instrument.owner) if one)
        view.clashes.append(Clash(instrument.ticket, words, is_same, adds))
