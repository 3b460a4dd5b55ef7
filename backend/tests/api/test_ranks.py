"""Who may undo whose, set prices, enter for others, and listen on: one rule each, whichever way it is asked."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from contextlib import ExitStack
from typing import Any
from uuid import uuid4

import httpx2
import pytest
from fastapi.testclient import TestClient
from fidicula.api import changes
from fidicula.hosting.serving import serving

from ..conftest import signed_in
from .people import BRAM, ILSE, NOOR, TEO, signed
from .test_photos import photograph

As = Callable[[str], TestClient]


@pytest.fixture
def as_(app: Any) -> Iterator[As]:
    """A browser in which somebody is signed in, by name."""
    with ExitStack() as stack:
        made: dict[str, TestClient] = {}

        def of(name: str) -> TestClient:
            if name not in made:
                made[name] = stack.enter_context(
                    TestClient(app, base_url="http://127.0.0.1", headers=signed_in(app, name))
                )
            return made[name]

        yield of


def test_the_desk_undoes_its_own_photograph_and_no_luthiers(as_: As) -> None:
    for taker, undoer, status in ((TEO, NOOR, 403), (NOOR, NOOR, 200), (NOOR, TEO, 200)):
        answer = as_(taker).post(
            "/api/instruments/RW-103/photos",
            params={"id": str(uuid4()), "item": "seams"},
            content=photograph(),
            headers={"content-type": "image/jpeg"},
        )
        photo = answer.json()["photos"][-1]["id"]
        undone = as_(undoer).post(f"/api/instruments/RW-103/photos/{photo}/take-back")
        assert undone.status_code == status, (taker, undoer, undone.text)


def test_a_luthier_undoes_no_hand_over_of_the_owner(as_: As) -> None:
    assert as_(ILSE).post("/api/instruments/RW-114/hand-over", json=signed(ILSE)).status_code == 200
    refused = as_(TEO).post("/api/instruments/RW-114/hand-over/take-back")
    assert refused.status_code == 403
    assert "this hand-over is Ilse Varnholt's" in refused.json()["detail"][0]["msg"]
    assert as_(ILSE).post("/api/instruments/RW-114/hand-over/take-back").status_code == 200


def test_an_apprentice_counts_and_sets_no_price_and_both_stand_in_the_audit(as_: As) -> None:
    blank = {"id": str(uuid4()), "kind": "bridge_blank", "label": "blank 41", "figure": "41", "price": "7"}
    item = as_(TEO).post("/api/stock", json=blank).json()["id"]
    for what, status in (("count", 200), ("price", 403)):
        entry = {"id": str(uuid4()), "what": what, "value": "3"}
        assert as_(BRAM).post(f"/api/stock/{item}/entries", json=entry).status_code == status, what
    entry = {"id": str(uuid4()), "what": "price", "value": "8"}
    assert as_(TEO).post(f"/api/stock/{item}/entries", json=entry).status_code == 200
    told = [(line["label"], line["by"]) for line in as_(ILSE).get("/api/audit").json()][:3]
    assert told == [("Price changed", TEO), ("Stock counted", BRAM), ("Put into the drawers", TEO)]


def test_a_table_is_taken_in_for_another_by_a_luthier_alone(as_: As) -> None:
    table = f"measure,value,by\nprojection,27,{ILSE}\n".encode()
    asked = {"ticket": "RW-103", "take_in": "true"}
    headers = {"content-type": "text/csv"}
    refused = as_(BRAM).post("/api/readings-table", params=asked, content=table, headers=headers)
    assert refused.status_code == 422
    assert "a luthier enters what others took" in refused.json()["detail"][0]["msg"]
    assert as_(TEO).post("/api/readings-table", params=asked, content=table, headers=headers).status_code == 200


def test_nothing_is_told_after_a_sign_out(app: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(changes, "STILL_IN_EVERY_S", 0.1)
    headers = signed_in(app, TEO)
    with (
        serving(app) as address,
        httpx2.stream("GET", f"{address}/api/changes", headers=headers, timeout=30) as listening,
    ):
        lines = listening.iter_lines()
        assert "listening" in next(lines)
        assert httpx2.post(f"{address}/api/session/out", headers=headers).status_code == 204
        # It ends by itself; while somebody listens it would go on for ten minutes.
        assert [line for line in lines if line.startswith("data")] == []
