"""Serving an application beside other work, and the browser that looks at it: for pictures, tests, benchmarks."""

from __future__ import annotations

import gc
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import uvicorn

from fidicula.hosting.cluster import free_port

_SHELL = "/usr/bin/chromium-headless-shell"
CHROMIUM = _SHELL if Path(_SHELL).exists() else "/usr/bin/chromium"
CHROMIUM_ARGUMENTS = [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-dev-shm-usage",
    "--font-render-hinting=none",
]


def settle() -> None:
    """Take what start-up made out of the collector's rounds: they would look through it with every few requests."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)


@contextmanager
def serving(app: Any, port: int | None = None) -> Iterator[str]:
    """Serve an application on loopback, on a free port unless one is named, in a thread of this process."""
    port = free_port() if port is None else port
    config = uvicorn.Config(
        app, host="127.0.0.1", port=port, log_level="warning", lifespan="off", timeout_graceful_shutdown=1
    )
    server = uvicorn.Server(config)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    deadline = time.monotonic() + 20
    while not server.started:
        if time.monotonic() > deadline or not thread.is_alive():
            raise RuntimeError("the application did not start")
        time.sleep(0.02)
    try:
        yield f"http://127.0.0.1:{port}"
    finally:
        server.should_exit = True
        thread.join(timeout=10)
