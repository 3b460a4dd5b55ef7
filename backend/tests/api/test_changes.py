"""What is written at one bench is told to every other, figures and particulars too."""

from __future__ import annotations

import asyncio
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.db.changes import Changes


async def told_after(changes: Changes, act: Any) -> str:
    """The first thing that is told after an act."""
    tickets = changes.tickets()
    first = asyncio.ensure_future(anext(tickets))
    for _ in range(200):
        await asyncio.sleep(0.05)
        await asyncio.to_thread(act)
        if first.done():
            break
    told = await asyncio.wait_for(first, 10)
    await tickets.aclose()
    return told


FIGURE = {
    "family": "violin", "size": "4/4", "measure": "projection", "question": "", "school": "", "page_size": "4/4",
    "low": "27", "aim": "27.6", "high": "28", "source": "the shop's own", "confirmed": True, "sure": False,
}  # fmt: skip


@pytest.mark.parametrize(
    ("method", "path", "body", "told"),
    [
        ("PUT", "/api/figures", FIGURE, "*"),
        ("PUT", "/api/shelf/violin/bridge_blanks", {"values": ["41", "42"]}, "*"),
        ("POST", "/api/instruments/RW-106/sound/session", {"player": "Maren Osei"}, "RW-106"),
        ("PATCH", "/api/instruments/RW-105/particulars", None, "RW-105"),
    ],
)
def test_it_is_told(
    app: Any, client: TestClient, method: str, path: str, body: dict[str, Any] | None, told: str
) -> None:
    stands = ["Wren Kallio"]

    def act() -> None:
        sent = {"id": str(uuid4()), **(body or {})}
        if body is None:
            now = f"Wren Kallio {len(stands)}"
            sent = {"changes": [{"field": "owner", "was": stands[-1], "now": now}]}
            stands.append(now)
        answer = client.request(method, path, json=sent)
        assert answer.status_code == 200, answer.text

    assert asyncio.run(told_after(Changes(app.state.engine), act)) == told
