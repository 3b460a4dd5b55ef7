"""`./fidicula test`: every check that a change has to pass, each run to its end, with a summary."""

from __future__ import annotations

import os
import subprocess
import time
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass, field
from pathlib import Path

from launcher.console import say
from launcher.environment import node_bin, node_env
from launcher.places import BACKEND, FRONTEND, ROOT, VENV

MOST_WORKERS = 4
"""Each has a database and a browser of its own, about 2 GB together."""


@dataclass(frozen=True)
class Check:
    title: str
    command: list[str | Path]
    cwd: Path
    env: dict[str, str] = field(default_factory=lambda: dict(os.environ))


def static_checks() -> tuple[list[Check], list[Check]]:
    """Of the back end and of the front end: each list by itself takes one processor."""
    bin_ = VENV / "bin"
    back_end = [
        Check("ruff: mistakes", [bin_ / "ruff", "check", "."], ROOT),
        Check("ruff: layout", [bin_ / "ruff", "format", "--check", "--quiet", "."], ROOT),
        Check("import-linter: layers", [bin_ / "lint-imports"], BACKEND),
        Check("mypy: types", [bin_ / "mypy"], BACKEND),
    ]
    front_end = [
        Check("vue-tsc: types", [node_bin() / "npm", "run", "--silent", "types"], FRONTEND, node_env()),
        Check("vitest: front end's units", [node_bin() / "npm", "run", "--silent", "unit"], FRONTEND, node_env()),
        Check("eslint: front end", [node_bin() / "npm", "run", "--silent", "lint"], FRONTEND, node_env()),
    ]
    return back_end, front_end


def _run_each(checks: list[Check]) -> list[str]:
    """Run checks one after the other, saying how each went; the titles of those that failed."""
    failed = []
    for check in checks:
        started = time.monotonic()
        done = subprocess.run(
            [str(part) for part in check.command],
            cwd=check.cwd,
            env=check.env,
            stdin=subprocess.DEVNULL,
            stdout=subprocess.PIPE,
            stderr=subprocess.STDOUT,
            text=True,
            check=False,
        )
        outcome = "ok" if done.returncode == 0 else "FAILED"
        said = f"  {check.title} ... {outcome} ({time.monotonic() - started:.0f} s)"
        say(said if done.returncode == 0 else f"{said}\n{done.stdout}")
        if done.returncode:
            failed.append(check.title)
    return failed


def _workers() -> int:
    """As many as there are processors, and two at least: each waits for its database and its browser now and then."""
    return min(MOST_WORKERS, max(2, len(os.sched_getaffinity(0))))


def run_all(pytest_arguments: list[str]) -> int:
    """Run the checks, then the suite; with arguments only the suite, which they are handed to."""
    failed: list[str] = []
    if not pytest_arguments:
        with ThreadPoolExecutor(2) as lanes:
            failed = [title for lane in lanes.map(_run_each, static_checks()) for title in lane]
    code = subprocess.call(
        [str(VENV / "bin" / "pytest"), *(pytest_arguments or ["-n", str(_workers()), "--dist", "worksteal"])],
        cwd=BACKEND,
        env=node_env(),
        stdin=subprocess.DEVNULL,
    )
    if code:
        failed.append("pytest")
    if failed:
        say(f"Not passed: {', '.join(failed)}.")
        return 1
    return 0
