"""The rail and arrivals."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient
from fidicula.services.house import next_ticket


def arrival(**changes: Any) -> dict[str, Any]:
    return {"family": "violin", "size": "4/4", "owner": "Wren Kallio", "complaint": "Open strings buzz.", **changes}


def test_a_new_violin_hangs_on_the_rail_with_the_next_ticket(client: TestClient) -> None:
    answer = client.post("/api/instruments", json=arrival())
    assert (answer.status_code, answer.json()) == (201, {"ticket": "RW-116"})
    tag = client.get("/api/rail").json()[-1]
    assert (tag["ticket"], tag["step"]) == ("RW-116", "which strings?")
    sheet = client.get("/api/instruments/RW-116/sheet").json()
    assert sheet["instrument"]["string_names"] == ["G", "D", "A", "E"]


def test_the_rail_is_in_natural_order(client: TestClient) -> None:
    client.post("/api/instruments", json=arrival(ticket="RW-9"))
    assert client.get("/api/rail").json()[0]["ticket"] == "RW-9"


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


@pytest.mark.parametrize(
    ("tickets", "following"),
    [([], "1"), (["RW-9", "RW-10"], "RW-11"), (["A-7", "loose"], "A-8"), (["007"], "008")],
)
def test_the_next_ticket_follows_the_shops_manner(tickets: list[str], following: str) -> None:
    assert next_ticket(tickets) == following
