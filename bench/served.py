"""The application in a process of its own, on a demo database that is thrown away, for benchmarks to ask."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

from fidicula.cli.demo import load_demo
from fidicula.db.migrate import upgrade
from fidicula.db.unit_of_work import make_engine
from fidicula.hosting.cluster import Cluster, free_port
from fidicula.hosting.home import default_home
from fidicula.settings import Settings
from sqlalchemy import Engine


@contextmanager
def _demo(*, durable: bool) -> Iterator[tuple[Engine, str]]:
    """A demo database that is thrown away, and its address."""
    parent = default_home(Settings().root).parent
    parent.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=parent, prefix="bench-") as home:
        Path(home).chmod(0o755)
        with Cluster(Path(home) / "cluster", durable=durable).running() as running:
            running.ensure_database("bench")
            engine = make_engine(running.url("bench"))
            upgrade(engine)
            load_demo(engine)
            yield engine, running.url("bench")
            engine.dispose()


@contextmanager
def on_demo() -> Iterator[Engine]:
    """A demo database, asked in this process."""
    with _demo(durable=False) as (engine, _):
        yield engine


@contextmanager
def beside_an_empty_one() -> Iterator[tuple[Engine, Engine]]:
    """A demo database, and one beside it with nothing in it."""
    parent = default_home(Settings().root).parent
    parent.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=parent, prefix="bench-") as home:
        Path(home).chmod(0o755)
        with Cluster(Path(home) / "cluster", durable=False).running() as running:
            engines = []
            for name in ("bench", "empty"):
                running.ensure_database(name)
                engines.append(make_engine(running.url(name)))
                upgrade(engines[-1])
            load_demo(engines[0])
            yield engines[0], engines[1]
            for engine in engines:
                engine.dispose()


@contextmanager
def served(module: str, prepare: Callable[[Engine], None], *, durable: bool) -> Iterator[int]:
    """Runs `module`.serve(port); yields the port. prepare : what the database needs beside the demo."""
    with _demo(durable=durable) as (engine, url):
        prepare(engine)
        engine.dispose()
        port = free_port()
        server = subprocess.Popen(
            [sys.executable, "-c", f"from {module} import serve; serve({port})"],
            env={**os.environ, "FIDICULA_DATABASE_URL": url},
            cwd=Path(__file__).parents[1],
        )
        try:
            yield port
        finally:
            server.terminate()
            server.wait()


def until_it_listens(port: int) -> None:
    """Raises RuntimeError where nothing listens after half a minute."""
    for _ in range(300):
        with socket.socket() as probe:
            if probe.connect_ex(("127.0.0.1", port)) == 0:
                return
        time.sleep(0.1)
    raise RuntimeError("the application did not start")
