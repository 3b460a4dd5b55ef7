"""What is planned, approved and in the drawers, as it is kept. Amounts are exact decimals."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from decimal import Decimal
from typing import Literal
from uuid import UUID

from fidicula.codes import WorkCode

Origin = Literal["finding", "decision", "reading", "wish", "underway"]
How = Literal["in_person", "phone", "letter", "signature"]


@dataclass(frozen=True)
class PlanLine:
    """A work that is planned at a visit. grade : the variant that it counts in first.

    origin, because : what proposes it, a finding's, question's or measure's name.  reason : in words, of what was
    found underway.  place : in the order.  minutes : that it took, once done.  work_id : what was then written.
    terms : what the shop charged as it was done, by setting; empty for a line from before that was kept.
    refused : the approval at which the owner left it out; None where they did not.
    """

    id: UUID
    visit_id: UUID
    work: WorkCode
    grade: str
    origin: str
    because: str
    reason: str
    place: float
    added_by: str
    added_at: datetime | None = None
    done_at: datetime | None = None
    done_by: str | None = None
    minutes: Decimal | None = None
    work_id: UUID | None = None
    terms: Mapping[str, str] = field(default_factory=dict)
    refused: UUID | None = None


@dataclass(frozen=True)
class RefusedWork:
    """A work that the owner left out at an earlier visit. words : what they said."""

    work: WorkCode
    words: str
    refused_at: datetime


@dataclass(frozen=True)
class PlanPart:
    """What goes into a planned work. price : of one, as it was when it was chosen. [currency]"""

    id: UUID
    line_id: UUID
    item_id: UUID
    count: Decimal
    price: Decimal
    added_by: str


@dataclass(frozen=True)
class PlanTime:
    """Somebody at a planned work. ended_at : None while it runs."""

    id: UUID
    line_id: UUID
    begun_by: str
    begun_at: datetime
    ended_at: datetime | None


@dataclass(frozen=True)
class AgreedPrice:
    """A line as the owner agreed to it: low, usual and high. minutes : [min]  labour : without parts. [currency]"""

    minutes: tuple[Decimal, Decimal, Decimal]
    labour: tuple[Decimal, Decimal, Decimal]


@dataclass(frozen=True)
class Approval:
    """What the owner agreed to. lines : of the plan.  total : as it stood.  up_to : the most without asking again.

    signature : as the points of its strokes, empty where nobody signed.
    terms : what the shop charged then, by setting.  prices : of the lines, by id. Both are empty for an approval from
    before they were kept.
    """

    id: UUID
    visit_id: UUID
    who: str
    how: str
    lines: tuple[UUID, ...]
    total: Decimal
    up_to: Decimal
    currency: str
    words: str
    entered_by: str
    approved_at: datetime | None = None
    signature: str = ""
    terms: Mapping[str, str] = field(default_factory=dict)
    prices: Mapping[UUID, AgreedPrice] = field(default_factory=dict)


@dataclass(frozen=True)
class Discount:
    """percent : off all lines of the visit; the newest holds. [%]"""

    id: UUID
    visit_id: UUID
    percent: Decimal
    reason: str
    entered_by: str


@dataclass(frozen=True)
class StockItem:
    """Something in the drawers. family : empty for any.  figure : what it is chosen by, for instance a width. [unit]"""

    id: UUID
    kind: str
    family: str
    label: str
    figure: Decimal | None
    place: str
    reorder_at: Decimal
    supplier: str
    string_set_id: UUID | None
    added_by: str
    details: Mapping[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class InStock:
    """on_hand : counted in and not used.  reserved : of them, for planned works.  price : of one; None unsaid."""

    item: StockItem
    on_hand: Decimal
    reserved: Decimal
    price: Decimal | None

    @property
    def free(self) -> Decimal:
        return self.on_hand - self.reserved


@dataclass(frozen=True)
class StockEntry:
    """A count that came or went, or a price from then on."""

    id: UUID
    item_id: UUID
    what: Literal["count", "price"]
    value: Decimal
    reason: str
    entered_by: str
    entered_at: datetime | None = None


@dataclass(frozen=True)
class ShopEntry:
    id: UUID
    setting: str
    value: str
    entered_by: str
    entered_at: datetime | None = None
