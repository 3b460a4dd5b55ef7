"""Undo has a redo: what was taken back by mistake stands again, as long as nothing was entered since."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from .test_bench import Bench

pytestmark = pytest.mark.usefixtures("read_again")


def undo(bench: Bench) -> dict[str, Any]:
    newest: dict[str, Any] = bench.sheet["undoable"]
    places = {"reading": "readings", "work": "works", "decision": "decisions", "mark": "marks", "seen": "seen"}
    bench.post(f"{places[newest['kind']]}/{newest['id']}/take-back")
    return {"kind": newest["kind"], "of": newest["id"]}


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
    bench.post("redo", 404, kind="work", of=str(uuid4()))


@pytest.mark.parametrize(
    ("path", "body"),
    [
        ("works", {"work": "pegs_fitted"}),
        ("items/pegs/seen", {"verdict": "fine"}),
        (
            "readings",
            {
                "measure": "end_height",
                "position": 3,
                "typed": "3.6",
                "tool": "caliper",
                "taken_at": "2026-11-23T09:00:00Z",
                "shown": None,
            },
        ),
    ],
)
def test_whatever_was_entered_since_is_in_the_way_until_it_is_undone_itself(
    client: TestClient, path: str, body: dict[str, Any]
) -> None:
    bench = Bench(client, "RW-102")
    bench.take("end_height", 0, "5.2")
    taken = undo(bench)
    bench.post(path, id=str(uuid4()), **body)
    assert "something was entered since" in bench.post("redo", 409, **taken)["detail"][0]["msg"]
    undo(bench)
    bench.post("redo", **taken)
    assert bench.cell("end_height", 0)["value"] == 5.2
