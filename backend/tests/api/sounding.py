"""An instrument at its sound page, as a test drives it."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from fastapi.testclient import TestClient
from fidicula.cli.demo_sound import simulated_recording

from .test_bench import Bench

PIA = "Pia Sandoval-Reuter"


MOVE: dict[str, Any] = {"end": "top", "direction": "bass", "taps": "1"}


class Session:
    """RW-102, or another instrument, at its sound page."""

    def __init__(self, client: TestClient, ticket: str = "RW-102") -> None:
        self.client, self.ticket = client, ticket
        self.bench = Bench(client, ticket)

    def view(self, complaint: str = "") -> dict[str, Any]:
        answer = self.client.get(f"/api/instruments/{self.ticket}/sound", params={"complaint": complaint})
        assert answer.status_code == 200, answer.text
        return dict(answer.json())

    def do(self, path: str, status: int = 200, **body: object) -> dict[str, Any]:
        if path in ("half-back", "back"):
            body = {"now": self.view()["now"], **body}
        answer = self.client.post(f"/api/instruments/{self.ticket}/sound/{path}", json={"id": str(uuid4()), **body})
        assert answer.status_code == status, answer.text
        return dict(answer.json())

    def refused(self, path: str, **body: object) -> tuple[str, str]:
        """The field at fault and what is said of it."""
        detail = self.do(path, 422, **body)["detail"][0]
        return str(detail["loc"][-1]), str(detail["msg"])

    def gauge(self, setbacks: list[str], insets: list[str]) -> dict[str, Any]:
        self.bench = Bench(self.client, self.ticket)
        for measure, typed in (("post_setback", setbacks), ("post_inset", insets)):
            for position, value in enumerate(typed):
                self.bench.take(measure, position, value, tool="card_gauge")
        return self.view()

    def record(self, brightness: float) -> dict[str, Any]:
        answer = self.client.post(
            f"/api/instruments/{self.ticket}/sound/recordings",
            params={"id": str(uuid4()), "words": "open strings"},
            content=simulated_recording(brightness=brightness),
            headers={"content-type": "audio/wav"},
        )
        assert answer.status_code == 200, answer.text
        return dict(answer.json())


def place(view: dict[str, Any], number: int) -> dict[str, Any]:
    return dict(next(one for one in view["places"] if one["number"] == number))


def end(view: dict[str, Any], number: int, name: str) -> dict[str, Any]:
    return dict(next(one for one in place(view, number)["ends"] if one["end"] == name))
