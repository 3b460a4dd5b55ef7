"""The course of a visit: decisions, what is seen, steps, particulars. Every change answers with the new sheet."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Path, Response
from pydantic import AwareDatetime, Field

from fidicula.api.auth import Acting, may
from fidicula.api.bench import Body, answer
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Sentence, Story, Ticket
from fidicula.services.visits.particulars import Change
from fidicula.views.sheet.model import BenchSheet, ItemView

router = APIRouter(prefix="/api", tags=["course"], responses=RESPONSES)

Name = Annotated[str, Field(max_length=40)]
InPath = Annotated[str, Path(max_length=40)]
_OF = "/instruments/{ticket}"


class DecisionBody(Body):
    id: UUID
    question: Name
    outcome: Name
    reason: Sentence = ""


class MarkBody(Body):
    id: UUID


class ReasonBody(MarkBody):
    reason: Sentence = ""


class WaitBody(ReasonBody):
    until: AwareDatetime


class SeenBody(Body):
    id: UUID
    findings: Annotated[list[Name], Field(max_length=20)] = Field(default_factory=list)
    verdict: Name = ""
    words: Story = ""


class ParticularBody(Body):
    field: Name
    was: Story
    now: Story


class ParticularsBody(Body):
    changes: Annotated[list[ParticularBody], Field(min_length=1, max_length=20)]


@router.post(_OF + "/decisions", response_model=BenchSheet, dependencies=[may("sign_off")])
def decide(services: AllServices, ticket: Ticket, body: DecisionBody, person: Acting) -> Response:
    """Decide a question."""
    return answer(
        services.workflow.decide(
            ticket,
            decision_id=body.id,
            question=body.question,
            outcome=body.outcome,
            reason=body.reason.strip(),
            by=person.name,
        )
    )


@router.post(_OF + "/decisions/{decision_id}/take-back", response_model=BenchSheet, dependencies=[may("sign_off")])
def take_back_decision(services: AllServices, ticket: Ticket, decision_id: UUID, person: Acting) -> Response:
    """Undo a decision."""
    return answer(services.workflow.take_back_decision(ticket, decision_id, person.name))


@router.post(_OF + "/steps/{step}/done", response_model=BenchSheet, dependencies=[may("measure")])
def done(services: AllServices, ticket: Ticket, step: InPath, body: MarkBody, person: Acting) -> Response:
    """Say that a step is done."""
    return answer(services.workflow.done(ticket, step, mark_id=body.id, by=person.name))


@router.post(_OF + "/steps/{step}/pass-over", response_model=BenchSheet, dependencies=[may("sign_off")])
def pass_over(services: AllServices, ticket: Ticket, step: InPath, body: ReasonBody, person: Acting) -> Response:
    """Leave a step out."""
    reason = body.reason.strip()
    return answer(services.workflow.pass_over(ticket, step, mark_id=body.id, reason=reason, by=person.name))


@router.post(_OF + "/steps/{step}/wait", response_model=BenchSheet, dependencies=[may("measure")])
def wait(services: AllServices, ticket: Ticket, step: InPath, body: WaitBody, person: Acting) -> Response:
    """Let a step rest until a time."""
    reason, until = body.reason.strip(), body.until
    return answer(services.workflow.wait(ticket, step, mark_id=body.id, until=until, reason=reason, by=person.name))


@router.post(_OF + "/steps/{step}/go-on", response_model=BenchSheet, dependencies=[may("sign_off")])
def go_on(services: AllServices, ticket: Ticket, step: InPath, body: ReasonBody, person: Acting) -> Response:
    """A step need not wait any longer."""
    reason = body.reason.strip()
    return answer(services.workflow.go_on(ticket, step, mark_id=body.id, reason=reason, by=person.name))


@router.post(_OF + "/marks/{mark_id}/take-back", response_model=BenchSheet, dependencies=[may("measure")])
def take_back_mark(services: AllServices, ticket: Ticket, mark_id: UUID, person: Acting) -> Response:
    """Undo what was said of a step."""
    return answer(services.workflow.take_back_mark(ticket, mark_id, person.name))


@router.get(_OF + "/look")
def look(services: AllServices, ticket: Ticket) -> list[ItemView]:
    """What it is looked over for, and what was seen so far."""
    return services.workflow.look(ticket)


@router.post(_OF + "/items/{item}/seen", response_model=BenchSheet, dependencies=[may("measure")])
def see(services: AllServices, ticket: Ticket, item: InPath, body: SeenBody, person: Acting) -> Response:
    """Write down what was seen at an item."""
    return answer(
        services.workflow.see(
            ticket,
            item,
            seen_id=body.id,
            found=body.findings,
            verdict=body.verdict,
            words=body.words.strip(),
            by=person.name,
        )
    )


@router.post(_OF + "/seen/{seen_id}/take-back", response_model=BenchSheet, dependencies=[may("measure")])
def take_back_seen(services: AllServices, ticket: Ticket, seen_id: UUID, person: Acting) -> Response:
    """Undo what was seen."""
    return answer(services.workflow.take_back_seen(ticket, seen_id, person.name))


@router.patch(_OF + "/particulars", response_model=BenchSheet, dependencies=[may("arrive")])
def change_particulars(services: AllServices, ticket: Ticket, body: ParticularsBody, person: Acting) -> Response:
    """Change particulars of the instrument or of its visit."""
    changes = [Change(change.field, change.was, change.now) for change in body.changes]
    return answer(services.particulars.change(ticket, changes, by=person.name))
