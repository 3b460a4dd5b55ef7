"""One instrument at the bench. Every change answers with the new sheet."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Request, Response
from pydantic import AwareDatetime, BaseModel, ConfigDict, Field, TypeAdapter

from fidicula import limits
from fidicula.api.auth import Acting, may
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Sentence, Ticket
from fidicula.domain.errors import ForbiddenError
from fidicula.services.bench.said import Said
from fidicula.services.bench.taking import ReadingInput
from fidicula.services.people.roles import MAY
from fidicula.views.sheet.beside import Beside
from fidicula.views.sheet.cell import CardPlace
from fidicula.views.sheet.model import BenchSheet, LogLine
from fidicula.views.sheet.views import Views
from fidicula.words.model import Why

router = APIRouter(prefix="/api/instruments/{ticket}", tags=["bench"], responses=RESPONSES)

_sheet_adapter = TypeAdapter(BenchSheet)


class Body(BaseModel):
    model_config = ConfigDict(extra="forbid")


class ReadingBody(Body):
    """visit : the visit that the page showed; a reading that waited goes to it, also when another has begun meanwhile.

    after_work, after_act : number of the last work that the page knew, and id of a work that was still on its way.
    shown : the reading that the page showed at this place, null for none.

    from_paper : it was written on a card and is entered afterwards; its time says which works came before it.
    simulated : a stand-in sent it; it is marked wherever it shows, and counts in no firm cut.
    """

    id: UUID
    measure: Annotated[str, Field(max_length=40)]
    position: Annotated[int, Field(ge=0, le=5)] | None = None
    typed: Annotated[str, Field(max_length=40)]
    tool: Annotated[str, Field(max_length=40)]
    taken_at: Annotated[AwareDatetime, Field(ge=limits.EARLIEST, lt=limits.LATEST)]
    after_work: Annotated[int, Field(ge=0)] = 0
    after_act: UUID | None = None
    visit: UUID | None = None
    shown: UUID | None
    repeats: bool = False
    from_paper: bool = False
    simulated: bool = False


class PutRightBody(Body):
    """What to do with readings that look like a slip. to : the ticket that they belong to, for `move`."""

    id: UUID
    act: Literal["keep", "undo", "swap", "move", "record_cut"]
    readings: Annotated[list[UUID], Field(min_length=1, max_length=40)]
    to: Annotated[str, Field(max_length=16)] = ""


class RedoBody(Body):
    """What was taken back, as `undoable` named it."""

    kind: Literal["reading", "work", "decision", "mark", "seen"]
    of: UUID


class WorkBody(Body):
    """after_work : the last work that the page knew, so that the same work is not recorded by two.

    words : what it was, for other work.  filed : at the nut, by string, as typed; empty where nothing was. [mm]
    turned : turns of the bass and the treble wheel, as typed, + up.  tension : of the strings, as a post was set.
    """

    id: UUID
    work: Annotated[str, Field(max_length=40)]
    words: Sentence = ""
    filed: Annotated[list[Annotated[str, Field(max_length=20)]], Field(max_length=limits.MOST_STRINGS)] = Field(
        default_factory=list
    )
    turned: Annotated[list[Annotated[str, Field(max_length=20)]], Field(max_length=2)] = Field(default_factory=list)
    tension: Annotated[str, Field(max_length=40)] = ""
    after_work: Annotated[int, Field(ge=0)] | None = None


def answer(sheet: BenchSheet) -> Response:
    # Written out directly: the sheet is ours already, a second validation would only take time.
    return Response(_sheet_adapter.dump_json(sheet), media_type="application/json")


@router.get("/sheet", response_model=BenchSheet)
def sheet(services: AllServices, ticket: Ticket) -> Response:
    """The whole bench sheet, computed again."""
    return answer(services.bench.sheet(ticket))


@router.get("/card")
def card(services: AllServices, ticket: Ticket) -> list[CardPlace]:
    """The places that are read on this instrument: what never changes of each."""
    return services.bench.card(ticket)


@router.get("/whys")
def whys(services: AllServices, ticket: Ticket) -> dict[str, Why]:
    """Behind each figure of the sheet: the formula with its numbers, and who set what it follows."""
    return services.bench.whys(ticket)


@router.get("/views")
def views(services: AllServices, ticket: Ticket) -> Views:
    """The instrument from its side and from above, as drawn from what is read."""
    return services.bench.views(ticket)


@router.get("/beside")
def beside(services: AllServices, ticket: Ticket) -> list[Beside]:
    """What can be laid beside the bench card: as it came, and earlier visits."""
    return services.bench.beside(ticket)


@router.get("/log")
def log(services: AllServices, ticket: Ticket) -> list[LogLine]:
    """Every reading and work of this visit, newest first, whatever became of it."""
    return services.bench.log(ticket)


@router.post("/readings", response_model=BenchSheet, dependencies=[may("measure")])
def take_reading(
    request: Request, services: AllServices, ticket: Ticket, body: ReadingBody, person: Acting
) -> Response:
    """Keep a reading; the same id again changes nothing. With `Prefer: return=minimal` the sheet may be left out."""
    taken_at: datetime = body.taken_at
    taking = ReadingInput(
        id=body.id,
        measure=body.measure,
        position=body.position,
        typed=body.typed,
        tool=body.tool,
        taken_by=person.name,
        taken_at=taken_at,
        after_work=body.after_work,
        after_act=body.after_act,
        repeats=body.repeats,
        shown=body.shown,
        says_shown=True,
        from_paper=body.from_paper,
        simulated=body.simulated,
        visit=body.visit,
    )
    more_follow = request.headers.get("Prefer") == "return=minimal"
    answered = services.bench.take_reading(ticket, taking, made=answer, more_follow=more_follow)
    return answered or Response(status_code=204)


@router.post("/readings/{reading_id}/confirm", response_model=BenchSheet, dependencies=[may("measure")])
def confirm_reading(services: AllServices, ticket: Ticket, reading_id: UUID, person: Acting) -> Response:
    """Let a doubted reading count as typed."""
    return answer(services.bench.confirm_reading(ticket, reading_id, person.name))


@router.post("/readings/{reading_id}/take-back", response_model=BenchSheet, dependencies=[may("measure")])
def take_back_reading(services: AllServices, ticket: Ticket, reading_id: UUID, person: Acting) -> Response:
    """Undo a reading."""
    return answer(services.bench.take_back_reading(ticket, reading_id, person.name))


@router.post("/readings/put-right", response_model=BenchSheet, dependencies=[may("measure")])
def put_right(services: AllServices, ticket: Ticket, body: PutRightBody, person: Acting) -> Response:
    """Confirm, undo, swap or move several readings, or record the cut before them; a retry changes nothing."""
    return answer(
        services.slips.put_right(
            ticket, act=body.act, readings=body.readings, to=body.to, act_id=body.id, by=person.name
        )
    )


@router.post("/works", response_model=BenchSheet, dependencies=[may("measure")])
def do_work(services: AllServices, ticket: Ticket, body: WorkBody, person: Acting) -> Response:
    """Write down a work done."""
    return answer(
        services.bench.do_work(
            ticket,
            work_id=body.id,
            kind=body.work,
            by=person.name,
            known=body.after_work,
            said=Said(body.words, body.filed, body.turned, body.tension),
        )
    )


@router.post("/works/{work_id}/take-back", response_model=BenchSheet, dependencies=[may("measure")])
def take_back_work(services: AllServices, ticket: Ticket, work_id: UUID, person: Acting) -> Response:
    """Undo a work."""
    return answer(services.bench.take_back_work(ticket, work_id, person.name))


@router.post("/redo", response_model=BenchSheet, dependencies=[may("measure")])
def redo(services: AllServices, ticket: Ticket, body: RedoBody, person: Acting) -> Response:
    """Let stand again what was taken back by mistake; a decision, for whoever decides."""
    if body.kind == "decision" and "sign_off" not in MAY[person.role]:
        raise ForbiddenError(f"the {person.role} does not decide: a luthier gives a PIN first")
    return answer(services.redoing.redo(ticket, body.kind, body.of))
