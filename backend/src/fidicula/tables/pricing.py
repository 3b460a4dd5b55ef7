"""Works as they are planned and priced: their steps and minutes, what goes into them, and the shop's settings."""

from __future__ import annotations

from collections.abc import Mapping
from decimal import Decimal
from functools import cache
from typing import Literal, get_args

from pydantic import field_validator

from fidicula.codes import Family, WorkCode
from fidicula.core.errors import CoreError
from fidicula.core.pricing.money import NOTHING, Span
from fidicula.core.pricing.order import ordered
from fidicula.tables.rows import SourcedRow, TableError, TableRow, read_rows
from fidicula.tables.work import works

Grade = Literal["least", "usual", "all"]
"""In which variant a work counts first: what makes it playable, what is usual, everything."""

GRADES: tuple[Grade, ...] = ("least", "usual", "all")
FAMILIES: tuple[Family, ...] = get_args(Family)


class WorkStep(SourcedRow):
    """One step of a work. needs : the step before it.  waits : until the next may begin. [h]

    graded : only on an instrument that is worth it.  why : what the owner is told of it.
    """

    work: WorkCode
    step: str
    label: str
    violin: Span
    viola: Span
    cello: Span
    bass: Span
    needs: str | None
    waits: float | None
    graded: bool
    why: str | None

    @field_validator(*FAMILIES, mode="before")
    @classmethod
    def _minutes(cls, cell: object) -> Span:
        parts = str(cell or "").split("/")
        if len(parts) != 3:
            raise ValueError("minutes are low/usual/high")
        try:
            return Span(*(Decimal(part) for part in parts))
        except CoreError as error:
            raise ValueError(error.sentence) from error

    def minutes(self, family: str) -> Span:
        """[min]"""
        found: Span = getattr(self, family)
        return found


class Job(TableRow):
    """A work as it is planned. who : the least role that does it.  parts : kinds of stock that go into it.

    after : works that come first where they are planned too.  mends : signs, or a measure and its side.
    grows_to : what it may become where one of the signs grows_when is there.  risk : in words.
    why : what the owner is told of it.
    """

    work: WorkCode
    grade: Grade
    who: Literal["apprentice", "luthier"]
    parts: tuple[str, ...]
    after: tuple[WorkCode, ...]
    mends: tuple[str, ...]
    grows_to: WorkCode | None
    grows_when: tuple[str, ...]
    risk: str | None
    why: str | None

    @field_validator("parts", "after", "mends", "grows_when", mode="before")
    @classmethod
    def _several(cls, cell: object) -> tuple[str, ...]:
        return tuple(str(cell or "").split())


class Bundle(TableRow):
    """Works that are often asked for together. kinds : of visit that they are offered at first."""

    bundle: str
    label: str
    works: tuple[WorkCode, ...]
    kinds: tuple[str, ...]

    @field_validator("works", "kinds", mode="before")
    @classmethod
    def _several(cls, cell: object) -> tuple[str, ...]:
        return tuple(str(cell or "").split())


class StockKind(TableRow):
    """A kind of what lies in the drawers. figure : what it is chosen by; lowest, highest : that it may be. [unit]"""

    kind: str
    label: str
    figure: str | None
    unit: str | None
    lowest: Decimal | None
    highest: Decimal | None


class ShopSetting(TableRow):
    """What the shop sets for itself. value : that it starts from."""

    setting: str
    label: str
    kind: Literal["money", "percent", "count", "code", "choice", "text"]
    unit: str | None
    value: str
    least: Decimal | None
    most: Decimal | None
    says: str | None

    @field_validator("value", mode="before")
    @classmethod
    def _may_be_blank(cls, cell: str | None) -> str:
        return cell or ""


@cache
def work_steps() -> dict[WorkCode, tuple[WorkStep, ...]]:
    """Steps of every work, in order. Raises TableError for a step without time, or steps that wait for each other."""
    found: dict[WorkCode, tuple[WorkStep, ...]] = {}
    for row in read_rows("work_steps", WorkStep):
        found[row.work] = (*found.get(row.work, ()), row)
    for work, steps in found.items():
        if work not in works():
            raise TableError(f"work_steps.csv: {work} is no work of works.csv")
        if any(step.minutes(family) == NOTHING for step in steps for family in FAMILIES):
            raise TableError(f"work_steps.csv: a step of {work} has no time")
        needs = {step.step: (step.needs,) for step in steps if step.needs}
        if any(name not in {step.step for step in steps} for (name,) in needs.values()):
            raise TableError(f"work_steps.csv: a step of {work} needs one that there is not")
        try:
            ordered([step.step for step in steps], needs)
        except CoreError as error:
            raise TableError(f"work_steps.csv: {work}: {error.sentence}") from error
    return found


@cache
def jobs() -> dict[WorkCode, Job]:
    """Works that can be planned. Raises TableError for one without steps, or for works that wait for each other."""
    found = {row.work: row for row in read_rows("jobs", Job)}
    for job in found.values():
        if job.work not in work_steps():
            raise TableError(f"jobs.csv: {job.work} has no steps in work_steps.csv")
        for kind in job.parts:
            if kind not in stock_kinds():
                raise TableError(f"jobs.csv: {job.work} takes {kind}, which is no kind of stock")
        for other in (*job.after, *([job.grows_to] if job.grows_to else [])):
            if other not in found:
                raise TableError(f"jobs.csv: {job.work} goes by {other}, which is no job")
    try:
        ordered(list(found), gates(found))
    except CoreError as error:
        raise TableError(f"jobs.csv: {error.sentence}") from error
    return found


def gates(of: Mapping[WorkCode, Job] | None = None) -> dict[WorkCode, tuple[WorkCode, ...]]:
    """Of each job, those that it comes after."""
    return {job.work: job.after for job in (jobs() if of is None else of).values()}


@cache
def bundles() -> dict[str, Bundle]:
    """Raises TableError for a bundle of a work that cannot be planned."""
    found = {row.bundle: row for row in read_rows("bundles", Bundle)}
    for bundle in found.values():
        for work in bundle.works:
            if work not in jobs():
                raise TableError(f"bundles.csv: {bundle.bundle} has {work}, which is no job")
    return found


@cache
def stock_kinds() -> dict[str, StockKind]:
    return {row.kind: row for row in read_rows("stock_kinds", StockKind)}


@cache
def shop_settings() -> dict[str, ShopSetting]:
    return {row.setting: row for row in read_rows("shop_settings", ShopSetting)}
