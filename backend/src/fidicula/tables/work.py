"""Works, what each makes stale, and the tools that readings are taken with."""

from __future__ import annotations

from functools import cache

from fidicula.core.geometry.board import HeightDirection
from fidicula.tables.rows import TableRow, read_rows


class Work(TableRow):
    work: str
    label: str
    done_label: str


class Invalidation(TableRow):
    """A reading of `measure` taken before `work` is stale after it."""

    work: str
    measure: str
    why: str


class Tool(TableRow):
    """direction : how the tool reads a height.  resolution : how well one reading is known. [mm]"""

    tool: str
    label: str
    direction: HeightDirection
    resolution: float


@cache
def works() -> dict[str, Work]:
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
def tools() -> dict[str, Tool]:
    return {row.tool: row for row in read_rows("tools", Tool)}
