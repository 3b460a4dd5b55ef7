"""Answers that come late, each by a time of its own: what a page does meanwhile is where its races are.

`FIDICULA_LATE=0.5 pytest tests/browser` lets every answer of the API wait up to half a second.
"""

from __future__ import annotations

import asyncio
import os
import random
from typing import Any

LATEST_S = float(os.environ.get("FIDICULA_LATE", "0"))


def late(app: Any) -> Any:
    """The application, its answers late where that is asked for."""
    if not LATEST_S:
        return app
    chance = random.Random()

    async def wrapped(scope: Any, receive: Any, send: Any) -> None:
        if not scope.get("path", "").startswith("/api/"):
            await app(scope, receive, send)
            return
        await asyncio.sleep(chance.uniform(0, LATEST_S / 2))

        async def send_late(message: Any) -> None:
            if message["type"] == "http.response.start":
                await asyncio.sleep(chance.uniform(0, LATEST_S / 2))
            await send(message)

        await app(scope, receive, send_late)

    return wrapped
