"""Undo has a redo: what was taken back by mistake stands again, as long as nothing was entered since."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from fastapi.testclient import TestClient

from .test_bench import Bench


def undo(bench: Bench) -> dict[str, Any]:
    newest: dict[str, Any] = bench.sheet["undoable"]
    places = {"reading": "readings", "work": "works", "decision": "decisions", "mark": "marks", "seen": "seen"}
    bench.post(f"{places[newest['kind']]}/{newest['id']}/take-back")
    return {"kind": newest["kind"], "id": newest["id"]}


def test_a_reading_and_a_work_stand_again_as_they_were(client: TestClient) -> None:
    """5.2 corrected 5.3; undone, 5.3 stands; redone, 5.2 does again, and undone once more, 5.3."""
    bench = Bench(client, "RW-102")
    bench.take("end_height", 0, "5.3")
    bench.take("end_height", 0, "5.2")
    for _ in range(2):
        taken = undo(bench)
        assert bench.cell("end_height", 0)["value"] == 5.3
        bench.post("redo", **taken)
        assert bench.cell("end_height", 0)["value"] == 5.2
        bench.post("redo", **taken)
    bench.post("works", id=str(uuid4()), work="bridge_straightened")
    assert bench.cell("end_height", 0)["state"] == "stale"
    taken = undo(bench)
    assert bench.cell("end_height", 0)["state"] == "current"
    bench.post("redo", **taken)
    assert bench.cell("end_height", 0)["state"] == "stale"


def test_nothing_stands_again_over_what_was_entered_since(client: TestClient) -> None:
    bench = Bench(client, "RW-102")
    bench.take("end_height", 0, "5.2")
    taken = undo(bench)
    bench.take("end_height", 3, "4.1")
    refused = bench.post("redo", 409, **taken)
    assert "something was entered since" in refused["detail"][0]["msg"]
    bench.post("redo", 404, kind="work", id=str(uuid4()))
