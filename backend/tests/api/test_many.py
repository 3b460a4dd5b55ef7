"""Many at once: which of these need a luthier, and one act on all that are ticked."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from .people import ILSE, PINS
from .test_bench import Bench

FLEET = ("RW-112", "RW-113", "RW-115")


def rows(client: TestClient, *tickets: str) -> dict[str, Any]:
    screen = client.get("/api/screening", params={"ticket": list(tickets)}).json()
    return {row["ticket"]: row for row in screen["rows"]}


def see(client: TestClient, ticket: str, item: str, verdict: str = "", **said: Any) -> None:
    body = {"id": str(uuid4()), "verdict": verdict, **said}
    assert client.post(f"/api/instruments/{ticket}/items/{item}/seen", json=body).status_code == 200


def all_fine(client: TestClient, ticket: str) -> None:
    for item in ("seams", "pegs", "nut", "board", "post", "bridge", "strings", "sound"):
        see(client, ticket, item, "fine")


def heights(client: TestClient, ticket: str, low: str, high: str) -> None:
    bench = Bench(client, ticket)
    bench.take("end_height", 0, low)
    bench.take("end_height", 3, high)


SIGNED = {"pin": PINS[ILSE], "reason": "strings settle at school", "all_right": True}


def many(client: TestClient, method: str, path: str, **body: Any) -> dict[str, str]:
    """What was not done, by ticket, with its sentence; "" for what was."""
    answer = client.request(method, f"/api/many/{path}", json=body)
    assert answer.status_code == 200, answer.text
    return {told["ticket"]: told["sentence"] for told in answer.json()}


def test_one_reason_is_enough_and_nothing_is_said_before_all_was_looked_at(client: TestClient) -> None:
    before = rows(client, *FLEET)
    assert [row["needs"] for row in before.values()] == ["open", "open", "open"]
    assert before["RW-115"]["blank"] == 10
    all_fine(client, "RW-115")
    assert rows(client, "RW-115")["RW-115"]["needs"] == "open"
    heights(client, "RW-115", "5.0", "3.2")
    row = rows(client, "RW-115")["RW-115"]
    assert (row["needs"], row["blank"], row["because"], row["heed"]) == ("nothing", 0, [], [])
    see(client, "RW-115", "strings", findings=["winding_open"])
    row = rows(client, "RW-115")["RW-115"]
    assert (row["needs"], row["because"]) == ("small", ["strings: a winding is open"])
    see(client, "RW-115", "post", findings=["post_leans"], words="a little")
    see(client, "RW-115", "bridge", "not_looked_at", words="under a cover")
    row = rows(client, "RW-115")["RW-115"]
    assert row["heed"] == ["post: it leans; a little", "bridge: not looked at; under a cover"]
    assert row["needs"] == "small"
    heights(client, "RW-115", "6.4", "3.2")
    row = rows(client, "RW-115")["RW-115"]
    assert (row["needs"], row["because"][0]) == ("luthier", "G 6.4 mm, over the band")
    see(client, "RW-112", "board", findings=["board_hump"])
    assert rows(client, "RW-112")["RW-112"]["needs"] == "luthier"


def test_a_doubted_height_asks_for_nobody_until_it_counts(client: TestClient) -> None:
    Bench(client, "RW-115").take("end_height", 0, "52")
    row = rows(client, "RW-115")["RW-115"]
    low = next(cell for cell in row["cells"] if cell["column"] == "low_height")
    assert low["doubt"]
    assert low["side"] is None
    assert (row["needs"], row["because"]) == ("open", [])
    assert row["heed"] == ["G 52 mm, doubted"]


def test_a_cello_is_asked_for_its_own_strings_in_the_order_that_was_asked_for(client: TestClient) -> None:
    found = rows(client, "RW-115", "RW-107")
    assert list(found) == ["RW-115", "RW-107"]
    assert [cell["string"] for cell in found["RW-107"]["cells"] if cell["string"]] == ["C", "A"]
    assert found["RW-107"]["needs"] == "luthier"
    assert found["RW-107"]["because"][0] == "post: it lies inside"


def test_who_is_not_here_is_named(client: TestClient) -> None:
    answer = client.get("/api/screening", params={"ticket": ["RW-115", "RW-999"]})
    assert answer.status_code == 404
    assert "RW-999" in answer.text
    assert client.get("/api/screening").status_code == 422


def test_a_fleet_follows_one_recipe_and_is_here_for_something_else(client: TestClient) -> None:
    assert many(client, "PUT", "targets", tickets=[*FLEET, "RW-107"], recipe="Soloist", reason="the same for all") == {
        **dict.fromkeys(FLEET, ""),
        "RW-107": "",
    }
    assert {row["recipe"] for row in rows(client, *FLEET).values()} == {"Soloist"}
    told = many(client, "PUT", "targets", tickets=[*FLEET, "RW-999"], recipe="Boathouse hire")
    assert told["RW-112"] == ""
    assert "no instrument with the ticket RW-999" in told["RW-999"]
    assert set(many(client, "PATCH", "particulars", tickets=FLEET, field="kind", now="recheck").values()) == {""}
    assert {row["kind"] for row in rows(client, *FLEET).values()} == {"recheck"}
    log = client.get("/api/instruments/RW-112/log").json()
    assert any("recheck" in line["value"] for line in log)


@pytest.mark.parametrize(
    ("field", "now", "says"),
    [
        ("promised", "2020-01-01", "has passed"),
        ("kind", "polish", "an instrument comes for"),
        ("promised", "soon", "year, month and day"),
    ],
)
def test_what_cannot_be_said_of_any_is_said_of_each(client: TestClient, field: str, now: str, says: str) -> None:
    told = many(client, "PATCH", "particulars", tickets=FLEET, field=field, now=now)
    assert all(says in sentence for sentence in told.values())


def test_only_some_particulars_are_said_of_many(client: TestClient) -> None:
    answer = client.patch("/api/many/particulars", json={"tickets": FLEET, "field": "worth", "now": "9"})
    assert answer.status_code == 422
    assert "of many at once" in answer.text


def test_what_can_be_is_handed_over_and_taken_back(client: TestClient) -> None:
    """A visit that asks for a whole look-over stays, and says why; the step passed over, it goes too."""
    many(client, "PATCH", "particulars", tickets=["RW-115"], field="kind", now="look_over")
    told = many(client, "POST", "hand-over", tickets=FLEET, **SIGNED)
    assert (told["RW-112"], told["RW-113"]) == ("", "")
    assert "nobody has said anything yet of" in told["RW-115"]
    assert "say why" in many(client, "POST", "pass-over", tickets=["RW-115"], step="look")["RW-115"]
    assert many(client, "POST", "pass-over", tickets=["RW-115"], step="look", reason="screened only") == {"RW-115": ""}
    assert many(client, "POST", "hand-over", tickets=["RW-115", "RW-115"], **SIGNED) == {"RW-115": ""}
    here = {tag["ticket"] for tag in client.get("/api/rail").json()}
    assert not here & set(FLEET)
    assert set(many(client, "POST", "hand-over/take-back", tickets=FLEET).values()) == {""}
    assert {tag["ticket"] for tag in client.get("/api/rail").json()} == here | set(FLEET)


def test_one_work_and_one_set_are_written_down_at_each_and_a_cut_at_none(client: TestClient) -> None:
    cleaned = client.post("/api/many/works", json={"tickets": list(FLEET), "work": "cleaned"}).json()
    assert all(one["done"] for one in cleaned)
    for ticket in FLEET:
        assert any("leaned" in line["value"] or "leaned" in str(line) for line in Bench(client, ticket).log())
    refused = client.post("/api/many/works", json={"tickets": list(FLEET), "work": "crown_cut"})
    assert refused.status_code == 422
    assert "readings of its own" in refused.json()["detail"][0]["msg"]
    violin_set = client.get("/api/string-sets/violin").json()[0]["id"]
    told = client.post("/api/many/strings", json={"tickets": [*FLEET, "RW-106"], "set_id": violin_set}).json()
    done = {one["ticket"]: one for one in told}
    assert all(done[ticket]["done"] for ticket in FLEET)
    assert not done["RW-106"]["done"]
    assert done["RW-106"]["sentence"]
