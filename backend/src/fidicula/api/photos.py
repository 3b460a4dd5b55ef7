"""Photographs: they come as plain files in the body, and go out as JPEG."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Query, Request, Response
from fastapi.concurrency import run_in_threadpool
from pydantic import Field

from fidicula.api.auth import Acting, may
from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Sentence, Ticket
from fidicula.services.visits.photos import PhotoSheet

router = APIRouter(prefix="/api", tags=["photographs"], responses=RESPONSES)

_OF = "/instruments/{ticket}/photos"


class InspectBody(Body):
    id: UUID
    shot: Annotated[str, Field(max_length=40)]


def file_answer(request: Request, data: bytes, *, media_type: str, tag: str) -> Response:
    """A file of the house: it stays in no browser's cache, where it would outlast a sign-out."""
    headers = {"cache-control": "no-store", "etag": f'"{tag}"'}
    if request.headers.get("if-none-match") == f'"{tag}"':
        return Response(status_code=304, headers=headers)
    return Response(data, media_type=media_type, headers=headers)


@router.get(_OF)
def photos(services: AllServices, ticket: Ticket) -> PhotoSheet:
    """The photographs of this visit, and the shots worth taking."""
    return services.photos.of(ticket)


@router.post(
    _OF,
    dependencies=[may("arrive")],
    openapi_extra={"requestBody": {"content": {"image/*": {"schema": {"type": "string", "format": "binary"}}}}},
)
async def add_photo(
    request: Request,
    services: AllServices,
    ticket: Ticket,
    person: Acting,
    id: UUID,
    item: Annotated[str, Query(max_length=40)],
    words: Sentence = "",
    thing: UUID | None = None,
) -> PhotoSheet:
    """Keep a photograph; the same id again changes nothing. thing : a mark of the damage map that it shows."""
    data = await request.body()
    return await run_in_threadpool(
        services.photos.add,
        ticket,
        photo_id=id,
        item=item,
        data=data,
        words=words.strip(),
        by=person.name,
        thing=thing,
    )


@router.post(_OF + "/inspect", dependencies=[may("measure")])
def inspect(services: AllServices, ticket: Ticket, body: InspectBody, person: Acting) -> PhotoSheet:
    """Take a shot with the inspection camera."""
    return services.photos.inspect(ticket, photo_id=body.id, shot=body.shot, by=person.name)


@router.post(_OF + "/{photo_id}/take-back", dependencies=[may("arrive")])
def take_back_photo(services: AllServices, ticket: Ticket, photo_id: UUID, person: Acting) -> PhotoSheet:
    """Undo a photograph."""
    return services.photos.take_back(ticket, photo_id, person.name)


@router.get("/photos/{photo_id}/{size}", response_class=Response, responses={200: {"content": {"image/jpeg": {}}}})
def picture(request: Request, services: AllServices, photo_id: UUID, size: Literal["large", "small"]) -> Response:
    """A photograph as a file."""
    data = services.photos.picture(photo_id, small=size == "small")
    return file_answer(request, data, media_type="image/jpeg", tag=f"{photo_id}-{size}")
