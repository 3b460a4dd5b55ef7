"""The shop's figures over HTTP: entered, taken back, kept with their history, and at work at the bench."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

FULL: dict[str, Any] = {"family": "violin", "size": "4/4"}
RELIEF: dict[str, Any] = {**FULL, "measure": "relief_bass"}
ENTRY: dict[str, Any] = {"page_size": "4/4"}


class FiguresPage:
    def __init__(self, client: TestClient) -> None:
        self.client = client

    def send(self, path: str = "", status: int = 200, method: str = "POST", **body: Any) -> dict[str, Any]:
        answer = self.client.request(method, f"/api/figures{path}", json={"id": str(uuid4()), **ENTRY, **body})
        assert answer.status_code == status, answer.text
        return dict(answer.json())

    def enter(self, status: int = 200, **body: Any) -> dict[str, Any]:
        return self.send("", status, "PUT", **body)

    def row(self, measure: str, school: str = "", **of: str) -> dict[str, Any]:
        page = self.client.get("/api/figures", params={**FULL, **of}).json()
        rows = [row for row in page["rows"] if (row["measure"], row["school"]) == (measure, school)]
        assert len(rows) == 1
        return dict(rows[0])

    def history(self, **key: str) -> list[dict[str, Any]]:
        return list(self.client.get("/api/figures/history", params=key).json())


@pytest.fixture
def figures(client: TestClient) -> FiguresPage:
    return FiguresPage(client)


def test_every_family_and_size_has_its_page(figures: FiguresPage) -> None:
    """A size's own fact is of that size; what holds in every size says so; what nobody knows is empty."""
    assert figures.row("relief_bass")["aim"] == 0.75
    assert not figures.row("relief_bass")["every_size"]
    assert figures.row("nut_height_bass", "card")["every_size"]
    page = figures.client.get("/api/figures", params={"family": "bass", "size": "1/8"}).json()
    assert page["without_figure"] > 0
    absent = [row for row in page["rows"] if row["measure"] == "neck_to_stop"]
    assert absent[0]["aim"] is None
    missing = figures.client.get("/api/figures", params={"family": "viola", "size": "412"})
    assert missing.status_code == 404


def test_a_figure_is_entered_with_either_mark_and_stands_with_its_history(figures: FiguresPage) -> None:
    """The newest stands, the one before it can be put back, and no line of the history is lost."""
    figures.enter(**RELIEF, low="0,5", aim="0.7", high="0,9", source="own boards", confirmed=True)
    row = figures.row("relief_bass")
    assert (row["low"], row["aim"], row["high"], row["own"]) == (0.5, 0.7, 0.9, True)
    assert (row["source"], row["confirmed_by"]) == ("own boards", "Ilse Varnholt")
    figures.enter(**RELIEF, low="0.5", aim="0.8", high="1.0")
    figures.send("/undo", **RELIEF)
    assert figures.row("relief_bass")["aim"] == 0.7
    figures.send("/withdraw", **RELIEF)
    assert figures.row("relief_bass")["aim"] == 0.75
    assert not figures.row("relief_bass")["own"]
    lines = figures.history(**RELIEF)
    assert [line["aim"] for line in lines] == [0.7, 0.7, 0.8, 0.7, 0.75]
    assert lines[0]["what"] == "back to the starting value"
    assert lines[-1]["what"] == "starting value"
    assert {line["entered_by"] for line in lines[:-1]} == {"Ilse Varnholt"}
    figures.send("/withdraw", 409, **RELIEF)


def test_sent_twice_it_is_entered_once(figures: FiguresPage) -> None:
    again = {"id": str(uuid4()), **RELIEF, "low": "0.5", "aim": "0.7", "high": "0.9"}
    figures.enter(**again)
    figures.enter(**again)
    assert len(figures.history(**RELIEF)) == 2


@pytest.mark.parametrize(
    ("typed", "field", "words"),
    [
        ({"low": "0.9", "aim": "0.7", "high": "0.5"}, "high", "under the low end"),
        ({"low": "0.5", "aim": "1.7", "high": "wide"}, "high", "not a measurement"),
        ({"low": "0.5", "aim": "1.2", "high": "1.0"}, "aim", "between"),
        ({"low": "0.5", "aim": "0.7"}, "high", "each is needed"),
        ({}, "aim", "nothing was typed"),
        ({"low": "-0.5", "aim": "0.7", "high": "0.9"}, "low", "cannot be"),
        ({"low": "5", "aim": "7", "high": "9"}, "sure", "far from the 0.75"),
    ],
)
def test_what_cannot_be_is_refused_naming_its_part(
    figures: FiguresPage, typed: dict[str, str], field: str, words: str
) -> None:
    refused = figures.enter(422, **RELIEF, **typed)["detail"][0]
    assert refused["loc"] == ["body", field]
    assert words in refused["msg"]
    assert figures.row("relief_bass")["aim"] == 0.75


def test_an_odd_figure_that_is_meant_is_kept(figures: FiguresPage) -> None:
    figures.enter(**RELIEF, low="5", aim="7", high="9", sure=True)
    assert figures.row("relief_bass")["aim"] == 7


def test_a_change_may_go_down(figures: FiguresPage) -> None:
    key = {**FULL, "size": "", "measure": "end_height_added_bass", "question": "string_material", "school": "steel"}
    figures.enter(**key, aim="−0,3")
    assert figures.row("end_height_added_bass", "steel")["aim"] == -0.3


def test_a_figure_for_one_size_leaves_the_others(figures: FiguresPage) -> None:
    """The card's nut height holds in every size until a half-size violin gets its own."""
    card: dict[str, Any] = {
        "measure": "nut_height_bass",
        "question": "nut_height",
        "school": "card",
        "family": "violin",
    }
    figures.enter(**card, size="1/2", low="0.3", aim="0.4", high="0.5")
    assert figures.row("nut_height_bass", "card", size="1/2")["aim"] == 0.4
    assert not figures.row("nut_height_bass", "card", size="1/2")["every_size"]
    assert figures.row("nut_height_bass", "card")["aim"] == 0.5


def test_no_figure_becomes_the_shops_own(figures: FiguresPage) -> None:
    """A family gets a school that it had no figures for, and the bench follows it in that size alone."""
    client = figures.client
    wide: dict[str, Any] = {"question": "bridge_spread", "school": "wide"}
    assert figures.row("bridge_spread", "wide", family="viola", size="406")["aim"] is None
    refused = client.post("/api/instruments/RW-104/targets/preview", json={"schools": {"bridge_spread": "wide"}})
    assert refused.status_code == 422
    figures.enter(
        family="viola", size="406", measure="bridge_spread", **wide, low="38", aim="38.5", high="39", page_size="406"
    )
    preview = client.post("/api/instruments/RW-104/targets/preview", json={"schools": {"bridge_spread": "wide"}}).json()
    spread = next(change for change in preview["changes"] if change["key"] == "bridge_spread")
    assert (spread["before"], spread["after"]) == (37.5, 38.5)


def test_an_unknown_key_is_refused(figures: FiguresPage) -> None:
    figures.enter(422, **FULL, measure="colour", aim="1")
    figures.enter(422, **RELIEF, question="crown", school="flatter", aim="1")
    figures.enter(404, family="violin", size="9/9", measure="relief_bass", low="1", aim="2", high="3")
    figures.send("/undo", 404, **FULL, measure="neck_length")


def test_the_bench_goes_by_the_newest_figure_and_says_who_stands_by_it(figures: FiguresPage) -> None:
    figures.enter(**FULL, measure="bridge_spread", low="33", aim="33.9", high="34", confirmed=True)
    sheet = figures.client.get("/api/instruments/RW-101/sheet").json()
    spread = next(cell for cell in sheet["cells"] if cell["measure"] == "bridge_spread")
    assert spread["band"]["aim"] == 33.9
    assert "confirmed by Ilse Varnholt" in spread["band"]["source"]
