"""The door for other devices of the workshop: nothing is shown to one before it was paired by the code."""

from __future__ import annotations

import asyncio
import hmac
from collections.abc import Callable
from html import escape
from ipaddress import ip_address, ip_network
from urllib.parse import parse_qs

from fastapi.concurrency import run_in_threadpool
from limits import parse
from limits.storage import MemoryStorage
from limits.strategies import MovingWindowRateLimiter
from starlette.requests import Request
from starlette.responses import HTMLResponse, JSONResponse, RedirectResponse, Response
from starlette.types import ASGIApp, Receive, Scope, Send

from fidicula.api.auth import BROWSER_COOKIE
from fidicula.db.unit_of_work import DatabaseError
from fidicula.services.metrics import note_wrong_guess
from fidicula.services.people.browsers import Browsers, name_of

PATH = "/pair"
GUESSES = parse("8/minute")
"""Wrong codes from one address before the door stays shut for it a while; for others it stays open."""
_A_YEAR_S = 365 * 86_400
_LONGEST_FORM = 400
_FORM_WITHIN_S = 10.0
"""A form is here within this time."""


class PairedOnly:
    """Lets paired devices through to the application.

    code : typed once at a device.  browsers : that knows them.
    """

    def __init__(self, app: ASGIApp, *, code: str, browsers: Callable[[], Browsers]) -> None:
        self._app, self._code, self._browsers = app, code, browsers
        self._guesses = MovingWindowRateLimiter(MemoryStorage())

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        request = Request(scope, receive)
        if request.url.path == PATH and request.method == "POST":
            await (await self._pair(request))(scope, receive, send)
            return
        try:
            is_paired = await run_in_threadpool(self._browsers().is_paired, request.cookies.get(BROWSER_COOKIE, ""))
        except DatabaseError:
            await _waiting(request)(scope, receive, send)
            return
        if is_paired:
            await self._app(scope, receive, send)
        else:
            await self._asked_for_code(request)(scope, receive, send)

    async def _pair(self, request: Request) -> Response:
        address = _network(request.client.host if request.client else "")
        # Counted before it is looked at: many at once are all counted.
        if not self._guesses.hit(GUESSES, address):
            return _page("Too many wrong codes from this device: try again in a minute.", 429)
        typed, name = await _typed(request)
        if not hmac.compare_digest(typed.encode(), self._code.encode()):
            note_wrong_guess("code")
            return _page("That is not the code: it stands where Fidicula was started.", 403)
        self._guesses.clear(GUESSES, address)
        try:
            called = name or name_of(request.headers.get("user-agent", ""))
            token = await run_in_threadpool(self._browsers().pair, called)
        except DatabaseError:
            return _waiting(request)
        answer = RedirectResponse("/", status_code=303)
        answer.set_cookie(BROWSER_COOKIE, token, max_age=_A_YEAR_S, httponly=True, secure=True, samesite="strict")
        return answer

    @staticmethod
    def _asked_for_code(request: Request) -> Response:
        if request.url.path.startswith("/api/"):
            detail = [{"loc": ["cookie"], "msg": "pair this device first", "type": "not_paired"}]
            return JSONResponse({"detail": detail}, 401)
        return _page("", 403)


def _waiting(request: Request) -> Response:
    sentence = "The records cannot be reached just now: try again in a moment."
    if request.url.path.startswith("/api/"):
        return JSONResponse({"detail": [{"loc": ["body"], "msg": sentence, "type": "refused"}]}, 503)
    return _page(sentence, 503)


def _network(address: str) -> str:
    """Whom a guess is counted for: an address, or of the newer kind the network that one machine may have to itself."""
    try:
        found = ip_address(address)
    except ValueError:
        return address
    return str(ip_network(f"{found}/64", strict=False)) if found.version == 6 else str(found)


async def _typed(request: Request) -> tuple[str, str]:
    """The code and the name that were typed; both empty for a form that is too long or does not come."""
    body = b""
    try:
        async with asyncio.timeout(_FORM_WITHIN_S):
            async for chunk in request.stream():
                body += chunk
                if len(body) > _LONGEST_FORM:
                    return "", ""
    except TimeoutError:
        return "", ""
    form = parse_qs(body.decode("utf-8", "replace"))
    name = form.get("name", [""])[0].replace("\0", "")
    return "".join(form.get("code", [""])[0].split()), name


def _page(fault: str, status: int) -> HTMLResponse:
    said = f'<p role="alert"><b>{escape(fault)}</b></p>' if fault else ""
    return HTMLResponse(_PAGE.replace("<!-- fault -->", said), status, headers={"cache-control": "no-store"})


_PAGE = """<!doctype html>
<html lang="en">
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>Fidicula: pair this device</title>
<style>
body { margin: 0; padding: 12vh 24px; background: #e7ece8; color: #1e282c; font: 18px/1.4 sans-serif; }
form { max-width: 420px; margin: auto; padding: 24px; background: #fff; border-radius: 4px; }
h1 { margin: 0 0 12px; font-size: 24px; }
input { box-sizing: border-box; width: 100%; height: 56px; font: inherit; font-size: 28px; text-align: center; }
.name { font-size: 18px; text-align: left; padding: 0 12px; }
label { display: block; margin-top: 12px; }
button { width: 100%; height: 52px; margin-top: 14px; font: inherit; font-weight: 700; color: #fff;
  background: #1b5560; border: 0; border-radius: 4px; }
</style>
<form method="post" action="/pair">
<h1>Pair this device</h1>
<label for="code">The code of eight digits stands where Fidicula was started.</label>
<input id="code" name="code" inputmode="numeric" autocomplete="off" autofocus required>
<label for="name">A name for this device, for instance “tablet at the window”</label>
<input id="name" name="name" class="name" maxlength="60" autocomplete="off">
<!-- fault -->
<button>Pair</button>
</form>
</html>
"""
