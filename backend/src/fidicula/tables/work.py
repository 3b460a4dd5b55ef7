"""Works, what each makes stale, and the tools that readings are taken with."""

from __future__ import annotations

from functools import cache

from fidicula.codes import MeasureCode, Part, ToolCode, WorkCode
from fidicula.core.geometry.board import HeightDirection
from fidicula.tables.rows import TableRow, read_rows


class Work(TableRow):
    """at_bench : written down by itself, and not with the strings.  part : that it is done to, None for others.

    caution : what can hurt somebody or the instrument, and what helps; where nothing can, it says so.
    """

    work: WorkCode
    label: str
    done_label: str
    at_bench: bool
    part: Part | None
    caution: str

    @property
    def danger(self) -> str | None:
        """The caution, where there is a danger."""
        return None if self.caution.startswith("No danger") else self.caution


class Invalidation(TableRow):
    """A reading of `measure` taken before `work` is stale after it."""

    work: WorkCode
    measure: MeasureCode
    why: str


class _RestsOn(TableRow):
    work: WorkCode
    measure: MeasureCode


class Tool(TableRow):
    """direction : how the tool reads a height.  resolution : the finest that it shows. [unit]

    scatter : starting figure of how far single readings of a practised hand lie from their mean: standard deviation,
    which goes over to the hand's own with its repeats. [unit]
    gauge : how far off a whole tool may be where nobody checked it: standard deviation, the same at all that it reads.
    on_block : starting figure of how far single readings of a known length scatter; None where it is held to none.

    offset : by which it reads too high, so that it comes off what was typed. [unit]
    unit : what it reads in.  check_days : after how many days it is to be checked; None for one that cannot go wrong.
    """

    tool: ToolCode
    label: str
    direction: HeightDirection
    resolution: float
    scatter: float
    gauge: float
    on_block: float | None
    check_days: int | None
    unit: str
    offset: float


OF_ONE = frozenset(
    {
        "crown_cut",
        "slots_filed",
        "crown_beside",
        "nut_filed",
        "adjusters_turned",
        "wedge_fitted",
        "post_moved",
        "board_dressed",
    }
)
"""Works by amounts that follow the readings of one instrument."""


@cache
def works() -> dict[WorkCode, Work]:
    return {row.work: row for row in read_rows("works", Work)}


@cache
def invalidations() -> dict[str, dict[str, str]]:
    """For each measure, the works that make it stale, with the reason in words."""
    found: dict[str, dict[str, str]] = {}
    for row in read_rows("invalidations", Invalidation):
        if row.work not in works():
            raise ValueError(f"invalidations.csv: {row.work} is no work of works.csv")
        found.setdefault(row.measure, {})[row.work] = row.why
    return found


@cache
def rests_on() -> dict[str, frozenset[str]]:
    """For each work that cannot be undone, the measures that it goes by: one that does not hold bars it."""
    found: dict[str, frozenset[str]] = {}
    for row in read_rows("rests_on", _RestsOn):
        if row.work not in works():
            raise ValueError(f"rests_on.csv: {row.work} is no work of works.csv")
        found[row.work] = found.get(row.work, frozenset()) | {row.measure}
    return found


@cache
def tools() -> dict[ToolCode, Tool]:
    return {row.tool: row for row in read_rows("tools", Tool)}
