"""What set-up says while it works: one line a step, with its time; all of it on standard error."""

from __future__ import annotations

import contextlib
import subprocess
import sys
import threading
import time
from collections.abc import Iterator, Mapping, Sequence
from pathlib import Path

from launcher.places import SETUP_LOG


class SetupError(Exception):
    """Set-up cannot go on; the message is the one sentence that the user reads."""


quiet = False
"""Set for `compute` when no one is looking: its standard error is for refusals alone."""


def say(text: str) -> None:
    print(text, file=sys.stderr, flush=True)


@contextlib.contextmanager
def step(title: str) -> Iterator[None]:
    """Show `title` while the work inside runs, counting seconds on a terminal."""
    if quiet:
        yield
        return
    started = time.monotonic()
    on_terminal = sys.stderr.isatty()
    done = threading.Event()

    def tick() -> None:
        while not done.wait(1.0):
            print(f"\r  {title} ... {time.monotonic() - started:.0f} s", end="", file=sys.stderr, flush=True)

    if on_terminal:
        print(f"  {title} ...", end="", file=sys.stderr, flush=True)
        threading.Thread(target=tick, daemon=True).start()
    else:
        say(f"  {title} ...")
    outcome = "stopped"
    try:
        yield
        outcome = "done"
    finally:
        done.set()
        start = "\r" if on_terminal else ""
        say(f"{start}  {title} ... {outcome} ({time.monotonic() - started:.0f} s)")


def run_logged(
    command: Sequence[str | Path],
    *,
    failure: str,
    cwd: Path | None = None,
    env: Mapping[str, str] | None = None,
) -> None:
    """Run a command with its output in the set-up log; on failure raise `failure` with the log's last lines."""
    SETUP_LOG.parent.mkdir(parents=True, exist_ok=True)
    with SETUP_LOG.open("ab") as log:
        log.write(f"\n$ {' '.join(map(str, command))}\n".encode())
        log.flush()
        begin = log.tell()
        try:
            code = subprocess.call(
                [str(part) for part in command],
                stdin=subprocess.DEVNULL,
                stdout=log,
                stderr=log,
                cwd=cwd,
                env=dict(env) if env is not None else None,
            )
        except FileNotFoundError as error:
            raise SetupError(f"{failure} ({command[0]} was not found)") from error
    if code:
        with SETUP_LOG.open("rb") as log:
            log.seek(begin)
            tail = log.read().decode(errors="replace").strip().splitlines()[-12:]
        raise SetupError("\n".join([f"{failure} The whole log is in .state/setup.log; its end:", *tail]))
