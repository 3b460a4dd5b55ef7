"""Benches that write without end, for benchmarks that take something away from under them.

Each line has an id of its own and is sent again with it until it is acknowledged, as the browser does.
"""

from __future__ import annotations

import http.client
import json
import threading
import time
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import uuid4

OWNER = {"name": "Ilse Varnholt", "password": "ferry-rope-lantern", "pin": "140125"}
AGAIN_AFTER_S = 0.05


@dataclass
class Bench:
    """One bench at one instrument. readings, works : ids that were acknowledged.

    told : every status of an answer.  refused : answers that should not be."""

    port: int
    ticket: str
    headers: dict[str, str]
    readings: set[str] = field(default_factory=set)
    works: set[str] = field(default_factory=set)
    refused: list[str] = field(default_factory=list)
    told: set[int] = field(default_factory=set)
    last_answer: float = 0.0
    clock_back: timedelta = timedelta()

    def ask(
        self, method: str, path: str, body: dict[str, Any] | None = None, *, within: float = 5.0
    ) -> tuple[int, Any]:
        """Raises OSError or HTTPException where no answer comes."""
        connection = http.client.HTTPConnection("127.0.0.1", self.port, timeout=within)
        try:
            connection.request(method, path, None if body is None else json.dumps(body), self.headers)
            answer = connection.getresponse()
            data = answer.read()
            return answer.status, json.loads(data) if data else None
        finally:
            connection.close()

    def write(self, path: str, body: dict[str, Any], ends: threading.Event) -> int:
        """Send one line until it is answered; its status, 0 where it was not by the end."""
        while not ends.is_set():
            try:
                status, answer = self.ask("POST", f"/api/instruments/{self.ticket}/{path}", body)
            except (OSError, http.client.HTTPException, ValueError):
                time.sleep(AGAIN_AFTER_S)
                continue
            self.told.add(status)
            if status in (401, 408, 429, 500, 503, 507):
                if status in (401, 500):
                    self.refused.append(f"{status} {answer}")
                time.sleep(AGAIN_AFTER_S)
                continue
            self.last_answer = time.monotonic()
            return status
        return 0

    def run(self, ends: threading.Event) -> None:
        """A reading after the other, and a work after every eighth."""
        count = 0
        while not ends.is_set():
            count += 1
            id = str(uuid4())
            if count % 8:
                body = {
                    "id": id, "measure": "projection", "typed": f"27.{count % 90 + 10}", "tool": "caliper",
                    "taken_at": (datetime.now(UTC) - self.clock_back).isoformat(), "after_work": 0, "shown": None,
                }  # fmt: skip
                path, kept = "readings", self.readings
            else:
                body, path, kept = {"id": id, "work": "bridge_moved"}, "works", self.works
            status = self.write(path, body, ends)
            if status == 200:
                kept.add(id)
            elif status:
                self.refused.append(f"{path} {status}")


def first_owner(port: int) -> dict[str, str]:
    """Headers of the first owner of an empty house."""
    bench = Bench(port, "", {"content-type": "application/json"})
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=20)
    connection.request("POST", "/api/session/first", json.dumps(OWNER), bench.headers)
    answer = connection.getresponse()
    answer.read()
    cookies = [line.split(";")[0] for name, line in answer.getheaders() if name.lower() == "set-cookie"]
    headers = {**bench.headers, "cookie": "; ".join(cookies)}
    _, session = Bench(port, "", headers).ask("GET", "/api/session")
    return {**headers, "X-Fidicula-Form": session["signed_in"]["form_token"]}


def arrived(port: int, headers: dict[str, str], count: int) -> list[Bench]:
    """A bench for each of so many new instruments."""
    found = []
    for _ in range(count):
        arrival = {"id": str(uuid4()), "family": "violin", "size": "4/4", "kind": "bridge"}
        status, answer = Bench(port, "", headers).ask("POST", "/api/instruments", arrival)
        assert status == 201, answer
        found.append(Bench(port, answer["ticket"], headers))
    return found
