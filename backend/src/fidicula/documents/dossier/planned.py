"""What was planned and agreed at a visit, line by line, as it stands in its record."""

from __future__ import annotations

from typing import Annotated
from uuid import UUID

from pydantic import Field

from fidicula.documents.dossier.values import Amount, At, Line, Name, Number, Strokes, UndoableLine, Words


class PlanLine(UndoableLine):
    """A planned work. place : its order.  minutes : that it took.  work_id : of the work as it was done.

    terms : what the shop charged as it was done, by setting.  refused : the approval at which the owner left it out.
    """

    work: Name
    grade: Name
    origin: Name
    because: Name
    reason: Words
    place: Number
    added_by: Name
    added_at: At
    done_at: At | None
    done_by: Name | None
    minutes: Amount | None
    work_id: UUID | None
    terms: dict[Name, Name] = Field(default_factory=dict)
    refused: UUID | None = None


class PlanPartLine(UndoableLine):
    """A part that a planned work uses. item_id : of the drawers.  price : of one."""

    line_id: UUID
    item_id: UUID
    count: Amount
    price: Amount
    added_by: Name
    added_at: At


class PlanTimeLine(Line):
    """A stretch of work on a planned work."""

    id: UUID
    line_id: UUID
    begun_by: Name
    begun_at: At
    ended_at: At | None


AmountText = Annotated[str, Field(pattern=r"^\d{1,12}(\.\d{1,6})?$")]


class AgreedPriceLine(Line):
    """A line as it was agreed: low, usual and high. labour : without parts."""

    minutes: Annotated[list[AmountText], Field(min_length=3, max_length=3)]
    labour: Annotated[list[AmountText], Field(min_length=3, max_length=3)]


class ApprovalLine(UndoableLine):
    """What the owner approved. signature : strokes as points of a path on a field of 280 by 88.

    terms : what the shop charged then, by setting.  prices : of the lines, by id.
    """

    who: Name
    how: Name
    lines: list[UUID]
    total: Amount
    up_to: Amount
    currency: Name
    words: Words
    signature: Strokes
    entered_by: Name
    approved_at: At
    terms: dict[Name, Name] = Field(default_factory=dict)
    prices: dict[Name, AgreedPriceLine] = Field(default_factory=dict)


class DiscountLine(Line):
    """A discount on the plan, in percent."""

    id: UUID
    percent: Amount
    reason: Words
    entered_by: Name
    entered_at: At
