"""The whole HTTP application: routers, errors, headers, and the built front end."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from fastapi import Depends, FastAPI, Request
from fastapi.openapi.utils import get_openapi
from fastapi.responses import FileResponse, JSONResponse, Response
from fastapi.staticfiles import StaticFiles
from starlette.middleware.gzip import GZipMiddleware
from starlette.middleware.trustedhost import TrustedHostMiddleware
from starlette.types import ASGIApp, Message, Receive, Scope, Send

from fidicula.api import (
    bench,
    changes,
    compute,
    course,
    devices,
    errors,
    figures,
    house,
    many,
    pages,
    people,
    photos,
    recipes,
    sound,
    strings,
)
from fidicula.api.signed import signed

_OPEN = (house.open_router, people.open_router)
"""These answer without a session, as the stateless computations do."""

# Looked through in this order for every request: what is asked for with every key that is typed comes first.
_ROUTERS = (
    house.router,
    people.router,
    bench.router,
    strings.router,
    course.router,
    photos.router,
    sound.router,
    devices.router,
    pages.router,
    figures.router,
    recipes.router,
    many.router,
    changes.router,
)

HEADERS = (
    (
        b"content-security-policy",
        b"default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:; "
        b"media-src 'self' blob:; object-src 'none'; "
        b"base-uri 'none'; frame-ancestors 'none'; form-action 'self'",
    ),
    (b"x-content-type-options", b"nosniff"),
    (b"referrer-policy", b"no-referrer"),
)


class CommonHeaders:
    """Headers that every answer carries."""

    def __init__(self, app: ASGIApp) -> None:
        self._app = app

    async def __call__(self, scope: Scope, receive: Receive, send: Send) -> None:
        async def send_with_headers(message: Message) -> None:
            if message["type"] == "http.response.start":
                message["headers"] = [*message["headers"], *HEADERS]
            await send(message)

        await self._app(scope, receive, send_with_headers)


LOOPBACK = ("127.0.0.1", "localhost", "[::1]")


def make_app(*, front_end: Path | None = None, lan_address: str = "") -> FastAPI:
    """The application without its services; main.py gives it those.

    front_end : the folder of the built front end, None to serve the API alone.
    lan_address : under which it answers besides those of this machine alone.
    """
    app = FastAPI(title="Fidicula", version="0.1.0", docs_url=None, redoc_url=None, openapi_url="/api/openapi.json")
    app.add_middleware(GZipMiddleware, minimum_size=1400, compresslevel=5)
    app.add_middleware(CommonHeaders)
    app.add_middleware(TrustedHostMiddleware, allowed_hosts=[host for host in (*LOOPBACK, lan_address) if host])
    errors.install(app)
    _include(app)
    app.include_router(compute.router)

    def openapi() -> dict[str, Any]:
        if app.openapi_schema is None:
            document = get_openapi(title=app.title, version=app.version, routes=app.routes)
            compute.add_request_schemas(document)
            app.openapi_schema = document
        return app.openapi_schema

    app.openapi = openapi  # type: ignore[method-assign]
    if front_end is not None:
        _serve_front_end(app, front_end)
    return app


def _include(app: FastAPI) -> None:
    for router in _OPEN:
        app.include_router(router)
    for router in _ROUTERS:
        app.include_router(router, dependencies=[Depends(signed)])


def client_openapi() -> dict[str, Any]:
    """The part of the OpenAPI document that the front end uses: all but the stateless computations."""
    app = FastAPI(title="Fidicula", version="0.1.0", openapi_url=None, docs_url=None, redoc_url=None)
    _include(app)
    return get_openapi(title=app.title, version=app.version, routes=app.routes)


def _serve_front_end(app: FastAPI, folder: Path) -> None:
    app.mount("/assets", StaticFiles(directory=folder / "assets", check_dir=False), name="assets")

    @app.get("/worker.js", include_in_schema=False)
    def worker() -> Response:
        # Asked for at every start: a worker that has changed takes over at once.
        return FileResponse(folder / "worker.js", media_type="text/javascript", headers={"cache-control": "no-cache"})

    @app.get("/{path:path}", include_in_schema=False)
    def page(request: Request, path: str) -> Response:
        if path.startswith("api/"):
            return JSONResponse(
                {"detail": [{"loc": ["path"], "msg": f"there is no {request.url.path}", "type": "not_found"}]},
                404,
            )
        return FileResponse(folder / "index.html", headers={"cache-control": "no-cache"})
