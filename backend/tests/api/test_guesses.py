"""Guessing at passwords and PINs: slowed down, counted, and nobody locked out."""

from __future__ import annotations

from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from typing import Any

import httpx2
import pytest
from fastapi.testclient import TestClient
from fidicula.hosting.serving import serving
from sqlalchemy import text

from .people import BRAM, ILSE, NOOR, PASSWORDS, PINS, TEO, id_of, sign_in


@pytest.mark.parametrize(("name", "password"), [(ILSE, "lantern"), ("Nobody", "ferry-rope-lantern"), ("", "")])
def test_what_is_wrong_is_not_told(door: TestClient, name: str, password: str) -> None:
    answer = sign_in(door, name, password or "x", status=401)
    assert answer.json()["detail"][0]["msg"] == "the name or the password is not right"


def put_back(app: Any, seconds: int) -> None:
    """Time goes by for the guesses that were made."""
    with app.state.engine.begin() as connection:
        connection.execute(text(f"UPDATE guess SET guessed_at = guessed_at - interval '{seconds} s'"))


def test_guessing_is_slowed_down_and_the_right_password_waits_too(app: Any, door: TestClient) -> None:
    for _ in range(5):
        sign_in(door, TEO, "guessed wrong", status=401)
    refused = sign_in(door, TEO, status=429)
    assert 10 <= int(refused.headers["retry-after"]) <= 16
    put_back(app, 20)
    sign_in(door, TEO, "guessed wrong", status=401)
    again = sign_in(door, TEO, status=429)
    assert 20 <= int(again.headers["retry-after"]) <= 31
    put_back(app, 31)
    sign_in(door, TEO)
    sign_in(door, TEO, "guessed wrong", status=401)


def test_nobody_locks_another_out(app: Any, door: TestClient) -> None:
    """Whoever guesses at Teo's name, in a strange browser or in his own, holds up neither Ilse nor Teo at his bench."""
    sign_in(door, TEO)
    with TestClient(app, base_url="http://127.0.0.1") as stranger:
        for _ in range(5):
            sign_in(stranger, TEO, "guessed wrong", status=401)
        sign_in(stranger, TEO, status=429)
        sign_in(door, TEO)
        sign_in(stranger, ILSE)
        for _ in range(5):
            sign_in(stranger, TEO, "guessed wrong", status=401)
        sign_in(stranger, TEO, status=429)
        sign_in(stranger, ILSE)
    sign_in(door, TEO)


def test_one_browser_that_guesses_at_many_names_is_slowed_down(door: TestClient) -> None:
    for i in range(20):
        sign_in(door, f"nobody {i}", "guessed wrong", status=401)
    sign_in(door, "nobody 20", "guessed wrong", status=429)


def test_forty_guesses_at_once_are_all_counted(app: Any) -> None:
    """No more passwords are compared than one after the other would be, and no connection waits for one."""
    with serving(app) as address, ThreadPoolExecutor(40) as pool:
        body = {"name": TEO, "password": "guessed wrong"}
        asked = [pool.submit(httpx2.post, f"{address}/api/session", json=body, timeout=60) for _ in range(40)]
        assert httpx2.get(f"{address}/api/ready", timeout=60).status_code == 200
        statuses = Counter(one.result().status_code for one in asked)
    assert statuses == {401: 5, 429: 35}


def test_guesses_from_the_future_and_old_ones_are_forgotten(app: Any, door: TestClient) -> None:
    """The clock was a year ahead and was put right: nobody waits a year."""
    for _ in range(5):
        sign_in(door, TEO, "guessed wrong", status=401)
    put_back(app, -365 * 86_400)
    sign_in(door, TEO)
    with app.state.engine.connect() as connection:
        assert connection.execute(text("SELECT count(*) FROM guess")).scalar_one() == 0


def test_pins_are_slowed_down_as_well(door: TestClient) -> None:
    sign_in(door, NOOR)
    for _ in range(5):
        door.post("/api/session/bench", json={"person": id_of(door, TEO), "pin": "0000"})
    answer = door.post("/api/session/bench", json={"person": id_of(door, TEO), "pin": PINS[TEO]})
    assert answer.status_code == 429


def test_a_fresh_browser_brings_no_fresh_tries_at_a_pin(app: Any, door: TestClient) -> None:
    """Sixty guesses at the owner's PIN through twelve browsers, by all who work here: refused from the sixth on."""
    statuses = []
    for i in range(12):
        with TestClient(app, base_url="http://127.0.0.1") as fresh:
            sign_in(fresh, (NOOR, TEO, BRAM)[i % 3])
            ilse = id_of(fresh, ILSE)
            for n in range(5):
                body = {"person": ilse, "pin": f"{i:03d}{n:03d}"}
                statuses.append(fresh.post("/api/session/bench", json=body).status_code)
    assert statuses == [422] * 5 + [429] * 55
    # In her own browser she goes on, and reads of it.
    sign_in(door, ILSE)
    body = {"person": id_of(door, ILSE), "pin": PINS[ILSE]}
    assert door.post("/api/session/bench", json=body).status_code == 200
    lines = [line for line in door.get("/api/audit").json() if line["label"] == "Wrong password or PIN"]
    assert [line["subject"] for line in lines] == [ILSE] * 5


def test_six_who_sign_in_rightly_at_once_are_all_let_in(app: Any) -> None:
    with serving(app) as address, ThreadPoolExecutor(6) as pool:
        body = {"name": TEO, "password": PASSWORDS[TEO]}
        asked = [pool.submit(httpx2.post, f"{address}/api/session", json=body, timeout=60) for _ in range(6)]
        assert {one.result().status_code for one in asked} == {204}
