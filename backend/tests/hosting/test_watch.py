"""A database that ends, or hangs, is started again on its port, and the application comes back by itself."""

from __future__ import annotations

import os
import signal
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from typing import Any
from uuid import uuid4

import psutil
import pytest
from fastapi.testclient import TestClient
from fidicula.cli.opening import migrated
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.people import Person
from fidicula.hosting.cluster import Cluster
from fidicula.hosting.home import default_home, mark_home
from fidicula.hosting.watch import Watch
from fidicula.main import give_services

from ..conftest import signed_in

BACK_WITHIN_S = 30
"""On a machine that is busy with the rest of the suite; how long it takes is for the benchmark to say."""


def wait_for(what: Callable[[], bool]) -> None:
    deadline = time.monotonic() + BACK_WITHIN_S
    while not what():
        assert time.monotonic() < deadline
        time.sleep(0.05)


@pytest.fixture
def watched(cluster_home: Path, routes_made_once: Any) -> Iterator[tuple[TestClient, Path, list[None]]]:
    """The application on a watched cluster, signed in; and how often the database was started again."""
    cluster = Cluster(cluster_home)
    cluster.create()
    again: list[None] = []
    with Watch(cluster, cluster.start(), on_restart=lambda _why: again.append(None)) as watch:
        watch.running.ensure_database("fidicula")
        with migrated(watch.running.url("fidicula")) as engine, UnitOfWork(engine) as uow:
            uow.people.add(Person(uuid4(), "Ilse Varnholt", "owner", None, None, active=True))
            uow.commit()
        watch.begin()
        app = routes_made_once
        give_services(app, watch.running.url("fidicula"), database_says=watch.says)
        with TestClient(app, base_url="http://127.0.0.1", headers=signed_in(app, "Ilse Varnholt")) as client:
            yield client, cluster_home, again
        app.state.engine.dispose()


def postmaster(home: Path) -> int:
    return int((home / "data" / "postmaster.pid").read_text().splitlines()[0])


@pytest.mark.parametrize("how", ["killed", "ended", "stopped", "a connection killed"])
def test_whatever_becomes_of_the_database_the_application_comes_back(watched: Any, how: str) -> None:
    client, home, again = watched
    assert client.get("/api/ready").json() == {"state": "ready", "waits_for": ""}
    pid = postmaster(home)
    if how == "a connection killed":
        backends = [child.pid for child in psutil.Process(pid).children() if "127.0.0.1" in " ".join(child.cmdline())]
        os.kill(backends[0], signal.SIGKILL)
    else:
        os.kill(pid, {"killed": signal.SIGKILL, "ended": signal.SIGINT, "stopped": signal.SIGSTOP}[how])
        wait_for(lambda: bool(again))
        assert postmaster(home) != pid
    wait_for(lambda: client.get("/api/ready").status_code == 200)
    wait_for(lambda: client.get("/api/rail").status_code == 200)


def test_while_the_database_is_away_it_is_said_what_is_waited_for(watched: Any) -> None:
    """Its data cannot be read: the application stays alive and says why it waits; mended, it goes on."""
    client, home, again = watched
    control = home / "data" / "global" / "pg_control"
    control.rename(control.with_suffix(".away"))
    os.kill(postmaster(home), signal.SIGKILL)
    wait_for(lambda: "cannot be started yet" in client.get("/api/ready").json()["waits_for"])
    assert client.get("/api/health").json() == {"state": "alive"}
    refused = client.get("/api/rail")
    assert refused.status_code == 503
    assert "cannot be started yet" in refused.json()["detail"][0]["msg"]
    assert not again
    control.with_suffix(".away").rename(control)
    wait_for(lambda: client.get("/api/rail").status_code == 200)


@pytest.mark.skipif(os.geteuid() != 0, reason="an ordinary user's cluster lies in its own checkout")
def test_two_checkouts_never_share_a_cluster(tmp_path: Path) -> None:
    """Names that were alike in the earlier manner are not; a cluster of that manner is found, by the one it is of."""
    one, other = tmp_path / "a" / "b-c", tmp_path / "a-b" / "c"
    homes = {default_home(root, system=tmp_path / "lib") for root in (one, other)}
    assert len(homes) == 2
    earlier = tmp_path / "lib" / "-".join(one.parts[1:])
    assert earlier == tmp_path / "lib" / "-".join(other.parts[1:])
    (earlier / "data").mkdir(parents=True)
    (earlier / "data" / "PG_VERSION").write_text("15")
    assert default_home(one, system=tmp_path / "lib") == earlier
    mark_home(earlier, one)
    assert default_home(one, system=tmp_path / "lib") == earlier
    assert default_home(other, system=tmp_path / "lib") in homes


def test_a_slow_database_is_waited_for_and_not_ended(watched: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    """Nothing is started again: it is said that it is slow, and once it answers that is over."""
    client, home, again = watched
    pid = postmaster(home)
    patience: list[float] = []

    def unanswered(_watch: Watch, waits: float) -> bool:
        patience.append(waits)
        return len(patience) > 4

    monkeypatch.setattr(Watch, "_answers", unanswered)
    wait_for(lambda: len(patience) > 4)
    assert patience[:5] == [2, 4, 8, 16, 32]
    assert again == []
    assert postmaster(home) == pid
    assert client.get("/api/rail").status_code == 200
