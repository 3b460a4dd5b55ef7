"""What tests over HTTP share."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from .planning import Plan
from .sounding import Session


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
