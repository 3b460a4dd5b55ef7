"""Screening: which of many need a luthier, and why; a row each, answered from what is on record."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

from fidicula.codes import MeasureCode
from fidicula.core.bands import BandSide
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.judgement.assessment.model import Question
from fidicula.judgement.measures import MEASURES
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading.records import load_bench
from fidicula.tables.screening import Column, columns
from fidicula.tables.signs import computed_signs, items
from fidicula.views.sheet.build import sheet_of
from fidicula.views.sheet.inspection import item_views
from fidicula.views.sheet.model import BenchSheet, ItemView
from fidicula.words import screening as say

Needs = Literal["luthier", "small", "nothing", "open"]
_SIDES = frozenset({"above", "below"})


@dataclass(frozen=True)
class ScreenColumn:
    """One thing that each is asked for. item : empty for a reading.  look : how it is looked at."""

    column: str
    label: str
    item: str
    look: str


@dataclass(frozen=True)
class ScreenFinding:
    finding: str
    label: str


@dataclass(frozen=True)
class ScreenCell:
    """What is known of one thing at one instrument.

    fits : it has this.  verdict, findings, words, offered : of an item.
    measure, position, string, value, standing : of a reading. [mm]  doubt : why it does not count yet.
    """

    column: str
    fits: bool
    verdict: str
    findings: tuple[str, ...]
    words: str
    offered: tuple[ScreenFinding, ...]
    measure: MeasureCode | Literal[""]
    position: int | None
    string: str
    value: float | None
    side: BandSide | None
    doubt: str
    reading_id: str | None


_NONE = ScreenCell(
    column="",
    fits=False,
    verdict="",
    findings=(),
    words="",
    offered=(),
    measure="",
    position=None,
    string="",
    value=None,
    side=None,
    doubt="",
    reading_id=None,
)


@dataclass(frozen=True)
class ScreenRow:
    """One instrument. needs : `open` while something was not looked at and nothing asks for a luthier yet.

    because : what asks for it, in words.  heed : what only has to be watched, or was not looked at.
    blank : how many columns nobody has answered.  last_work : the causal place of a reading taken now.
    """

    ticket: str
    family: str
    size: str
    owner: str
    is_fleet: bool
    left_handed: bool
    complaint: str
    kind: str
    recipe: str
    last_work: int
    cells: list[ScreenCell]
    needs: Needs
    because: list[str]
    heed: list[str]
    blank: int


@dataclass(frozen=True)
class Screen:
    columns: list[ScreenColumn]
    rows: list[ScreenRow]


class Screening:
    """Use cases around many instruments that are looked at in one go."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def screen(self, tickets: Sequence[str]) -> Screen:
        """A row for each ticket, in that order. Raises NotFoundError for one that is not in the house."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            rows = [_row(load_bench(uow, ticket)) for ticket in dict.fromkeys(tickets)]
        return Screen([_column(row) for row in columns()], rows)


def _column(row: Column) -> ScreenColumn:
    if row.item is not None:
        return ScreenColumn(row.column, row.label, row.item, items()[row.item].look)
    of = "" if row.measure is None else MEASURES[row.measure].label
    return ScreenColumn(row.column, row.label, "", f"its height {of}")


def _row(loaded: VisitRecord) -> ScreenRow:
    a = loaded.assess()
    sheet = sheet_of(a, loaded.rules)
    seen = {view.item: view for view in item_views(loaded.state(), loaded.visit.kind)}
    cells = [
        _item_cell(row, seen.get(row.item)) if row.item is not None else _reading_cell(row, sheet) for row in columns()
    ]
    because: dict[str, list[str]] = {"luthier": [], "anyone": []}
    heed: list[str] = []
    heights_say = False
    for row, cell in zip(columns(), cells, strict=True):
        if not cell.fits:
            continue
        if cell.verdict == "work" or cell.side in _SIDES:
            because[row.hands].append(_said(row, cell))
            heights_say |= cell.side == "above"
        elif cell.verdict in ("watch", "not_looked_at") or cell.doubt:
            heed.append(_said(row, cell))
    because["luthier"] += _asked_by_readings(a.questions, heights_say=heights_say)
    blank = sum(1 for cell in cells if cell.fits and not cell.verdict and cell.value is None)
    instrument = sheet.instrument
    return ScreenRow(
        ticket=instrument.ticket,
        family=instrument.family,
        size=instrument.size,
        owner=instrument.owner,
        is_fleet=instrument.is_fleet,
        left_handed=instrument.left_handed,
        complaint=instrument.complaint,
        kind=instrument.visit_label,
        recipe=sheet.recipe.name,
        last_work=sheet.last_work,
        cells=cells,
        needs=needs_of(because["luthier"], because["anyone"], blank),
        because=[*because["luthier"], *because["anyone"]],
        heed=heed,
        blank=blank,
    )


def _asked_by_readings(asked: Sequence[Question], *, heights_say: bool) -> list[str]:
    """What readings ask that nobody has decided yet; what the door asks is nothing that a luthier mends.

    heights_say : high strings are among the reasons already.
    """
    titles = []
    for one in asked:
        of_readings = {sign for sign in one.because if sign in computed_signs()}
        by_readings = of_readings and all(computed_signs()[sign].told_by == "readings" for sign in of_readings)
        if by_readings and one.outcome is None and not (heights_say and of_readings == {"ends_high"}):
            titles.append(f"to decide: {one.deciding.title.lower()}")
    return titles


def needs_of(of_luthier: Sequence[str], of_anyone: Sequence[str], blank: int) -> Needs:
    """One reason for a luthier is enough; anything less is said only when all was looked at."""
    if of_luthier:
        return "luthier"
    if blank:
        return "open"
    return "small" if of_anyone else "nothing"


def _item_cell(row: Column, view: ItemView | None) -> ScreenCell:
    if view is None:
        return replace(_NONE, column=row.column)
    return replace(
        _NONE,
        column=row.column,
        fits=True,
        verdict=view.verdict,
        findings=tuple(one.finding for one in view.findings if one.is_seen),
        words=view.words,
        offered=tuple(ScreenFinding(one.finding, one.label) for one in view.findings),
    )


def _reading_cell(row: Column, sheet: BenchSheet) -> ScreenCell:
    position = 0 if row.string == "low" else len(sheet.instrument.string_names) - 1
    cell = next(one for one in sheet.cells if (one.measure, one.position) == (row.measure, position))
    counts = cell.state == "current"
    return replace(
        _NONE,
        column=row.column,
        fits=True,
        measure=cell.measure,
        position=position,
        string=sheet.instrument.string_names[position],
        value=cell.value if cell.state in ("current", "doubted") else None,
        side=cell.band.side if counts and cell.band is not None else None,
        doubt="" if cell.doubt is None else cell.doubt.sentence,
        reading_id=cell.reading_id,
    )


def _said(row: Column, cell: ScreenCell) -> str:
    """What stands there in words, as one reason among others."""
    if row.measure is not None:
        return say.reading(cell.string, cell.value, cell.side)
    labels = [one.label for one in cell.offered if one.finding in cell.findings]
    return say.item(row.label, cell.verdict, labels, cell.words)
