"""Fittings as objects, what came along, what the shop lent."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter
from pydantic import Field

from fidicula.api.auth import Acting
from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Day, Sentence, Ticket
from fidicula.services.visits.belongings import BelongingsView, BelongingTyped

router = APIRouter(prefix="/api", tags=["belongings"], responses=RESPONSES)
_AT = "/instruments/{ticket}/belongings"
Typed = Annotated[str, Field(max_length=40)]


class BelongingBody(Body):
    """thing : the same for every line about one thing.  count, mass : as typed.  lies : where it is while it is off."""

    id: UUID
    thing: UUID
    kind: Annotated[str, Field(max_length=40)]
    which: Sentence = ""
    material: Sentence = ""
    count: Typed = ""
    mass: Typed = ""
    made_on: Day | None = None
    stamp: Sentence = ""
    place: Literal["with_it", "off", "gone"] = "with_it"
    lies: Sentence = ""


@router.get(_AT)
def belongings(services: AllServices, ticket: Ticket) -> BelongingsView:
    """What belongs to an instrument."""
    return services.belongings.view(ticket)


@router.post(_AT)
def enter(services: AllServices, ticket: Ticket, body: BelongingBody, person: Acting) -> BelongingsView:
    """Write a thing down, or say something else of one."""
    typed = BelongingTyped(**body.model_dump(exclude={"id"}))
    return services.belongings.enter(ticket, typed, entry_id=body.id, by=person.name)


@router.post(_AT + "/{entry_id}/take-back")
def take_back(services: AllServices, ticket: Ticket, entry_id: UUID, person: Acting) -> BelongingsView:
    """Undo a line of this visit."""
    return services.belongings.take_back(ticket, entry_id, person.name)
