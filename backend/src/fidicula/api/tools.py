"""The shop's tools: what their checks found, and one more check."""

from __future__ import annotations

from typing import Annotated

from fastapi import APIRouter, Path
from pydantic import Field

from fidicula.api.auth import Acting, may
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.workflow import MarkBody
from fidicula.services.shop.tool_checks import MOST, ToolChecked, ToolRecord

router = APIRouter(prefix="/api", tags=["tools"], responses=RESPONSES)

InPath = Annotated[str, Path(max_length=40)]
Typed = Annotated[str, Field(max_length=40)]


class CheckBody(MarkBody):
    """known : a length.  read : what the tool showed of it, time after time. Both as typed."""

    known: Typed = ""
    read: Annotated[list[Typed], Field(max_length=MOST)] = Field(default_factory=list)


@router.get("/tools", response_model=list[ToolRecord])
def tools_checked(services: AllServices) -> list[ToolRecord]:
    """The tools that are checked now and then, with what their last checks found."""
    return services.tool_checks.all()


@router.post("/tools/{tool}/checked", response_model=ToolChecked, dependencies=[may("measure")])
def check_tool(services: AllServices, tool: InPath, body: CheckBody, person: Acting) -> ToolChecked:
    """Write down that a tool was checked on a length that is known."""
    return services.tool_checks.check(tool, check_id=body.id, by=person.name, known=body.known, read=body.read)
