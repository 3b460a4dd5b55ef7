"""The damage map of an instrument."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import Field

from fidicula.api.auth import Acting, may
from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Label, Sentence, Strokes, Ticket
from fidicula.services.visits.damage import DamageView, LookTyped

router = APIRouter(prefix="/api", tags=["damage"], responses=RESPONSES)
_AT = "/instruments/{ticket}/damage"
Typed = Annotated[str, Field(max_length=40)]


class DamageBody(Body):
    """thing : the same for every look at one mark.  along to length : as typed, in mm."""

    id: UUID
    thing: UUID
    kind: Typed
    face: Typed
    along: Typed = ""
    across: Typed = ""
    to_along: Typed = ""
    to_across: Typed = ""
    length: Typed = ""
    ends: Typed = ""
    state: Typed = ""
    under_tension: bool = False
    words: Sentence = ""


class DamageSignedBody(Body):
    """signature : strokes as points of a path; empty where somebody signs on paper."""

    id: UUID
    who: Label = ""
    signature: Strokes = ""


@router.get(_AT)
def damage(services: AllServices, ticket: Ticket) -> DamageView:
    """What is marked on an instrument, and how it stands."""
    return services.damages.view(ticket)


@router.post(_AT, dependencies=[may("arrive")])
def look_at_damage(services: AllServices, ticket: Ticket, body: DamageBody, person: Acting) -> DamageView:
    """Mark damage, or say how a mark stands now."""
    typed = LookTyped(**body.model_dump(exclude={"id"}))
    return services.damages.look(ticket, typed, look_id=body.id, by=person.name)


@router.post(_AT + "/signed", dependencies=[may("arrive")])
def sign_for_damage(services: AllServices, ticket: Ticket, body: DamageSignedBody, person: Acting) -> DamageView:
    """Somebody signs for what is marked."""
    return services.damages.sign(ticket, signed_id=body.id, who=body.who, signature=body.signature, by=person.name)


@router.post(_AT + "/{entry_id}/take-back", dependencies=[may("arrive")])
def take_back_damage(services: AllServices, ticket: Ticket, entry_id: UUID, person: Acting) -> DamageView:
    """Undo a look or a signature of this visit."""
    return services.damages.take_back(ticket, entry_id, person.name)
