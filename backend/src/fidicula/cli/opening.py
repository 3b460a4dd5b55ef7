"""What every command needs that opens a shop: its one lock, its newest schema, one sentence where it cannot be.

None of the application is loaded for it: what takes an archive out or in starts in half the time.
"""

from __future__ import annotations

import contextlib
import fcntl
import sys
import time
from collections.abc import Iterator

from fidicula.db.migrate import NewerSchemaError, upgrade
from fidicula.db.unit_of_work import Engine, make_engine
from fidicula.settings import Settings


class StartError(Exception):
    """The application cannot start; the message is one sentence for the user."""


def say(text: str) -> None:
    print(text, file=sys.stderr, flush=True)


@contextlib.contextmanager
def alone(name: str) -> Iterator[None]:
    """Only one start in this folder at a time: they share one cluster."""
    settings = Settings()
    folder = settings.state or settings.root / ".state"
    try:
        folder.mkdir(parents=True, exist_ok=True)
        opened = (folder / "running.lock").open("w")
    except OSError as error:
        raise StartError(
            f"Fidicula cannot write in its folder {folder}: {error.strerror or error}. "
            "Make it yours to write in, or name another with FIDICULA_STATE."
        ) from error
    with opened as lock:
        for attempt in range(20):
            try:
                fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
                break
            except BlockingIOError:
                if attempt == 19:
                    raise StartError(
                        f"Fidicula is already running from this folder: stop it before './fidicula {name}'."
                    ) from None
                time.sleep(0.1)
        yield


@contextlib.contextmanager
def migrated(url: str) -> Iterator[Engine]:
    """An engine on a database with the newest schema, let go at the end."""
    engine = make_engine(url)
    try:
        try:
            upgrade(engine)
        except NewerSchemaError as error:
            raise StartError(
                f"A newer version of Fidicula made this database (schema {error.schema}): start that version, "
                "or restore a backup from before it."
            ) from error
        yield engine
    finally:
        engine.dispose()
