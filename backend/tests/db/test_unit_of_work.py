"""Nothing is kept without a commit, and a database that is away is said to be."""

from __future__ import annotations

from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.api.signed import COOKIE
from fidicula.db.records import SetString, StringSet
from fidicula.db.unit_of_work import DatabaseAwayError, UnitOfWork, make_engine
from fidicula.hosting.cluster import free_port
from fidicula.main import create_app
from fidicula.settings import Settings
from sqlalchemy import Engine


def new_set() -> StringSet:
    return StringSet(uuid4(), "Trial", "violin", "steel", tuple(SetString(n, 0.5) for n in "GDAE"))


def test_without_commit_nothing_is_kept(empty: Engine) -> None:
    with UnitOfWork(empty) as work:
        work.string_sets.add(new_set())
    with UnitOfWork(empty) as work:
        assert work.string_sets.of_family("violin") == []


def test_with_commit_it_comes_back_as_it_went(empty: Engine) -> None:
    kept = new_set()
    with UnitOfWork(empty) as work:
        work.string_sets.add(kept)
        work.commit()
    with UnitOfWork(empty) as work:
        assert work.string_sets.of_family("violin") == [kept]


def test_a_database_that_is_away_is_not_an_empty_house() -> None:
    """No answer from PostgreSQL is 503 with a sentence, never 'not found'."""
    url = f"postgresql+psycopg://nobody@127.0.0.1:{free_port()}/none"
    with pytest.raises(DatabaseAwayError), UnitOfWork(make_engine(url)):
        pass
    headers = {"cookie": f"{COOKIE}=whoever"}
    client = TestClient(create_app(Settings(database_url=url)), base_url="http://127.0.0.1", headers=headers)
    for path in ("/api/instruments/RW-101/sheet", "/api/session"):
        answer = client.get(path)
        assert answer.status_code == 503
        assert "what you typed is kept here" in answer.json()["detail"][0]["msg"]
