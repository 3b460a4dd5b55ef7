"""What a stranger sends on purpose: files that are none, days that fill the solver, requests that fit nothing.

Wanted: of 100 hostile files none is a failure, with under 600 MB of memory for the application and its workers; with
16 hostile solver calls at once a reading stays under 100 ms at the 95th percentile; of 10,000 fuzzed requests none is
a failure, and none is answered in a way that the OpenAPI document does not tell of.
"""

from __future__ import annotations

import http.client
import os
import random
import threading
import time
import zlib
from collections import Counter
from collections.abc import Callable
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime
from io import BytesIO
from typing import Any
from uuid import uuid4

import psutil
import schemathesis
import uvicorn
from fidicula.hosting.serving import settle
from fidicula.main import create_app
from fidicula.settings import Settings
from hypothesis import HealthCheck, Phase, given, seed, settings
from PIL import Image

from bench.load import _of_port, _percentiles
from bench.save import _HEADERS, _ask, _connect, _sign_in
from bench.served import served, until_it_listens

FUZZED = int(os.environ.get("FIDICULA_BENCH_FUZZED", "10000"))
FILES, SOLVERS = 100, 16
MOST_MB, MOST_MS = 600, 100


def serve(port: int) -> None:
    """The application alone; runs in the server's process."""
    app = create_app(Settings())
    settle()
    uvicorn.run(app, host="127.0.0.1", port=port, log_level="warning", access_log=False, lifespan="off")


def run() -> None:
    with served("bench.hostile", lambda _: None, durable=False) as port:
        until_it_listens(port)
        _sign_in(_connect(port))
        server = _of_port(port)
        assert server is not None
        statuses, memory = _files(port, server)
        p95 = _solvers(port)
        asked, failed, undocumented = _fuzzed(port)
    print(
        f"hostile: {FILES} files: {_failures(statuses)} failures, {memory:.0f} MB at most (wanted: 0, {MOST_MB}); a "
        f"reading beside {SOLVERS} solver calls: p95 {p95:.0f} ms (wanted: {MOST_MS}); {asked} fuzzed requests: "
        f"{len(failed)} failures, {len(undocumented)} undocumented (wanted: 0, 0)"
    )
    for line in (failed + undocumented)[:8]:
        print(f"  {line[:240]}")


def _failures(statuses: Counter[int]) -> int:
    return sum(count for status, count in statuses.items() if status >= 500 and status != 503)


def _files(port: int, server: psutil.Process) -> tuple[Counter[int], float]:
    """Statuses, and the most memory of the application with all of its workers. [MB]"""
    most, ends = 0.0, threading.Event()

    def watch() -> None:
        nonlocal most
        while not ends.wait(0.02):
            rss = 0
            for process in (server, *server.children(recursive=True)):
                try:
                    rss += process.memory_info().rss
                except psutil.NoSuchProcess:
                    continue
            most = max(most, rss / 1e6)

    watching = threading.Thread(target=watch)
    watching.start()
    with ThreadPoolExecutor(4) as pool:
        statuses = Counter(pool.map(lambda data: _send_file(port, data), _hostile_files()))
    ends.set()
    watching.join()
    return statuses, most


def _send_file(port: int, data: bytes) -> int:
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=120)
    headers = {**_HEADERS, "content-type": "image/jpeg"}
    try:
        connection.request("POST", f"/api/instruments/RW-109/photos?id={uuid4()}&item=seams", data, headers)
        return connection.getresponse().status
    except OSError:
        return 413  # refused while it was still being sent
    finally:
        connection.close()


def _hostile_files() -> list[bytes]:
    """Small files that open large, broken ones of every kind, and other kinds under a picture's name."""
    chance = random.Random(15)
    good = [_picture(form, mode) for form in ("JPEG", "PNG", "WEBP") for mode in ("RGB", "L")]
    files = [
        _picture("PNG", mode, size) for mode in ("1", "L", "RGB", "RGBA") for size in ((8000, 5000), (15000, 10000))
    ]
    files += [_picture("JPEG", "RGB", (8000, 5000)), _picture("WEBP", "RGBA", (8000, 5000)), _picture("GIF", "P"), b""]
    files += [_picture("TIFF", "RGB"), _picture("BMP", "RGB"), b"%PDF-1.7", b"<svg xmlns='x'/>", b"\x89PNG\r\n\x1a\n"]
    files.append(_text_bomb())
    while len(files) < FILES:
        broken = bytearray(chance.choice(good))
        for _ in range(chance.randrange(1, 30)):
            broken[chance.randrange(len(broken))] = chance.randrange(256)
        files.append(bytes(broken[: chance.randrange(20, len(broken))] if chance.random() < 0.5 else broken))
    return files


def _picture(form: str, mode: str, size: tuple[int, int] = (300, 200)) -> bytes:
    out = BytesIO()
    Image.new(mode, size).save(out, form)
    return out.getvalue()


def _text_bomb() -> bytes:
    """A PNG with a text that is compressed a thousand times."""
    png = _picture("PNG", "RGB")
    body = b"zTXt" + b"words\0\0" + zlib.compress(b"\0" * 50_000_000, 9)
    chunk = (len(body) - 4).to_bytes(4, "big") + body + zlib.crc32(body).to_bytes(4, "big")
    return png[:33] + chunk + png[33:]


def _solvers(port: int) -> float:
    """A reading's time at the 95th percentile while the solver is called without end. [ms]"""
    steps = [{"id": str(s), "bench_minutes": 7 + s, "after": [str(s - 1)] if s else []} for s in range(9)]
    day = {"benches": 3, "jobs": [{"id": str(j), "due": 60, "steps": steps} for j in range(44)]}
    ends = threading.Event()

    def call() -> None:
        while not ends.is_set():
            try:
                _ask(_connect(port), "POST", "/api/compute/schedule", day)
            except (RuntimeError, OSError):
                time.sleep(0.05)

    callers = [threading.Thread(target=call) for _ in range(SOLVERS)]
    for caller in callers:
        caller.start()
    time.sleep(4)
    times = []
    connection = _connect(port)
    for i in range(150):
        body = {
            "id": str(uuid4()), "measure": "end_height", "position": i % 4, "typed": "5.2", "tool": "caliper",
            "taken_at": datetime.now(UTC).isoformat(), "after_work": 0, "shown": None,
        }  # fmt: skip
        started = time.perf_counter()
        _ask(connection, "POST", "/api/instruments/RW-115/readings", body)
        times.append(time.perf_counter() - started)
        time.sleep(0.03)
    ends.set()
    for caller in callers:
        caller.join()
    return _percentiles(times)[1] * 1e3


def _fuzzed(port: int) -> tuple[int, list[str], list[str]]:
    """How many requests, those that failed, and those that were answered otherwise than is documented."""
    schema = schemathesis.openapi.from_url(f"http://127.0.0.1:{port}/api/openapi.json")
    operations = [found.ok() for found in schema.get_all_operations()]
    asked, failed, undocumented = 0, [], []
    each = FUZZED // len(operations) + 1
    headers = {name: value for name, value in _HEADERS.items() if name != "content-type"}

    def send(case: Any, documented: set[str]) -> None:
        nonlocal asked
        asked += 1
        answer = case.call(headers=headers)
        said = f"{case.method} {case.path}: {answer.status_code} {answer.text[:120]}"
        if answer.status_code >= 500 and answer.status_code != 503:
            failed.append(said)
        if str(answer.status_code) not in documented:
            undocumented.append(said)

    # Some operations have fewer different requests than their share: others are asked again, with another seed.
    for start in (15, 16, 17):
        for operation in operations:
            if operation.path.startswith("/api/session/out") or asked >= FUZZED:
                continue
            documented = {str(status) for status in operation.definition.raw["responses"]}
            check = given(case=operation.as_strategy())(_for(documented, send))
            bounded = settings(
                max_examples=each,
                deadline=None,
                phases=[Phase.generate],
                database=None,
                suppress_health_check=list(HealthCheck),
            )
            seed(start)(bounded(check))()
    return asked, failed, undocumented


def _for(documented: set[str], send: Callable[[Any, set[str]], None]) -> Callable[[Any], None]:
    def check(case: Any) -> None:
        send(case, documented)

    return check
