"""A whole database into one file and back, with PostgreSQL's own programs and a head that says what it is."""

from __future__ import annotations

import contextlib
import json
import os
import re
import shutil
import subprocess
from collections.abc import Collection
from dataclasses import asdict, dataclass
from hashlib import sha256
from pathlib import Path
from typing import BinaryIO

from fidicula.hosting.cluster import ClusterError, binaries
from fidicula.hosting.server import RunningCluster

NOT_KEPT = ("sign_in", "guess")
"""Who is signed in where does not outlive the machine."""

_MAGIC = b"Fidicula backup 1\n"
_OF_SOME_VERSION = re.compile(rb"Fidicula backup \d{1,6}\n")
_HEAD = 512
"""So many bytes stand before PostgreSQL's own. Backups of the first manner have none."""
_PLAIN = b"PGDMP"
_PIECE = 1 << 20


@dataclass(frozen=True)
class Head:
    """schema : of the tables, as the migrations number it.  made_at : ISO 8601.  size, sha256 : of what follows."""

    schema: str
    made_at: str
    size: int
    sha256: str


def dump(running: RunningCluster, database: str, path: Path, *, schema: str, made_at: str) -> None:
    """Write the database into a file, whole or not at all. Raises ClusterError."""
    partial = path.with_name(f"{path.name}.partial")
    partial.unlink(missing_ok=True)
    partial.touch(mode=0o600)
    try:
        with partial.open("r+b") as file:
            file.write(b"\0" * _HEAD)
            command = ["--format=custom", "--no-owner", "--no-privileges", "--dbname", database]
            command += [f"--exclude-table-data={table}" for table in NOT_KEPT]
            digest, size = sha256(), 0
            process = _start(running, "pg_dump", command, stdin=subprocess.DEVNULL)
            assert process.stdout is not None
            while piece := process.stdout.read(_PIECE):
                digest.update(piece)
                size += file.write(piece)
            _end(process)
            file.seek(0)
            file.write(_written(Head(schema, made_at, size, digest.hexdigest())))
            file.flush()
            os.fsync(file.fileno())
        partial.replace(path)
    finally:
        partial.unlink(missing_ok=True)


def check_dump(running: RunningCluster, path: Path, *, known: Collection[str]) -> None:
    """Raises ClusterError for a file that holds no backup of this program, is damaged, or was made by a newer one.

    known : numbers of the schemas that this program can bring up to its own.
    """
    with path.open("rb") as file:
        start = file.read(_HEAD)
        if start.startswith(_MAGIC):
            head = _read(start)
            if head.schema not in known:
                raise ClusterError("it was made by a newer Fidicula: restore it with that one")
            _check_whole(file, head)
        elif _OF_SOME_VERSION.match(start):
            raise ClusterError("it has a newer format, which a newer Fidicula made: restore it with that one")
        elif not start.startswith(_PLAIN):
            raise ClusterError("it does not begin as one")
        _at_payload(file)
        listed = _ask(running, "pg_restore", ["--list"], file)
    needed = ("reading", "instrument", "alembic_version")
    if not all(f"TABLE DATA public {table} " in listed for table in needed):
        raise ClusterError("it holds no shop of this program")


def load(running: RunningCluster, path: Path, database: str) -> None:
    """Read a dump into an empty database. Raises ClusterError."""
    command = ["--exit-on-error", "--single-transaction", "--no-owner", "--no-privileges", f"--dbname={database}"]
    with path.open("rb") as file:
        _at_payload(file)
        _ask(running, "pg_restore", command, file)


def _written(head: Head) -> bytes:
    return (_MAGIC + json.dumps(asdict(head)).encode()).ljust(_HEAD - 1) + b"\n"


def _read(start: bytes) -> Head:
    try:
        return Head(**json.loads(start[len(_MAGIC) :]))
    except (ValueError, TypeError) as error:
        raise ClusterError("its head cannot be read") from error


def _check_whole(file: BinaryIO, head: Head) -> None:
    digest, size = sha256(), 0
    while piece := file.read(_PIECE):
        digest.update(piece)
        size += len(piece)
    if (size, digest.hexdigest()) != (head.size, head.sha256):
        raise ClusterError("it is damaged, or not all of it is there")


def _at_payload(file: BinaryIO) -> None:
    """Go to where PostgreSQL's own part begins."""
    file.seek(0)
    file.seek(_HEAD if file.read(len(_MAGIC)) == _MAGIC else 0)


def _start(running: RunningCluster, program: str, arguments: list[str], *, stdin: int) -> subprocess.Popen[bytes]:
    return subprocess.Popen(
        [binaries(None) / program, *arguments],
        env={
            **os.environ,
            "PGHOST": running.host,
            "PGPORT": str(running.port),
            "PGUSER": running.user,
            "PGPASSWORD": running.password,
        },
        stdin=stdin,
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        bufsize=0,
    )


def _ask(running: RunningCluster, program: str, arguments: list[str], file: BinaryIO) -> str:
    """Let a program read the rest of a file, through a pipe: it does not know of the head before it."""
    process = _start(running, program, arguments, stdin=subprocess.PIPE)
    assert process.stdin is not None
    # It may have read what it wanted before the end, or says below why it did not.
    with contextlib.suppress(BrokenPipeError), process.stdin:
        shutil.copyfileobj(file, process.stdin, _PIECE)
    return _end(process)


def _end(process: subprocess.Popen[bytes]) -> str:
    process.stdin = None
    out, err = process.communicate()
    if process.returncode:
        last = err.decode(errors="replace").strip().splitlines()[-1:] or ["no word"]
        raise ClusterError(last[0].split("error: ")[-1])
    return out.decode(errors="replace")
