"""What other processes write, told by PostgreSQL as it is committed: the tickets of the instruments concerned."""

from __future__ import annotations

import asyncio
import contextlib
from collections.abc import AsyncGenerator

import psycopg
from sqlalchemy import Engine

CHANNEL = "house"
AGAIN_AFTER_S = 1.0
EVERYTHING = "*"
"""Told in a ticket's place when something may have been missed: whoever listens looks at all again."""
_MOST_UNREAD = 1000


class Changes:
    """One connection listens for all that ask, for as long as anybody does."""

    def __init__(self, engine: Engine) -> None:
        self._address = engine.url.set(drivername="postgresql").render_as_string(hide_password=False)
        self._asking: set[asyncio.Queue[str]] = set()
        self._listening: asyncio.Task[None] | None = None

    async def tickets(self) -> AsyncGenerator[str]:
        """Each ticket as something of it is written; never ends by itself."""
        queue: asyncio.Queue[str] = asyncio.Queue(_MOST_UNREAD)
        self._asking.add(queue)
        if self._listening is None:
            self._listening = asyncio.create_task(self._listen())
        try:
            while True:
                yield await queue.get()
        finally:
            self._asking.discard(queue)
            if not self._asking and self._listening is not None:
                self._listening.cancel()
                self._listening = None

    async def _listen(self) -> None:
        is_first = True
        while True:
            with contextlib.suppress(psycopg.Error):
                connection = await psycopg.AsyncConnection.connect(self._address, autocommit=True, connect_timeout=10)
                async with connection:
                    await connection.execute(f"LISTEN {CHANNEL}")
                    if not is_first:
                        self._tell(EVERYTHING)
                    is_first = False
                    async for told in connection.notifies():
                        self._tell(told.payload)
            await asyncio.sleep(AGAIN_AFTER_S)

    def _tell(self, ticket: str) -> None:
        for queue in self._asking:
            # Whoever reads nothing for a thousand changes looks at all again once it does.
            if queue.full():
                while not queue.empty():
                    queue.get_nowait()
                ticket = EVERYTHING
            queue.put_nowait(ticket)
