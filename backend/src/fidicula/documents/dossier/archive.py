"""The archive that carries dossiers: a ZIP whose every part is a plain file, written in a stream and read with care."""

from __future__ import annotations

import json
import re
import stat
import zipfile
import zlib
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path, PurePosixPath
from typing import Any, BinaryIO, Literal, TypeVar

from pydantic import BaseModel, ValidationError

from fidicula.documents.dossier.instrument import FORMAT, Dossier
from fidicula.documents.dossier.shop import Shop

MANIFEST, INSTRUMENTS, SHOP = "fidicula.json", "instruments.jsonl", "shop.json"
SCHEMAS: Mapping[str, type[BaseModel]] = {"dossier.schema.json": Dossier, "shop.schema.json": Shop}
PHOTOS, RECORDINGS = "photographs/{}.jpg", "recordings/{}"
MOST_FILES = 2_000_000
MOST_BYTES = 200_000_000_000
"""Of everything in an archive, unpacked."""
MOST_LINE = 200_000_000
"""Of one instrument's line. [bytes]"""
MOST_SQUEEZED = 200
"""So many times smaller a part may be than what it unpacks to: more is made to fill a disk."""
_SMALL_ENOUGH = 1_000_000
Kind = Literal["instrument", "house"]


class ArchiveError(Exception):
    """The file is not what it should be. sentence : why, and what would do.  place : in it, where that is known."""

    def __init__(self, sentence: str, place: str = "") -> None:
        super().__init__(f"{place}: {sentence}" if place else sentence)
        self.sentence = str(self)


@dataclass(frozen=True)
class Manifest:
    """What an archive says of itself. instruments : how many are in it.  made_at : as ISO 8601."""

    kind: Kind
    version: int
    instruments: int
    made_at: str


class ArchiveWriter:
    """Writes an archive part by part; nothing but the part in hand is held in memory."""

    def __init__(self, to: BinaryIO) -> None:
        self._zip = zipfile.ZipFile(to, "w", zipfile.ZIP_DEFLATED, compresslevel=4, allowZip64=True)

    def __enter__(self) -> ArchiveWriter:
        return self

    def __exit__(self, *_: object) -> None:
        self._zip.close()

    def manifest(self, manifest: Manifest) -> None:
        """With the schemas of what follows."""
        self.file(MANIFEST, json.dumps({"format": "fidicula", **vars(manifest)}, indent=1).encode())
        for name, model in SCHEMAS.items():
            self.file(name, schema_text(model).encode())

    def lines(self, name: str, models: Iterator[BaseModel]) -> None:
        """A part with one JSON value a line."""
        with self._zip.open(name, "w", force_zip64=True) as part:
            for model in models:
                part.write(model.model_dump_json().encode())
                part.write(b"\n")

    def text(self, name: str, lines: Iterator[str]) -> None:
        with self._zip.open(name, "w", force_zip64=True) as part:
            for line in lines:
                part.write(line.encode())

    def file(self, name: str, data: bytes) -> None:
        """A part that is there already. Pictures and sound are packed as they are."""
        packed = zipfile.ZIP_STORED if name.startswith(("photographs/", "recordings/")) else zipfile.ZIP_DEFLATED
        self._zip.writestr(name, data, compress_type=packed)


def schema_text(model: type[BaseModel]) -> str:
    """The published JSON Schema of a model."""
    schema = {"$schema": "https://json-schema.org/draft/2020-12/schema", **model.model_json_schema()}
    return json.dumps(schema, indent=1, ensure_ascii=False) + "\n"


Model = TypeVar("Model", bound=BaseModel)


class ArchiveReader:
    """Reads an archive that a stranger may have made. Raises ArchiveError for what is not one, or would do harm."""

    def __init__(self, path: Path) -> None:
        try:
            self._zip = zipfile.ZipFile(path)
        except (zipfile.BadZipFile, OSError, ValueError) as error:
            raise ArchiveError(
                "this is no whole archive: it may be cut short, or be another kind of file; export it once more"
            ) from error
        try:
            self._check_parts()
            self.manifest = self._manifest()
        except BaseException:
            self._zip.close()
            raise

    def __enter__(self) -> ArchiveReader:
        return self

    def __exit__(self, *_: object) -> None:
        self._zip.close()

    def instruments(self) -> Iterator[Dossier]:
        """One after the other. The error names line and field."""
        for number, line in enumerate(self._lines(INSTRUMENTS), start=1):
            yield _parsed(Dossier, line, f"{INSTRUMENTS}, line {number}")

    def shop(self) -> Shop | None:
        """None in the dossier of one instrument."""
        if SHOP not in self._zip.namelist():
            return None
        return _parsed(Shop, self._whole(SHOP, MOST_LINE), SHOP)

    def picture(self, photo_id: object) -> bytes:
        return self._whole(PHOTOS.format(photo_id), MOST_LINE)

    def recording(self, recording_id: object) -> bytes:
        return self._whole(RECORDINGS.format(recording_id), MOST_LINE)

    def _check_parts(self) -> None:
        parts = self._zip.infolist()
        if len(parts) > MOST_FILES:
            raise ArchiveError(f"it holds {len(parts)} files; {MOST_FILES} are the most")
        if sum(part.file_size for part in parts) > MOST_BYTES:
            raise ArchiveError("it unpacks to more than any house holds: it is not taken in")
        for part in parts:
            _check_name(part)
            if part.file_size > _SMALL_ENOUGH and part.file_size > MOST_SQUEEZED * max(part.compress_size, 1):
                raise ArchiveError("it unpacks to far more than it seems to hold: it is not taken in", part.filename)
            if part.flag_bits & 1:
                raise ArchiveError("it is locked with a password: export it without one", part.filename)

    def _manifest(self) -> Manifest:
        if MANIFEST not in self._zip.namelist():
            raise ArchiveError(f"there is no {MANIFEST} in it: it is an archive of something else")
        try:
            told: Any = json.loads(self._whole(MANIFEST, _SMALL_ENOUGH))
            found = Manifest(told["kind"], int(told["version"]), int(told["instruments"]), str(told["made_at"]))
            if told["format"] != "fidicula" or found.kind not in ("instrument", "house"):
                raise ValueError(found.kind)
        except (ValueError, KeyError, TypeError, OverflowError, RecursionError) as error:
            raise ArchiveError("it cannot be read: it is an archive of something else", MANIFEST) from error
        if found.version > FORMAT:
            raise ArchiveError(
                f"it has version {found.version} of the format, and this program knows {FORMAT}: update it first",
                MANIFEST,
            )
        return found

    def _whole(self, name: str, most: int) -> bytes:
        try:
            part = self._zip.getinfo(name)
        except KeyError as error:
            raise ArchiveError("it is named and not in the archive", name) from error
        if part.file_size > most:
            raise ArchiveError("it is larger than it can be", name)
        try:
            with self._zip.open(part) as opened:
                # What a part says of its size need not be so.
                data = opened.read(most + 1)
        except (zipfile.BadZipFile, zlib.error, OSError, EOFError, ValueError, RuntimeError) as error:
            raise ArchiveError("it is damaged: export it once more", name) from error
        if len(data) > most:
            raise ArchiveError("it is larger than it can be", name)
        return data

    def _lines(self, name: str) -> Iterator[bytes]:
        try:
            with self._zip.open(name) as part:
                while line := part.readline(MOST_LINE):
                    if len(line) >= MOST_LINE:
                        raise ArchiveError("a line is longer than any instrument needs", name)
                    yield line
        except KeyError as error:
            raise ArchiveError("it is not in the archive", name) from error
        except (zipfile.BadZipFile, zlib.error, OSError, EOFError, ValueError, RuntimeError) as error:
            raise ArchiveError("it is damaged: export it once more", name) from error


def _check_name(part: zipfile.ZipInfo) -> None:
    """A part that would be put outside of the folder, or that is no plain file."""
    path = PurePosixPath(part.filename.replace("\\", "/"))
    if path.is_absolute() or ".." in path.parts or ":" in part.filename or "\0" in part.filename:
        raise ArchiveError("its path leads out of the archive: it is not taken in", part.filename)
    mode = part.external_attr >> 16
    if mode and not (stat.S_ISREG(mode) or stat.S_ISDIR(mode) or stat.S_IFMT(mode) == 0):
        raise ArchiveError("it is no plain file: it is not taken in", part.filename)


def _parsed(model: type[Model], line: bytes, place: str) -> Model:
    try:
        return model.model_validate_json(line)
    except ValidationError as error:
        first = error.errors(include_url=False)[0]
        where = ".".join(str(one) for one in first["loc"])
        raise ArchiveError(f"{where}: {first['msg']}" if where else str(first["msg"]), place) from error


def csv_lines(dossier: Dossier, *, heads: bool) -> Iterator[str]:
    """The readings of an instrument as CSV, for a spreadsheet. heads : with the names of the columns."""
    if heads:
        yield _row(CSV_COLUMNS)
    for visit in dossier.visits:
        for reading in visit.record.readings:
            told: Mapping[str, object] = {
                "ticket": dossier.instrument.ticket,
                "visit": visit.record.visit.opened_at.date(),
                **reading.model_dump(mode="json"),
            }
            yield _row([told[name] for name in CSV_COLUMNS])


CSV_COLUMNS = (
    *("ticket", "visit", "measure", "position", "typed", "value", "tool", "direction", "taken_by", "taken_at"),
    *("repeats", "doubt", "simulated", "confirmed_by", "taken_back_at"),
)


def _row(cells: Sequence[object]) -> str:
    return ",".join(_cell(cell) for cell in cells) + "\r\n"


_FORMULA = ("=", "+", "-", "@", "\t", "\r")
_NUMBER = re.compile(r"[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?", re.ASCII | re.IGNORECASE)


def _cell(value: object) -> str:
    text = "" if value is None else str(value)
    # A spreadsheet takes what begins so for a formula, unless it is a number.
    if text.startswith(_FORMULA) and not _NUMBER.fullmatch(text):
        text = f"'{text}"
    return '"' + text.replace('"', '""') + '"' if any(mark in text for mark in ',"\r\n;') else text
