"""The shop's figures."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter
from pydantic import BaseModel, ConfigDict, Field

from fidicula.api.auth import Acting, may
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Label, Sentence
from fidicula.codes import Family
from fidicula.judgement.measures import figure_code
from fidicula.services.shop.figures import FigureLine, FigureTyped
from fidicula.tables.figures import FigureKey
from fidicula.views.figure_pages import FigurePage

router = APIRouter(prefix="/api/figures", tags=["figures"], responses=RESPONSES)

Size = Annotated[Label, Field(max_length=20)]
Typed = Annotated[Label, Field(max_length=40)]


class KeyBody(BaseModel):
    """Which figure. size : empty where it holds in every size."""

    model_config = ConfigDict(extra="forbid")

    family: Family
    size: Size
    measure: Annotated[Label, Field(min_length=1)]
    question: Label = ""
    school: Label = ""

    def key(self) -> FigureKey:
        return FigureKey(self.family, self.size, figure_code(self.measure), self.question, self.school)


class ChangeBody(KeyBody):
    """page_size : of the page that is open."""

    id: UUID
    page_size: Size


class EnterBody(ChangeBody):
    """low, aim, high : as typed, empty where the figure has no such part. sure : an odd value is meant."""

    low: Typed = ""
    aim: Typed = ""
    high: Typed = ""
    source: Sentence = ""
    confirmed: bool = False
    sure: bool = False


@router.get("")
def page(services: AllServices, family: Family, size: Size) -> FigurePage:
    """Every figure of a family and size, plain and by school."""
    return services.figures.page(family, size)


@router.get("/history")
def history(
    services: AllServices, family: Family, size: Size, measure: Label, question: Label = "", school: Label = ""
) -> list[FigureLine]:
    """Everything that a figure ever was, newest first."""
    return services.figures.history(FigureKey(family, size, figure_code(measure), question, school))


@router.put("", dependencies=[may("figures")])
def enter(services: AllServices, body: EnterBody, person: Acting) -> FigurePage:
    """Put the shop's own figure in the place of the one so far."""
    typed = FigureTyped(body.low, body.aim, body.high, body.source, body.confirmed, body.sure)
    return services.figures.enter(body.key(), typed, page_size=body.page_size, entry_id=body.id, by=person.name)


@router.post("/withdraw", dependencies=[may("figures")])
def withdraw(services: AllServices, body: ChangeBody, person: Acting) -> FigurePage:
    """Let the starting value stand again."""
    return services.figures.withdraw(body.key(), page_size=body.page_size, entry_id=body.id, by=person.name)


@router.post("/undo", dependencies=[may("figures")])
def undo(services: AllServices, body: ChangeBody, person: Acting) -> FigurePage:
    """Put back what stood before the newest entry."""
    return services.figures.undo(body.key(), page_size=body.page_size, by=person.name)
