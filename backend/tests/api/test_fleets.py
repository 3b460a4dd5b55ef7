"""A fleet at the door: one entry for what is common, a line for each; all of it or none."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient


def fleet(*lines: dict[str, Any], **changes: Any) -> dict[str, Any]:
    return {
        "id": str(uuid4()),
        "family": "violin",
        "size": "4/4",
        "owner": "Boathouse Band",
        "kind": "look_over",
        "complaint": "Back from the regatta.",
        "climate": "damp",
        "recipe": "Boathouse hire",
        "instruments": list(lines),
        **changes,
    }


def sheet(client: TestClient, ticket: str) -> dict[str, Any]:
    return dict(client.get(f"/api/instruments/{ticket}/sheet").json())


def test_each_has_its_tag_and_all_share_the_recipe(client: TestClient) -> None:
    """Five violins: tickets in order, one of its own number, one of another size, one with a complaint of its own."""
    lines: list[dict[str, Any]] = [
        {},
        {"size": "3/4"},
        {"ticket": "BB-7"},
        {"complaint": "A peg is gone."},
        {"left_handed": True},
    ]
    answer = client.post("/api/fleets", json=fleet(*lines))
    assert answer.status_code == 201
    tickets = answer.json()["tickets"]
    assert tickets == ["RW-116", "RW-117", "BB-7", "RW-118", "RW-119"]
    told = [sheet(client, ticket) for ticket in tickets]
    assert [one["instrument"]["size"] for one in told] == ["4/4", "3/4", "4/4", "4/4", "4/4"]
    assert told[3]["instrument"]["complaint"] == "A peg is gone."
    assert told[0]["instrument"]["complaint"] == "Back from the regatta."
    assert {one["recipe"]["name"] for one in told} == {"Boathouse hire"}
    assert all(one["instrument"]["is_fleet"] for one in told)
    tags = {tag["ticket"]: tag for tag in client.get("/api/rail").json()}
    assert {tags[ticket]["step"] for ticket in tickets} == {"inspection"}


@pytest.mark.parametrize(
    ("body", "loc"),
    [
        (fleet(), ["instruments"]),
        (fleet({}, {"size": "9/8"}), ["instruments", 1, "size"]),
        (fleet({}, {"ticket": "RW-101"}), ["instruments", 1, "ticket"]),
        (fleet({}, {"ticket": "a b"}), ["instruments", 1, "ticket"]),
        (fleet({}, recipe="Nobody's"), ["recipe"]),
        (fleet({}, kind="polish"), ["kind"]),
        (fleet({}, deadline="2020-01-01"), ["deadline"]),
        (fleet(*[{}] * 61), ["instruments"]),
    ],
)
def test_what_is_wrong_names_its_line_and_nothing_is_taken_in(
    client: TestClient, body: dict[str, Any], loc: list[Any]
) -> None:
    before = client.get("/api/rail").json()
    answer = client.post("/api/fleets", json=body)
    assert answer.status_code == 422
    assert answer.json()["detail"][0]["loc"] == ["body", *loc]
    assert client.get("/api/rail").json() == before


def test_each_is_found_by_its_serial_number_and_all_have_the_strings_that_were_named(client: TestClient) -> None:
    on_all = next(one for one in client.get("/api/string-sets/violin").json() if len(one["strings"]) == 4)
    lines = [{"serial": "BB 2207"}, {"serial": "BB 2208"}]
    tickets = client.post("/api/fleets", json=fleet(*lines, set_id=on_all["id"])).json()["tickets"]
    for ticket in tickets:
        assert client.get(f"/api/instruments/{ticket}/strings").json()["fitted"][0]["says"].startswith(on_all["name"])
    assert [one["ticket"] for one in client.get("/api/known", params={"words": "2208"}).json()] == tickets[1:]


def test_strings_that_do_not_fit_one_of_them_are_refused_for_all(client: TestClient) -> None:
    five = next(one for one in client.get("/api/string-sets/viola").json() if len(one["strings"]) == 5)
    before = client.get("/api/rail").json()
    answer = client.post("/api/fleets", json=fleet({}, set_id=five["id"]))
    assert answer.json()["detail"][0]["loc"] == ["body", "set_id"]
    assert client.get("/api/rail").json() == before
