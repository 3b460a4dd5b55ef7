"""Questions about the whole house."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Request
from pydantic import Field

from fidicula.api.auth import Acting, may
from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.words import Label
from fidicula.services.asking.asking import LONGEST, Answer, Asking, KeptQuestion
from fidicula.services.asking.complete import Completion

router = APIRouter(prefix="/api", tags=["asking"], responses=RESPONSES)
Words = Annotated[str, Query(max_length=LONGEST)]


class QuestionBody(Body):
    id: UUID
    name: Label
    words: Annotated[str, Field(max_length=LONGEST)]


class ForgetBody(Body):
    id: UUID
    name: Label


def _asking(request: Request) -> Asking:
    asking: Asking = request.app.state.asking
    return asking


@router.get("/ask")
def ask(request: Request, words: Words = "") -> Answer:
    """Which instruments are meant, the question said back in plain words."""
    return _asking(request).ask(words)


@router.get("/ask/complete")
def complete(request: Request, words: Words = "") -> list[Completion]:
    """What could come next."""
    return _asking(request).complete(words)


@router.get("/questions")
def questions(request: Request) -> list[KeptQuestion]:
    """Questions that are kept."""
    return _asking(request).questions()


@router.put("/questions", dependencies=[may("arrive")])
def keep(request: Request, body: QuestionBody, person: Acting) -> list[KeptQuestion]:
    """Keep a question under a name."""
    return _asking(request).keep(body.name, body.words, entry_id=body.id, by=person.name)


@router.post("/questions/forget", dependencies=[may("arrive")])
def forget(request: Request, body: ForgetBody, person: Acting) -> list[KeptQuestion]:
    """Take a question off the list."""
    return _asking(request).forget(body.name, entry_id=body.id, by=person.name)
