"""What waited in a browser: written at the visit and the time that it was entered at, once, whoever asks again."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import uuid4

from fastapi.testclient import TestClient

from .people import signed
from .test_bench import Bench


def told(bench: Bench, path: str, body: dict[str, Any] | None = None, status: int = 200, **headers: str) -> Any:
    sent = {f"X-Fidicula-{name}": value for name, value in headers.items()}
    answer = bench.client.post(f"{bench.at}/{path}", json=body or {}, headers=sent)
    assert answer.status_code == status, answer.text
    return answer.json()


def test_a_work_that_waited_was_done_when_it_was_entered(client: TestClient) -> None:
    """Two hours ago by the browser; a time to come, or none at all, is now."""
    bench = Bench(client, "RW-102")
    now = datetime.now(UTC)
    for at, since in (
        (now - timedelta(hours=2), timedelta(hours=2)),
        (now + timedelta(hours=2), timedelta(0)),
        ("soon", timedelta(0)),
    ):
        there = {(line["what"], line["at"]) for line in bench.log()}
        told(bench, "works", {"id": str(uuid4()), "work": "pegs_fitted"}, At=str(at).replace(" ", "T"))
        (added,) = [line for line in bench.log() if (line["what"], line["at"]) not in there]
        assert abs(now - since - datetime.fromisoformat(added["at"])) < timedelta(minutes=1), at


def test_nothing_goes_to_another_visit(client: TestClient) -> None:
    """Recorded while the server was away; meanwhile it was handed over and came again."""
    bench = Bench(client, "RW-102")
    visit = bench.sheet["instrument"]["visit_id"]
    told(bench, "hand-over", signed())
    told(bench, "visits", {"id": str(uuid4()), "kind": "strings"}, 201)
    body = {"id": str(uuid4()), "work": "pegs_fitted"}
    refused = told(bench, "works", body, 409, Visit=visit)
    assert "belongs to the visit before" in refused["detail"][0]["msg"]
    told(bench, "works", body, Visit=Bench(client, "RW-102").sheet["instrument"]["visit_id"])


def test_a_reading_stands_after_the_work_that_was_on_its_way(client: TestClient) -> None:
    """The cut waits with the reading behind it, which does not know its number yet; it knows its id."""
    bench = Bench(client, "RW-102")
    before, act = bench.sheet["last_work"], str(uuid4())
    told(bench, "works", {"id": act, "work": "bridge_straightened"})
    sheet = bench.take("end_height", 0, "5.3", after_work=before, after_act=act)
    assert sheet["last_work"] > before
    assert bench.cell("end_height", 0)["state"] == "current"
    bench.take("end_height", 3, "4.1", after_work=before, after_act=str(uuid4()))
    assert bench.cell("end_height", 3)["state"] == "stale", "a work that came to nothing moves nothing"


def test_the_same_again_changes_nothing(client: TestClient) -> None:
    """A hand-over, and what was taken back, once more after an answer that was lost."""
    bench = Bench(client, "RW-102")
    work = str(uuid4())
    told(bench, "works", {"id": work, "work": "pegs_fitted"})
    first = told(bench, f"works/{work}/take-back")
    again = told(bench, f"works/{work}/take-back")
    assert first["undoable"] == again["undoable"]
    visit = bench.sheet["instrument"]["visit_id"]
    told(bench, "hand-over", signed(), Visit=visit)
    told(bench, "hand-over", signed(), Visit=visit)
    told(bench, "hand-over", signed(), status=409)
