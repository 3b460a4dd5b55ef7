"""Saving a reading and getting the new cut back, against a bare route on the same server.

Wanted: no slower than 3 times a bare FastAPI route that does one committed INSERT and one SELECT. Both are
asked in turns over one connection each, on a durable PostgreSQL, the server in a process of its own.
"""

from __future__ import annotations

import http.client
import json
import statistics
import time
from typing import Any
from uuid import uuid4

import uvicorn
from fastapi import Depends
from fidicula.api.auth import signed
from fidicula.cli.demo import demo_sign_ins
from fidicula.db.unit_of_work import make_engine
from fidicula.hosting.serving import settle
from fidicula.main import create_app
from fidicula.settings import Settings
from sqlalchemy import Engine, text

from bench.served import served

ROUNDS = 400
TICKET = "RW-102"


def serve(port: int) -> None:
    """The application with the bare route beside its own; runs in the server's process."""
    app = create_app(Settings())
    # Connections of its own: a bare SELECT ends in a rollback, at which the driver forgets what it had prepared.
    engine = make_engine(Settings().database_url)

    def bare(body: dict[str, Any]) -> dict[str, Any]:
        with engine.begin() as connection:
            connection.execute(text("INSERT INTO bare (typed) VALUES (:typed)"), {"typed": body["typed"]})
        with engine.connect() as connection:
            row = connection.execute(text("SELECT id, typed FROM bare ORDER BY id DESC LIMIT 1")).one()
        return {"id": row.id, "typed": row.typed}

    # The page's catch-all stands last in the routes; the bare ones have to come before it.
    app.post("/bench/bare")(bare)
    app.router.routes.insert(0, app.router.routes.pop())
    app.post("/bench/signed", dependencies=[Depends(signed)])(bare)
    app.router.routes.insert(0, app.router.routes.pop())
    settle()
    uvicorn.run(app, host="127.0.0.1", port=port, log_level="warning", lifespan="off")


def _bare_table(engine: Engine) -> None:
    with engine.begin() as connection:
        connection.execute(text("CREATE TABLE bare (id bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY, typed text)"))


def run() -> None:
    with served("bench.save", _bare_table, durable=True) as port:
        _measure(port)


def _measure(port: int) -> None:
    connection = _connect(port)
    _sign_in(connection)
    sheet = json.loads(_ask(connection, "GET", f"/api/instruments/{TICKET}/sheet", None))
    bare, behind, saved = [], [], []
    for i in range(ROUNDS):
        typed = f"5.{i % 90 + 10}"
        started = time.perf_counter()
        _ask(connection, "POST", "/bench/bare", {"typed": typed})
        bare.append(time.perf_counter() - started)
        started = time.perf_counter()
        _ask(connection, "POST", "/bench/signed", {"typed": typed})
        between = time.perf_counter()
        answer = _ask(
            connection,
            "POST",
            f"/api/instruments/{TICKET}/readings",
            {
                "id": str(uuid4()),
                "measure": "end_height",
                "position": i % 4,
                "typed": typed,
                "tool": "caliper",
                "taken_at": "2026-11-23T09:00:00Z",
                "shown": None,
                "after_work": sheet["last_work"],
            },
        )
        saved.append(time.perf_counter() - between)
        behind.append(between - started)
        assert json.loads(answer)["cut"]["strings"][i % 4]["wood"] is not None
    for part, name in ((slice(20, 120), "first hundred readings of a visit"), (slice(20, None), "all four hundred")):
        ours, theirs, signed_in = (statistics.median(times[part]) * 1e3 for times in (saved, bare, behind))
        print(
            f"save and new cut, {name}: {ours:.2f} ms; bare: {theirs:.2f} ms, ratio {ours / theirs:.2f} (wanted: 3); "
            f"bare behind the same sign-in: {signed_in:.2f} ms, ratio {ours / signed_in:.2f}"
        )


def _connect(port: int) -> http.client.HTTPConnection:
    deadline = time.monotonic() + 30
    while True:
        connection = http.client.HTTPConnection("127.0.0.1", port, timeout=10)
        try:
            _ask(connection, "GET", "/api/health", None)
            return connection
        except ConnectionError:
            if time.monotonic() > deadline:
                raise
            time.sleep(0.1)


_HEADERS = {"content-type": "application/json"}


def _sign_in(connection: http.client.HTTPConnection) -> None:
    name, _, password, _ = demo_sign_ins()[0]
    connection.request("POST", "/api/session", json.dumps({"name": name, "password": password}), _HEADERS)
    answer = connection.getresponse()
    answer.read()
    _HEADERS["cookie"] = (answer.getheader("set-cookie") or "").split(";")[0]
    session = json.loads(_ask(connection, "GET", "/api/session", None))
    _HEADERS["X-Fidicula-Form"] = session["signed_in"]["form_token"]


def _ask(connection: http.client.HTTPConnection, method: str, path: str, body: dict[str, Any] | None) -> bytes:
    content = json.dumps(body) if body is not None else None
    connection.request(method, path, content, _HEADERS)
    answer = connection.getresponse()
    data = answer.read()
    if answer.status != 200:
        raise RuntimeError(f"{path}: {answer.status} {data!r}")
    return data
