"""The rail and arrivals."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal
from uuid import UUID, uuid5

from fastapi import APIRouter, Request, Response
from pydantic import BaseModel, ConfigDict, Field

from fidicula import limits
from fidicula.api.auth import Acting, may
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Day, Label, Sentence, Story, Ticket, TicketTyped
from fidicula.codes import Family
from fidicula.domain.instruments import ASKED
from fidicula.services.visits.arrivals import Arrival, VisitAsked
from fidicula.services.visits.house import KnownView, Tag
from fidicula.views.choices import Choices

router = APIRouter(prefix="/api", tags=["house"], responses=RESPONSES)


class VisitBody(BaseModel):
    """What is asked of a visit. id : made where it is entered, so that a retry changes nothing.

    climate : of the place that it came from.  along : what came with it, in words between commas.
    comes : without strings, bridge or post, as findings.
    """

    model_config = ConfigDict(extra="forbid")

    id: UUID
    complaint: Story = ""
    kind: Annotated[Label, Field(max_length=40)] = "bridge"
    climate: Literal["", "damp", "dry"] = ""
    deadline: Day | None = None
    freeze_days: Annotated[int, Field(ge=0, le=limits.MOST_FREEZE_DAYS)] = 3
    promised: Day | None = None
    along: Sentence = ""
    comes: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=6)] = []

    def asked(self) -> VisitAsked:
        return VisitAsked(self.climate, self.deadline, self.freeze_days, self.promised)


class ArrivalBody(VisitBody):
    ticket: TicketTyped = ""
    family: Family
    size: Annotated[Label, Field(max_length=20)]
    string_names: Annotated[list[Annotated[Label, Field(max_length=4)]], Field(max_length=6)] = []
    left_handed: bool = False
    opposite_build: bool = False
    is_new: bool = False
    owner: Sentence = ""
    serial: Label = ""
    description: Story = ""
    contact: Story = ""
    plays: Story = ""
    label_read: Story = ""
    believed: Story = ""
    worth: Label = ""
    left_as_found: Story = ""
    is_fleet: bool = False
    size_without_figures: bool = False

    def arrival(self) -> Arrival:
        return Arrival(
            id=self.id,
            ticket=self.ticket,
            family=self.family,
            size=self.size,
            string_names=self.string_names,
            left_handed=self.left_handed,
            opposite_build=self.opposite_build,
            is_new=self.is_new,
            owner=self.owner,
            description=self.description,
            complaint=self.complaint,
            kind=self.kind,
            visit=self.asked(),
            asked={name: getattr(self, name) for name in ASKED},
            is_fleet=self.is_fleet,
            size_without_figures=self.size_without_figures,
            comes=self.comes,
        )


class FleetLine(BaseModel):
    """What differs from one instrument of a fleet to the next. size : empty for the common one."""

    model_config = ConfigDict(extra="forbid")

    ticket: TicketTyped = ""
    size: Annotated[Label, Field(max_length=20)] = ""
    serial: Label = ""
    description: Story = ""
    complaint: Story = ""
    left_handed: bool = False


class FleetBody(VisitBody):
    """A fleet: what is common, and a line for each. complaint : of those that have none of their own.

    set_id : the strings that are on all of them.
    """

    family: Family
    size: Annotated[Label, Field(max_length=20)]
    owner: Sentence = ""
    contact: Story = ""
    recipe: Label | None = None
    set_id: UUID | None = None
    instruments: Annotated[list[FleetLine], Field(min_length=1, max_length=60)]

    def arrivals(self) -> list[Arrival]:
        return [
            Arrival(
                id=uuid5(self.id, str(i)),
                ticket=line.ticket,
                family=self.family,
                size=line.size or self.size,
                string_names=[],
                left_handed=line.left_handed,
                opposite_build=False,
                is_new=False,
                owner=self.owner,
                description=line.description,
                complaint=line.complaint or self.complaint,
                kind=self.kind,
                visit=self.asked(),
                asked={"contact": self.contact, "serial": line.serial},
                is_fleet=True,
                comes=self.comes,
            )
            for i, line in enumerate(self.instruments)
        ]


class RegisteredFleet(BaseModel):
    tickets: list[str]


class Registered(BaseModel):
    ticket: str


@router.get("/rail", response_model=list[Tag])
def rail(request: Request, services: AllServices) -> Response:
    """Every instrument with an open visit. Who has it already, by its ETag, is told that nothing has changed."""
    found = services.house.rail()
    etag = f'"{found.digest}"'
    headers = {"etag": etag, "cache-control": "no-store", "vary": "accept-encoding"}
    if request.headers.get("if-none-match") == etag:
        return Response(status_code=304, headers=headers)
    if "gzip" in request.headers.get("accept-encoding", ""):
        return Response(found.packed, media_type="application/json", headers={**headers, "content-encoding": "gzip"})
    return Response(found.tags, media_type="application/json", headers=headers)


@router.get("/choices")
def choices(services: AllServices) -> Choices:
    """What the forms offer."""
    return replace(services.house.choices(), has_devices=services.has_stand_ins)


def _came(services: AllServices, ticket: str, body: VisitBody, visit_id: UUID, by: str) -> None:
    services.belongings.came(ticket, body.along, visit_id=visit_id, by=by)


@router.post("/instruments", status_code=201, dependencies=[may("arrive")])
def register(services: AllServices, body: ArrivalBody, person: Acting) -> Registered:
    """Take an instrument in."""
    ticket = services.house.register(body.arrival(), person.name)
    _came(services, ticket, body, body.id, person.name)
    return Registered(ticket=ticket)


@router.post("/fleets", status_code=201, dependencies=[may("arrive")])
def register_fleet(services: AllServices, body: FleetBody, person: Acting) -> RegisteredFleet:
    """Take a fleet in, all of it or none."""
    tickets = services.house.register_fleet(body.arrivals(), recipe=body.recipe, set_id=body.set_id, by=person.name)
    for i, ticket in enumerate(tickets):
        _came(services, ticket, body, uuid5(body.id, str(i)), person.name)
    return RegisteredFleet(tickets=tickets)


@router.get("/known", response_model=list[KnownView])
def known(services: AllServices, words: Label = "") -> Response:
    """Instruments that have been here, found by ticket, owner or words."""
    return Response(services.house.known(words), media_type="application/json")


@router.post("/instruments/{ticket}/visits", status_code=201, dependencies=[may("arrive")])
def receive_again(services: AllServices, ticket: Ticket, body: VisitBody, person: Acting) -> Registered:
    """Take an instrument in again."""
    services.house.receive_again(
        ticket,
        visit_id=body.id,
        kind=body.kind,
        complaint=body.complaint.strip(),
        asked=body.asked(),
        comes=body.comes,
        by=person.name,
    )
    _came(services, ticket, body, body.id, person.name)
    return Registered(ticket=ticket)
