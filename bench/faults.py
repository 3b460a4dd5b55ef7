"""What is taken away in the middle of writes: the application, its database, single connections, room, the clock.

Wanted: of 500 kills no acknowledged reading or work lost and none doubled, and work going on by itself in under 10 s
after each. The application is started again as whatever runs it would; all else comes back by itself.
FIDICULA_BENCH_KILLS says how many kills.
"""

from __future__ import annotations

import contextlib
import os
import random
import signal
import subprocess
import sys
import tempfile
import threading
import time
from collections.abc import Callable, Iterator
from contextlib import contextmanager
from datetime import timedelta
from pathlib import Path

import psutil
import psycopg
from fidicula.hosting.cluster import free_port
from fidicula.hosting.home import default_home
from fidicula.hosting.server import RunningCluster
from fidicula.settings import Settings

from bench.writers import Bench, arrived, first_owner

KILLS = int(os.environ.get("FIDICULA_BENCH_KILLS", "500"))
BENCHES = 4
WORK_BETWEEN_S = 0.3
GIVEN_UP_AFTER_S = 60.0
ROOM_BYTES = 400_000_000
BACK_WITHIN_S = 10.0
SHARES = (("a connection", 0.4), ("the database", 0.3), ("the application", 0.2), ("the database, stopped", 0.1))


class Running:
    """The application as it is started for a shop, and the cluster that it keeps."""

    def __init__(self, home: Path) -> None:
        self.home, self.port = home, free_port()
        self.start()

    def start(self) -> None:
        self.process = subprocess.Popen(
            [sys.executable, "-m", "fidicula.cli", "start", "--port", str(self.port)],
            env={**os.environ, "FIDICULA_STATE": str(self.home)},
            stderr=subprocess.DEVNULL,
        )

    def until_it_answers(self) -> None:
        bench = Bench(self.port, "", {})
        deadline = time.monotonic() + GIVEN_UP_AFTER_S
        while time.monotonic() < deadline:
            try:
                if bench.ask("GET", "/api/ready")[0] == 200:
                    return
            except OSError:
                pass
            time.sleep(0.1)
        raise RuntimeError("the application did not start")

    def server(self) -> RunningCluster:
        lines = (self.home / "data" / "postmaster.pid").read_text().splitlines()
        return RunningCluster(int(lines[3]), (self.home / "app.password").read_text())

    def postmaster(self) -> psutil.Process:
        """The server that runs; while there is none it is waited for."""
        deadline = time.monotonic() + GIVEN_UP_AFTER_S
        while True:
            try:
                return psutil.Process(int((self.home / "data" / "postmaster.pid").read_text().splitlines()[0]))
            except (OSError, ValueError, IndexError, psutil.NoSuchProcess):
                if time.monotonic() > deadline:
                    raise
                time.sleep(0.02)

    def kill(self, what: str) -> None:
        """Take something away. Of the database it is waited for until another has taken its place."""
        if what == "the application":
            self.process.kill()
            self.process.wait()
            self.start()
            return
        server = self.postmaster()
        if what == "a connection":
            serving = [c for c in server.children() if "127.0.0.1" in " ".join(c.cmdline())]
            random.choice(serving or server.children()).kill()
            time.sleep(0.1)
            return
        for process in (*server.children(), server) if "stopped" in what else ():
            process.send_signal(signal.SIGSTOP)
        if "stopped" not in what:
            server.kill()
        deadline = time.monotonic() + GIVEN_UP_AFTER_S
        while self.postmaster().pid == server.pid:
            if time.monotonic() > deadline:
                raise RuntimeError("the database is not started again")
            time.sleep(0.02)


@contextmanager
def running() -> Iterator[Running]:
    """On a small disk of its own where one can be made, so that it can be filled."""
    parent = default_home(Settings().root).parent
    parent.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory(dir=parent, prefix="faults-") as folder:
        Path(folder).chmod(0o755)
        mount = ["mount", "-t", "tmpfs", "-o", f"size={ROOM_BYTES},mode=0755", "tmpfs", folder]
        is_small = subprocess.run(mount, capture_output=True, check=False).returncode == 0
        found = Running(Path(folder) / "home")
        try:
            found.until_it_answers()
            yield found
        finally:
            found.process.send_signal(signal.SIGINT)
            found.process.wait(timeout=60)
            if is_small:
                subprocess.run(["umount", "--lazy", folder], check=False)


def run() -> None:
    random.seed(15)
    with running() as app:
        headers = first_owner(app.port)
        benches = arrived(app.port, headers, BENCHES)
        ends = threading.Event()
        threads = [threading.Thread(target=bench.run, args=(ends,)) for bench in benches]
        for thread in threads:
            thread.start()
        slowest: dict[str, float] = {}
        plan = [what for what, share in SHARES for _ in range(round(KILLS * share))]
        random.shuffle(plan)
        for i, what in enumerate(plan):
            time.sleep(WORK_BETWEEN_S * random.random())
            _note(slowest, what, _back_after(lambda what=what: app.kill(what), benches))
            if i % 50 == 49:
                print(f"  {i + 1} kills, slowest to come back: {_said(slowest)}", flush=True)
        _note(slowest, "connections exhausted", _back_after(lambda: _exhaust(app), benches))
        full = _fill_disk(app, benches)
        _clock_back(app, benches)
        ends.set()
        for thread in threads:
            thread.join()
        lost, doubled, written = _compared(app, benches)
    odd = [line for bench in benches for line in bench.refused]
    print(f"  slowest to come back, in seconds: {_said(slowest)}; {full}")
    print(
        f"faults: {len(plan)} kills and {written} acknowledged lines: {lost} lost, {doubled} doubled, "
        f"{len(odd)} answers that should not be (wanted: 0, 0, 0); back in at most {max(slowest.values()):.1f} s "
        f"(wanted: under {BACK_WITHIN_S:.0f})"
    )
    for line in odd[:5]:
        print(f"  {line[:200]}")


def _note(slowest: dict[str, float], what: str, seconds: float) -> None:
    slowest[what] = max(slowest.get(what, 0.0), seconds)


def _said(slowest: dict[str, float]) -> str:
    return ", ".join(f"{what} {seconds:.1f}" for what, seconds in slowest.items())


def _back_after(fault: Callable[[], None], benches: list[Bench]) -> float:
    """How long after a fault every bench was answered again. [s]"""
    started = time.monotonic()
    fault()
    there = time.monotonic()
    while any(bench.last_answer < there for bench in benches):
        if time.monotonic() - started > GIVEN_UP_AFTER_S:
            raise RuntimeError("it does not come back")
        time.sleep(0.02)
    return max(bench.last_answer for bench in benches) - started


def _exhaust(app: Running) -> None:
    """Every connection that the server gives is taken, and those of the application are ended: it waits for one."""
    held = []
    try:
        while True:
            held.append(app.server().connect(within=2))
    except psycopg.OperationalError:
        pass
    pid = app.postmaster().pid
    try:
        held[0].execute("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = 'fidicula'")
        time.sleep(3)
    finally:
        for connection in held:
            connection.close()
    assert app.postmaster().pid == pid, "a server that is asked by too many is not one that hangs"


def _fill_disk(app: Running, benches: list[Bench]) -> str:
    """No room at all for a while: what cannot be kept is refused by name, and work goes on once there is room."""
    if not app.home.parent.is_mount():
        return "a full disk was not tried: no small one could be made here"
    filler = app.home.parent / "filler"
    for bench in benches:
        bench.told.clear()

    def fill() -> None:
        with filler.open("wb") as file, contextlib.suppress(OSError):
            while True:
                file.write(b"\0" * 1_000_000)
                file.flush()
        deadline = time.monotonic() + 30
        while not any(507 in bench.told for bench in benches) and time.monotonic() < deadline:
            time.sleep(0.05)
        time.sleep(2)
        filler.unlink()

    fill()
    seconds = _back_after(lambda: None, benches)
    is_named = any(507 in bench.told for bench in benches)
    said = "refused as such" if is_named else "not named"
    return f"a full disk: {said}, work went on {seconds:.1f} s after there was room"


def _clock_back(app: Running, benches: list[Bench]) -> None:
    """As if the machine's clock had been two hours ahead until now, and a bench's still is behind."""
    with app.server().connect("fidicula") as connection:
        connection.execute("UPDATE sign_in SET last_seen_at = last_seen_at + interval '2 h'")
        connection.execute("UPDATE work_done SET done_at = done_at + interval '2 h'")
        connection.execute("UPDATE visit SET opened_at = opened_at + interval '2 h'")
    benches[0].clock_back = timedelta(hours=3)
    _back_after(lambda: None, benches)
    time.sleep(2)


def _compared(app: Running, benches: list[Bench]) -> tuple[int, int, int]:
    """What was acknowledged against what is in the records: lost, doubled, and how many were acknowledged."""
    lost = doubled = written = 0
    with app.server().connect("fidicula") as connection:
        for table, of in (("reading", "readings"), ("work_done", "works")):
            rows = connection.execute(f"SELECT id::text, count(*) FROM {table} GROUP BY id").fetchall()
            there = dict(rows)
            for bench in benches:
                acknowledged: set[str] = getattr(bench, of)
                written += len(acknowledged)
                lost += sum(1 for id in acknowledged if id not in there)
            doubled += sum(count - 1 for count in there.values())
            mine = set().union(*(getattr(bench, of) for bench in benches))
            # A line whose answer never came may be there; more of them than one for each bench and kind may not.
            doubled += max(0, len(set(there) - mine) - len(benches) - 1)
    return lost, doubled, written
