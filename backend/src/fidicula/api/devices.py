"""Devices at the bench: what a caliper sends."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Request
from pydantic import BaseModel, Field

from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.signed import may
from fidicula.api.words import Ticket
from fidicula.services.calipers import Calipers

router = APIRouter(prefix="/api/instruments/{ticket}", tags=["devices"], responses=RESPONSES)


class CaliperBody(Body):
    """manner : how the simulated caliper behaves."""

    measure: Annotated[str, Field(max_length=40)]
    position: Annotated[int, Field(ge=0, le=5)] | None = None
    manner: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=8)] = Field(default_factory=list)


class Sent(BaseModel):
    """typed : as a keyboard would type it; it is no reading before somebody takes it."""

    typed: str


@router.post("/caliper", dependencies=[may("measure")])
def caliper(request: Request, ticket: Ticket, body: CaliperBody) -> Sent:
    """Let the simulated caliper send what lies between its jaws."""
    calipers: Calipers = request.app.state.calipers
    return Sent(typed=calipers.send(ticket, body.measure, body.position, body.manner))
