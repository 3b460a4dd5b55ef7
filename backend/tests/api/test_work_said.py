"""Works of which more is said than that they were done: turns of wheels, the tension that a post was set under."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from .test_bench import Bench


def done(client: TestClient, ticket: str, work: str, status: int = 200, **said: Any) -> dict[str, Any]:
    body = {"id": str(uuid4()), "work": work, **said}
    answer = client.post(f"/api/instruments/{ticket}/works", json=body)
    assert answer.status_code == status, answer.text
    return dict(answer.json())


def works_told(client: TestClient, ticket: str) -> list[str]:
    visits = client.get(f"/api/instruments/{ticket}/history").json()["visits"]
    return [entry["says"] for entry in visits[0]["entries"]]


def test_wheels_keep_their_turns_and_say_where_their_travel_ends(client: TestClient) -> None:
    bench = Bench(client, "RW-108")
    before = bench.sheet["instruction"]
    assert before["code"] == "turn_wheels"
    bench.take("wheel_room", 0, "0.5")
    bench.take("wheel_room", 1, "30")
    told = bench.sheet["instruction"]["says"]
    assert [one for one in told if "reaches its end 0.5 mm down" in one and "bass wheel" in one]
    assert not [one for one in told if "treble wheel reaches" in one]
    done(client, "RW-108", "adjusters_turned", turned=["-1 1/2", "−½"])
    assert any("bass 1½ turns down, treble ½ turn down" in line for line in works_told(client, "RW-108"))
    assert Bench(client, "RW-108").cell("wheel_room", 0)["state"] == "stale"


@pytest.mark.parametrize("wrong", ["two", "1/0", "400"])
def test_turns_that_are_none_are_named(client: TestClient, wrong: str) -> None:
    refused = done(client, "RW-108", "adjusters_turned", 422, turned=["", wrong])["detail"][0]
    assert (refused["loc"][-2:], "treble wheel" in refused["msg"]) == (["turned", 1], True)


def test_a_post_that_was_set_under_tension_is_warned_of_before_the_strings_slacken(client: TestClient) -> None:
    assert done(client, "RW-107", "post_set", 422, tension="loosely")["detail"][0]["loc"][-1] == "tension"
    done(client, "RW-107", "post_set", tension="full")
    assert any("at full tension" in line for line in works_told(client, "RW-107"))
    body = {"id": str(uuid4()), "kind": "strings", "family": "cello", "size": "4/4", "ticket": "RW-141"}
    assert client.post("/api/instruments", json=body).status_code == 201
    done(client, "RW-141", "post_set", tension="full")
    at = "/api/instruments/RW-141"
    sets = client.get("/api/string-sets/cello").json()
    named = {"id": str(uuid4()), "set_id": sets[0]["id"], "put_on_now": False}
    assert client.post(f"{at}/strings", json=named).status_code == 200
    over = {"id": str(uuid4()), "reason": "the owner waits"}
    assert client.post(f"{at}/steps/baseline/pass-over", json=over).status_code == 200
    told = client.get(f"{at}/sheet").json()["instruction"]
    assert told["code"] == "change_strings", told
    assert "at full tension: it may fall as they slacken" in told["caution"]
