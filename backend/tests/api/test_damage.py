"""The damage map: what is marked bars what it must, grows in numbers, is signed for and asked again."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from .people import signed
from .test_photos import photograph

AT = "/api/instruments/RW-102/damage"
WHERE = {"face": "front", "along": "300", "across": "-40", "length": "41"}
CRACK: dict[str, Any] = {"kind": "crack", **WHERE, "state": "open"}


def look(client: TestClient, *, status: int = 200, **body: Any) -> dict[str, Any]:
    answer = client.post(AT, json={"id": str(uuid4()), "thing": str(uuid4()), **body})
    assert answer.status_code == status, answer.text
    return dict(answer.json())


def work(client: TestClient, name: str) -> int:
    return client.post("/api/instruments/RW-102/works", json={"id": str(uuid4()), "work": name}).status_code


def instruction(client: TestClient) -> str:
    return str(client.get("/api/instruments/RW-102/sheet").json()["instruction"]["code"])


def plan_of(client: TestClient) -> list[str]:
    plan = client.get("/api/instruments/RW-102/plan").json()
    return [one["work"] for one in plan["proposals"]]


def test_a_marked_crack_bars_the_cut_until_somebody_looks_at_it_after_its_repair(client: TestClient) -> None:
    thing = str(uuid4())
    marked = look(client, **CRACK, thing=thing)["marks"][0]
    assert marked["where"] == "front, 300 mm from the top edge, 40 mm to the bass"
    assert marked["how"] == "open or moving; 41.0 mm"
    assert marked["to_see"].startswith("Measure it once more under tension")
    assert work(client, "crown_cut") == 409
    assert "crack_repaired" in plan_of(client)
    look(client, **CRACK | {"kind": "dent", "state": "stable"})

    decided = {"id": str(uuid4()), "question": "crack", "outcome": "repair", "reason": ""}
    assert client.post("/api/instruments/RW-102/decisions", json=decided).status_code == 200
    assert work(client, "crack_repaired") == 200
    assert work(client, "crown_cut") == 409, "its glue rests, and nobody has looked at it since"
    for stop in client.get("/api/instruments/RW-102/sheet").json()["course"]:
        if stop["state"] == "waiting":
            over = {"id": str(uuid4()), "reason": "it is dry"}
            client.post(f"/api/instruments/RW-102/steps/{stop['key']}/go-on", json=over)
    assert instruction(client) == "see_damage"
    again = look(client, **CRACK | {"state": "repaired", "under_tension": True}, thing=thing)
    assert (again["marks"][0]["to_see"], again["marks"][0]["is_open"], len(again["marks"][0]["looks"])) == (
        "",
        False,
        2,
    )
    assert instruction(client) != "see_damage"


def test_what_was_said_to_be_at_rest_and_has_grown_is_open(client: TestClient) -> None:
    thing = str(uuid4())
    still = CRACK | {"state": "stable", "under_tension": True}
    assert not look(client, **still, thing=thing)["marks"][0]["is_open"]
    same = look(client, **still | {"length": "42"}, thing=thing)["marks"][0]
    assert (same["is_open"], same["how"]) == (False, "does not move; 42.0 mm; as long as at first")
    grown = look(client, **still | {"length": "42,6"}, thing=thing)["marks"][0]
    assert grown["is_open"]
    assert grown["how"] == "open or moving; 42.6 mm; 1.6 mm longer than at first"
    undone = client.post(f"{AT}/{grown['looks'][-1]['id']}/take-back").json()["marks"][0]
    assert not undone["is_open"]


def test_the_owner_signs_for_what_is_marked_and_sees_what_came_later(client: TestClient) -> None:
    look(client, **CRACK)
    signed = client.post(
        f"{AT}/signed", json={"id": str(uuid4()), "who": "Wren Kallio", "signature": "M10 10 L60 40"}
    ).json()["signed"][0]
    assert (signed["is_whole"], signed["says"]) == (True, "Wren Kallio has seen 1 mark and signed")
    later = look(client, **CRACK | {"kind": "dent", "state": "stable"})
    assert not later["signed"][0]["is_whole"]
    paper = client.get("/api/instruments/RW-102/papers/condition").json()
    grid = next(block for block in paper["blocks"] if block["kind"] == "grid")
    assert [row[1] for row in grid["rows"]] == ["crack", "dent or scratch"]
    sign = next(block for block in paper["blocks"] if block["kind"] == "sign")
    assert (sign["label"], sign["strokes"]) == ("I have seen what is marked here: Wren Kallio", "M10 10 L60 40")


def test_what_is_seen_at_the_next_visit_is_asked_for_before_it_leaves(client: TestClient) -> None:
    thing = str(uuid4())
    look(client, **CRACK | {"state": "stable", "under_tension": True}, thing=thing)
    over = client.post("/api/instruments/RW-102/hand-over", json=signed(left_open={"": "as found"}))
    assert over.status_code == 200, over.text
    again = {"id": str(uuid4()), "complaint": "once more", "kind": "recheck"}
    assert client.post("/api/instruments/RW-102/visits", json=again).status_code in (200, 201)
    assert client.get(AT).json()["marks"][0]["to_see"] == "Look again: it was last seen at another visit."
    points = client.get("/api/instruments/RW-102/checklist").json()["points"]
    asked = next(one for one in points if one["key"] == "damage:to_see")
    assert asked["says"] == "1 mark on the damage map"
    grown = look(client, **CRACK | {"length": "43", "under_tension": True}, thing=thing)["marks"][0]
    assert grown["how"] == "open or moving; 43.0 mm; 2.0 mm longer than at first"
    points = client.get("/api/instruments/RW-102/checklist").json()["points"]
    assert all(one["key"] != "damage:to_see" for one in points)
    told = client.get("/api/instruments/RW-102/history").json()["visits"]
    assert sum("Crack, front" in entry["says"] for visit in told for entry in visit["entries"]) == 2


def test_a_repair_of_an_earlier_visit_is_no_work_since_a_look_at_this_one(client: TestClient) -> None:
    thing = str(uuid4())
    look(client, **CRACK, thing=thing)
    decided = {"id": str(uuid4()), "question": "crack", "outcome": "repair", "reason": ""}
    assert client.post("/api/instruments/RW-102/decisions", json=decided).status_code == 200
    assert work(client, "crack_repaired") == 200
    over = client.post("/api/instruments/RW-102/hand-over", json=signed(left_open={"": "as found"}))
    assert over.status_code == 200, over.text
    again = {"id": str(uuid4()), "complaint": "once more", "kind": "recheck"}
    assert client.post("/api/instruments/RW-102/visits", json=again).status_code in (200, 201)
    assert instruction(client) == "see_damage", "nobody has looked since its repair"
    seen = look(client, **CRACK | {"under_tension": True}, thing=thing)["marks"][0]
    assert (seen["to_see"], seen["is_open"]) == ("", True)
    assert instruction(client) == "measure"
    assert work(client, "crown_cut") == 409


@pytest.mark.parametrize(
    ("wrong", "field", "says"),
    [
        ({"along": ""}, "along", "say where it is, in mm from the end, or click it on the drawing"),
        ({"along": "900"}, "along", "the front has places up to 362 mm from the top edge"),
        ({"across": "300"}, "across", "it is at most 124 mm from the middle"),
        ({"length": "0"}, "length", "its length is over 0 and up to 426 mm"),
        ({"face": "lid"}, "face", None),
        ({"kind": "dent", "state": "open"}, "state", "say how it is: does not move, repaired well or"),
        ({"kind": "leak"}, "kind", "choose what it is"),
        ({"ends": "maybe"}, "ends", None),
    ],
)
def test_what_cannot_be_is_refused_by_its_field(
    client: TestClient, wrong: dict[str, str], field: str, says: str | None
) -> None:
    refused = look(client, status=422, **CRACK | wrong)["detail"][0]
    assert refused["loc"][-1] == field
    assert says is None or refused["msg"].lower().startswith(says), refused


def test_a_photograph_shows_a_mark_of_this_instrument(client: TestClient) -> None:
    thing = str(uuid4())
    look(client, **CRACK, thing=thing)
    to = "/api/instruments/{}/photos?id={}&item=seams&thing={}"
    headers = {"content-type": "image/jpeg"}
    kept = client.post(to.format("RW-102", uuid4(), thing), content=photograph(), headers=headers)
    assert kept.status_code == 200, kept.text
    assert client.get(AT).json()["marks"][0]["photos"] == [kept.json()["photos"][-1]["id"]]
    assert client.post(to.format("RW-103", uuid4(), thing), content=photograph(), headers=headers).status_code == 422
