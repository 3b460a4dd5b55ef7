"""Nothing is kept without a commit, and a database that is away is said to be."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.api.auth import COOKIE
from fidicula.db.unit_of_work import DatabaseAwayError, UnitOfWork, make_engine
from fidicula.domain.strings import SetString, StringSet
from fidicula.domain.targets import FigureEntry
from fidicula.hosting.cluster import free_port
from fidicula.main import create_app
from fidicula.settings import Settings
from sqlalchemy import Engine


def new_set() -> StringSet:
    return StringSet(uuid4(), "Trial", "violin", "steel", tuple(SetString(n, 0.5) for n in "GDAE"))


def test_without_commit_nothing_is_kept(empty: Engine) -> None:
    with UnitOfWork(empty) as uow:
        uow.string_sets.add(new_set())
    with UnitOfWork(empty) as uow:
        assert uow.string_sets.of_family("violin") == []


def test_with_commit_it_comes_back_as_it_went(empty: Engine) -> None:
    kept = new_set()
    with UnitOfWork(empty) as uow:
        uow.string_sets.add(kept)
        uow.commit()
    with UnitOfWork(empty) as uow:
        assert uow.string_sets.of_family("violin") == [kept]


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


def test_the_rules_stamp_changes_with_every_commit_also_of_a_lower_number(demo: Engine) -> None:
    """A figure that was entered first and committed last: whoever read in between reads again after it."""

    def enter(uow: UnitOfWork, size: str) -> None:
        values: dict[str, Any] = {
            "low": 4.5,
            "aim": 5.0,
            "high": 5.5,
            "source": "ours",
            "confirmed_by": None,
            "withdrawn": False,
        }
        key: dict[str, Any] = {
            "family": "violin",
            "size": size,
            "measure": "end_height_bass",
            "question": "",
            "school": "",
        }
        uow.rules.add_figure(FigureEntry(id=uuid4(), entered_by="Ilse", **key, **values))

    def stamp() -> int:
        with UnitOfWork(demo, only_reads=True) as uow:
            return uow.rules.stamp()

    at_first = stamp()
    with UnitOfWork(demo) as slow:
        # The trigger's lock is what lets the second wait: it is taken with the statement, not with the commit.
        enter(slow, "3/4")
        assert stamp() == at_first
        with ThreadPoolExecutor(1) as pool:

            def second() -> None:
                with UnitOfWork(demo) as quick:
                    enter(quick, "1/2")
                    quick.commit()

            waiting = pool.submit(second)
            with pytest.raises(TimeoutError):
                waiting.result(timeout=0.3)
            slow.commit()
            after_slow = stamp()
            waiting.result(timeout=20)
    assert at_first != after_slow
    with UnitOfWork(demo) as undone:
        enter(undone, "1/4")
        never = undone.rules.stamp()
    assert stamp() != never
    assert len({at_first, after_slow, stamp(), never}) >= 3
