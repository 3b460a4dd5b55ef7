"""The door for other devices of the workshop: nothing is shown to one before it was paired by the code."""

from __future__ import annotations

import hashlib
import hmac
import secrets
import time
from collections.abc import Callable
from html import escape
from urllib.parse import parse_qs

from starlette.requests import Request
from starlette.responses import HTMLResponse, JSONResponse, RedirectResponse, Response
from starlette.types import ASGIApp, Receive, Scope, Send

COOKIE = "fidicula_paired"
PATH = "/pair"
GUESSES = 8
"""Wrong codes in a row before the door stays shut for a while."""
SHUT_FOR_S = 60.0
_A_YEAR_S = 365 * 86_400
_LONGEST_FORM = 200


class PairedOnly:
    """Lets paired devices through to the application.

    code : typed once at a device.  key : what their cookies are signed with.  clock : in seconds.
    """

    def __init__(self, app: ASGIApp, *, code: str, key: bytes, clock: Callable[[], float] = time.monotonic) -> None:
        self._app, self._code, self._key, self._clock = app, code, key, clock
        self._wrong = 0
        self._shut_until = 0.0

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        request = Request(scope, receive)
        if request.url.path == PATH and request.method == "POST":
            await (await self._pair(request))(scope, receive, send)
        elif self._is_paired(request.cookies.get(COOKIE, "")):
            await self._app(scope, receive, send)
        else:
            await self._asked_for_code(request)(scope, receive, send)

    def _is_paired(self, cookie: str) -> bool:
        device, _, signature = cookie.partition(".")
        return bool(device) and hmac.compare_digest(signature, self._signature(device))

    def _signature(self, device: str) -> str:
        return hmac.new(self._key, f"paired {device}".encode(), hashlib.sha256).hexdigest()

    async def _pair(self, request: Request) -> Response:
        if self._clock() < self._shut_until:
            return _page("Too many wrong codes: the door is shut for a minute.", 429)
        typed = "".join((await _typed_code(request)).split())
        if not hmac.compare_digest(typed.encode(), self._code.encode()):
            self._wrong += 1
            if self._wrong >= GUESSES:
                self._wrong, self._shut_until = 0, self._clock() + SHUT_FOR_S
            return _page("That is not the code: it stands where Fidicula was started.", 403)
        self._wrong = 0
        device = secrets.token_hex(8)
        answer = RedirectResponse("/", status_code=303)
        answer.set_cookie(
            COOKIE,
            f"{device}.{self._signature(device)}",
            max_age=_A_YEAR_S,
            httponly=True,
            secure=True,
            samesite="strict",
        )
        return answer

    @staticmethod
    def _asked_for_code(request: Request) -> Response:
        if request.url.path.startswith("/api/"):
            detail = [{"loc": ["cookie"], "msg": "pair this device first", "type": "not_paired"}]
            return JSONResponse({"detail": detail}, 401)
        return _page("", 403)


async def _typed_code(request: Request) -> str:
    body = b""
    async for chunk in request.stream():
        body += chunk
        if len(body) > _LONGEST_FORM:
            return ""
    return parse_qs(body.decode("utf-8", "replace")).get("code", [""])[0]


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
button { width: 100%; height: 52px; margin-top: 14px; font: inherit; font-weight: 700; color: #fff;
  background: #1b5560; border: 0; border-radius: 4px; }
</style>
<form method="post" action="/pair">
<h1>Pair this device</h1>
<label for="code">The code of eight digits stands where Fidicula was started.</label>
<input id="code" name="code" inputmode="numeric" autocomplete="off" autofocus required>
<!-- fault -->
<button>Pair</button>
</form>
</html>
"""
