"""A full house out and in as an archive, questions about it, the history of one instrument, and a set-up sheet.

Wanted: 20,000 instruments with 1,000,000 readings go out and come in within 300 MB of memory each, and come in at no
less than half the speed at which they went out; a question about that house is answered in under 100 ms at the 95th
percentile; the history of 30 visits with 3,000 readings in under 200 ms; a set-up sheet as a PDF in under 1 s.
"""

from __future__ import annotations

import json
import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from pathlib import Path

import psutil
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.services.asking.asking import Asking
from fidicula.services.visits.histories import Histories
from fidicula.services.visits.papers import Papers
from sqlalchemy import text

from bench.house import fill
from bench.served import beside_an_empty_one

MB = 1_000_000
QUESTIONS = (
    "cellos with projection under 78",
    "violins with G at the board's end over 5",
    "violins with heights at the board's end under 5",
    "post moved twice this year",
    "due this month",
    "tensions changed since June",
    '"ferry" violins in the house',
    "owner:owner no strings changed this year",
)
HISTORY = (
    """INSERT INTO visit (id, instrument_id, kind, opened_at, closed_at)
    SELECT gen_random_uuid(), i.id, 'recheck', now() - n * interval '90 days', now() - n * interval '90 days'
    FROM instrument i, generate_series(1, 29) AS n WHERE ticket = 'RW-087'""",
    """INSERT INTO reading (id, visit_id, measure, position, typed, value, tool, taken_by, taken_at)
    SELECT gen_random_uuid(), v.id, (ARRAY['end_height', 'nut_height', 'slot_depth'])[1 + k % 3], k % 4, '5.1',
        5 + random(), 'caliper', 'someone', v.opened_at
    FROM visit v JOIN instrument i ON i.id = v.instrument_id, generate_series(1, 100) AS k WHERE ticket = 'RW-087'""",
)


def run() -> None:
    with beside_an_empty_one() as (engine, empty), tempfile.TemporaryDirectory() as folder:
        fill(engine)
        with engine.begin() as connection:
            for statement in HISTORY:
                connection.execute(text(statement))
        _small(engine)
        path = Path(folder) / "house.zip"
        out = _in_process(engine, ["export", str(path)])
        size = path.stat().st_size / MB
        print(f"out: {out[0]:.0f} s, {out[1] / MB:.0f} MB of memory (wanted: under 300), {size:.0f} MB on disk")
        looked = _in_process(empty, ["look", str(path)])
        print(f"looked at: {looked[0]:.0f} s, {looked[1] / MB:.0f} MB of memory (wanted: under 300)")
        told = path.with_suffix(".choices")
        told.write_text(json.dumps({"choices": {}, "by": "bench"}), encoding="utf-8")
        came = _in_process(empty, ["import", str(path), str(told)])
        print(
            f"in: {came[0]:.0f} s, {came[1] / MB:.0f} MB of memory (wanted: under 300), "
            f"{out[0] / came[0]:.2f} of the speed out (wanted: 0.5)"
        )


def _in_process(engine: Engine, arguments: list[str]) -> tuple[float, int]:
    """Seconds, and the most memory that it held."""
    url = engine.url.render_as_string(hide_password=False)
    begun, most = time.perf_counter(), 0
    process = subprocess.Popen(
        [sys.executable, "-m", "fidicula.cli.archives", *arguments],
        env={**os.environ, "FIDICULA_DATABASE_URL": url},
        stdout=subprocess.DEVNULL,
    )
    watched = psutil.Process(process.pid)
    while process.poll() is None:
        try:
            most = max(most, watched.memory_info().rss)
        except psutil.Error:
            break
        time.sleep(0.05)
    if process.wait() != 0:
        sys.exit(f"{arguments[0]} came to nothing")
    return time.perf_counter() - begun, most


def _small(engine: Engine) -> None:
    bare = _times(lambda: _bare(engine), 200)
    asking, histories = Asking(engine), Histories(engine)
    papers = Papers(engine)
    for words in QUESTIONS:
        _told(f"“{words}”", _times(lambda words=words: asking.ask(words), 40), bare, 100)  # type: ignore[misc]
    _told("the history of 30 visits with 3,000 readings", _times(lambda: histories.of("RW-087"), 30), bare, 200)
    _told("a set-up sheet as PDF", _times(lambda: papers.pdf("RW-102", "setup"), 20), bare, 1000)


def _bare(engine: Engine) -> None:
    with UnitOfWork(engine, only_reads=True) as uow:
        uow.ask_nothing()


def _times(ask: Callable[[], object], rounds: int) -> list[float]:
    """[ms], sorted."""
    ask()
    found = []
    for _ in range(rounds):
        begun = time.perf_counter()
        ask()
        found.append((time.perf_counter() - begun) * 1000)
    return sorted(found)


def _told(what: str, times: list[float], bare: list[float], wanted: int) -> None:
    late, ratio = times[int(len(times) * 0.95)], statistics.median(times) / statistics.median(bare)
    print(f"{what}: p95 {late:.0f} ms (wanted: under {wanted}), {ratio:.0f} times a bare question", flush=True)
