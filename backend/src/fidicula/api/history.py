"""The history of an instrument over its visits, and the log of all of them."""

from __future__ import annotations

from fastapi import APIRouter, Request

from fidicula.api.errors import RESPONSES
from fidicula.api.words import Ticket
from fidicula.services.visits.histories import Histories
from fidicula.views.history.view import InstrumentHistory, LogOfVisit

router = APIRouter(prefix="/api/instruments/{ticket}/history", tags=["history"], responses=RESPONSES)


def _histories(request: Request) -> Histories:
    histories: Histories = request.app.state.histories
    return histories


@router.get("")
def history(request: Request, ticket: Ticket) -> InstrumentHistory:
    """What changed since last time, measures through the seasons, and every visit's entries."""
    return _histories(request).of(ticket)


@router.get("/log")
def log_of_all(request: Request, ticket: Ticket) -> list[LogOfVisit]:
    """Everything that was written down, of every visit."""
    return _histories(request).log(ticket)
