"""An instrument that comes in pieces: post, bridge and strings are states of it, put right in their order."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient


def arrive(client: TestClient, *comes: str, kind: str = "bridge", status: int = 201) -> str:
    body = {"id": str(uuid4()), "family": "violin", "size": "4/4", "kind": kind, "comes": comes, "ticket": "RW-140"}
    answer = client.post("/api/instruments", json=body)
    assert answer.status_code == status, answer.text
    return "/api/instruments/RW-140"


def sheet(client: TestClient, at: str) -> dict[str, Any]:
    return dict(client.get(f"{at}/sheet").json())


def told(client: TestClient, at: str) -> tuple[str, str]:
    found = sheet(client, at)
    return found["instruction"]["code"], found["rests"]


def work(client: TestClient, at: str, name: str, status: int = 200) -> None:
    answer = client.post(f"{at}/works", json={"id": str(uuid4()), "work": name})
    assert answer.status_code == status, answer.text


def name_strings(client: TestClient, at: str) -> None:
    sets = {one["name"]: one["id"] for one in client.get("/api/string-sets/violin").json()}
    body = {"id": str(uuid4()), "set_id": sets["Harbour medium"], "put_on_now": False}
    assert client.post(f"{at}/strings", json=body).status_code == 200


def test_post_bridge_and_strings_are_put_right_in_their_order(client: TestClient) -> None:
    at = arrive(client, "strings_off", "bridge_down", "post_fallen")
    name_strings(client, at)
    assert told(client, at) == ("set_post", "The strings are off: nothing is read under tension.")
    work(client, at, "strings_back", status=409)
    work(client, at, "bridge_set", status=409)
    assert client.get(f"{at}/plan").json()["proposals"][0]["work"] in ("post_set", "bridge_set", "strings_back")
    work(client, at, "post_set")
    assert told(client, at)[0] == "set_bridge"
    work(client, at, "strings_back", status=409)
    work(client, at, "bridge_set")
    assert told(client, at) == ("string_up", "The strings are off: nothing is read under tension.")
    work(client, at, "strings_back")
    code, rests = told(client, at)
    assert (code, rests) == ("measure", "")


def test_a_crack_comes_before_the_post_and_its_glue_rests(client: TestClient) -> None:
    at = arrive(client, "strings_off", "bridge_down")
    crack = {"kind": "crack", "face": "front", "along": "200", "across": "30", "state": "open", "length": "60"}
    thing = str(uuid4())
    assert client.post(f"{at}/damage", json={"id": str(uuid4()), "thing": thing, **crack}).status_code == 200
    work(client, at, "bridge_set", status=409)
    decided = {"id": str(uuid4()), "question": "crack", "outcome": "repair", "reason": ""}
    assert client.post(f"{at}/decisions", json=decided).status_code == 200
    work(client, at, "crack_repaired")
    work(client, at, "strings_back", status=409)


def test_no_baseline_is_asked_of_what_came_without_strings(client: TestClient) -> None:
    at = arrive(client, "strings_off", "bridge_down", kind="new_bridge")
    stops = {stop["key"]: stop for stop in sheet(client, at)["course"]}
    assert stops["baseline"]["state"] == "passed"
    assert told(client, at)[0] in ("name_strings", "mask_top")


def test_glue_that_dries_is_said_where_readings_are_typed(client: TestClient) -> None:
    at = arrive(client)
    work(client, at, "seam_glued")
    assert sheet(client, at)["rests"].startswith("The glue in the seam is drying: no string tension on it, until ")


@pytest.mark.parametrize("comes", ["crack", "nonsense"])
def test_how_it_comes_is_said_of_strings_bridge_and_post(client: TestClient, comes: str) -> None:
    arrive(client, comes, status=422)
