"""One place that is read: what holds there, and how it goes over the wire."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from functools import cached_property
from typing import Annotated, Any, Literal, NotRequired, cast

from pydantic import PlainSerializer
from typing_extensions import TypedDict

from fidicula.codes import MeasureCode, ToolCode
from fidicula.core.bands import BandSide
from fidicula.core.geometry.board import HeightDirection

CellState = Literal["missing", "current", "doubted", "stale"]


@dataclass(frozen=True)
class BandView:
    """What is wanted, with where it comes from. [mm]

    side : of the value here, None without one.  outside_by : negative below the band, 0 in it.
    """

    low: float
    aim: float
    high: float
    source: str
    side: BandSide | None
    outside_by: float


@dataclass(frozen=True)
class DoubtView:
    """Why a reading is doubted. code : of the core.  value : as it was read; the cell may hold what counted before it.

    suggested : what may have been meant. [its unit, both]
    """

    code: str
    value: float
    sentence: str
    suggested: float | None
    may_be_kept: bool


@dataclass(frozen=True)
class CardPlace:
    """What never changes of one place that is read on such an instrument.

    position : of the string from the lowest, or of the place by name; None for a single reading.
    on_card : it stands on the bench card.  needed : a bridge asks for it.
    turn : in a full measuring.  part : of the instrument.
    label, place : its name in two parts.
    form : where the same can be read in several ways, which of them this is.  tools : what it is read with.
    recheck : asked for when an instrument comes back.
    """

    measure: MeasureCode
    position: int | None
    name: str
    on_card: bool
    needed: bool
    turn: int
    part: str
    label: str
    place: str
    unit: str
    form: str
    tools: list[ToolCode]
    recheck: bool


@dataclass(frozen=True)
class Cell(CardPlace):
    """One place that is read, as it stands.

    value : what holds, in mm; of a stale reading too.  assumed : what stands in for it in the cut.
    direction : of a height, as it stands in its column with its band and last time's.
    read : how it was read, where that is another direction.
    told, told_by : what other readings say of it, and which.
    spread_is_wide : its repeats lie further apart than the tool accounts for.
    last_time : what was read here at an earlier visit. [mm]  is_last_visit : it counts, for nothing made it void.
    simulated : no real device read it.
    likely : from and to where a reading is not asked about. [its unit]
    """

    state: CellState
    typed: str | None
    value: float | None
    assumed: float | None
    told: float | None
    told_by: str
    band: BandView | None
    doubt: DoubtView | None
    stale_because: str | None
    reading_id: str | None
    taken_by: str | None
    taken_at: datetime | None
    tool: ToolCode | None
    direction: HeightDirection | None
    read: HeightDirection | None
    count: int
    last_time: float | None
    last_time_at: datetime | None
    repeat_spread: float
    spread_is_wide: bool
    is_last_visit: bool
    simulated: bool
    likely: list[float] | None

    @cached_property
    def sent(self) -> CellWire | None:
        """As it goes over the wire; None where that would say no more than its place."""
        kept: Mapping[str, Any] = vars(self)
        sent = {
            name: value
            for name in _SENT
            if (value := kept[name]) or (value is not None and value != "" and name not in _FLAGS)
        }
        if sent["state"] == "missing" and sent.keys() <= _PLACE:
            return None
        return cast("CellWire", sent)


class CellWire(TypedDict):
    """What may change of a cell, without what is empty; its place says the rest."""

    measure: MeasureCode
    position: NotRequired[int]
    state: CellState
    typed: NotRequired[str]
    value: NotRequired[float]
    assumed: NotRequired[float]
    told: NotRequired[float]
    told_by: NotRequired[str]
    band: NotRequired[BandView]
    doubt: NotRequired[DoubtView]
    stale_because: NotRequired[str]
    reading_id: NotRequired[str]
    taken_by: NotRequired[str]
    taken_at: NotRequired[datetime]
    tool: NotRequired[str]
    direction: NotRequired[HeightDirection]
    read: NotRequired[HeightDirection]
    count: NotRequired[int]
    last_time: NotRequired[float]
    last_time_at: NotRequired[datetime]
    repeat_spread: NotRequired[float]
    spread_is_wide: NotRequired[bool]
    is_last_visit: NotRequired[bool]
    simulated: NotRequired[bool]
    likely: NotRequired[list[float]]


_SENT = tuple(CellWire.__annotations__)
_PLACE = frozenset({"measure", "position", "state"})
_FLAGS = frozenset({"count", "repeat_spread", "spread_is_wide", "is_last_visit", "simulated"})
"""What says nothing while it is zero; a reading of 0 is one."""


def on_the_wire(cells: list[Cell]) -> list[CellWire]:
    """The cells as they are sent; one of which nothing is known says no more than its place, and stays behind."""
    return [cell.sent for cell in cells if cell.sent is not None]


WireCells = Annotated[list[Cell], PlainSerializer(on_the_wire, return_type=list[CellWire])]
