"""A full house: 20,000 instruments, 1,000,000 readings, 500 tags on the rail, twenty askers at once.

Wanted: the rail and finding while typing answer in under 60 ms at the 95th percentile with 20 requests in flight,
and in at most 1.5 times what the same SQL takes behind a bare route; opening a sheet takes at most 6 queries.
"""

from __future__ import annotations

import statistics
import threading
import time
from collections.abc import Sequence
from urllib.parse import quote

import uvicorn
from fastapi import Response
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.hosting.serving import settle
from fidicula.main import create_app
from fidicula.services.bench.bench import Bench
from fidicula.settings import Settings
from sqlalchemy import Engine, event, text

from bench.save import _ask, _connect, _sign_in
from bench.served import served

INSTRUMENTS, OPEN, READINGS_EACH = 20_000, 485, 50
IN_FLIGHT, EACH = 20, 40
TYPED = "weir 77"

FILL = (
    """INSERT INTO instrument (id, ticket, family, size, string_names, owner, description, is_fleet)
    SELECT gen_random_uuid(), 'H-' || n, 'violin', '4/4', '{G,D,A,E}', 'Owner ' || n % 4000,
        'number ' || n || (ARRAY[' of the ferry', ' of the weir', ' of the island'])[1 + n % 3], n % 9 = 0
    FROM generate_series(1, :instruments) AS n""",
    """INSERT INTO visit (id, instrument_id, kind, complaint, opened_at, closed_at, instruction)
    SELECT gen_random_uuid(), i.id, 'bridge', 'strings high since the regatta', now() - n * interval '1 minute',
        CASE WHEN n > :open THEN now() END, 'crown'
    FROM (SELECT id, row_number() OVER (ORDER BY ticket) AS n FROM instrument WHERE ticket LIKE 'H-%') AS i""",
    """INSERT INTO reading (id, visit_id, measure, position, typed, value, tool, taken_by, taken_at)
    SELECT gen_random_uuid(), v.id, 'end_height', k % 4, '5.1', 5.1, 'caliper', 'someone', now()
    FROM visit v JOIN instrument i ON i.id = v.instrument_id, generate_series(1, :each) AS k
    WHERE i.ticket LIKE 'H-%'""",
)


def fill(engine: Engine) -> None:
    """Instruments, visits and readings beyond what the demo has, straight into the tables."""
    with engine.begin() as connection:
        connection.execute(text("SET LOCAL statement_timeout = 0"))
        # Nobody listens yet: a million readings need not be told one by one.
        connection.execute(text("ALTER TABLE reading DISABLE TRIGGER told"))
        for statement in FILL:
            connection.execute(text(statement), {"instruments": INSTRUMENTS, "open": OPEN, "each": READINGS_EACH})
    with engine.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
        connection.execute(text("VACUUM ANALYZE"))


def serve(port: int) -> None:
    """The application with the same SQL behind bare routes; runs in the server's process."""
    app = create_app(Settings())
    engine = app.state.engine

    def bare_rail() -> Response:
        with UnitOfWork(engine, only_reads=True) as uow:
            return Response(uow.open_visits.tags({}, {})[0], media_type="application/json")

    def bare_known(words: str) -> Response:
        with UnitOfWork(engine, only_reads=True) as uow:
            return Response(uow.open_visits.known(words, limit=8), media_type="application/json")

    for path, route in (("/bench/rail", bare_rail), ("/bench/known", bare_known)):
        app.get(path)(route)
        app.router.routes.insert(0, app.router.routes.pop())
    settle()
    uvicorn.run(app, host="127.0.0.1", port=port, log_level="warning", lifespan="off")


def _prepare(engine: Engine) -> None:
    fill(engine)
    _queries(engine)


def run() -> None:
    with served("bench.house", _prepare, durable=False) as port:
        _measure(port)


def _queries(engine: Engine) -> None:
    asked: list[str] = []
    Bench(engine).sheet("RW-102")
    event.listen(engine, "before_cursor_execute", lambda *args: asked.append(args[2]))
    Bench(engine).sheet("RW-102")
    print(f"opening a sheet: {len(asked)} queries (wanted: at most 6)")


def _measure(port: int) -> None:
    _sign_in(_connect(port))
    typed = [quote(TYPED[: i + 1]) for i in range(len(TYPED))]
    for name, paths, bare in (
        ("rail of 500 tags", ["/api/rail"], ["/bench/rail"]),
        (
            f"finding while “{TYPED}” is typed",
            [f"/api/known?words={words}" for words in typed],
            [f"/bench/known?words={words}" for words in typed],
        ),
    ):
        _in_flight(port, paths, 3)
        theirs, ours = _in_flight(port, bare, EACH), _in_flight(port, paths, EACH)
        print(
            f"{name}, {IN_FLIGHT} in flight: p95 {ours * 1e3:.0f} ms (wanted: under 60); "
            f"the same SQL behind a bare route {theirs * 1e3:.0f} ms, ratio {ours / theirs:.2f} (wanted: 1.5)"
        )


def _in_flight(port: int, paths: Sequence[str], each: int) -> float:
    """The 95th percentile of the answers' times. [s]"""
    times: list[float] = []

    def ask() -> None:
        connection = _connect(port)
        for i in range(each):
            started = time.perf_counter()
            _ask(connection, "GET", paths[i % len(paths)], None)
            times.append(time.perf_counter() - started)

    threads = [threading.Thread(target=ask) for _ in range(IN_FLIGHT)]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return statistics.quantiles(times, n=20)[-1]
