"""Whether the application is alive, whether it can work, and its figures."""

from __future__ import annotations

from fastapi import APIRouter, Response
from fastapi.responses import JSONResponse
from pydantic import BaseModel

from fidicula.api.services import AllServices
from fidicula.db.unit_of_work import DatabaseError
from fidicula.services.metrics import MEDIA_TYPE, written

router = APIRouter(prefix="/api", tags=["running"])


class Ready(BaseModel):
    """state : ready or waiting.  waits_for : a sentence, empty where it is ready."""

    state: str
    waits_for: str


@router.get("/health")
def health() -> dict[str, str]:
    """The application is alive."""
    return {"state": "alive"}


@router.get("/ready", response_model=Ready, responses={503: {"model": Ready, "description": "It waits"}})
def ready(services: AllServices) -> Response:
    """The application can work: its database answers."""
    try:
        services.check_database()
    except DatabaseError:
        waiting = {"state": "waiting", "waits_for": services.database_says() or "the database does not answer"}
        return JSONResponse(waiting, 503, headers={"retry-after": "2"})
    return JSONResponse({"state": "ready", "waits_for": ""})


@router.get("/metrics", response_class=Response, responses={200: {"content": {"text/plain": {}}}})
def metrics() -> Response:
    """Counts and times, in the open format that monitors read; nothing of the house is in them."""
    return Response(written(), media_type=MEDIA_TYPE)
