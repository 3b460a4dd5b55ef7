"""The papers of an instrument, to be seen on the screen and as PDF."""

from __future__ import annotations

from typing import Annotated
from urllib.parse import quote

from fastapi import APIRouter, Header, Request, Response

from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices, Services
from fidicula.api.words import Ticket
from fidicula.documents.paper.model import Paper
from fidicula.numerals import in_format_of
from fidicula.settings import LOOPBACK
from fidicula.views.papers.papers import PaperKind

router = APIRouter(prefix="/api", tags=["papers"], responses=RESPONSES)
Kind = PaperKind
Languages = Annotated[str, Header(alias="accept-language", max_length=400)]


def _address(request: Request, services: Services) -> str:
    """Where a telephone finds the instrument by the code on its ticket; empty where no other device gets here."""
    if services.reached_at or request.url.hostname in LOOPBACK:
        return services.reached_at
    return str(request.base_url).rstrip("/")


@router.get("/instruments/{ticket}/papers/{kind}")
def paper(
    request: Request, services: AllServices, ticket: Ticket, kind: Kind, accept_language: Languages = ""
) -> Paper:
    """What stands on a paper, numbers in the reader's format."""
    with in_format_of(accept_language):
        return services.papers.paper(ticket, kind, address=_address(request, services))


@router.get("/instruments/{ticket}/papers/{kind}/pdf", response_class=Response)
def paper_pdf(
    request: Request, services: AllServices, ticket: Ticket, kind: Kind, accept_language: Languages = ""
) -> Response:
    """The paper as a PDF."""
    with in_format_of(accept_language):
        data = services.papers.pdf(ticket, kind, address=_address(request, services))
    return Response(
        data,
        media_type="application/pdf",
        headers={"content-disposition": f"inline; filename*=utf-8''{quote(f'{ticket} {kind}.pdf')}"},
    )
