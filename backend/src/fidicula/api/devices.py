"""Devices at the bench: what caliper, tuner and hygrometer send."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter
from pydantic import Field

from fidicula.api.auth import may
from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Ticket
from fidicula.judgement.measures import measure_code
from fidicula.services.bench.devices_at_bench import Shown

router = APIRouter(prefix="/api/instruments/{ticket}", tags=["devices"], responses=RESPONSES)


class ReadBody(Body):
    """manner : how the simulated device behaves."""

    measure: Annotated[str, Field(max_length=40)]
    position: Annotated[int, Field(ge=0, le=5)] | None = None
    manner: Annotated[list[Annotated[str, Field(max_length=40)]], Field(max_length=8)] = Field(default_factory=list)


@router.post("/device", dependencies=[may("measure")])
def device(services: AllServices, ticket: Ticket, body: ReadBody) -> Shown:
    """Let a place's simulated device send what it reads there."""
    return services.devices.send(ticket, measure_code(body.measure), body.position, body.manner)
