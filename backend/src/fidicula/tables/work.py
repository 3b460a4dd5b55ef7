"""Works, what each makes stale, and the tools that readings are taken with."""

from __future__ import annotations

from functools import cache

from fidicula.core.geometry.board import HeightDirection
from fidicula.tables.rows import TableRow, read_rows


class Work(TableRow):
    """at_bench : written down by itself, and not with the strings."""

    work: str
    label: str
    done_label: str
    at_bench: bool


class Invalidation(TableRow):
    """A reading of `measure` taken before `work` is stale after it."""

    work: str
    measure: str
    why: str


class Gate(TableRow):
    """A work that physics forbids while a question is open. says : why."""

    work: str
    question: str
    says: str
    source: str


class Outcome(TableRow):
    """One way to decide a question.

    advised_when : the remedy that it answers to, as the core names it; None for one that is never advised first.
    opens_gate : the work behind the gate may go on; else it waits until what was decided is done and measured.
    """

    question: str
    outcome: str
    label: str
    advised_when: str | None
    opens_gate: bool
    says: str
    source: str


class VisitKind(TableRow):
    """What an instrument comes for. stops : of its course, in order; a visit's course is only as long as that."""

    kind: str
    label: str
    stops: str


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


@cache
def gates() -> dict[str, Gate]:
    """By the work that each bars."""
    found = {row.work: row for row in read_rows("gates", Gate)}
    for row in found.values():
        if row.work not in works() or not outcomes(row.question):
            raise ValueError(f"gates.csv: {row.work} or {row.question} is unknown")
    return found


@cache
def outcomes(question: str) -> tuple[Outcome, ...]:
    """The ways to decide a question, in the table's order; none for an unknown one."""
    return tuple(row for row in read_rows("decisions", Outcome) if row.question == question)


@cache
def visit_kinds() -> dict[str, VisitKind]:
    return {row.kind: row for row in read_rows("visit_kinds", VisitKind)}
