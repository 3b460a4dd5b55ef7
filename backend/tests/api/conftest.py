"""What tests over HTTP share."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import replace
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.db.one_sheet import Change
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading import records as loaded

from .planning import Plan
from .sounding import Session


@pytest.fixture
def read_again(monkeypatch: pytest.MonkeyPatch) -> None:
    """Whatever is kept of an instrument in the process is read again beside it, and is the same."""
    at_change = loaded._at_change

    def compared(uow: UnitOfWork, ticket: str, change: Change) -> VisitRecord:
        kept = loaded._kept_of(uow.engine).at(change.instrument_id, change.number)
        found = at_change(uow, ticket, change)
        if kept is not None:
            records = uow.one_sheet.of(ticket)
            assert records is not None
            fresh = loaded._loaded(uow, records)
            # Whoever only reads holds nobody up: it may have changed meanwhile.
            if not uow.only_reads or uow.one_sheet.change(ticket) == change:
                assert found == fresh
                assert replace(found.state(), now=fresh.visit.opened_at) == replace(
                    fresh.state(), now=fresh.visit.opened_at
                )
        return found

    monkeypatch.setattr(loaded, "_at_change", compared)


@pytest.fixture
def door(app: Any) -> Iterator[TestClient]:
    """A browser in which nobody is signed in."""
    with TestClient(app, base_url="http://127.0.0.1") as client:
        yield client


@pytest.fixture
def session(client: TestClient) -> Session:
    return Session(client)


@pytest.fixture
def island(client: TestClient) -> Plan:
    """RW-109, whose neck points to the bass side and whose seam is open."""
    return Plan(client, "RW-109")


@pytest.fixture
def blank(client: TestClient) -> dict[str, Any]:
    body = {"id": str(uuid4()), "kind": "bridge_blank", "family": "violin", "label": "blank 41, quiet grain"}
    return dict(client.post("/api/stock", json={**body, "figure": "41", "counted": "2", "price": "7,50"}).json())
