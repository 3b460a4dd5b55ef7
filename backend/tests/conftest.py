"""A private PostgreSQL for each worker, a fresh database for each test, and the application on it."""

from __future__ import annotations

import os
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from pathlib import Path
from shutil import disk_usage
from tempfile import TemporaryDirectory
from typing import Any
from uuid import uuid4

import pytest
from argon2 import PasswordHasher
from fastapi.testclient import TestClient
from fidicula.api.app import make_app
from fidicula.api.auth import COOKIE
from fidicula.cli.throwaway import filled
from fidicula.db.unit_of_work import UnitOfWork, make_engine
from fidicula.hosting.cluster import Cluster
from fidicula.hosting.server import RunningCluster, server_of
from fidicula.main import give_services
from fidicula.services.people import secrets
from fidicula.services.people.secrets import token_hash
from fidicula.settings import Settings
from hypothesis import HealthCheck, settings
from psycopg import Connection
from sqlalchemy import Engine

# No test is timed: how long an example takes says how busy the machine is. The same examples on every machine.
settings.register_profile("suite", deadline=None, derandomize=True, suppress_health_check=[HealthCheck.too_slow])
settings.load_profile("suite")

# A password is checked as slowly as is safe, which is most of what many tests would do: here it is checked fast.
for hasher in ("_passwords", "_pins"):
    setattr(secrets, hasher, PasswordHasher(time_cost=1, memory_cost=64, parallelism=1))
secrets._NOBODY = secrets.password_hash("nobody")

ROOM_FOR_A_CLUSTER = 2_000_000_000
GIVEN = "FIDICULA_TESTS_ON"
"""Names a server that has both templates already, for whoever runs a few tests again and again."""


@contextmanager
def server_folder() -> Iterator[Path]:
    """A temporary folder that the server's own account may enter when the suite runs as root.

    It is in memory where there is room for it: a slow disk must not decide how long a test takes.
    """
    memory = Path("/dev/shm")
    roomy = memory.is_dir() and disk_usage(memory).free > ROOM_FOR_A_CLUSTER
    with TemporaryDirectory(prefix="fidicula-", dir=memory if roomy else None) as name:
        Path(name).chmod(0o755)
        yield Path(name)


@pytest.fixture
def cluster_home() -> Iterator[Path]:
    with server_folder() as folder:
        yield folder / "cluster"


@pytest.fixture(scope="session")
def cluster() -> Iterator[RunningCluster]:
    given = os.environ.get(GIVEN)
    if given is not None:
        yield server_of(given)[0]
        return
    with server_folder() as folder, Cluster(folder / "cluster", durable=False).running() as running:
        filled(running, "template_empty", demo=False)
        filled(running, "template_demo")
        yield running


@pytest.fixture(scope="session")
def administering(cluster: RunningCluster) -> Iterator[Connection]:
    """One connection that makes and drops databases: each of its own would take as long as what it does."""
    with cluster.connect() as connection:
        yield connection


@pytest.fixture
def fresh(cluster: RunningCluster, administering: Connection) -> Iterator[Callable[[str], Engine]]:
    """Makes an engine on a new copy of a template database."""
    made: list[tuple[str, Engine]] = []

    def make(template: str) -> Engine:
        name = f"t_{uuid4().hex}"
        administering.execute(f'CREATE DATABASE "{name}" TEMPLATE "{template}" STRATEGY file_copy')
        engine = make_engine(cluster.url(name))
        made.append((name, engine))
        return engine

    yield make
    # Dropped at once: a thousand databases of ten megabytes would keep a slow disk busy for the whole run.
    for name, engine in made:
        engine.dispose()
        administering.execute(f'DROP DATABASE "{name}" WITH (FORCE)')


@pytest.fixture
def empty(fresh: Callable[[str], Engine]) -> Engine:
    return fresh("template_empty")


@pytest.fixture
def demo(fresh: Callable[[str], Engine]) -> Engine:
    return fresh("template_demo")


@pytest.fixture(scope="session")
def routes_made_once() -> Any:
    """An application makes its routes as they are first asked for, which takes longer than most tests."""
    return make_app(front_end=Settings().front_end)


@pytest.fixture
def app(routes_made_once: Any, demo: Engine) -> Iterator[Any]:
    """The whole application on a fresh demo house."""
    give_services(routes_made_once, demo.url.render_as_string(hide_password=False), stand_ins=True)
    yield routes_made_once
    routes_made_once.state.services.archives.close()
    routes_made_once.state.engine.dispose()


@pytest.fixture
def client(app: Any) -> Iterator[TestClient]:
    """Ilse, who owns the shop, is signed in."""
    with TestClient(app, base_url="http://127.0.0.1", headers=signed_in(app, "Ilse Varnholt")) as test_client:
        yield test_client


def signed_in(app: Any, name: str, *, confirmed: bool = True) -> dict[str, str]:
    """Headers of a browser in which someone is signed in, without the time that checking a password takes.

    confirmed : the password was given again a moment ago.
    """
    token, form_token, browser_id = uuid4().hex, uuid4().hex, uuid4()
    with UnitOfWork(app.state.engine) as uow:
        person = uow.people.by_name(name)
        assert person is not None
        uow.browsers.add(id=browser_id, token_hash=token_hash(uuid4().hex), name="a test's browser", is_paired=False)
        uow.people.sign_in(
            token_hash=token_hash(token), form_token=form_token, person_id=person.id, browser_id=browser_id
        )
        if confirmed:
            uow.people.confirm(token_hash(token), person.id)
        uow.commit()
    return {"cookie": f"{COOKIE}={token}", "X-Fidicula-Form": form_token}


@pytest.fixture(scope="session")
def root() -> Path:
    return Path(__file__).resolve().parents[2]
