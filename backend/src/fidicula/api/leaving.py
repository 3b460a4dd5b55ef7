"""How a visit ends: the checklist, the signature, the seal, additions, what is due again; the shop's list of points."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter
from pydantic import Field

from fidicula.api.auth import Acting, Signed, may
from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Day, Label, Sentence, Story, Strokes, Ticket
from fidicula.codes import Family
from fidicula.services.visits.handover.handing import DueView, Signature
from fidicula.services.visits.handover.shop_points import PointTyped, ShopPoint
from fidicula.views.handover import AdditionView, Checklist, SealView

router = APIRouter(prefix="/api", tags=["leaving"], responses=RESPONSES)
AT = "/instruments/{ticket}"
Pin = Annotated[str, Field(max_length=200)]
PointName = Annotated[str, Field(max_length=60, pattern=r"^[a-z0-9_-]+$")]


class CheckBody(Body):
    """id : of the first of them.  words : what is not right."""

    id: UUID
    points: Annotated[list[PointName], Field(min_length=1, max_length=60)]
    verdict: Literal["right", "not_right"]
    words: Sentence = ""


class UndoCheckBody(Body):
    point: PointName


class HandOverBody(Body):
    """pin : of whoever signs.  left_open : why each open point stays so, by key; "" for all that have none.

    next_check : None for no further check.  received_by, signature : who takes it; strokes as points of a path.
    """

    id: UUID
    pin: Pin
    left_open: Annotated[dict[Label, Sentence], Field(max_length=200, default_factory=dict)]
    next_check: Day | None = None
    next_check_why: Sentence = ""
    received_by: Sentence = ""
    signature: Strokes = ""


class AdditionBody(Body):
    id: UUID
    visit_id: UUID
    words: Story


class PointBody(Body):
    """families : that it is asked for, none for all."""

    id: UUID
    label: Sentence
    look: Sentence = ""
    means: Sentence = ""
    families: Annotated[list[Family], Field(max_length=4, default_factory=list)]


class LeaveOutBody(Body):
    id: UUID


@router.get(f"{AT}/checklist")
def checklist(services: AllServices, ticket: Ticket) -> Checklist:
    """What the visit did and left, point by point, or as it was signed."""
    return services.leaving.checklist(ticket)


@router.post(f"{AT}/checks", dependencies=[may("measure")])
def check(services: AllServices, ticket: Ticket, body: CheckBody, person: Acting) -> Checklist:
    """Say what was seen at points of the check at pitch."""
    return services.leaving.check(
        ticket, body.points, check_id=body.id, verdict=body.verdict, words=body.words, by=person.name
    )


@router.post(f"{AT}/checks/take-back", dependencies=[may("measure")])
def take_back_check(services: AllServices, ticket: Ticket, body: UndoCheckBody, person: Acting) -> Checklist:
    """Undo what was said of a point last."""
    return services.leaving.take_back_check(ticket, body.point, person.name)


@router.post(f"{AT}/hand-over", dependencies=[may("sign_off")])
def hand_over(services: AllServices, ticket: Ticket, body: HandOverBody, person: Acting, signed: Signed) -> Checklist:
    """Sign the visit with a PIN and hand the instrument over: its record is sealed."""
    services.people.sign(signed.sign_in, person, body.pin)
    signature = Signature(body.left_open, body.next_check, body.next_check_why, body.received_by, body.signature)
    services.leaving.hand_over(ticket, signature, seal_id=body.id, by=person.name)
    return services.leaving.checklist(ticket)


@router.post(f"{AT}/hand-over/take-back", dependencies=[may("sign_off")])
def take_back_hand_over(services: AllServices, ticket: Ticket, person: Acting) -> Checklist:
    """It was not handed over after all: the visit goes on, its seal stays on record."""
    services.leaving.take_back(ticket, person.name)
    return services.leaving.checklist(ticket)


@router.get(f"{AT}/seals")
def seals(services: AllServices, ticket: Ticket) -> list[SealView]:
    """Every seal, each checked against the record as it is now."""
    return services.leaving.seals(ticket)


@router.post(f"{AT}/additions", status_code=201, dependencies=[may("measure")])
def add(services: AllServices, ticket: Ticket, body: AdditionBody, person: Acting) -> list[AdditionView]:
    """Add to a sealed visit."""
    return services.leaving.add(ticket, body.visit_id, body.words, addition_id=body.id, by=person.name)


@router.get("/checks-due")
def checks_due(services: AllServices, days: Annotated[int, Field(ge=0, le=3660)] = 14) -> list[DueView]:
    """Instruments that should come again within so many days."""
    return services.leaving.due(days)


@router.get("/closing-points")
def closing_points(services: AllServices) -> list[ShopPoint]:
    """What the shop looks at before an instrument leaves."""
    return services.closing_points.all()


@router.put("/closing-points/{point}", dependencies=[may("recipes")])
def enter_point(services: AllServices, point: PointName, body: PointBody, person: Acting) -> list[ShopPoint]:
    """Word a point of the list, or add one."""
    typed = PointTyped(body.label, body.look, body.means, body.families)
    return services.closing_points.enter(point, typed, entry_id=body.id, by=person.name)


@router.post("/closing-points/{point}/leave-out", dependencies=[may("recipes")])
def leave_out(services: AllServices, point: PointName, body: LeaveOutBody, person: Acting) -> list[ShopPoint]:
    """It is not asked any more."""
    return services.closing_points.leave_out(point, entry_id=body.id, by=person.name)
