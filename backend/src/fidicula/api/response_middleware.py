"""What every answer carries, whoever gives it: security headers, a request id, and a sentence when something fails."""

from __future__ import annotations

import time
from secrets import token_hex

from starlette.responses import JSONResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fidicula.services.logging import about_request, journal
from fidicula.services.metrics import note_answer

REQUEST_ID = "fidicula.request_id"
FAILED = "something went wrong here, and nothing was written; the request id finds it in the application's log"

HEADERS = (
    (
        b"content-security-policy",
        b"default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
        b"media-src 'self' blob:; object-src 'none'; "
        b"base-uri 'none'; frame-ancestors 'none'; form-action 'self'",
    ),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
    (b"cross-origin-opener-policy", b"same-origin"),
    (b"cross-origin-resource-policy", b"same-origin"),
    (b"permissions-policy", b"geolocation=(), payment=(), usb=()"),
)
OVER_TLS = (b"strict-transport-security", b"max-age=31536000")


class Answers:
    """The outermost layer. What is answered inside of it twice is dressed once."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http" or REQUEST_ID in scope:
            await self._app(scope, receive, send)
            return
        request_id = scope[REQUEST_ID] = token_hex(6)
        started, status = time.perf_counter(), 0

        async def send_dressed(message: Message) -> None:
            nonlocal status
            if message["type"] == "http.response.start":
                status = message["status"]
                message["headers"] = _dressed(scope, message["headers"], request_id)
            await send(message)

        with about_request(request_id):
            try:
                await self._app(scope, receive, send_dressed)
            except Exception as error:  # the last one to catch it: whoever asks gets a sentence, the log the rest
                journal().error("failed", kind=type(error).__name__, exc_info=True)
                if status:
                    raise
                detail = [{"loc": ["server"], "msg": FAILED, "type": "failed"}]
                await JSONResponse({"detail": detail, "request_id": request_id}, 500)(scope, receive, send_dressed)
            finally:
                seconds, route = time.perf_counter() - started, _route(scope)
                note_answer(scope["method"], route, status, seconds)
                if scope["method"] not in ("GET", "HEAD") or status >= 400:
                    journal().info(
                        "answered", method=scope["method"], route=route, status=status, ms=round(seconds * 1000, 1)
                    )


def _dressed(scope: Scope, given: list[tuple[bytes, bytes]], request_id: str) -> list[tuple[bytes, bytes]]:
    headers = [*given, *HEADERS, (b"x-request-id", request_id.encode())]
    if scope["scheme"] == "https":
        headers.append(OVER_TLS)
    # What belongs to the house is in no cache, unless its route says how.
    if scope["path"].startswith("/api/") and not any(name == b"cache-control" for name, _ in given):
        headers.append((b"cache-control", b"no-store"))
    return headers


def _route(scope: Scope) -> str:
    """The route's own pattern: never what stands in its place, which may be somebody's words."""
    return str(getattr(scope.get("route"), "path", "") or "other")
