"""Many instruments at once: screening, and one act on all that are ticked."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import Field

from fidicula.api.auth import Acting, Signed, may
from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Day, Label, Sentence
from fidicula.services.adjusting.strings import Stringing
from fidicula.services.visits.batch import Told
from fidicula.services.visits.handover.handing import Signature
from fidicula.services.visits.screening import Screen

router = APIRouter(prefix="/api", tags=["many"], responses=RESPONSES)

TicketName = Annotated[str, Field(max_length=20, pattern=r"^[\w.-]+$")]
MOST = 200
"""Of instruments in one act."""


class ManyBody(Body):
    tickets: Annotated[list[TicketName], Field(min_length=1, max_length=MOST)]


class HandOverManyBody(ManyBody):
    """pin : of whoever signs.  reason : why open points stay so, on all of them.

    all_right : every point of the check at pitch was looked at on each, and is right.
    """

    pin: Annotated[str, Field(max_length=200)]
    reason: Sentence = ""
    all_right: bool = False
    next_check: Day | None = None


class FollowManyBody(ManyBody):
    recipe: Label | None = None
    reason: Sentence = ""


class PassManyBody(ManyBody):
    step: Annotated[str, Field(max_length=40)]
    reason: Sentence = ""


class WorkManyBody(ManyBody):
    """words : what it was, for other work."""

    work: Annotated[str, Field(max_length=40)]
    words: Sentence = ""


class StringsManyBody(ManyBody):
    """put_on_now : else they were on already."""

    set_id: UUID
    put_on_now: bool = True


class ChangeManyBody(ManyBody):
    field: Annotated[str, Field(max_length=40)]
    now: Sentence


@router.get("/screening")
def screening(services: AllServices, ticket: Annotated[list[TicketName], Query(min_length=1, max_length=60)]) -> Screen:
    """Which of these need a luthier, and why."""
    return services.screening.screen(ticket)


@router.post("/many/hand-over", dependencies=[may("sign_off")])
def hand_over(services: AllServices, body: HandOverManyBody, person: Acting, signed: Signed) -> list[Told]:
    """Sign and hand over all of them that can be."""
    services.people.sign(signed.sign_in, person, body.pin)
    signature = Signature({"": body.reason}, body.next_check)
    return services.batch.hand_over(body.tickets, signature, all_right=body.all_right, by=person.name)


@router.post("/many/hand-over/take-back", dependencies=[may("sign_off")])
def take_back_hand_over(services: AllServices, body: ManyBody, person: Acting) -> list[Told]:
    """They were not handed over after all."""
    return services.batch.take_back_hand_over(body.tickets, person.name)


@router.put("/many/targets", dependencies=[may("measure")])
def follow(services: AllServices, body: FollowManyBody, person: Acting) -> list[Told]:
    """Let all of them follow one recipe."""
    return services.batch.follow(body.tickets, recipe=body.recipe, reason=body.reason.strip(), by=person.name)


@router.post("/many/pass-over", dependencies=[may("sign_off")])
def pass_over(services: AllServices, body: PassManyBody, person: Acting) -> list[Told]:
    """Leave a step out of all of their visits."""
    return services.batch.pass_over(body.tickets, step=body.step, reason=body.reason.strip(), by=person.name)


@router.post("/many/works", dependencies=[may("measure")])
def work(services: AllServices, body: WorkManyBody, person: Acting) -> list[Told]:
    """Write one work down at each of them."""
    return services.batch.work(body.tickets, work=body.work, words=body.words, by=person.name)


@router.post("/many/strings", dependencies=[may("measure")])
def strings(services: AllServices, body: StringsManyBody, person: Acting) -> list[Told]:
    """Put one set on each of them."""
    stringing = Stringing(body.set_id, None, body.put_on_now)
    return services.batch.strings(body.tickets, stringing, by=person.name)


@router.patch("/many/particulars", dependencies=[may("arrive")])
def change(services: AllServices, body: ChangeManyBody, person: Acting) -> list[Told]:
    """Say one particular of all of them."""
    return services.batch.change(body.tickets, field=body.field, now=body.now.strip(), by=person.name)
