"""What is written at other benches, told as it happens."""

from __future__ import annotations

import time
from collections.abc import AsyncIterator

from fastapi import APIRouter, Request
from fastapi.sse import EventSourceResponse, ServerSentEvent

from fidicula.db.changes import Changes
from fidicula.services.metrics import note_listening

router = APIRouter(prefix="/api", tags=["house"])

ASKED_AGAIN_AFTER_S = 600
"""After this long the next thing told is the last: a page asks again, and is let in again, or not."""


@router.get("/changes", response_class=EventSourceResponse, include_in_schema=False)
async def changes(request: Request) -> AsyncIterator[ServerSentEvent]:
    """The ticket of each instrument of which something was written, as it is."""
    told: Changes = request.app.state.changes
    end = time.monotonic() + ASKED_AGAIN_AFTER_S
    note_listening(1)
    try:
        yield ServerSentEvent(comment="listening")
        async for ticket in told.tickets():
            yield ServerSentEvent(raw_data=ticket)
            if time.monotonic() > end:
                return
    finally:
        note_listening(-1)
