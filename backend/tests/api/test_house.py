"""The rail and arrivals."""

from __future__ import annotations

from typing import Any
from urllib.parse import quote
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.domain.tickets import next_ticket
from sqlalchemy import Engine, text

from .people import signed
from .test_bench import Bench


def arrival(**changes: Any) -> dict[str, Any]:
    return {
        "id": str(uuid4()),
        "family": "violin",
        "size": "4/4",
        "owner": "Wren Kallio",
        "complaint": "Open strings buzz.",
        **changes,
    }


def test_a_new_violin_hangs_on_the_rail_with_the_next_ticket(client: TestClient) -> None:
    answer = client.post("/api/instruments", json=arrival())
    assert (answer.status_code, answer.json()) == (201, {"ticket": "RW-116"})
    tag = client.get("/api/rail").json()[-1]
    assert (tag["ticket"], tag["step"]) == ("RW-116", "choose strings")
    sheet = client.get("/api/instruments/RW-116/sheet").json()
    assert sheet["instrument"]["string_names"] == ["G", "D", "A", "E"]


def test_the_rail_is_in_natural_order(client: TestClient) -> None:
    client.post("/api/instruments", json=arrival(ticket="RW-9"))
    assert client.get("/api/rail").json()[0]["ticket"] == "RW-9"


@pytest.mark.parametrize("ticket", ["..", "-7", " .", "RW/7", "RW 7", "a" * 21, "_x"])
def test_a_ticket_that_cannot_be_opened_is_refused(client: TestClient, ticket: str) -> None:
    [item] = client.post("/api/instruments", json=arrival(ticket=ticket)).json()["detail"]
    assert item["loc"] == ["body", "ticket"]
    assert "begins with a letter or digit" in item["msg"]


@pytest.mark.parametrize("ticket", ["Ü-7", "王7", "7.b_c-d", "a" * 20])
def test_any_ticket_is_opened_and_its_files_have_its_name(client: TestClient, ticket: str) -> None:
    assert client.post("/api/instruments", json=arrival(ticket=ticket)).json() == {"ticket": ticket}
    Bench(client, ticket).post("strings", id=str(uuid4()), own=OWN)
    answer = client.get(f"/api/instruments/{ticket}/templates/crown/svg")
    assert answer.status_code == 200, answer.text
    assert f"filename*=UTF-8''{quote(ticket)}-crown.svg" in answer.headers["content-disposition"]


OWN = {"name": "own", "material": "gut", "diameters": ["1", ".9", ".8", ".7"]}


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"size": "9/8"}, "size"),
        ({"family": "lute"}, "family"),
        ({"ticket": "RW-101"}, "ticket"),
        ({"string_names": ["G", "G", "A", "E"]}, "string_names"),
        ({"string_names": ["A", "E"]}, "string_names"),
        ({"owner": "Wren\0"}, "owner"),
        ({"colour": "red"}, "colour"),
    ],
)
def test_what_cannot_be_taken_in_names_its_field(client: TestClient, changes: dict[str, Any], field: str) -> None:
    answer = client.post("/api/instruments", json=arrival(**changes))
    assert answer.status_code == 422
    assert answer.json()["detail"][0]["loc"] == ["body", field]


def test_a_size_without_figures_is_taken_in_when_it_is_meant(client: TestClient) -> None:
    """A viola of 398 mm: refused with what would do; when it is meant, it has no figure, and a page to enter some."""
    viola = arrival(family="viola", size="398")
    refused = client.post("/api/instruments", json=viola).json()["detail"][0]
    assert "choose one of" in refused["msg"]
    ticket = client.post("/api/instruments", json={**viola, "id": str(uuid4()), "size_without_figures": True}).json()[
        "ticket"
    ]
    bench = Bench(client, ticket)
    bench.post("strings", id=str(uuid4()), own=OWN)
    assert bench.sheet["instruction"]["title"] == "No figure for this instrument"
    assert {"family": "viola", "size": "398"} in client.get("/api/choices").json()["sizes"]
    page = client.get("/api/figures", params={"family": "viola", "size": "398"}).json()
    assert page["sizes"][-1] == "398"
    assert client.post("/api/instruments", json=viola).status_code == 201


def test_words_in_any_script_and_of_any_length_are_kept(client: TestClient) -> None:
    """Ten thousand characters of complaint stand on the sheet in full; the tag on the rail carries their beginning."""
    owner, complaint = "Ðorđe Þórsson 王小明 مريم", "Das Wörtchen 弦 " * 700
    ticket = client.post("/api/instruments", json=arrival(owner=owner, complaint=complaint)).json()["ticket"]
    told = Bench(client, ticket).sheet["instrument"]
    assert (told["owner"], told["complaint"]) == (owner, complaint.strip())
    tag = client.get("/api/rail").json()[-1]
    assert complaint.startswith(tag["complaint"])
    assert len(tag["complaint"]) == 200


@pytest.mark.parametrize(
    ("tickets", "following"),
    [
        ([], "1"),
        (["RW-9", "RW-10"], "RW-11"),
        (["A-7", "loose"], "A-8"),
        (["007"], "008"),
        # One that was typed by mistake does not move the numbers, whatever it is; one that is taken is passed by.
        (["RW-9", "RW-10", "RW-99999999"], "RW-11"),
        (["RW-9", "RW-10", "X-7777777"], "RW-11"),
        (["RW-9", "RW-10", "9" * 20], "RW-11"),
        (["RW-1", "RW-2", "RW-٣"], "RW-3"),
    ],
)
def test_the_next_ticket_follows_the_shops_manner(tickets: list[str], following: str) -> None:
    assert next_ticket(tickets) == following


def test_the_rail_is_told_again_only_when_something_on_it_changed(client: TestClient) -> None:
    """Whoever has it is told so by its ETag; a reading, a particular, an arrival and a hand-over each change it."""
    before = client.get("/api/rail")
    tag = before.headers["etag"]
    assert client.get("/api/rail", headers={"if-none-match": tag}).status_code == 304
    assert client.get("/api/rail", headers={"accept-encoding": "identity"}).json() == before.json()

    def changed() -> bool:
        nonlocal tag
        answer = client.get("/api/rail", headers={"if-none-match": tag})
        if answer.status_code == 304:
            return False
        tag = answer.headers["etag"]
        return True

    def done() -> list[str]:
        row = next(row for row in client.get("/api/rail").json() if row["ticket"] == "RW-105")
        return [one["work"] for one in row["done"]]

    there = done()
    work = str(uuid4())
    assert client.post("/api/instruments/RW-105/works", json={"id": work, "work": "cleaned"}).status_code == 200
    assert changed()
    assert done() == [*there, "the instrument was cleaned"]
    assert client.post(f"/api/instruments/RW-105/works/{work}/take-back").status_code == 200
    assert changed()
    assert done() == there
    change = {"changes": [{"field": "owner", "was": "Wren Kallio", "now": "Wren Kallio-Osei"}]}
    assert client.patch("/api/instruments/RW-105/particulars", json=change).status_code == 200
    assert changed()
    owners = {row["ticket"]: row["owner"] for row in client.get("/api/rail").json()}
    assert owners["RW-105"] == "Wren Kallio-Osei"
    assert not changed()
    assert (
        client.post("/api/instruments", json={"id": str(uuid4()), "family": "violin", "size": "4/4"}).status_code == 201
    )
    assert changed()
    assert client.post("/api/instruments/RW-116/hand-over", json=signed()).status_code == 200
    assert changed()
    assert client.post("/api/instruments/RW-116/hand-over/take-back").status_code == 200
    assert changed()
    assert client.get("/api/rail").json()[-1]["ticket"] == "RW-116"


def test_one_unreadable_instrument_hides_no_other(client: TestClient, demo: Engine) -> None:
    """Records that no entry could make: the rail says so of that one, its page says why, all else goes on."""
    with demo.begin() as connection:
        connection.execute(text("UPDATE instrument SET string_names = '{C,G,D,A,E,B}' WHERE ticket = 'RW-102'"))
        connection.execute(
            text(
                "UPDATE visit SET instruction = '', waits_for = '' FROM instrument i "
                "WHERE i.id = instrument_id AND i.ticket IN ('RW-102', 'RW-103')"
            )
        )
    tags = {tag["ticket"]: tag for tag in client.get("/api/rail").json()}
    assert len(tags) == 15
    assert tags["RW-102"]["step"] == "cannot be read"
    assert tags["RW-103"]["step"] != "cannot be read"
    refused = client.get("/api/instruments/RW-102/sheet")
    assert refused.status_code == 409
    assert "the records of RW-102 cannot be read" in refused.json()["detail"][0]["msg"]
    assert client.get("/api/instruments/RW-103/sheet").status_code == 200
