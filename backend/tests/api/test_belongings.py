"""What belongs to an instrument: written down at the door, taken off, lent, and asked back as it leaves."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from .people import signed

AT = "/api/instruments/RW-102/belongings"


def enter(client: TestClient, status: int = 200, **body: Any) -> dict[str, Any]:
    answer = client.post(AT, json={"id": str(uuid4()), "thing": str(uuid4()), **body})
    assert answer.status_code == status, answer.text
    return dict(answer.json())


def points(client: TestClient) -> dict[str, dict[str, Any]]:
    return {one["key"]: one for one in client.get("/api/instruments/RW-102/checklist").json()["points"]}


def test_what_came_along_is_asked_again_as_it_leaves(client: TestClient) -> None:
    enter(client, kind="bow", count="2", which="silver mounted")
    enter(client, kind="case", which="blue, a key in its pocket")
    evidence = [one["says"] for one in points(client)["pitch:came_along"]["evidence"]]
    assert evidence == ["case or bag: blue, a key in its pocket", "bow × 2: silver mounted"]
    thing = str(uuid4())
    enter(client, thing=thing, kind="bow", which="on loan")
    enter(client, kind="chin_rest", which="its own")
    enter(client, thing=thing, kind="bow", which="on loan", place="gone")
    asked = [one["says"] for one in points(client)["pitch:came_along"]["evidence"]]
    assert sorted(asked) == sorted(evidence), "neither what is gone nor what sits on it"


def test_what_is_off_is_open_until_it_is_back_on(client: TestClient) -> None:
    thing = str(uuid4())
    enter(client, thing=thing, kind="chin_rest", place="off", lies="top drawer")
    assert points(client)["things:off"]["is_open"]
    assert "top drawer" in points(client)["things:off"]["says"]
    back = enter(client, thing=thing, kind="chin_rest", place="with_it", lies="top drawer")
    assert (len(back["things"]), back["things"][0]["lies"]) == (1, "")
    assert "things:off" not in points(client)
    undone = client.post(f"{AT}/{back['things'][0]['id']}/take-back").json()
    assert undone["things"][0]["place"] == "off"


def test_strings_on_trial_do_not_leave_unasked(client: TestClient) -> None:
    enter(client, kind="trial_set", which="Weir gut pair")
    assert points(client)["things:lent"]["is_open"]


def test_a_bridge_is_a_thing_with_its_wood_mass_and_stamp(client: TestClient) -> None:
    view = enter(
        client, kind="bridge", which="hard blank, rings clear", material="maple", mass="2,1 g", stamp="inside, small"
    )
    assert view["things"][0]["says"] == "bridge: hard blank, rings clear, maple, 2.1 g, stamp inside, small"


def test_tuners_beside_what_the_recipe_wants(client: TestClient) -> None:
    view = enter(client, kind="fine_tuners", count="4")
    assert view["says"] == ["4 fine tuners are on it; its recipe wants 1. What the player is used to may stay."]


@pytest.mark.parametrize(
    ("wrong", "field", "says"),
    [
        ({"kind": "endpin"}, "kind", "a violin has no endpin"),
        ({"kind": "piano"}, "kind", "choose what it is"),
        ({"kind": "bow", "count": "two"}, "count", "a whole number from 1"),
        ({"kind": "bridge", "mass": "2 mm"}, "mass", "type grams"),
        ({"kind": "bridge", "mass": "0"}, "mass", "over 0 g"),
        ({"kind": "other"}, "which", "in your words"),
    ],
)
def test_what_is_typed_wrong_is_named(client: TestClient, wrong: dict[str, str], field: str, says: str) -> None:
    detail = enter(client, 422, **wrong)["detail"][0]
    assert detail["loc"][-1] == field
    assert says in detail["msg"]


def test_after_it_was_handed_over_nothing_is_written_down(client: TestClient) -> None:
    answer = client.post("/api/instruments/RW-102/hand-over", json=signed())
    assert answer.status_code == 200, answer.text
    enter(client, 409, kind="bow")


def test_what_is_named_at_the_door_stands_among_them(client: TestClient) -> None:
    """Pieces between commas; a retry of the same arrival writes nothing twice."""
    body = {"id": str(uuid4()), "family": "cello", "size": "4/4"}
    body["along"] = "Blue case, 2 bows; rosin and a folding stool"
    for _ in range(2):
        ticket = client.post("/api/instruments", json=body).json()["ticket"]
    view = client.get(f"/api/instruments/{ticket}/belongings").json()
    assert [(one["kind"], one["which"], one["count"]) for one in view["things"]] == [
        ("case", "Blue case", None),
        ("bow", "", 2),
        ("rosin", "", None),
        ("other", "a folding stool", None),
    ]
