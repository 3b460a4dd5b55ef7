"""Strings at one instrument: which are on it, one by one, and how they settle."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Response
from pydantic import Field

from fidicula.api.auth import Acting, may
from fidicula.api.bench import Body, answer
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Day, Label, Sentence, Ticket
from fidicula.services.adjusting.strings import OwnSet, Stringing
from fidicula.views.adjustments.strings_on import StringsView
from fidicula.views.sheet.model import BenchSheet, SetView

router = APIRouter(prefix="/api/instruments/{ticket}", tags=["strings"], responses=RESPONSES)

Typed = Annotated[str, Field(max_length=40)]
ForEach = Annotated[list[Typed], Field(max_length=6)]


class OwnSetBody(Body):
    """diameters, tensions : as typed, low string first."""

    name: Label
    material: Label
    diameters: ForEach
    tensions: ForEach = Field(default_factory=list)


class StringsBody(Body):
    """positions : which strings, low string 0; empty for all.  since : the day they went on, if they were on it."""

    id: UUID
    set_id: UUID | None = None
    own: OwnSetBody | None = None
    put_on_now: bool = False
    positions: Annotated[list[Annotated[int, Field(ge=0, le=5)]], Field(max_length=6)] = Field(default_factory=list)
    since: Day | None = None
    hours_a_week: Typed = ""
    fate: Literal["", "spare", "given_on", "discarded"] = ""


class RetuningBody(Body):
    """cents : how far each string had gone, as typed; empty where nobody looked."""

    id: UUID
    cents: ForEach
    remark: Sentence = ""


@router.get("/string-sets")
def string_sets(services: AllServices, ticket: Ticket) -> list[SetView]:
    """Sets on the shelf that fit."""
    return services.strings.sets(ticket)


@router.get("/strings")
def strings(services: AllServices, ticket: Ticket) -> StringsView:
    """What is on it, what was, how it settles."""
    return services.strings.view(ticket)


@router.post("/strings", response_model=BenchSheet, dependencies=[may("measure")])
def name_strings(services: AllServices, ticket: Ticket, body: StringsBody, person: Acting) -> Response:
    """Say which strings are on it, or were put on now."""
    own = None
    if body.own is not None:
        own = OwnSet(body.own.name, body.own.material, body.own.diameters, body.own.tensions)
    stringing = Stringing(body.set_id, own, body.put_on_now, body.positions, body.since, body.hours_a_week, body.fate)
    return answer(services.strings.name(ticket, stringing, work_id=body.id, by=person.name))


@router.post("/retunings", dependencies=[may("measure")])
def retune(services: AllServices, ticket: Ticket, body: RetuningBody, person: Acting) -> StringsView:
    """Write down how far each string had gone."""
    return services.strings.retune(ticket, retuning_id=body.id, cents=body.cents, remark=body.remark, by=person.name)


@router.post("/retunings/{retuning_id}/take-back", dependencies=[may("measure")])
def take_back_retuning(services: AllServices, ticket: Ticket, retuning_id: UUID, person: Acting) -> StringsView:
    """Undo a tuning."""
    return services.strings.take_back_retuning(ticket, retuning_id, person.name)
