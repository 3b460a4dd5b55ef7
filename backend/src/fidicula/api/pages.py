"""The pages of an instrument, and the shop's short lists that they choose from."""

from __future__ import annotations

from typing import Annotated
from urllib.parse import quote
from uuid import UUID

from fastapi import APIRouter, Path, Response
from pydantic import Field

from fidicula.api.auth import Acting, may
from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Ticket
from fidicula.codes import Family
from fidicula.services.shop.shelf import ShelfView
from fidicula.views.pages.model import PageView
from fidicula.views.sheet.model import SetView

router = APIRouter(prefix="/api", tags=["pages"], responses=RESPONSES)

Name = Annotated[str, Path(max_length=40, pattern=r"^[a-z_]+$")]
HandleName = Annotated[str, Field(max_length=40)]
Tried = Annotated[float, Field(ge=-10_000, le=10_000, allow_inf_nan=False)] | Annotated[str, Field(max_length=60)]


class TriedBody(Body):
    """handles : those that were moved, by name."""

    handles: Annotated[dict[HandleName, Tried], Field(max_length=40)] = Field(default_factory=dict)


class ShelfBody(Body):
    """values : as typed, in any order."""

    id: UUID
    values: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=200)]


@router.post("/instruments/{ticket}/pages/{page}")
def page(services: AllServices, ticket: Ticket, page: Name, body: TriedBody) -> PageView:
    """One page, computed for where its handles stand; nothing is kept."""
    return services.pages.page(ticket, page, body.handles)


@router.get("/instruments/{ticket}/templates/{kind}/{form}", response_class=Response)
def template(services: AllServices, ticket: Ticket, kind: Name, form: Name) -> Response:
    """A template at true size, as pdf, svg or dxf."""
    file = services.templates.file(ticket, kind, form)
    # Any ticket's name, whatever its script, with a plain one for those that cannot read it.
    plain = file.name.encode("ascii", "replace").decode().replace("?", "_")
    named = {"content-disposition": f"attachment; filename=\"{plain}\"; filename*=UTF-8''{quote(file.name)}"}
    return Response(file.content, media_type=file.media_type, headers=named)


@router.get("/string-sets/{family}")
def string_sets_of(services: AllServices, family: Family) -> list[SetView]:
    """Sets of strings on the shelf for a family."""
    return services.strings.sets_of(family)


@router.get("/shelf/{family}")
def shelf(services: AllServices, family: Family) -> list[ShelfView]:
    """What the shop has on hand for a family."""
    return services.shelf.lists(family)


@router.put("/shelf/{family}/{name}", dependencies=[may("recipes")])
def enter(services: AllServices, family: Family, name: Name, body: ShelfBody, person: Acting) -> list[ShelfView]:
    """Change one of the lists."""
    return services.shelf.enter(family, name, body.values, entry_id=body.id, by=person.name)
