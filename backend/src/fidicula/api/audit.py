"""Who changed what and when: of an instrument, and of the house."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Query

from fidicula.api.auth import may
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Ticket
from fidicula.services.people.audit import AuditLine

router = APIRouter(prefix="/api", tags=["audit"], responses=RESPONSES)


@router.get("/audit", dependencies=[may("sign_off")])
def of_house(services: AllServices, before: Annotated[int | None, Query(ge=0, le=2**62)] = None) -> list[AuditLine]:
    """What was changed in the house, newest first. before : the oldest line that is here already."""
    return services.audit.of_house(before)


@router.get("/instruments/{ticket}/audit", dependencies=[may("look")])
def of_instrument(services: AllServices, ticket: Ticket) -> list[AuditLine]:
    """What was written down of an instrument, at every visit, newest first."""
    return services.audit.of_instrument(ticket)
