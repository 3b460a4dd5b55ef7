"""The workshop's own network: a certificate that fits its address, and a door that opens by the code alone."""

from __future__ import annotations

import ssl
import threading
import time
from datetime import UTC, datetime, timedelta
from pathlib import Path

import httpx2
import pytest
import uvicorn
from fidicula.api.pairing import GUESSES, SHUT_FOR_S, PairedOnly
from fidicula.hosting.cluster import free_port
from fidicula.hosting.lan import LanError, certificate, check_address, pairing_code, pairing_key
from starlette.applications import Starlette
from starlette.responses import PlainTextResponse
from starlette.routing import Route
from starlette.testclient import TestClient


def test_a_certificate_is_kept_and_made_anew_for_another_address_or_when_it_ends(tmp_path: Path) -> None:
    first = certificate(tmp_path / "lan", "192.168.1.20")
    assert certificate(tmp_path / "lan", "192.168.1.20") == first
    assert (first.key.stat().st_mode & 0o777, first.key.parent.stat().st_mode & 0o777) == (0o600, 0o700)
    moved = certificate(tmp_path / "lan", "192.168.1.21")
    assert moved.fingerprint != first.fingerprint
    late = datetime.now(UTC) + timedelta(days=340)
    assert certificate(tmp_path / "lan", "192.168.1.21", now=late).fingerprint != moved.fingerprint


@pytest.mark.parametrize("address", ["8.8.8.8", "lamp", ""])
def test_no_address_of_the_wide_world(address: str) -> None:
    with pytest.raises(LanError):
        check_address(address)
    assert check_address("10.0.0.7") == "10.0.0.7"


def test_devices_stay_paired_over_a_start_and_a_code_does_not(tmp_path: Path) -> None:
    assert pairing_key(tmp_path) == pairing_key(tmp_path)
    codes = {pairing_code() for _ in range(5)}
    assert len(codes) > 1
    assert all(len(code) == 8 and code.isdecimal() for code in codes)


class Clock:
    now = 0.0

    def __call__(self) -> float:
        return self.now


def door(clock: Clock, key: bytes = b"k" * 32) -> TestClient:
    inside = Starlette(routes=[Route("/{rest:path}", lambda _: PlainTextResponse("inside"))])
    app = PairedOnly(inside, code="12345678", key=key, clock=clock)
    return TestClient(app, base_url="https://192.168.1.20", follow_redirects=False)


def test_nothing_is_shown_before_the_code_and_all_of_it_after() -> None:
    device = door(Clock())
    shown = device.get("/bench/RW-101")
    assert (shown.status_code, "eight digits" in shown.text) == (403, True)
    assert device.get("/api/rail").status_code == 401
    assert device.post("/pair", data={"code": "12345679"}).status_code == 403
    answer = device.post("/pair", data={"code": "1234 5678"})
    assert answer.status_code == 303
    assert {"HttpOnly", "Secure", "SameSite=strict"} <= {
        word.strip() for word in answer.headers["set-cookie"].split(";")
    }
    assert device.get("/api/rail").text == "inside"


def test_a_cookie_of_another_key_pairs_nothing() -> None:
    device = door(Clock())
    device.post("/pair", data={"code": "12345678"})
    other = door(Clock(), key=b"o" * 32)
    other.cookies = device.cookies
    assert other.get("/").status_code == 403


def test_guessing_shuts_the_door_for_a_while_for_the_right_code_too() -> None:
    clock = Clock()
    device = door(clock)
    for _ in range(GUESSES):
        assert device.post("/pair", data={"code": "0" * 300}).status_code == 403
    assert device.post("/pair", data={"code": "12345678"}).status_code == 429
    clock.now = SHUT_FOR_S + 1
    assert device.post("/pair", data={"code": "12345678"}).status_code == 303


def test_a_browser_that_trusts_the_certificate_gets_through_and_one_that_does_not_is_stopped(tmp_path: Path) -> None:
    kept = certificate(tmp_path, "127.0.0.1")
    app = PairedOnly(PlainTextResponse("inside"), code="12345678", key=b"k" * 32)
    port = free_port()
    config = uvicorn.Config(
        app,
        host="127.0.0.1",
        port=port,
        ssl_keyfile=kept.key,
        ssl_certfile=kept.chain,
        log_level="warning",
        lifespan="off",
    )
    server = uvicorn.Server(config)
    thread = threading.Thread(target=server.run, daemon=True)
    thread.start()
    try:
        while not server.started:
            time.sleep(0.02)
        address = f"https://127.0.0.1:{port}/"
        trusting = ssl.create_default_context(cafile=kept.chain)
        assert httpx2.get(address, verify=trusting).status_code == 403
        with pytest.raises(httpx2.ConnectError, match="CERTIFICATE_VERIFY_FAILED"):
            httpx2.get(address, verify=ssl.create_default_context())
        with pytest.raises(httpx2.TransportError):
            httpx2.get(address.replace("https", "http"))
    finally:
        server.should_exit = True
        thread.join(timeout=10)
