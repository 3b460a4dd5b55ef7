"""A database server that is thrown away, and databases on it: for pictures, benchmarks and tests."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from fidicula.cli.demo import load_demo
from fidicula.db.migrate import upgrade
from fidicula.db.unit_of_work import make_engine
from fidicula.hosting.cluster import Cluster
from fidicula.hosting.home import default_home
from fidicula.hosting.server import RunningCluster
from fidicula.settings import Settings


@contextmanager
def throwaway_cluster(*, durable: bool = False) -> Iterator[RunningCluster]:
    """A private server in a folder beside the workshop's own, gone with the block."""
    parent = default_home(Settings().root).parent
    parent.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=parent, prefix="throwaway-") as home:
        # The server's own account has to enter it.
        Path(home).chmod(0o755)
        with Cluster(Path(home) / "cluster", durable=durable).running() as running:
            yield running


def filled(running: RunningCluster, name: str, *, demo: bool = True) -> str:
    """Make a database with the newest schema, with the demo's records or none, and return its address."""
    running.ensure_database(name)
    url = running.url(name)
    engine = make_engine(url)
    try:
        upgrade(engine)
        if demo:
            load_demo(engine)
    finally:
        engine.dispose()
    return url
