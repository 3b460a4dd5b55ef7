"""The schools that a shop chooses from, and recipes: one school for each question, never two averaged."""

from __future__ import annotations

from collections.abc import Mapping
from functools import cache
from typing import Literal, cast

from fidicula.codes import TargetQuestionCode
from fidicula.core.targets.heights import PartOfBand
from fidicula.tables.figures import FigureBook, measures_of_school
from fidicula.tables.rows import TableError, TableRow, read_rows


class Question(TableRow):
    """What the schools disagree on. part : of the instrument.  families : that it is asked of; None for all."""

    question: TargetQuestionCode
    title: str
    part: str
    families: str | None

    def fits(self, family: str) -> bool:
        return self.families is None or family in self.families.split()


class School(TableRow):
    """One answer to a question. says : what it is.  why : who holds with it says so for this, in a sentence.

    rule : for end heights, the part of the family's band; `family` takes the family's plain figure; `own`
    has figures of its own and is offered only where there are some.
    """

    question: TargetQuestionCode
    school: str
    label: str
    says: str
    why: str
    rule: PartOfBand | Literal["family"] | None = None


class RecipeRow(TableRow):
    recipe: str
    families: str
    question: TargetQuestionCode
    school: str


@cache
def questions() -> Mapping[TargetQuestionCode, Question]:
    return {row.question: row for row in read_rows("questions", Question)}


@cache
def schools() -> Mapping[tuple[TargetQuestionCode, str], School]:
    """By question and school."""
    found = {(row.question, row.school): row for row in read_rows("schools", School)}
    for question, _ in found:
        if question not in questions():
            raise TableError(f"schools.csv: {question} is no question of questions.csv")
    return found


def school(question: str, name: str) -> School | None:
    """None for a school, or a question, that there is not."""
    return cast(Mapping[tuple[str, str], School], schools()).get((question, name))


def schools_for(family: str, book: FigureBook) -> dict[TargetQuestionCode, tuple[School, ...]]:
    """For each question, the schools that a family can follow.

    A school that lives by its own figures is left out of a family that has none of them in any size.
    """
    found: dict[TargetQuestionCode, tuple[School, ...]] = {
        name: () for name, row in questions().items() if row.fits(family)
    }
    for (question, name), row in schools().items():
        if question not in found:
            continue
        lives_by_figures = row.rule == "own" or (
            row.rule is None and bool(measures_of_school(question, name)) and question not in _USES_NONE_IF_MISSING
        )
        if not lives_by_figures or book.of_school(family=family, question=question, school=name):
            found[question] = (*found[question], row)
    return found


_USES_NONE_IF_MISSING = frozenset({"string_material", "new_instrument"})
"""Questions whose schools add something where there is a figure, and nothing where there is none."""


@cache
def shipped_recipes(family: str) -> Mapping[str, Mapping[TargetQuestionCode, str]]:
    """The recipes that come with the program, by name: the school for each question."""
    found: dict[str, dict[TargetQuestionCode, str]] = {}
    for row in read_rows("recipes", RecipeRow):
        if (row.question, row.school) not in schools():
            raise TableError(f"recipes.csv: there is no school {row.school} of {row.question}")
        if family in row.families.split():
            found.setdefault(row.recipe, {})[row.question] = row.school
    for name, chosen in found.items():
        if chosen.keys() != {question for question, row in questions().items() if row.fits(family)}:
            raise TableError(f"recipes.csv: {name} leaves a question open")
    return found


STARTING_RECIPE = "Orchestral"
"""What every family follows until the shop says otherwise."""
