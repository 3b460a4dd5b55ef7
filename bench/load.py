"""A full shop under load: 20,000 instruments, 1,000,000 readings, 50 benches at once, two processes on one database.

Wanted: a reading at most 3 times what a bare route with the same SQL takes, at the 95th percentile.
Each bench asks, waits a moment as hands do, and asks again; every second question goes to the bare route.
FIDICULA_BENCH_SECONDS says for how long.
"""

from __future__ import annotations

import http.client
import os
import random
import statistics
import subprocess
import sys
import threading
import time
from collections import defaultdict
from collections.abc import Callable
from datetime import UTC, datetime
from pathlib import Path
from typing import Any
from uuid import uuid4

import psutil
import uvicorn
from fastapi import Depends, Request, Response
from fidicula.api.auth import signed
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.readings import NewReading
from fidicula.hosting.cluster import free_port
from fidicula.hosting.serving import settle
from fidicula.main import create_app
from fidicula.settings import Settings
from sqlalchemy import Engine

from bench.house import fill
from bench.save import _ask, _connect, _sign_in
from bench.served import served, until_it_listens

SECONDS = float(os.environ.get("FIDICULA_BENCH_SECONDS", "90"))
BENCHES = 50
PAUSE_S = 0.8
"""On average, between an answer and the next question of a bench."""
WANTED = 3.0
SHARES = {"reading": 6, "sheet": 3, "house": 1, "find": 1}


def serve(port: int) -> None:
    """The application, with the same SQL behind bare routes; runs in the server's process."""
    app = create_app(Settings())
    engine = app.state.engine

    def bare_reading(body: dict[str, Any]) -> dict[str, str]:
        with UnitOfWork(engine) as uow:
            uow.instruments.lock(body["ticket"])
            found = uow.one_sheet.of(body["ticket"])
            assert found is not None
            there = next((r for r in reversed(found.readings) if (r.measure, r.position) == ("projection", None)), None)
            new = NewReading(
                id=uuid4(),
                visit_id=found.visit.id,
                measure="projection",
                position=None,
                typed="27",
                value=27.0,
                tool="caliper",
                direction=None,
                taken_by="someone",
                taken_at=datetime.now(UTC),
                after_work=None,
                repeats=False,
                doubt=None,
                suggested=None,
            )
            uow.log.add_reading(new, corrects=None if there is None else there.number)
            uow.commit()
        return {"id": str(new.id)}

    def bare_sheet(ticket: str) -> dict[str, int]:
        with UnitOfWork(engine, only_reads=True) as uow:
            found = uow.one_sheet.of(ticket)
        return {"readings": 0 if found is None else len(found.readings)}

    def bare_house(request: Request) -> Response:
        with UnitOfWork(engine, only_reads=True) as uow:
            stamp = uow.open_visits.stamp()
            if request.headers.get("if-none-match") == stamp:
                return Response(status_code=304)
            return Response(uow.open_visits.tags({}, {})[0], media_type="application/json")

    def bare_find(words: str) -> Response:
        with UnitOfWork(engine, only_reads=True) as uow:
            return Response(uow.open_visits.known(words, limit=8), media_type="application/json")

    routes: list[tuple[str, str, Callable[..., Any]]] = [
        ("POST", "/bench/reading", bare_reading),
        ("GET", "/bench/sheet", bare_sheet),
        ("GET", "/bench/house", bare_house),
        ("GET", "/bench/find", bare_find),
    ]
    for method, path, route in routes:
        app.add_api_route(path, route, methods=[method], dependencies=[Depends(signed)])
        app.router.routes.insert(0, app.router.routes.pop())
    settle()
    uvicorn.run(app, host="127.0.0.1", port=port, log_level="warning", access_log=False, lifespan="off")


def run() -> None:
    address: list[str] = []

    def prepare(engine: Engine) -> None:
        fill(engine)
        address.append(engine.url.render_as_string(hide_password=False))

    with served("bench.load", prepare, durable=True) as port:
        second = free_port()
        other = subprocess.Popen(
            [sys.executable, "-c", f"from bench.load import serve; serve({second})"],
            env={**os.environ, "FIDICULA_DATABASE_URL": address[0]},
            cwd=Path(__file__).parents[1],
        )
        try:
            until_it_listens(port)
            until_it_listens(second)
            _measure([port, second], other)
        finally:
            other.terminate()
            other.wait()


def _measure(ports: list[int], other: subprocess.Popen[bytes]) -> None:
    _sign_in(_connect(ports[0]))
    servers = [_of_port(port) or psutil.Process(other.pid) for port in ports]
    times: dict[str, list[float]] = defaultdict(list)
    failed: list[str] = []
    ends = time.monotonic() + SECONDS
    threads = [threading.Thread(target=_bench, args=(i, ports[i % 2], ends, times, failed)) for i in range(BENCHES)]
    for thread in threads:
        thread.start()
    memory = []
    while any(thread.is_alive() for thread in threads):
        memory.append(sum(server.memory_info().rss for server in servers) / 1e6)
        time.sleep(1)
    if failed:
        print(f"  failed, for instance: {failed[0][:200]}")
    for name in SHARES:
        ours, bare = _percentiles(times[name]), _percentiles(times[f"bare {name}"])
        print(
            f"  {name}, p50/p95/p99: {_ms(ours)} ms; the same SQL behind a bare route: {_ms(bare)} ms; "
            f"ratios {' / '.join(f'{a / b:.2f}' for a, b in zip(ours, bare, strict=True))}"
        )
    ratio = _percentiles(times["reading"])[1] / _percentiles(times["bare reading"])[1]
    third = max(1, len(memory) // 3)
    print(
        f"load: {BENCHES} benches at two processes for {SECONDS:.0f} s, {sum(map(len, times.values()))} answers, "
        f"{len(failed)} failed: a reading's p95 is {ratio:.2f} times the bare route's (wanted: {WANTED:g}); memory of "
        f"both {statistics.mean(memory[:third]):.0f} MB in the first third, {statistics.mean(memory[-third:]):.0f} MB "
        f"in the last"
    )


def _bench(i: int, port: int, ends: float, times: dict[str, list[float]], failed: list[str]) -> None:
    """One bench at an instrument of its own."""
    chance = random.Random(i)
    connection = _connect(port)
    ticket = f"H-{100 + i}"
    is_bare = bool(i % 2)
    while time.monotonic() < ends:
        time.sleep(chance.expovariate(1 / PAUSE_S))
        (name,) = chance.choices(list(SHARES), list(SHARES.values()))
        is_bare = not is_bare
        question = _question(name, ticket, is_bare=is_bare)
        started = time.perf_counter()
        try:
            try:
                _ask(connection, *question)
            except (ConnectionError, http.client.HTTPException):
                # A connection that was idle for long is closed by the server, as it is for a browser.
                connection = _connect(port)
                started = time.perf_counter()
                _ask(connection, *question)
        except (RuntimeError, OSError) as error:
            failed.append(str(error))
            continue
        times[f"bare {name}" if is_bare else name].append(time.perf_counter() - started)


def _question(name: str, ticket: str, *, is_bare: bool) -> tuple[str, str, dict[str, Any] | None]:
    if name == "reading" and is_bare:
        return "POST", "/bench/reading", {"ticket": ticket}
    if name == "reading":
        body = {
            "id": str(uuid4()), "measure": "projection", "typed": "27", "tool": "caliper",
            "taken_at": datetime.now(UTC).isoformat(), "after_work": 0, "shown": None,
        }  # fmt: skip
        return "POST", f"/api/instruments/{ticket}/readings", body
    if name == "sheet":
        return "GET", f"/bench/sheet?ticket={ticket}" if is_bare else f"/api/instruments/{ticket}/sheet", None
    if name == "house":
        return "GET", "/bench/house" if is_bare else "/api/rail", None
    return "GET", "/bench/find?words=weir" if is_bare else "/api/known?words=weir", None


def _of_port(port: int) -> psutil.Process | None:
    """The process that listens on a port."""
    for connection in psutil.net_connections("tcp4"):
        if connection.status == psutil.CONN_LISTEN and connection.laddr.port == port and connection.pid:
            return psutil.Process(connection.pid)
    return None


def _percentiles(times: list[float]) -> tuple[float, float, float]:
    parts = statistics.quantiles(times, n=100)
    return parts[49], parts[94], parts[98]


def _ms(seconds: tuple[float, float, float]) -> str:
    return " / ".join(f"{value * 1e3:.1f}" for value in seconds)
