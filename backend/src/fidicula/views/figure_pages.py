"""The figures of one size as a page: each measure with its value, where it comes from, and its schools."""

from __future__ import annotations

from dataclasses import dataclass, replace

from fidicula.codes import FigureCode
from fidicula.core.targets.heights import PartOfBand, end_height_band
from fidicula.judgement.targets.rules import Rules
from fidicula.tables.figures import (
    FigureBook,
    FigureKey,
    FigureValues,
    figure_measures,
    measures_of_school,
    starting_figures,
)
from fidicula.tables.rows import row_of
from fidicula.tables.schools import School, questions, schools
from fidicula.tables.schools import school as school_row
from fidicula.words.names import ACCEPTED
from fidicula.words.numbers import lower_first


def measures_of(question: str, school: str) -> tuple[FigureCode, ...]:
    """What figures a school has or could have."""
    if question == "end_heights" and (question, school) in schools():
        return ("end_height_bass", "end_height_treble")
    if (question, school) == ("height_reference", "bridge_mark"):
        return ("mark_height_bass", "mark_height_treble")
    if question == "nut_spread" and school in ("close", "wide"):
        return ("nut_spread",)
    if question == "bridge_spread" and school in ("close", "wide"):
        return ("bridge_spread",)
    return measures_of_school(question, school)


@dataclass(frozen=True)
class FigureRow:
    """One figure in force, or the place for one.

    every_size : it holds in every size of the family, unless this size has its own.
    low, aim, high : None where its shape has no such part, or there is no figure.
    follows : in words, where it is worked out from another figure; entering one of its own ends that.
    own : the shop entered it.  confirmed_by : None until someone of the shop stands by it.
    """

    measure: FigureCode
    label: str
    unit: str
    shape: str
    part: str
    question: str
    school: str
    school_label: str
    every_size: bool
    low: float | None
    aim: float | None
    high: float | None
    follows: str
    own: bool
    source: str
    confirmed_by: str | None


@dataclass(frozen=True)
class FigurePage:
    """without_figure, unconfirmed : how many rows have none, or nobody standing by theirs."""

    family: str
    size: str
    sizes: list[str]
    rows: list[FigureRow]
    without_figure: int
    unconfirmed: int


def figure_page(rules: Rules, size: str) -> FigurePage:
    rows = [*_plain_rows(rules, size), *_school_rows(rules, size)]
    known = [row for row in rows if not row.follows]
    return FigurePage(
        family=rules.family,
        size=size,
        sizes=list(rules.sizes),
        rows=rows,
        without_figure=sum(row.low is None and row.aim is None and row.high is None for row in known),
        unconfirmed=sum(bool(row.source) and row.confirmed_by is None for row in known),
    )


def _plain_rows(rules: Rules, size: str) -> list[FigureRow]:
    """What belongs to family and size alone; a measure that any family or size has a figure of has its row."""
    of_plain = {key.measure for key in starting_figures() if not key.school}
    return [_row(rules, size, measure) for measure in figure_measures() if measure in of_plain]


def _school_rows(rules: Rules, size: str) -> list[FigureRow]:
    rows = []
    for question, school in [*schools(), ("accepted", "with_a_reason")]:
        row = school_row(question, school)
        for measure in measures_of(question, school):
            if (
                row is not None
                and row.rule == "own"
                and not rules.book.of_school(family=rules.family, question=question, school=school)
            ):
                continue
            rows.append(_row(rules, size, measure, question, school))
    return rows


def _row(rules: Rules, size: str, measure: FigureCode, question: str = "", school: str = "") -> FigureRow:
    book, kind = rules.book, figure_measures()[measure]
    for_size = FigureKey(rules.family, size, measure, question, school)
    found = book.find(family=rules.family, size=size, measure=measure, question=question, school=school)
    every_size = book.at(for_size) is None and (found is not None or not _has_sizes(measure))
    key = for_size if not every_size else replace(for_size, size="")
    row = school_row(question, school)
    derived, follows = _derived(book, rules.family, size, measure, row) if found is None else (None, "")
    shown = found or derived
    label = "" if not question else (row.label if row is not None else lower_first(ACCEPTED))
    asked = row_of(questions(), question)
    part = kind.part if not question else (ACCEPTED if asked is None else asked.title)
    return FigureRow(
        measure=measure,
        label=kind.label,
        unit=kind.unit,
        shape=kind.shape,
        part=part,
        question=question,
        school=school,
        school_label=label,
        every_size=every_size,
        low=None if shown is None else shown.low,
        aim=None if shown is None else shown.aim,
        high=None if shown is None else shown.high,
        follows=follows,
        own=key in book.own or replace(key, family="") in book.own,
        source="" if found is None else found.source,
        confirmed_by=None if found is None else found.confirmed_by,
    )


def _has_sizes(measure: FigureCode) -> bool:
    """Whether each size has its own; what nobody has a figure of yet is never said to hold in every size."""
    known = [key for key in starting_figures() if key.measure == measure]
    return not known or any(key.size for key in known)


def _derived(
    book: FigureBook, family: str, size: str, measure: FigureCode, school: School | None
) -> tuple[FigureValues | None, str]:
    """What a school without figures of its own takes from the family's."""
    if school is None or school.question != "end_heights" or school.rule in (None, "own", "family"):
        return None, ""
    plain = book.find(family=family, size=size, measure=measure)
    if plain is None:
        return None, ""
    part: PartOfBand = school.rule  # type: ignore[assignment]  # `own` and `family` are gone above
    band = end_height_band(family_band=plain.band, part=part)
    values = FigureValues(measure=measure, low=band.low, aim=band.aim, high=band.high, source=plain.source)
    return values, school.says
