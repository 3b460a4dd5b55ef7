"""The history of an instrument over its visits, and the log of all of them."""

from __future__ import annotations

from fastapi import APIRouter

from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Ticket
from fidicula.views.history.view import InstrumentHistory, LogOfVisit

router = APIRouter(prefix="/api/instruments/{ticket}/history", tags=["history"], responses=RESPONSES)


@router.get("")
def history(services: AllServices, ticket: Ticket) -> InstrumentHistory:
    """What changed since last time, measures through the seasons, and every visit's entries."""
    return services.histories.of(ticket)


@router.get("/log")
def log_of_all(services: AllServices, ticket: Ticket) -> list[LogOfVisit]:
    """Everything that was written down, of every visit."""
    return services.histories.log(ticket)
