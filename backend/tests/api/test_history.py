"""The history of an instrument over its visits, over HTTP, on the demo's cello."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from .test_bench import Bench


def history(client: TestClient, ticket: str = "RW-087") -> dict[str, Any]:
    answer = client.get(f"/api/instruments/{ticket}/history")
    assert answer.status_code == 200, answer.text
    return dict(answer.json())


def test_what_changed_since_last_time_comes_first(client: TestClient) -> None:
    told = history(client)
    changed = {row["what"]: (row["before"], row["now"], row["change"]) for row in told["changed"]}
    assert changed["Projection"] == ("79.6 mm", "80.0 mm", "+0.4")
    assert changed["C at the board's end"] == ("7.2 mm", "7.4 mm", "+0.2")
    assert "String length" not in changed
    assert told["changed_since"].startswith(told["visits"][1]["opened_at"][:10])


def test_each_measure_goes_through_the_visits_with_the_air_under_it(client: TestClient) -> None:
    told = history(client)
    charts = {chart["measure"]: chart for chart in told["charts"]}
    (projection,) = charts["projection"]["lines"]
    assert [point["value"] for point in projection["points"]] == [80.5, 79.3, 80.4, 79.6, 80.0]
    assert projection["low"] < 80 < projection["high"]
    assert [line["name"] for line in charts["end_height"]["lines"]] == ["C", "G", "D", "A"]
    assert [point["value"] for point in told["humidity"]] == [52, 66, 41, 63, 48]
    assert "humidity" not in charts
    at = [point["at"] for point in projection["points"]]
    assert at == sorted(at)


def test_every_visit_has_its_entries_and_what_is_undone_is_not_among_them(client: TestClient) -> None:
    told = history(client)
    assert [visit["label"] for visit in told["visits"]] == ["recheck", "recheck", "recheck", "recheck", "bridge"]
    first = told["visits"][-1]
    assert {(entry["kind"], entry["says"]) for entry in first["entries"]} == {
        ("works", "A new bridge was fitted"),
        ("strings", "Strings named: Harbour medium"),
    }
    assert all(visit["is_sealed"] for visit in told["visits"])
    work = str(uuid4())
    client.post("/api/instruments/RW-102/works", json={"id": work, "work": "pegs_fitted"})
    assert "The pegs were fitted" in history(client, "RW-102")["done_since"]
    client.post(f"/api/instruments/RW-102/works/{work}/take-back")
    assert "The pegs were fitted" not in history(client, "RW-102")["done_since"]


def test_heights_stand_in_one_direction_however_they_were_read(client: TestClient) -> None:
    """Two strings by a wedge, the shortest way, and two straight up: the chart has all of them straight up.

    By hand: the G stands some 14.5 mm off the middle of a board of radius 42: 5.3 / cos(asin(14.5 / 42)) = 5.65.
    """
    bench = Bench(client, "RW-102")
    bench.take("end_height", 0, "5.3", tool="wedge")
    bench.take("end_height", 1, "4.95", tool="wedge")
    chart = next(chart for chart in history(client, "RW-102")["charts"] if chart["measure"] == "end_height")
    last = [line["points"][-1]["value"] for line in chart["lines"]]
    assert last[0] == pytest.approx(5.65, abs=0.03)
    assert last[2:] == [4.4, 3.5]


def test_the_first_visit_says_so(client: TestClient) -> None:
    told = history(client, "RW-101")
    assert told["changed_since"] is None
    assert (told["changed"], told["charts"]) == ([], [])
    assert client.get("/api/instruments/RW-999/history").status_code == 404


def test_the_log_runs_through_all_visits(client: TestClient) -> None:
    visits = client.get("/api/instruments/RW-087/history/log").json()
    assert [visit["label"] for visit in visits] == ["recheck", "recheck", "recheck", "recheck", "bridge"]
    assert all(visit["lines"] for visit in visits)
    here = client.get("/api/instruments/RW-087/log").json()
    assert [(one["what"], one["value"]) for one in visits[0]["lines"]] == [(one["what"], one["value"]) for one in here]
    assert any(line["what"] == "a new bridge was fitted" for line in visits[-1]["lines"])
