"""The whole HTTP application: routers, errors, headers, and the built front end."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from fastapi import Depends, FastAPI, HTTPException
from fastapi.openapi.utils import get_openapi
from fastapi.responses import FileResponse, Response
from fastapi.staticfiles import StaticFiles
from starlette.middleware.gzip import GZipMiddleware
from starlette.middleware.trustedhost import TrustedHostMiddleware

from fidicula.api import (
    archives,
    asking,
    audit,
    belongings,
    bench,
    billing,
    changes,
    compute,
    damage,
    devices,
    errors,
    figures,
    history,
    house,
    leaving,
    many,
    pages,
    papers,
    people,
    photos,
    plan,
    recipes,
    running,
    sound,
    strings,
    tools,
)
from fidicula.api import workflow as course
from fidicula.api.auth import signed
from fidicula.api.body_limits import Bodies
from fidicula.api.response_middleware import Answers
from fidicula.settings import LOOPBACK

_OPEN = (running.router, people.open_router)
"""These answer without a session, as the stateless computations do."""

# Looked through in this order for every request: what is asked for with every key that is typed comes first.
_ROUTERS = (
    house.router,
    people.router,
    audit.router,
    bench.router,
    strings.router,
    course.router,
    tools.router,
    photos.router,
    sound.router,
    devices.router,
    pages.router,
    billing.router,
    plan.router,
    belongings.router,
    damage.router,
    leaving.router,
    papers.router,
    history.router,
    archives.router,
    asking.router,
    figures.router,
    recipes.router,
    many.router,
    changes.router,
)


def make_app(*, front_end: Path | None = None, lan_address: str = "") -> FastAPI:
    """The application without its services; main.py gives it those.

    front_end : the folder of the built front end, None to serve the API alone.
    lan_address : under which it answers besides those of this machine alone.
    """
    app = FastAPI(title="Fidicula", version="0.1.0", docs_url=None, redoc_url=None, openapi_url="/api/openapi.json")
    app.add_middleware(GZipMiddleware, minimum_size=1400, compresslevel=5)
    app.add_middleware(Bodies)
    app.add_middleware(TrustedHostMiddleware, allowed_hosts=[host for host in (*LOOPBACK, lan_address) if host])
    app.add_middleware(Answers)
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


class _Assets(StaticFiles):
    """Files whose names change with what is in them: who has one never has to ask for it again."""

    def file_response(self, *given: Any, **named: Any) -> Response:
        response = super().file_response(*given, **named)
        response.headers["cache-control"] = "public, max-age=31536000, immutable"
        return response


def _serve_front_end(app: FastAPI, folder: Path) -> None:
    app.mount("/assets", _Assets(directory=folder / "assets", check_dir=False), name="assets")

    @app.get("/worker.js", include_in_schema=False)
    def worker() -> Response:
        # Asked for at every start: a worker that has changed takes over at once.
        return FileResponse(folder / "worker.js", media_type="text/javascript", headers={"cache-control": "no-cache"})

    @app.get("/{path:path}", include_in_schema=False)
    def page(path: str) -> Response:
        if path.startswith("api/"):
            raise HTTPException(404)
        return FileResponse(folder / "index.html", headers={"cache-control": "no-cache"})
