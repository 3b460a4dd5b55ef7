"""An estimate of 20 lines, and the drawers' search over 5,000 items.

Wanted: the plan with all its sums is reckoned anew in under 50 ms at the median; the search answers in under 50 ms at
the 95th percentile. Both are also told as a multiple of a bare route that only asks the database whether it is there.
"""

from __future__ import annotations

import statistics
import time
from collections.abc import Callable
from uuid import uuid4

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.services.shop.pricing.drawers import Drawers
from fidicula.services.shop.pricing.plan import Adding, Plans
from fidicula.tables.pricing import jobs
from sqlalchemy import text

from bench.served import on_demo

LINES, ITEMS, ROUNDS = 20, 5_000, 200
TYPED = ("b", "bl", "blank", "blank 41", "blank 41 fine", "drawer 7", "post", "pegs weir", "4711", "nothing of it")

FILL = """INSERT INTO stock_item (id, kind, family, label, figure, place, supplier, added_by)
    SELECT gen_random_uuid(), (ARRAY['bridge_blank', 'post', 'pegs', 'string_set', 'other'])[1 + n % 5],
        (ARRAY['violin', 'viola', 'cello', 'bass', ''])[1 + n % 5],
        (ARRAY['blank ', 'post ', 'pegs ', 'set ', 'part '])[1 + n % 5] || n
            || (ARRAY[' fine', ' plain', ' of the weir'])[1 + n % 3],
        30 + n % 70, 'drawer ' || n % 40, 'supplier ' || n % 50, 'bench'
    FROM generate_series(1, :items) AS n"""
ENTRIES = """INSERT INTO stock_entry (id, item_id, what, value, entered_by)
    SELECT gen_random_uuid(), i.id, w.what, w.value, 'bench' FROM stock_item i,
        (VALUES ('count', 12), ('price', 9.5), ('count', -2)) AS w (what, value)"""


def run() -> None:
    with on_demo() as engine:
        _fill(engine)
        bare = _times(lambda _: _bare(engine))
        plans, drawers = Plans(engine), Drawers(engine)
        plans.add("RW-109", Adding(list(jobs())[:LINES], "wish"), line_id=uuid4(), by="bench")
        lines = len(plans.view("RW-109").lines)
        _told(f"an estimate of {lines} lines", _times(lambda _: plans.view("RW-109")), bare)
        found = _times(lambda i: drawers.found(TYPED[i % len(TYPED)]))
        _told(f"a search over {ITEMS} items", found, bare)


def _fill(engine: Engine) -> None:
    with engine.begin() as connection:
        connection.execute(text(FILL), {"items": ITEMS})
        connection.execute(text(ENTRIES))
    with engine.connect().execution_options(isolation_level="AUTOCOMMIT") as connection:
        connection.execute(text("VACUUM ANALYZE"))


def _bare(engine: Engine) -> None:
    with UnitOfWork(engine, only_reads=True) as uow:
        uow.ask_nothing()


def _times(ask: Callable[[int], object]) -> list[float]:
    for i in range(20):
        ask(i)
    found = []
    for i in range(ROUNDS):
        begun = time.perf_counter()
        ask(i)
        found.append((time.perf_counter() - begun) * 1000)
    return sorted(found)


def _told(what: str, times: list[float], bare: list[float]) -> None:
    middle, late = statistics.median(times), times[int(len(times) * 0.95)]
    times_bare = middle / statistics.median(bare)
    print(f"{what}: {middle:.1f} ms, p95 {late:.1f} ms (wanted: under 50), {times_bare:.0f} times a bare question")
