"""./fidicula backup FILE and ./fidicula restore FILE: the whole shop in one file, and back."""

from __future__ import annotations

import argparse
import contextlib
import sys
from collections.abc import Iterator
from datetime import UTC, datetime
from getpass import getpass
from pathlib import Path

import psycopg

from fidicula.cli.opening import StartError, alone, migrated, say
from fidicula.cli.replacing import finish_replacing, replace_database
from fidicula.db.migrate import schema_of, schemas
from fidicula.db.unit_of_work import UnitOfWork, make_engine
from fidicula.hosting.cluster import Cluster, ClusterError
from fidicula.hosting.dump import check_dump, dump, load
from fidicula.hosting.home import default_home
from fidicula.hosting.server import RunningCluster, server_of
from fidicula.services.people.audit import note
from fidicula.services.people.people import People
from fidicula.settings import Settings


def run(arguments: list[str], *, restore: bool) -> int:
    """0 when it is done; 1, with one sentence, when it could not be."""
    parser = argparse.ArgumentParser(prog=f"./fidicula {'restore' if restore else 'backup'}")
    parser.add_argument("file", type=Path, help="the backup")
    parser.add_argument("--demo", action="store_true", help="of the demo's shop, not of your own")
    if restore:
        parser.add_argument(
            "--replace", action="store_true", help="put the backup in the place of the shop that is here"
        )
    options = parser.parse_args(arguments)
    name = "fidicula_demo" if options.demo else "fidicula"
    try:
        if restore:
            with alone("restore"), server(name) as (running, database):
                _restore(running, database, options.file, replace=options.replace)
        else:
            with server(name) as (running, database):
                _backup(running, database, options.file)
    except (StartError, ClusterError) as error:
        say(str(error))
        return 1
    return 0


@contextlib.contextmanager
def server(name: str) -> Iterator[tuple[RunningCluster, str]]:
    """The server and the name of the database: the settings', the checkout's own that runs, or started for this."""
    settings = Settings()
    if settings.database_url:
        try:
            yield server_of(settings.database_url)
        except ValueError as error:
            raise ClusterError(f"FIDICULA_DATABASE_URL cannot be read: {error}.") from error
        except psycopg.OperationalError as error:
            raise ClusterError("The database that FIDICULA_DATABASE_URL names does not answer.") from error
        return
    cluster = Cluster(settings.state or default_home(settings.root))
    running = cluster.found_running()
    if running is not None:
        yield running, name
        return
    with cluster.running() as started:
        yield started, name


def _backup(running: RunningCluster, database: str, path: Path) -> None:
    if path.exists():
        raise ClusterError(f"There is a file {path} already: choose another name.")
    if not path.absolute().parent.is_dir():
        raise ClusterError(f"There is no folder {path.absolute().parent}.")
    if not running.has_database(database):
        raise ClusterError("There is no shop here yet: nothing to keep.")
    try:
        engine = make_engine(running.url(database))
        schema = schema_of(engine)
        engine.dispose()
        dump(running, database, path, schema=schema, made_at=datetime.now(UTC).isoformat())
    except (ClusterError, OSError) as error:
        raise ClusterError(f"The backup could not be written: {error}.") from error
    say(f"The shop is kept in {path} ({path.stat().st_size / 1e6:.1f} MB). Keep a copy on another machine.")
    say("It holds everything, people and their passwords' hashes too, for this program alone: docs/formats.md.")


def _restore(running: RunningCluster, database: str, path: Path, *, replace: bool) -> None:
    if not path.is_file():
        raise ClusterError(f"There is no file {path}.")
    try:
        check_dump(running, path, known=schemas())
    except (ClusterError, OSError) as error:
        raise ClusterError(f"{path} is not restored, and the shop is as it was: {error}.") from error
    finish_replacing(running, database)
    if running.has_database(database) and not _is_empty(running.url(database)):
        if not replace:
            raise ClusterError(
                "The shop here is not empty: './fidicula restore --replace FILE' puts the backup in its place "
                "and keeps what was here until the next restore."
            )
        _check_owner(running.url(database))
    coming = f"{database}_coming"
    running.drop_database(coming)
    running.ensure_database(coming)
    try:
        load(running, path, coming)
        with migrated(running.url(coming)) as engine, UnitOfWork(engine) as uow:
            note(uow, "house.restored", path.name)
            uow.commit()
        replace_database(running, database, coming)
    except Exception as error:
        running.drop_database(coming)
        said = error if isinstance(error, ClusterError) else type(error).__name__
        raise ClusterError(f"The backup could not be read, and the shop is as it was: {said}.") from error
    say("The shop is as it was when the backup was made. Everyone signs in again.")


def _check_owner(url: str) -> None:
    """Raises ClusterError unless an owner's password is given: on the terminal, or as the first line of what is fed."""
    with migrated(url) as engine:
        people = People(engine)
        if people.is_first():
            return
        asked = "Password of an owner of the shop that is here: "
        typed = getpass(asked) if sys.stdin.isatty() else sys.stdin.readline().rstrip("\n")
        if not people.is_an_owners(typed):
            raise ClusterError("That is no owner's password, and the shop is as it was.")


def _is_empty(url: str) -> bool:
    with migrated(url) as engine, UnitOfWork(engine, only_reads=True) as uow:
        return not uow.instruments.tickets() and not uow.people.all()
