"""What is measured: each kind of reading with its places, what it is compared with, how it is taken and slips."""

from __future__ import annotations

from functools import cache
from typing import Literal

from pydantic import field_validator

from fidicula.codes import FigureCode, MeasureCode, ToolCode
from fidicula.tables.rows import TableError, read_rows
from fidicula.tables.signs import OfFamilies
from fidicula.tables.work import tools

STRINGS = "strings"
GAPS = "gaps"
Unit = Literal["mm", "°", "%", "°C", "Hz", "g"]
_NO_FIGURE = "-"


class MeasureRow(OfFamilies):
    """One kind of reading.

    places : `strings` for one at each string, `gaps` for one between each two, or the places by name; none for a
    single reading.
    card : its turn on the bench card, None for what only a full measuring takes.
    needed : a bridge cannot be worked out well without it; what is not needed may be read, and counts then.
    recheck : whether an instrument that comes back is asked for it.
    keeps_days : so long it counts at a later visit where no work touched it; None for always, 0 for never.
    largest : no such measure can exceed it.  doubted_beyond : further from 0, to either side, one that lies about 0 is
    doubted. [its unit]  height : over the board, so that a tool has a direction.
    zero_will_do : 0 is a plain reading, not a slip.  signed : it may be below zero.
    figures : what each place is compared with, by the figure's name.
    form : where the same can be read in several ways, which of them this is.
    scatter : what the thing itself adds to the tool's: standard deviation; None where the tool is all. [its unit]
    tools : what it is read with, the usual one first.
    """

    measure: MeasureCode
    label: str
    part: str
    places: tuple[str, ...] | None
    card: int | None
    needed: bool
    recheck: bool
    keeps_days: int | None
    largest: float
    doubted_beyond: float | None
    unit: Unit
    height: bool
    zero_will_do: bool
    signed: bool
    figures: tuple[FigureCode | None, ...]
    how: str
    slip: str | None
    form: str | None
    scatter: float | None
    tools: tuple[ToolCode, ...]

    @field_validator("tools", mode="before")
    @classmethod
    def _split_tools(cls, cell: str | None) -> tuple[str, ...]:
        return tuple((cell or "").split())

    @field_validator("places", mode="before")
    @classmethod
    def _split_places(cls, cell: str | None) -> tuple[str, ...] | None:
        return None if cell is None else tuple(cell.split("|"))

    @field_validator("figures", mode="before")
    @classmethod
    def _split_figures(cls, cell: str | None) -> tuple[str | None, ...]:
        return tuple(None if name == _NO_FIGURE else name for name in (cell or "").split())

    @property
    def for_each_string(self) -> bool:
        return self.places == (STRINGS,)

    @property
    def for_each_gap(self) -> bool:
        return self.places == (GAPS,)

    def positions(self, string_count: int) -> tuple[int | None, ...]:
        """The positions that it is read at."""
        if self.places is None:
            return (None,)
        if self.for_each_gap:
            return tuple(range(string_count - 1))
        return tuple(range(string_count if self.for_each_string else len(self.places)))

    def place_name(self, position: int | None, string_names: tuple[str, ...]) -> str:
        """What a position is called: a string's name, “top”; empty for a single reading."""
        if position is None or self.places is None:
            return ""
        if self.for_each_gap:
            return f"{string_names[position]} to {string_names[position + 1]}"
        return string_names[position] if self.for_each_string else self.places[position]

    def figure_at(self, position: int | None) -> FigureCode | None:
        """The figure that a place is compared with."""
        index = 0 if position is None else position
        return self.figures[index] if not self.for_each_string and index < len(self.figures) else None


@cache
def measures() -> dict[MeasureCode, MeasureRow]:
    """By name, in the order of a full measuring. Raises TableError where figures and places do not go together."""
    found = {row.measure: row for row in read_rows("measures", MeasureRow)}
    for row in found.values():
        if row.figures and not row.for_each_string and len(row.figures) != len(row.places or ("",)):
            raise TableError(f"measures.csv: {row.measure} has {len(row.figures)} figures for its places")
        for tool in row.tools:
            if tool not in tools() or tools()[tool].unit != row.unit:
                raise TableError(f"measures.csv: {row.measure} is not read with {tool}")
        if not row.tools:
            raise TableError(f"measures.csv: {row.measure} is read with nothing")
    return found
