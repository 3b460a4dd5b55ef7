"""What came along with an instrument, and its fittings."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, datetime
from typing import Literal
from uuid import UUID

BelongingPlace = Literal["with_it", "off", "gone"]
"""On the instrument or beside it; off it now, loose in the shop; no longer there."""


@dataclass(frozen=True)
class BelongingEntry:
    """One line about a thing. thing : the same for every line about it.

    which, material, stamp : in words.  count : of several alike.  mass : [g]  lies : where it is while it is off.
    """

    id: UUID
    visit_id: UUID
    thing: UUID
    kind: str
    which: str
    material: str
    count: int | None
    mass: float | None
    made_on: date | None
    stamp: str
    place: BelongingPlace
    lies: str
    entered_by: str
    entered_at: datetime | None = None
