"""What the shop goes by in one family: its figures in force, its recipes, and when its tools were checked."""

from __future__ import annotations

from collections.abc import Hashable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import cached_property

from fidicula.codes import TargetQuestionCode
from fidicula.domain.readings import ToolCheck
from fidicula.domain.targets import FigureEntry, RecipeEntry, TargetChoice
from fidicula.judgement.targets.gauges import Gauges, gauges_of
from fidicula.judgement.targets.wanted import Targets
from fidicula.tables.figures import FigureBook, FigureKey, FigureValues, sizes
from fidicula.tables.schools import STARTING_RECIPE, School, schools_for, shipped_recipes


@dataclass(frozen=True)
class Rules:
    """book : figures in force.  recipes : by name, one school for each question.  shop_recipe : the family's.

    tool_checks : of its tools, in order.  own_sizes : of the shop, beyond those that come with the program.

    resolved : targets worked out under these rules already, by what they depend on.
    """

    family: str
    book: FigureBook
    recipes: Mapping[str, Mapping[TargetQuestionCode, str]]
    shop_recipe: str
    tool_checks: Sequence[ToolCheck] = ()
    own_sizes: tuple[str, ...] = ()
    resolved: dict[Hashable, Targets] = field(default_factory=dict, compare=False, repr=False)

    @cached_property
    def gauges(self) -> Gauges:
        """What its tools are off."""
        return gauges_of(self.tool_checks)

    @property
    def sizes(self) -> tuple[str, ...]:
        """Every size that there is a page of figures for."""
        return (*(row.size for row in sizes() if row.family == self.family), *self.own_sizes)

    def recipe(self, choice: TargetChoice) -> Mapping[TargetQuestionCode, str]:
        """The recipe that a choice starts from, before its own differences."""
        return self.recipes.get(choice.recipe or self.shop_recipe) or self.recipes[self.shop_recipe]

    def chosen(self, choice: TargetChoice) -> dict[TargetQuestionCode, str]:
        """The school for each question: the instrument's own, else the recipe's."""
        return {**self.recipe(choice), **choice.schools}

    def offered(self) -> dict[TargetQuestionCode, tuple[School, ...]]:
        """For each question, the schools that this family can follow."""
        return schools_for(self.family, self.book)


def make_rules(
    family: str,
    *,
    figures: Iterable[FigureEntry] = (),
    recipes: Iterable[RecipeEntry] = (),
    shop_recipe: str | None = None,
    tool_checks: Sequence[ToolCheck] = (),
    own_sizes: Iterable[str] = (),
) -> Rules:
    """The starting figures and recipes with the shop's own in their place."""
    shipped = shipped_recipes(family)
    known: dict[str, Mapping[TargetQuestionCode, str]] = dict(shipped)
    for entry in recipes:
        if entry.retired and entry.name != STARTING_RECIPE:
            known.pop(entry.name, None)
        elif not entry.retired:
            known[entry.name] = {**shipped[STARTING_RECIPE], **entry.schools}
    return Rules(
        family=family,
        book=FigureBook({key_of(entry): values_of(entry) for entry in figures}),
        recipes=known,
        shop_recipe=shop_recipe if shop_recipe in known else STARTING_RECIPE,
        tool_checks=tool_checks,
        own_sizes=tuple(own_sizes),
    )


def key_of(entry: FigureEntry) -> FigureKey:
    return FigureKey(entry.family, entry.size, entry.measure, entry.question, entry.school)


def values_of(entry: FigureEntry) -> FigureValues:
    return FigureValues(
        measure=entry.measure,
        low=entry.low,
        aim=entry.aim,
        high=entry.high,
        source=entry.source,
        confirmed_by=entry.confirmed_by,
    )
