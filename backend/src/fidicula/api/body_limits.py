"""What comes in is counted and timed while it arrives, and refused before anything is parsed."""

from __future__ import annotations

import asyncio
import hashlib
import json
import re
from collections.abc import Iterator
from typing import Any
from urllib.parse import urlsplit

from pydantic_core import from_json
from starlette.datastructures import Headers
from starlette.responses import JSONResponse
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fidicula.services.adjusting import recordings
from fidicula.services.archives import jobs, readings_in
from fidicula.services.visits import photos

MOST_JSON = 1_000_000
"""Of one request that is no file. [bytes]"""
JSON_WITHIN_S = 10.0
FILE_WITHIN_S = 180.0
PAUSE_S = 15.0
"""A body is here within this time, and never pauses for longer."""

ARCHIVE_WITHIN_S = 3 * 3600.0
_FILES = (
    (re.compile(r"/api/instruments/[^/]+/photos"), photos.MOST_BYTES, FILE_WITHIN_S),
    (re.compile(r"/api/instruments/[^/]+/sound/recordings"), recordings.MOST_BYTES, FILE_WITHIN_S),
    (re.compile(r"/api/readings-table"), readings_in.MOST_BYTES, FILE_WITHIN_S),
    (re.compile(r"/api/archives/upload"), jobs.MOST_BYTES, ARCHIVE_WITHIN_S),
)
_READS = frozenset({"GET", "HEAD", "OPTIONS"})


class Refused(Exception):
    """An answer instead of what was asked for."""

    def __init__(self, status: int, sentence: str, *loc: str | int) -> None:
        super().__init__(sentence)
        self.answer = JSONResponse({"detail": [{"loc": [*loc], "msg": sentence, "type": "refused"}]}, status)
        if status in (408, 413):
            # The rest of it is not read: the connection is of no use any more.
            self.answer.headers["connection"] = "close"


class Body:
    """What came with a request, for whoever asks whether the same came before.

    Secrets are no part of it: the digest is kept, and a PIN could be guessed by it.
    """

    def __init__(self) -> None:
        self.json: Any = None
        self._of_file = hashlib.sha256()

    def add(self, part: bytes) -> None:
        """A part of a file."""
        self._of_file.update(part)

    def digest(self, about: str) -> bytes:
        """Of all that came, the same whatever order its fields stood in. about : where to, and how."""
        said = self.json
        if isinstance(said, dict):
            said = {name: value for name, value in said.items() if name not in _SECRETS}
        text = json.dumps([about, said], sort_keys=True, separators=(",", ":"))
        return hashlib.sha256(text.encode() + self._of_file.digest()).digest()[:16]


_SECRETS = frozenset({"pin", "password"})
BODY = "fidicula.body"


class Bodies:
    """Lets a request through whose body is small, quick, of the right kind, and text where it is to be text."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        if scope["type"] != "http":
            await self._app(scope, receive, send)
            return
        try:
            _check_address(scope)
            if scope["method"] not in _READS and scope["path"].startswith("/api/"):
                headers = Headers(scope=scope)
                _check_origin(headers)
                scope[BODY] = Body()
                receive = await _checked_body(scope["path"], headers, receive, scope[BODY])
        except Refused as refused:
            await refused.answer(scope, receive, send)
            return
        await self._app(scope, receive, send)


def _check_address(scope: Scope) -> None:
    if "\0" in scope["path"] or b"%00" in scope["query_string"]:
        raise Refused(404, "a character stands in the address that is no text", "path")


def _check_origin(headers: Headers) -> None:
    """A page of another site may not ask for a change or a computation."""
    origin = headers.get("origin")
    if origin is not None and urlsplit(origin).netloc.lower() != headers.get("host", "").lower():
        raise Refused(403, "this comes from a page of another site", "header", "origin")
    if headers.get("sec-fetch-site", "same-origin") not in ("same-origin", "none"):
        raise Refused(403, "this comes from a page of another site", "header", "origin")


async def _checked_body(path: str, headers: Headers, receive: Receive, read: Body) -> Receive:
    most, within = next(((most, within) for pattern, most, within in _FILES if pattern.fullmatch(path)), (None, 0.0))
    announced = headers.get("content-length", "0")
    _check_size(int(announced) if announced.isdecimal() else 0, most or MOST_JSON)
    if most is not None:
        return _counted(receive, most, within, read)
    body = await _whole(receive)
    if body:
        if headers.get("content-type", "").split(";")[0].strip().lower() != "application/json":
            raise Refused(415, "a change comes as JSON, with the content type application/json", "header")
        read.json = _checked_json(body)
    return _replayed(body, receive)


def _check_size(size: int, most: int) -> None:
    if size > most:
        raise Refused(413, f"it is over {most / 1e6:.0f} MB: a smaller one will do", "body")


def _counted(receive: Receive, most: int, within: float, read: Body) -> Receive:
    """The body of a file as it comes, up to a size and within a time."""
    clock = asyncio.get_running_loop().time
    size, end = 0, clock() + within

    async def counted() -> Message:
        nonlocal size
        message = await _next(receive, min(PAUSE_S, end - clock()))
        part = message.get("body", b"")
        size += len(part)
        _check_size(size, most)
        read.add(part)
        return message

    return counted


async def _whole(receive: Receive) -> bytes:
    body = bytearray()
    clock = asyncio.get_running_loop().time
    end = clock() + JSON_WITHIN_S
    while True:
        message = await _next(receive, end - clock())
        if message["type"] == "http.disconnect":
            raise Refused(408, "the connection ended before all of it was here", "body")
        body += message.get("body", b"")
        _check_size(len(body), MOST_JSON)
        if not message.get("more_body"):
            return bytes(body)


async def _next(receive: Receive, within: float) -> Message:
    try:
        return await asyncio.wait_for(receive(), max(within, 0.001))
    except TimeoutError:
        raise Refused(408, "it took too long to arrive: send it again", "body") from None


def _replayed(body: bytes, receive: Receive) -> Receive:
    """The body that was read already, then whatever comes after it."""
    is_given = False

    async def replayed() -> Message:
        nonlocal is_given
        if is_given:
            return await receive()
        is_given = True
        return {"type": "http.request", "body": body, "more_body": False}

    return replayed


def _checked_json(body: bytes) -> Any:
    """JSON that the records can hold: no half characters, no NUL, no NaN, not nested without end."""
    try:
        found = from_json(body, allow_inf_nan=False)
    except ValueError as error:
        raise Refused(422, f"this is not JSON: {error}", "body") from None
    if b"\\u0000" in body:
        for path, text in _texts(found, ()):
            if "\0" in text:
                raise Refused(422, "a character stands in it that is no text", "body", *path)
    return found


def _texts(value: Any, path: tuple[str | int, ...]) -> Iterator[tuple[tuple[str | int, ...], str]]:
    """Every text in it, names too, and where it stands."""
    match value:
        case str():
            yield path, value
        case dict():
            for key, item in value.items():
                yield path, key
                yield from _texts(item, (*path, key))
        case list():
            for i, item in enumerate(value):
                yield from _texts(item, (*path, i))
