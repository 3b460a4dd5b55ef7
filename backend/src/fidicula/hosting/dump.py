"""A whole database into one file and back, with PostgreSQL's own programs."""

from __future__ import annotations

import os
import subprocess
from pathlib import Path

from fidicula.hosting.cluster import ROLE, ClusterError, RunningCluster, binaries

NOT_KEPT = ("sign_in", "wrong_guess")
"""Who is signed in where does not outlive the machine."""


def dump(running: RunningCluster, database: str, path: Path) -> None:
    """Write the database into a file, whole or not at all. Raises ClusterError."""
    partial = path.with_name(f"{path.name}.partial")
    partial.touch(mode=0o600)
    try:
        _run(
            running,
            "pg_dump",
            "--format=custom",
            "--no-owner",
            "--no-privileges",
            *(f"--exclude-table-data={table}" for table in NOT_KEPT),
            f"--file={partial}",
            database,
        )
        partial.replace(path)
    finally:
        partial.unlink(missing_ok=True)


def check_dump(running: RunningCluster, path: Path) -> None:
    """Raises ClusterError for a file that holds no backup of this program."""
    listed = _run(running, "pg_restore", "--list", str(path))
    if "TABLE DATA public reading" not in listed or "TABLE DATA public instrument" not in listed:
        raise ClusterError("it holds no shop of this program")


def load(running: RunningCluster, path: Path, database: str) -> None:
    """Read a dump into an empty database. Raises ClusterError."""
    _run(
        running,
        "pg_restore",
        "--exit-on-error",
        "--single-transaction",
        "--no-owner",
        "--no-privileges",
        f"--dbname={database}",
        str(path),
    )


def _run(running: RunningCluster, program: str, *arguments: str) -> str:
    done = subprocess.run(
        [binaries(None) / program, *arguments],
        env={
            **os.environ,
            "PGHOST": "127.0.0.1",
            "PGPORT": str(running.port),
            "PGUSER": ROLE,
            "PGPASSWORD": running.password,
        },
        stdin=subprocess.DEVNULL,
        capture_output=True,
        text=True,
        check=False,
    )
    if done.returncode:
        last = done.stderr.strip().splitlines()[-1:] or ["no word"]
        raise ClusterError(last[0].split("error: ")[-1])
    return done.stdout
