"""Requests too large, too slow, of the wrong kind, from elsewhere, or no text: refused before they are parsed."""

from __future__ import annotations

import http.client
import json
import socket
from collections.abc import Iterator
from concurrent.futures import ThreadPoolExecutor
from typing import Any
from urllib.parse import urlsplit
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.api import body_limits as bodies
from fidicula.hosting.serving import serving
from sqlalchemy import Engine, text

from ..conftest import signed_in

SECURE = {"content-security-policy", "x-content-type-options", "referrer-policy", "x-request-id", "cache-control"}
ARRIVAL = {"family": "violin", "size": "4/4"}


def refused(answer: Any, status: int) -> dict[str, Any]:
    assert answer.status_code == status, answer.text
    assert set(answer.headers) >= SECURE
    return dict(answer.json()["detail"][0])


def test_a_body_over_a_megabyte_is_refused_while_it_arrives(client: TestClient) -> None:
    """Announced or not: nothing past the limit is read, and a session is not even asked for."""
    body = b'{"complaint": "' + b"x" * 1_100_000 + b'"}'
    json_type = {"content-type": "application/json"}
    assert "over 1 MB" in refused(client.post("/api/instruments", content=body, headers=json_type), 413)["msg"]
    pieces = (body[i : i + 50_000] for i in range(0, len(body), 50_000))
    assert refused(client.post("/api/compute/spacing", content=pieces, headers=json_type), 413)["loc"] == ["body"]
    assert client.post("/api/instruments", content=next(pieces, b""), headers=json_type).status_code == 422


def test_a_body_that_does_not_come_is_not_waited_for(app: Any, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(bodies, "JSON_WITHIN_S", 0.3)
    with serving(app) as address:
        at = urlsplit(address)
        with socket.create_connection((at.hostname, at.port)) as slow:
            slow.sendall(
                b"POST /api/compute/spacing HTTP/1.1\r\nhost: 127.0.0.1\r\ncontent-type: application/json\r\n"
                b'content-length: 40\r\n\r\n{"spread"'
            )
            answer = http.client.HTTPResponse(slow)
            answer.begin()
            assert answer.status == 408
            assert "took too long" in json.loads(answer.read())["detail"][0]["msg"]


@pytest.mark.parametrize(
    "kind", ["text/plain", "application/x-www-form-urlencoded", "", "multipart/form-data; boundary=x"]
)
def test_only_json_is_taken(client: TestClient, kind: str) -> None:
    body = json.dumps({"id": str(uuid4()), **ARRIVAL})
    answer = client.post("/api/instruments", content=body, headers={"content-type": kind} if kind else {})
    assert "application/json" in refused(answer, 415)["msg"]


@pytest.mark.parametrize(
    "headers", [{"origin": "http://elsewhere.example"}, {"origin": "null"}, {"sec-fetch-site": "cross-site"}]
)
def test_a_page_of_another_site_gets_no_computation(client: TestClient, headers: dict[str, str]) -> None:
    body = {"spread": 33.5, "diameters": [0.8, 0.75, 0.68, 0.25]}
    assert "another site" in refused(client.post("/api/compute/spacing", json=body, headers=headers), 403)["msg"]
    own = {"origin": "http://127.0.0.1", "sec-fetch-site": "same-origin"}
    assert client.post("/api/compute/spacing", json=body, headers=own).status_code == 200


@pytest.mark.parametrize(
    ("method", "path", "body"),
    [
        ("POST", "/api/instruments", b'{"owner": "\\ud800"}'),
        ("POST", "/api/instruments", b'{"owner": "\\udc00\\ud800"}'),
        ("POST", "/api/instruments", b'{"owner": "a\\u0000b"}'),
        ("POST", "/api/instruments", b'{"owner": "\xed\xa0\x80"}'),
        ("POST", "/api/instruments", b'{"size": NaN}'),
        ("POST", "/api/instruments", b"[" * 200_000),
        ("POST", "/api/session", b'{"name": "\\ud800", "password": "x"}'),
        ("PUT", "/api/recipes/violin/%00", b"{}"),
        ("PUT", "/api/recipes/violin/%ED%A0%80", b"{}"),
        ("GET", "/api/known?words=%00", b""),
        ("GET", "/api/known?words=%ED%A0%80%FF", b""),
        ("GET", "/api/instruments/%00/sheet", b""),
        ("GET", "/api/instruments/%FF%FE/sheet", b""),
    ],
)
def test_what_is_no_text_is_no_failure(client: TestClient, method: str, path: str, body: bytes) -> None:
    answer = client.request(method, path, content=body, headers={"content-type": "application/json"})
    assert answer.status_code < 500, answer.text
    assert method == "GET" or answer.status_code in (404, 422)


@pytest.mark.parametrize("cookie", ["fidicula=\xff\xfe", "fidicula=\u0100", "fidicula=a.\xe9; fidicula=", "=;=;"])
def test_cookies_that_are_none_are_no_failure(app: Any, cookie: str) -> None:
    with TestClient(app, base_url="http://127.0.0.1") as stranger:
        headers = {b"cookie": cookie.encode("utf-8"), b"X-Fidicula-Form": "\xff".encode("latin-1")}
        assert stranger.get("/api/rail", headers=headers).status_code == 401
        assert stranger.post("/api/session/out", headers=headers).status_code == 401


def test_a_mistake_of_the_program_is_a_sentence_with_a_number(
    app: Any, client: TestClient, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    """Whatever fails, the answer names its request, and so does the log, which says where it was and no more."""

    def fails() -> None:
        raise ZeroDivisionError("Wren Kallio's secret")

    monkeypatch.setattr(app.state.services.house, "rail", fails)
    answer = client.get("/api/rail")
    assert "went wrong" in refused(answer, 500)["msg"]
    assert answer.json()["request_id"] == answer.headers["x-request-id"]
    assert "Wren" not in answer.text
    logged = [json.loads(record.getMessage()) for record in caplog.records if record.name == "fidicula"]
    failed = next(line for line in logged if line["event"] == "failed")
    assert failed["request_id"] == answer.headers["x-request-id"]
    assert failed["at"][-1].endswith(" fails")
    assert "Wren" not in caplog.text


def test_metrics_count_by_route_and_name_nobody(client: TestClient) -> None:
    client.get("/api/instruments/RW-102/sheet")
    client.get("/api/known", params={"words": "wren"})
    figures = client.get("/api/metrics")
    assert figures.headers["content-type"].startswith("text/plain; version=0.0.4")
    assert 'route="/api/instruments/{ticket}/sheet",status="200"' in figures.text
    assert not any(word in figures.text for word in ("RW-102", "wren", "Ilse"))


def test_every_answer_has_the_same_headers_and_the_same_form(client: TestClient) -> None:
    for method, path, status in (
        ("GET", "/api/nothing", 404),
        ("DELETE", "/api/rail", 405),
        ("GET", "/api/instruments/RW-999/sheet", 404),
        ("POST", "/api/compute/horoscope", 404),
    ):
        assert {"loc", "msg"} <= refused(client.request(method, path), status).keys()
    foreign = client.get("/api/health", headers={"host": "elsewhere.example"})
    assert foreign.status_code == 400
    assert set(foreign.headers) >= SECURE
    assert client.get("/api/instruments/RW-102/sheet").headers["cache-control"] == "no-store"


@pytest.fixture
def sheet_of(app: Any) -> Iterator[Any]:
    with TestClient(app, base_url="http://127.0.0.1", headers=signed_in(app, "Teo Marchetti-Lund")) as client:
        yield lambda: client.get("/api/instruments/RW-102/sheet")


def heavy_day(jobs: int) -> dict[str, Any]:
    steps = [{"id": str(s), "bench_minutes": 7 + s, "after": [str(s - 1)] if s else []} for s in range(9)]
    return {"benches": 3, "jobs": [{"id": str(j), "due": 60, "steps": steps} for j in range(jobs)]}


def test_the_solver_holds_nobody_up(app: Any, sheet_of: Any) -> None:
    """Days that fill the solver's time are computed one after the other beside the application, which answers on."""
    with TestClient(app, base_url="http://127.0.0.1") as stranger, ThreadPoolExecutor(24) as pool:
        days = [pool.submit(stranger.post, "/api/compute/schedule", json=heavy_day(40)) for _ in range(24)]
        assert sheet_of().status_code == 200
        statuses = {day.result().status_code for day in days}
    assert statuses <= {200, 503}
    assert 200 in statuses
    assert 503 in statuses


def test_a_full_disk_is_named_and_work_goes_on_once_there_is_room(client: TestClient, demo: Engine) -> None:
    """PostgreSQL's own code of a full disk, raised where a reading is written."""
    with demo.begin() as connection:
        connection.execute(
            text(
                "CREATE FUNCTION full_disk() RETURNS trigger LANGUAGE plpgsql AS $$ BEGIN "
                "RAISE EXCEPTION 'could not extend file' USING ERRCODE = '53100'; END $$"
            )
        )
        connection.execute(
            text("CREATE TRIGGER full_disk BEFORE INSERT ON reading FOR EACH ROW EXECUTE FUNCTION full_disk()")
        )
    reading = {
        "id": str(uuid4()), "measure": "projection", "typed": "27", "tool": "caliper",
        "taken_at": "2026-11-23T09:00:00Z", "shown": None,
    }  # fmt: skip
    answer = client.post("/api/instruments/RW-103/readings", json=reading)
    assert "the disk of this shop's computer is full" in refused(answer, 507)["msg"]
    with demo.begin() as connection:
        connection.execute(text("DROP TRIGGER full_disk ON reading"))
    assert client.post("/api/instruments/RW-103/readings", json=reading).status_code == 200
