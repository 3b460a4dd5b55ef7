"""Questions about the whole house."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query
from pydantic import Field

from fidicula.api.auth import Acting, may
from fidicula.api.bench import Body
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Label
from fidicula.services.asking.asking import LONGEST, Answer, KeptQuestion
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


@router.get("/ask")
def ask(services: AllServices, words: Words = "") -> Answer:
    """Which instruments are meant, the question said back in plain words."""
    return services.asking.ask(words)


@router.get("/ask/complete")
def complete(services: AllServices, words: Words = "") -> list[Completion]:
    """What could come next."""
    return services.asking.complete(words)


@router.get("/questions")
def questions(services: AllServices) -> list[KeptQuestion]:
    """Questions that are kept."""
    return services.asking.questions()


@router.put("/questions", dependencies=[may("arrive")])
def keep(services: AllServices, body: QuestionBody, person: Acting) -> list[KeptQuestion]:
    """Keep a question under a name."""
    return services.asking.keep(body.name, body.words, entry_id=body.id, by=person.name)


@router.post("/questions/forget", dependencies=[may("arrive")])
def forget(services: AllServices, body: ForgetBody, person: Acting) -> list[KeptQuestion]:
    """Take a question off the list."""
    return services.asking.forget(body.name, entry_id=body.id, by=person.name)
