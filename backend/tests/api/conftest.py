"""What tests over HTTP share."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from fastapi.testclient import TestClient

from .sounding import Session


@pytest.fixture
def door(app: Any) -> Iterator[TestClient]:
    """A browser in which nobody is signed in."""
    with TestClient(app, base_url="http://127.0.0.1") as client:
        yield client


@pytest.fixture
def session(client: TestClient) -> Session:
    return Session(client)
