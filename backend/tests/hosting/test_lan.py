"""The workshop's own network: a certificate that fits its address, and a door that opens by the code alone."""

from __future__ import annotations

import ssl
import threading
import time
from collections import Counter
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime, timedelta
from ipaddress import ip_address
from pathlib import Path

import httpx2
import pytest
import uvicorn
from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import NameOID
from fidicula.api.pairing import PairedOnly
from fidicula.db.unit_of_work import make_engine
from fidicula.hosting.cluster import free_port
from fidicula.hosting.lan import LanError, certificate, check_address, pairing_code
from fidicula.services.people.browsers import Browsers
from sqlalchemy import Engine
from starlette.applications import Starlette
from starlette.responses import PlainTextResponse
from starlette.routing import Route
from starlette.testclient import TestClient


def test_a_certificate_is_kept_and_made_anew_for_another_address_or_when_it_ends(tmp_path: Path) -> None:
    first = certificate(tmp_path / "lan", "192.168.1.20")
    first.key.chmod(0o644)
    assert certificate(tmp_path / "lan", "192.168.1.20") == first
    assert first.key.stat().st_mode & 0o777 == 0o600
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


def test_a_certificate_vouches_for_no_other_place(tmp_path: Path) -> None:
    """It is a leaf; one of the first manner, which could sign others, is made again."""
    kept = certificate(tmp_path, "192.168.1.20")
    made = x509.load_pem_x509_certificate(kept.chain.read_bytes())
    assert not made.extensions.get_extension_for_class(x509.BasicConstraints).value.ca
    assert not made.extensions.get_extension_for_class(x509.KeyUsage).value.key_cert_sign
    key = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "the first manner")])
    alternative = x509.SubjectAlternativeName([x509.IPAddress(ip_address("192.168.1.20"))])
    now = datetime.now(UTC)
    first = (
        x509.CertificateBuilder()
        .subject_name(name)
        .issuer_name(name)
        .public_key(key.public_key())
        .serial_number(1)
        .not_valid_before(now)
        .not_valid_after(now + timedelta(days=300))
        .add_extension(alternative, critical=False)
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .sign(key, hashes.SHA256())
    )
    kept.chain.write_bytes(first.public_bytes(serialization.Encoding.PEM))
    assert certificate(tmp_path, "192.168.1.20").fingerprint != first.fingerprint(hashes.SHA256()).hex(":").upper()


def test_a_code_is_new_with_every_start() -> None:
    codes = {pairing_code() for _ in range(5)}
    assert len(codes) > 1
    assert all(len(code) == 8 and code.isdecimal() for code in codes)


def door(engine: Engine, address: str = "192.168.1.30") -> TestClient:
    inside = Starlette(routes=[Route("/{rest:path}", lambda _: PlainTextResponse("inside"))])
    browsers = Browsers(engine)
    app = PairedOnly(inside, code="12345678", browsers=lambda: browsers)
    return TestClient(app, base_url="https://192.168.1.20", follow_redirects=False, client=(address, 50_000))


def test_nothing_is_shown_before_the_code_and_all_of_it_after(demo: Engine) -> None:
    device = door(demo)
    shown = device.get("/bench/RW-101")
    assert (shown.status_code, "eight digits" in shown.text) == (403, True)
    assert device.get("/api/rail").status_code == 401
    assert device.post("/pair", data={"code": "12345679"}).status_code == 403
    answer = device.post("/pair", data={"code": "1234 5678", "name": "tablet at the window"})
    assert answer.status_code == 303
    assert {"HttpOnly", "Secure", "SameSite=strict"} <= {
        word.strip() for word in answer.headers["set-cookie"].split(";")
    }
    assert device.get("/api/rail").text == "inside"


def test_a_paired_device_stays_so_over_a_start_until_it_is_revoked(demo: Engine) -> None:
    """It is known by a name; revoked, also from the shell, its cookie opens nothing."""
    device = door(demo)
    device.post("/pair", data={"code": "12345678", "name": "tablet at the window"})
    later = door(demo)
    later.cookies = device.cookies
    assert later.get("/").text == "inside"
    browsers = Browsers(demo)
    [known] = browsers.all()
    assert (known.name, known.is_paired) == ("tablet at the window", True)
    browsers.revoke(known.id, "Ilse Varnholt")
    after = door(demo)
    after.cookies = device.cookies
    assert after.get("/").status_code == 403


@pytest.mark.parametrize("cookie", [b"fidicula_browser=\xff\xfe", b"fidicula_browser=a.\xe9", b"=;"])
def test_a_cookie_that_is_none_pairs_nothing(demo: Engine, cookie: bytes) -> None:
    assert door(demo).get("/", headers={b"cookie": cookie}).status_code == 403


def test_a_stranger_who_guesses_shuts_the_door_for_himself_alone(demo: Engine) -> None:
    """Also where forty guesses come at once; a device at another address is paired meanwhile."""
    stranger = door(demo, "192.168.1.66")
    with ThreadPoolExecutor(10) as pool:
        tried = [pool.submit(stranger.post, "/pair", data={"code": "0" * 300}) for _ in range(40)]
        assert Counter(one.result().status_code for one in tried) == {403: 8, 429: 32}
    assert stranger.post("/pair", data={"code": "12345678"}).status_code == 429
    same_door = TestClient(
        stranger.app, base_url="https://192.168.1.20", follow_redirects=False, client=("192.168.1.31", 50_000)
    )
    assert same_door.post("/pair", data={"code": "12345678"}).status_code == 303


def test_without_the_records_a_device_is_told_to_wait(demo: Engine) -> None:
    away = make_engine(demo.url.set(port=1).render_as_string(hide_password=False))
    answer = door(away).get("/api/rail", headers={"cookie": "fidicula_browser=x"})
    assert (answer.status_code, "cannot be reached" in answer.text) == (503, True)


def test_a_browser_that_trusts_the_certificate_gets_through_and_one_that_does_not_is_stopped(
    tmp_path: Path, demo: Engine
) -> None:
    kept = certificate(tmp_path, "127.0.0.1")
    app = PairedOnly(PlainTextResponse("inside"), code="12345678", browsers=lambda: Browsers(demo))
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
