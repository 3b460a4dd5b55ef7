"""A cluster with the demo in it, made once and copied: making one takes longer than most of what is tried on it."""

from __future__ import annotations

import subprocess
from collections.abc import Iterator
from pathlib import Path

import pytest
from fidicula.cli.throwaway import filled
from fidicula.hosting.cluster import Cluster

from ..conftest import server_folder


@pytest.fixture(scope="session")
def house_made() -> Iterator[Path]:
    with server_folder() as folder:
        with Cluster(folder / "cluster", durable=False).running() as running:
            filled(running, "fidicula")
        yield folder / "cluster"


@pytest.fixture
def house(cluster_home: Path, house_made: Path) -> Path:
    """The folder of a cluster of its own, with the demo in it, as the server's account owns it."""
    subprocess.run(["cp", "--archive", str(house_made), str(cluster_home)], check=True)
    return cluster_home
