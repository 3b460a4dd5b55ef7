"""What is measured: each kind of reading with its places, what it is held against, how it is taken and how it slips."""

from __future__ import annotations

from functools import cache
from typing import Literal

from pydantic import field_validator

from fidicula.tables.rows import TableError, read_rows
from fidicula.tables.signs import OfFamilies

STRINGS = "strings"
_NO_FIGURE = "-"


class MeasureRow(OfFamilies):
    """One kind of reading.

    places : `strings` for one at each string, or the places by name; none for a single reading.
    card : its turn among what a bridge needs, None for what only a full measuring takes.
    recheck : whether an instrument that comes back is asked for it.
    largest : no such measure can exceed it. [its unit]  height : over the board, so that a tool has a direction.
    zero_will_do : 0 is a plain reading, not a slip.  signed : it may be below nought.
    figures : what each place is held against, by the figure's name.
    """

    measure: str
    label: str
    part: str
    places: tuple[str, ...] | None
    card: int | None
    recheck: bool
    largest: float
    unit: Literal["mm", "°"]
    height: bool
    zero_will_do: bool
    signed: bool
    figures: tuple[str | None, ...]
    how: str
    slip: str | None

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

    def positions(self, string_count: int) -> tuple[int | None, ...]:
        """The positions that it is read at."""
        if self.places is None:
            return (None,)
        return tuple(range(string_count if self.for_each_string else len(self.places)))

    def place_name(self, position: int | None, string_names: tuple[str, ...]) -> str:
        """What a position is called: a string's name, “top”; empty for a single reading."""
        if position is None or self.places is None:
            return ""
        return string_names[position] if self.for_each_string else self.places[position]

    def figure_at(self, position: int | None) -> str | None:
        """The figure that a place is held against."""
        index = 0 if position is None else position
        return self.figures[index] if not self.for_each_string and index < len(self.figures) else None


@cache
def measures() -> dict[str, MeasureRow]:
    """By name, in the order of a full measuring. Raises TableError where figures and places do not go together."""
    found = {row.measure: row for row in read_rows("measures", MeasureRow)}
    for row in found.values():
        if row.figures and not row.for_each_string and len(row.figures) != len(row.places or ("",)):
            raise TableError(f"measures.csv: {row.measure} has {len(row.figures)} figures for its places")
    return found
