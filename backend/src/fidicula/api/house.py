"""The rail and arrivals."""

from __future__ import annotations

from typing import Annotated, Literal

from fastapi import APIRouter, Request
from pydantic import BaseModel, ConfigDict, Field

from fidicula.api.errors import RESPONSES
from fidicula.api.signed import may
from fidicula.api.words import Family, Label, Sentence
from fidicula.services.house import Arrival, Choices, House, Tag

open_router = APIRouter(prefix="/api", tags=["house"])
router = APIRouter(prefix="/api", tags=["house"], responses=RESPONSES)


class ArrivalBody(BaseModel):
    model_config = ConfigDict(extra="forbid")

    ticket: Annotated[str, Field(max_length=20, pattern=r"^[\w.-]*$")] = ""
    family: Family
    size: Annotated[Label, Field(max_length=20)]
    string_names: Annotated[list[Annotated[Label, Field(max_length=4)]], Field(max_length=6)] = []
    left_handed: bool = False
    is_new: bool = False
    owner: Sentence = ""
    description: Sentence = ""
    complaint: Sentence = ""
    kind: Literal["bridge"] = "bridge"


class Registered(BaseModel):
    ticket: str


def _house(request: Request) -> House:
    house: House = request.app.state.house
    return house


@open_router.get("/health")
def health() -> dict[str, str]:
    """The application answers."""
    return {"state": "ready"}


@router.get("/rail")
def rail(request: Request) -> list[Tag]:
    """Every instrument with an open visit."""
    return _house(request).rail()


@router.get("/choices")
def choices(request: Request) -> Choices:
    """What the forms offer."""
    return _house(request).choices()


@router.post("/instruments", status_code=201, dependencies=[may("arrive")])
def register(request: Request, body: ArrivalBody) -> Registered:
    """Take an instrument in."""
    return Registered(ticket=_house(request).register(Arrival(**body.model_dump())))
