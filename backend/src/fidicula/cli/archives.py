"""./fidicula export FILE, ./fidicula import FILE; and the same for the application, which reads JSON, line by line."""

from __future__ import annotations

import argparse
import json
import sys
from collections.abc import Callable
from dataclasses import asdict
from pathlib import Path
from typing import Any

from fidicula.cli.backup import server
from fidicula.cli.opening import StartError, migrated, say
from fidicula.db.unit_of_work import DatabaseError, Engine, make_engine
from fidicula.domain.errors import RefusedError
from fidicula.hosting.cluster import ClusterError
from fidicula.services.archives.exporting import export_house
from fidicula.services.archives.importing import ArchiveView, Choice, look_at, take_in
from fidicula.settings import Settings


def run(arguments: list[str], *, taking_in: bool) -> int:
    """0 when it is done; 1, with one sentence, when it could not be."""
    parser = argparse.ArgumentParser(prog=f"./fidicula {'import' if taking_in else 'export'}")
    parser.add_argument("file", type=Path, help="the archive")
    parser.add_argument("--demo", action="store_true", help="of the demo's shop, not of your own")
    if taking_in:
        parser.add_argument("--taken", choices=("same", "other", "skip"), help="what a ticket that is taken here means")
    options = parser.parse_args(arguments)
    try:
        with (
            server("fidicula_demo" if options.demo else "fidicula") as (running, database),
            migrated(running.url(database)) as engine,
        ):
            return _import(engine, options.file, options.taken) if taking_in else _export(engine, options.file)
    except (StartError, ClusterError, DatabaseError) as error:
        say(str(error))
        return 1


def _export(engine: Engine, path: Path) -> int:
    if path.exists():
        say(f"There is a file {path} already: choose another name.")
        return 1
    try:
        with path.open("wb") as to:
            count = export_house(engine, to, _shown)
    except OSError as error:
        say(f"The archive could not be written: {error.strerror}.")
        path.unlink(missing_ok=True)
        return 1
    say(f"{count} instruments are in {path}.")
    return 0


def _import(engine: Engine, path: Path, taken: Choice | None) -> int:
    try:
        view = look_at(engine, path)
        _tell(view)
        if view.clashes and taken is None:
            say("Say with --taken what is meant: same, other or skip. Nothing was taken in.")
            return 1
        found = take_in(engine, path, {} if taken is None else {"": taken}, by="from the shell", progress=_shown)
    except RefusedError as error:
        say(f"Nothing was taken in. {error.sentence}.")
        return 1
    say(f"{found.instruments} instruments with {found.visits} visits came in, {found.skipped} were left out.")
    return 0


def _tell(view: ArchiveView) -> None:
    say(f"It holds {view.instruments} instruments, {view.visits} visits and {view.readings} readings.")
    for clash in view.clashes[:10]:
        say(f"{clash.ticket} is taken here ({clash.says}); {clash.adds} of its visits are not here.")


def _shown(done: int, of: int) -> None:
    if sys.stderr.isatty():
        print(f"\r{done} of {of}", end="\n" if done == of else "", file=sys.stderr, flush=True)


def speak(arguments: list[str]) -> int:
    """For the application. arguments : export FILE, look FILE, or import FILE CHOICES."""
    engine = make_engine(Settings().database_url)
    what, path, *more = arguments
    try:
        _say_json({"found": _TOLD[what](engine, Path(path), more)})
    except RefusedError as error:
        _say_json({"refused": error.sentence, "field": error.field or ""})
        return 1
    return 0


def _told_export(engine: Engine, path: Path, _more: list[str]) -> dict[str, Any]:
    with path.open("wb") as to:
        return {"instruments": export_house(engine, to, _say_progress)}


def _told_look(engine: Engine, path: Path, _more: list[str]) -> dict[str, Any]:
    return asdict(look_at(engine, path, _say_progress))


def _told_import(engine: Engine, path: Path, more: list[str]) -> dict[str, Any]:
    told = json.loads(Path(more[0]).read_text(encoding="utf-8"))
    return asdict(take_in(engine, path, told["choices"], by=told["by"], progress=_say_progress))


_TOLD: dict[str, Callable[[Engine, Path, list[str]], dict[str, Any]]] = {
    "export": _told_export,
    "look": _told_look,
    "import": _told_import,
}


def _say_progress(done: int, of: int) -> None:
    _say_json({"done": done, "of": of})


def _say_json(told: object) -> None:
    print(json.dumps(told), flush=True)


if __name__ == "__main__":
    sys.exit(speak(sys.argv[1:]))
