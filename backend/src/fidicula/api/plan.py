"""The plan of a visit, its price and its approval; the drawers; the shop's settings."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Query, Response
from pydantic import Field

from fidicula.api.auth import Acting, may
from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Label, Sentence, Story, Strokes, Ticket
from fidicula.codes import Family
from fidicula.documents.estimate import EstimatePaper
from fidicula.services.shop.pricing.approving import Approving
from fidicula.services.shop.pricing.drawers import KindView, NewItem, StockLine, StockView
from fidicula.services.shop.pricing.plan import Adding
from fidicula.services.shop.pricing.settings import SettingView
from fidicula.services.shop.pricing.view import FleetEstimate, SumOfLines, VisitPlan
from fidicula.tables.pricing import Grade

router = APIRouter(prefix="/api", tags=["plan"], responses=RESPONSES)
Typed = Annotated[str, Field(max_length=40)]
AT = "/instruments/{ticket}/plan"


class AddingBody(Body):
    """works : of the plan's jobs, or a bundle's name.  because : what proposes them.  reason : of a find underway."""

    id: UUID
    works: Annotated[list[Label], Field(min_length=1, max_length=40)]
    origin: Literal["finding", "decision", "reading", "wish", "underway"] = "wish"
    because: Label = ""
    reason: Sentence = ""


class MovingBody(Body):
    """before : the line that it then stands before; None for the end."""

    before: UUID | None = None


class GradeBody(Body):
    grade: Grade


class PartBody(Body):
    """count : as typed; empty for one."""

    id: UUID
    item: UUID
    count: Typed = ""


class WorkBegunBody(Body):
    id: UUID


class FinishBody(Body):
    """id : of the work that is written down.  minutes : as typed."""

    id: UUID
    minutes: Typed


class ApprovalBody(Body):
    """total : that was shown, as the plan gave it.  up_to : as typed, empty for that total.

    signature : strokes as points of a path.
    """

    id: UUID
    who: Sentence
    how: Literal["in_person", "phone", "letter", "signature"]
    total: Typed
    up_to: Typed = ""
    words: Story = ""
    signature: Strokes = ""
    lines: Annotated[list[UUID], Field(max_length=60)] | None = None


class DiscountBody(Body):
    """percent : as typed, empty for none."""

    id: UUID
    percent: Typed = ""
    reason: Sentence = ""


class ItemBody(Body):
    """Everything that is a number as it was typed. details : by name, for instance wood, grade, seasoned since."""

    id: UUID
    kind: Label
    family: Family | Literal[""] = ""
    label: Label
    figure: Typed = ""
    counted: Typed = ""
    price: Typed = ""
    place: Label = ""
    reorder_at: Typed = ""
    supplier: Label = ""
    details: Annotated[dict[Label, Label], Field(max_length=20, default_factory=dict)]
    string_set_id: UUID | None = None


class StockBody(Body):
    """what : a count that comes or goes, or a price from now on. value : as typed."""

    id: UUID
    what: Literal["count", "price"]
    value: Typed
    comes: bool = True
    reason: Sentence = ""


class SettingBody(Body):
    id: UUID
    value: Annotated[str, Field(max_length=200)]


@router.get(AT)
def plan(services: AllServices, ticket: Ticket) -> VisitPlan:
    """What is planned, and what it comes to."""
    return services.plans.view(ticket)


@router.get("/instruments/{ticket}/estimate")
def estimate(services: AllServices, ticket: Ticket) -> EstimatePaper:
    """What stands on the estimate for the owner."""
    return services.estimates.paper(ticket)


@router.get("/instruments/{ticket}/estimate.pdf", response_class=Response)
def estimate_pdf(services: AllServices, ticket: Ticket) -> Response:
    """The estimate for the owner."""
    headers = {"content-disposition": 'inline; filename="estimate.pdf"'}
    return Response(services.estimates.pdf(ticket), media_type="application/pdf", headers=headers)


@router.post(f"{AT}/lines", dependencies=[may("measure")])
def add_lines(services: AllServices, ticket: Ticket, body: AddingBody, person: Acting) -> VisitPlan:
    """Plan works."""
    adding = Adding(body.works, body.origin, body.because, body.reason)
    return services.plans.add(ticket, adding, line_id=body.id, by=person.name)


@router.post(f"{AT}/lines/{{line_id}}/drop", dependencies=[may("measure")])
def drop_line(services: AllServices, ticket: Ticket, line_id: UUID, person: Acting) -> VisitPlan:
    """Take a work off the plan."""
    return services.plans.drop(ticket, line_id, by=person.name)


@router.post(f"{AT}/lines/{{line_id}}/move", dependencies=[may("measure")])
def move_line(services: AllServices, ticket: Ticket, line_id: UUID, body: MovingBody) -> VisitPlan:
    """Put a work before another."""
    return services.plans.move(ticket, line_id, before=body.before)


@router.put(f"{AT}/lines/{{line_id}}/grade", dependencies=[may("measure")])
def grade_line(services: AllServices, ticket: Ticket, line_id: UUID, body: GradeBody) -> VisitPlan:
    """In which variant a work counts first."""
    return services.plans.grade(ticket, line_id, body.grade)


@router.post(f"{AT}/lines/{{line_id}}/parts", dependencies=[may("measure")])
def use_part(services: AllServices, ticket: Ticket, line_id: UUID, body: PartBody, person: Acting) -> VisitPlan:
    """Reserve something for a work."""
    return services.plans.use(ticket, line_id, item_id=body.item, count=body.count, part_id=body.id, by=person.name)


@router.post(f"{AT}/parts/{{part_id}}/put-back", dependencies=[may("measure")])
def put_part_back(services: AllServices, ticket: Ticket, part_id: UUID, person: Acting) -> VisitPlan:
    """It is not used after all."""
    return services.plans.put_back(ticket, part_id, by=person.name)


@router.post(f"{AT}/lines/{{line_id}}/begin", dependencies=[may("measure")])
def begin_line(services: AllServices, ticket: Ticket, line_id: UUID, body: WorkBegunBody, person: Acting) -> VisitPlan:
    """Begin, or go on with, a work."""
    return services.plans.begin(ticket, line_id, time_id=body.id, by=person.name)


@router.post(f"{AT}/lines/{{line_id}}/pause", dependencies=[may("measure")])
def pause_line(services: AllServices, ticket: Ticket, line_id: UUID) -> VisitPlan:
    """Stop for now."""
    return services.plans.pause(ticket, line_id)


@router.post(f"{AT}/lines/{{line_id}}/finish", dependencies=[may("measure")])
def finish_line(services: AllServices, ticket: Ticket, line_id: UUID, body: FinishBody, person: Acting) -> VisitPlan:
    """It is done, in so many minutes."""
    return services.plans.finish(ticket, line_id, minutes=body.minutes, work_id=body.id, by=person.name)


@router.get(f"{AT}/sum")
def sum_of(
    services: AllServices,
    ticket: Ticket,
    line: Annotated[list[UUID], Query(max_length=60)] = [],  # noqa: B006
) -> SumOfLines:
    """What some lines come to, with those that are done."""
    return services.plans.sum_of(ticket, line)


@router.post(f"{AT}/discount", dependencies=[may("sign_off")])
def give_discount(services: AllServices, ticket: Ticket, body: DiscountBody, person: Acting) -> VisitPlan:
    """So much off all lines."""
    return services.plans.give_discount(
        ticket, percent=body.percent, reason=body.reason, discount_id=body.id, by=person.name
    )


@router.post(f"{AT}/approvals", dependencies=[may("arrive")])
def approve(services: AllServices, ticket: Ticket, body: ApprovalBody, person: Acting) -> VisitPlan:
    """The owner agrees to the plan as it stands."""
    approving = Approving(body.who, body.how, body.total, body.up_to, body.words, body.signature, body.lines)
    return services.plans.approve(ticket, approving, approval_id=body.id, by=person.name)


@router.post(f"{AT}/approvals/{{approval_id}}/take-back", dependencies=[may("arrive")])
def take_back_approval(services: AllServices, ticket: Ticket, approval_id: UUID, person: Acting) -> VisitPlan:
    """It was written down by mistake."""
    return services.plans.take_back_approval(ticket, approval_id, by=person.name)


@router.get("/fleets/{owner}/estimate")
def fleet_estimate(services: AllServices, owner: Sentence) -> FleetEstimate:
    """The plans of all of an owner's instruments in the house, in one."""
    return services.fleets.estimate(owner)


@router.get("/stock")
def stock(services: AllServices, words: Label = "", kind: Label = "", family: Family | None = None) -> list[StockView]:
    """What lies in the drawers, found by words."""
    return services.drawers.found(words, kind=kind, family=family or "")


@router.get("/stock-kinds")
def kinds(services: AllServices) -> list[KindView]:
    """Kinds of what lies there."""
    return services.drawers.kinds()


@router.post("/stock", status_code=201, dependencies=[may("recipes")])
def add_item(services: AllServices, body: ItemBody, person: Acting) -> StockView:
    """Put something new into the drawers."""
    values = body.model_dump()
    item_id = values.pop("id")
    return services.drawers.add(NewItem(**values), item_id=item_id, by=person.name)


@router.post("/stock/{item_id}/entries", dependencies=[may("measure")])
def enter_stock(services: AllServices, item_id: UUID, body: StockBody, person: Acting) -> StockView:
    """A count that comes or goes, or a new price."""
    return services.drawers.enter(
        item_id,
        what=body.what,
        typed=body.value,
        comes=body.comes,
        reason=body.reason,
        entry_id=body.id,
        by=person.name,
    )


@router.get("/stock/{item_id}/entries")
def stock_history(services: AllServices, item_id: UUID) -> list[StockLine]:
    """Counts and prices, newest first."""
    return services.drawers.history(item_id)


@router.get("/settings")
def settings(services: AllServices) -> list[SettingView]:
    """What the shop sets for itself."""
    return services.shop_settings.all()


@router.put("/settings/{setting}", dependencies=[may("figures")])
def enter_setting(services: AllServices, setting: Label, body: SettingBody, person: Acting) -> list[SettingView]:
    """Change one."""
    return services.shop_settings.enter(setting, body.value, entry_id=body.id, by=person.name)
