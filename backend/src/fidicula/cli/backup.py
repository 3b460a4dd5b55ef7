"""./fidicula backup FILE and ./fidicula restore FILE: the whole shop in one file, and back."""

from __future__ import annotations

import argparse
import contextlib
from collections.abc import Iterator
from pathlib import Path

from fidicula.cli.serve import StartError, alone, say
from fidicula.db.migrate import upgrade
from fidicula.db.unit_of_work import UnitOfWork, make_engine
from fidicula.hosting.cluster import Cluster, ClusterError, RunningCluster, default_home
from fidicula.hosting.dump import check_dump, dump, load
from fidicula.settings import Settings

BEFORE = "before_restore"


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
    database = "fidicula_demo" if options.demo else "fidicula"
    try:
        if restore:
            with alone("restore"), _cluster() as running:
                _restore(running, database, options.file, replace=options.replace)
        else:
            with _cluster() as running:
                _backup(running, database, options.file)
    except (StartError, ClusterError) as error:
        say(str(error))
        return 1
    return 0


@contextlib.contextmanager
def _cluster() -> Iterator[RunningCluster]:
    """The checkout's cluster: the one that runs, or started for this."""
    settings = Settings()
    cluster = Cluster(settings.state or default_home(settings.root))
    running = cluster.found_running()
    if running is not None:
        yield running
        return
    with cluster.running() as started:
        yield started


def _backup(running: RunningCluster, database: str, path: Path) -> None:
    if path.exists():
        raise ClusterError(f"There is a file {path} already: choose another name.")
    if not path.absolute().parent.is_dir():
        raise ClusterError(f"There is no folder {path.absolute().parent}.")
    if not running.has_database(database):
        raise ClusterError("There is no shop here yet: nothing to keep.")
    try:
        dump(running, database, path)
    except (ClusterError, OSError) as error:
        raise ClusterError(f"The backup could not be written: {error}.") from error
    say(f"The shop is kept in {path} ({path.stat().st_size / 1e6:.1f} MB). Keep a copy on another machine.")


def _restore(running: RunningCluster, database: str, path: Path, *, replace: bool) -> None:
    if not path.is_file():
        raise ClusterError(f"There is no file {path}.")
    try:
        check_dump(running, path)
    except ClusterError as error:
        raise ClusterError(f"{path} is not a backup: {error}.") from error
    if running.has_database(database) and not replace and not _is_empty(running.url(database)):
        raise ClusterError(
            "The shop here is not empty: './fidicula restore --replace FILE' puts the backup in its place "
            "and keeps what was here until the next restore."
        )
    coming = f"{database}_coming"
    running.drop_database(coming)
    running.ensure_database(coming)
    try:
        load(running, path, coming)
        engine = make_engine(running.url(coming))
        upgrade(engine)
        engine.dispose()
    except Exception as error:
        running.drop_database(coming)
        raise ClusterError(f"The backup could not be read, and the shop is as it was: {error}.") from error
    if running.has_database(database):
        running.drop_database(f"{database}_{BEFORE}")
        running.rename_database(database, f"{database}_{BEFORE}")
    running.rename_database(coming, database)
    say("The shop is as it was when the backup was made. Everyone signs in anew.")


def _is_empty(url: str) -> bool:
    engine = make_engine(url)
    try:
        upgrade(engine)
        with UnitOfWork(engine, only_reads=True) as work:
            return not work.instruments.tickets() and not work.people.all()
    finally:
        engine.dispose()
