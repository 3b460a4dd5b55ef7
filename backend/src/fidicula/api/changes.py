"""What is written at other benches, told as it happens."""

from __future__ import annotations

import asyncio
import time
from collections.abc import AsyncIterator

from fastapi import APIRouter
from fastapi.concurrency import run_in_threadpool
from fastapi.sse import EventSourceResponse, ServerSentEvent

from fidicula.api.auth import Signed
from fidicula.api.services import AllServices
from fidicula.domain.errors import NotSignedInError
from fidicula.services.metrics import note_listening
from fidicula.services.people.people import People

router = APIRouter(prefix="/api", tags=["house"])

ASKED_AGAIN_AFTER_S = 600
"""After this long a page asks again."""
STILL_IN_EVERY_S = 5.0
"""So often it is looked whether whoever listens may listen still: nothing is told after a sign-out or a dismissal."""


@router.get("/changes", response_class=EventSourceResponse, include_in_schema=False)
async def changes(services: AllServices, browser: Signed) -> AsyncIterator[ServerSentEvent]:
    """The ticket of each instrument of which something was written, as it is."""
    end = time.monotonic() + ASKED_AGAIN_AFTER_S
    tickets = services.changes.tickets()
    following = asyncio.ensure_future(anext(tickets))
    note_listening(1)
    try:
        yield ServerSentEvent(comment="listening")
        while time.monotonic() < end:
            await asyncio.wait({following}, timeout=STILL_IN_EVERY_S)
            if not await _is_in(services.people, browser.token):
                return
            if following.done():
                yield ServerSentEvent(raw_data=following.result())
                following = asyncio.ensure_future(anext(tickets))
    finally:
        following.cancel()
        await asyncio.gather(following, return_exceptions=True)
        await tickets.aclose()
        note_listening(-1)


async def _is_in(people: People, token: str) -> bool:
    if people.remembered(token) is not None:
        return True
    try:
        await run_in_threadpool(people.who, token)
    except NotSignedInError:
        return False
    return True
