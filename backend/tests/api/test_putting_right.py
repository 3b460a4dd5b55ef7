"""Slips over HTTP: what is doubted as it is typed, and the acts that put several readings right at once."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from .test_bench import Bench

pytestmark = pytest.mark.usefixtures("read_again")


def read_in_full(client: TestClient) -> Bench:
    violin = Bench(client)
    violin.name_strings()
    violin.take_all()
    return violin


def put_right(bench: Bench, act: str, *measures: tuple[str, int | None], status: int = 200, **more: Any) -> Any:
    ids = [bench.cell(measure, position)["reading_id"] for measure, position in measures]
    return bench.post("readings/put-right", status, **{"id": str(uuid4()), "act": act, "readings": ids, **more})


def heights(bench: Bench) -> list[float | None]:
    return [bench.cell("end_height", i)["value"] for i in range(4)]


def test_bass_and_treble_typed_the_wrong_way_are_swapped_in_one_act(client: TestClient) -> None:
    violin = read_in_full(client)
    for position, typed in enumerate(("4.30", "5.20", "5.75", "6.10")):
        violin.take("end_height", position, typed, shown=violin.cell("end_height", position)["reading_id"])
    for position in range(4):
        reading = violin.cell("end_height", position)["reading_id"]
        violin.post(f"readings/{reading}/confirm")
    assert heights(violin) == [4.30, 5.20, 5.75, 6.10]
    places = [("end_height", i) for i in range(4)]
    put_right(violin, "swap", *places)
    assert heights(violin) == [6.10, 5.75, 5.20, 4.30]
    refused = put_right(violin, "swap", ("projection", None), status=422)
    assert refused["detail"][0]["loc"][-1] == "readings"
    assert heights(violin) == [6.10, 5.75, 5.20, 4.30]


def test_a_retried_act_changes_nothing(client: TestClient) -> None:
    violin = read_in_full(client)
    ids = [violin.cell("end_height", i)["reading_id"] for i in range(4)]
    body: dict[str, Any] = {"id": str(uuid4()), "act": "swap", "readings": ids}
    first = violin.post("readings/put-right", **body)
    lines = len(violin.log())
    second = violin.post("readings/put-right", **body)
    assert [c.get("value") for c in first["cells"]] == [c.get("value") for c in second["cells"]]
    assert len(violin.log()) == lines


def test_four_readings_of_another_instrument_go_to_their_ticket(client: TestClient) -> None:
    """Undone here, and on the other's card; nothing of them is lost."""
    violin = read_in_full(client)
    places = [("projection", None), ("string_length", None)]
    for to, said in (("", "type the ticket"), ("RW-101", "at RW-101 already")):
        refused = put_right(violin, "move", *places, status=422, to=to)
        assert (refused["detail"][0]["loc"][-1], said in refused["detail"][0]["msg"]) == ("to", True)
    put_right(violin, "move", *places, to="RW-999", status=404)
    put_right(violin, "move", *places, to="RW-113")
    assert violin.cell("projection")["state"] == "missing"
    there = Bench(client, "RW-113")
    assert (there.cell("projection")["value"], there.cell("string_length")["value"]) == (27.1, 327)
    assert "RW-113" in [tag["ticket"] for tag in client.get("/api/rail").json()]


def test_all_are_undone_or_kept_at_once(client: TestClient) -> None:
    violin = read_in_full(client)
    put_right(violin, "undo", *[("end_height", i) for i in range(4)])
    assert heights(violin) == [None] * 4
    taken = violin.take("projection", None, "52.1")
    assert taken["instruction"]["slip"] is not None or violin.cell("projection")["state"] == "doubted"
    put_right(violin, "keep", ("projection", None))
    assert violin.cell("projection")["state"] == "current"
    foreign = Bench(client, "RW-106").cell("projection")["reading_id"]
    violin.post("readings/put-right", 404, id=str(uuid4()), act="undo", readings=[foreign])


def test_a_height_that_changed_without_a_work_is_asked_about_and_the_cut_recorded(client: TestClient) -> None:
    """G was 6.1; 5.0 with nothing done: a cut that nobody wrote down, or a slip."""
    violin = read_in_full(client)
    violin.take("end_height", 0, "5.0", taken_at="2026-11-23T11:00:00Z")
    doubted = violin.cell("end_height", 0)
    assert (doubted["state"], doubted["value"]) == ("doubted", 5.0)
    assert violin.sheet["instruction"]["slip"] is not None
    assert violin.sheet["cut"]["role"] != "due"
    before = violin.sheet["last_work"]
    put_right(violin, "record_cut", ("end_height", 0))
    assert violin.sheet["last_work"] > before
    stands = violin.cell("end_height", 0)
    assert (stands["state"], stands["value"]) == ("current", 5.0)
    assert violin.cell("end_height", 1)["state"] == "stale"


def test_a_spread_typed_into_the_projection_is_doubted_by_what_stood_there(client: TestClient) -> None:
    violin = read_in_full(client)
    violin.take("projection", None, "33.6", taken_at="2026-11-23T11:00:00Z")
    assert violin.cell("projection")["state"] == "doubted"
    assert violin.sheet["cut"]["role"] != "due"
