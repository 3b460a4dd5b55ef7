"""The application in a process of its own, on a demo database that is thrown away, for benchmarks to ask."""

from __future__ import annotations

import os
import socket
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path

from fidicula.cli.throwaway import filled, throwaway_cluster
from fidicula.db.unit_of_work import make_engine
from fidicula.hosting.cluster import free_port
from sqlalchemy import Engine


@contextmanager
def on_demo() -> Iterator[Engine]:
    """A demo database, asked in this process."""
    with throwaway_cluster() as running, _engine(filled(running, "bench")) as engine:
        yield engine


@contextmanager
def beside_an_empty_one() -> Iterator[tuple[Engine, Engine]]:
    """A demo database, and one beside it with nothing in it."""
    with (
        throwaway_cluster() as running,
        _engine(filled(running, "bench")) as engine,
        _engine(filled(running, "empty", demo=False)) as empty,
    ):
        yield engine, empty


@contextmanager
def _engine(url: str) -> Iterator[Engine]:
    engine = make_engine(url)
    yield engine
    engine.dispose()


@contextmanager
def served(module: str, prepare: Callable[[Engine], None], *, durable: bool) -> Iterator[int]:
    """Runs `module`.serve(port); yields the port. prepare : what the database needs beside the demo."""
    with throwaway_cluster(durable=durable) as running:
        url = filled(running, "bench")
        with _engine(url) as engine:
            prepare(engine)
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
