"""POST /api/compute/{kind}: the same answers and refusals as on the shell."""

from __future__ import annotations

import json
from pathlib import Path

import pytest
from fastapi.testclient import TestClient
from fidicula.api.app import make_app
from fidicula.contract.kinds import KINDS

EXAMPLES = Path(__file__).parents[1] / "contract" / "examples"


@pytest.fixture(scope="module")
def stateless() -> TestClient:
    """The application without database or services: compute needs none."""
    return TestClient(make_app(), base_url="http://localhost")


@pytest.mark.parametrize("kind", sorted(KINDS))
def test_examples_over_http(stateless: TestClient, kind: str) -> None:
    example = json.loads((EXAMPLES / f"{kind}.json").read_text())
    answer = stateless.post(f"/api/compute/{kind}", json=example["input"])
    assert answer.status_code == 200
    assert answer.json().keys() == example["output"].keys()


def test_a_refusal_names_the_very_field(stateless: TestClient) -> None:
    answer = stateless.post("/api/compute/spacing", json={"spread": 2, "diameters": [1, 1, 1]})
    assert answer.status_code == 422
    [item] = answer.json()["detail"]
    assert item["loc"] == ["body", "spread"]
    assert "do not fit into a spread of 2 mm" in item["msg"]


@pytest.mark.parametrize("body", [b"{", b'{"spread": NaN}', b"\xff", b"[" * 50_000, b"[]"])
def test_hostile_bodies_are_refused_at_the_body(stateless: TestClient, body: bytes) -> None:
    answer = stateless.post("/api/compute/spacing", content=body, headers={"content-type": "application/json"})
    assert answer.status_code == 422
    assert answer.json()["detail"][0]["loc"] == ["body"]


def test_an_unknown_kind_is_not_found(stateless: TestClient) -> None:
    answer = stateless.post("/api/compute/horoscope", json={})
    assert answer.status_code == 404
    assert "there are spacing, bridge, nut" in answer.json()["detail"][0]["msg"]


def test_foreign_hosts_are_turned_away(stateless: TestClient) -> None:
    """A page that points its own name at this machine gets nothing."""
    answer = stateless.post("/api/compute/spacing", json={}, headers={"host": "elsewhere.example"})
    assert answer.status_code == 400
