"""The shop's recipes: a named choice of one school for each question, and which one a family follows."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from uuid import UUID, uuid4

from fidicula.codes import TargetQuestionCode
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import ConflictError, NotFoundError, RefusedError
from fidicula.domain.instruments import Instrument
from fidicula.domain.targets import RecipeEntry, TargetChoice
from fidicula.domain.visits import Visit
from fidicula.judgement.targets.rules import Rules
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading.rules import load_rules
from fidicula.services.people.audit import note
from fidicula.services.shop.following import QuestionView, RecipeView, checked_schools, question_views, recipe_views
from fidicula.tables.figures import string_names
from fidicula.tables.schools import STARTING_RECIPE, questions, shipped_recipes
from fidicula.views.sheet.lines import changes, target_lines
from fidicula.views.sheet.model import TargetChange, TargetLine


@dataclass(frozen=True)
class RecipesOfFamily:
    """shipped : names that come with the program and cannot be lost, only changed and brought back."""

    family: str
    sizes: list[str]
    recipes: list[RecipeView]
    shipped: list[str]
    questions: list[QuestionView]


@dataclass(frozen=True)
class RecipeNumbers:
    """What two choices of schools give on an instrument of plain figures. strings : the set that was reckoned with."""

    lines: list[TargetLine]
    changes: list[TargetChange]
    strings: str


class Recipes:
    """Use cases around the shop's recipes."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def of_family(self, family: str) -> RecipesOfFamily:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return _view(load_rules(uow, family))

    def save(self, family: str, name: str, schools: Mapping[str, str], *, entry_id: UUID, by: str) -> RecipesOfFamily:
        """Keep a recipe under a name, new or changed; the one before it stays in the log. Raises RefusedError."""
        name = name.strip()
        if not name:
            raise RefusedError("give the recipe a name, so that it can be found again", field="name")
        with UnitOfWork(self._engine) as uow:
            rules = load_rules(uow, family)
            chosen = checked_schools(rules, schools)
            left_open = [questions()[question].title for question in questions() if question not in schools]
            if left_open:
                raise RefusedError(
                    f"choose one school for each question; still open: {', '.join(left_open)}", field="schools"
                )
            uow.rules.add_recipe(RecipeEntry(entry_id, family, name, chosen, retired=False, entered_by=by))
            note(uow, "recipe.saved", f"{family} {name}", by=by)
            uow.commit()
            return _view(load_rules(uow, family))

    def retire(self, family: str, name: str, *, entry_id: UUID, by: str) -> RecipesOfFamily:
        """Take a recipe of the shop's off the list; a shipped one gets its starting schools back."""
        with UnitOfWork(self._engine) as uow:
            rules = load_rules(uow, family)
            if uow.check_entry():
                return _view(rules)
            if name not in rules.recipes:
                raise NotFoundError(f"there is no recipe “{name}” for a {family}", field="name")
            shipped = shipped_recipes(family).get(name)
            if shipped is None and rules.shop_recipe == name:
                raise ConflictError(f"the shop follows “{name}”: choose another recipe for the {family} first")
            uow.rules.add_recipe(
                RecipeEntry(entry_id, family, name, shipped or rules.recipes[name], shipped is None, by)
            )
            note(uow, "recipe.retired", f"{family} {name}", by=by)
            uow.commit()
            return _view(load_rules(uow, family))

    def follow(self, family: str, name: str, *, entry_id: UUID, by: str) -> RecipesOfFamily:
        """Let a family follow a recipe, wherever an instrument has none of its own."""
        with UnitOfWork(self._engine) as uow:
            if name not in load_rules(uow, family).recipes:
                raise NotFoundError(f"there is no recipe “{name}” for a {family}", field="name")
            uow.rules.set_shop_recipe(id=entry_id, family=family, recipe=name, by=by)
            note(uow, "recipe.followed", f"{family} {name}", by=by)
            uow.commit()
            return _view(load_rules(uow, family))

    def numbers(self, family: str, size: str, *, before: Mapping[str, str], after: Mapping[str, str]) -> RecipeNumbers:
        """What a choice of schools wants of a size, and what it changes against another. Raises RefusedError."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            rules = load_rules(uow, family)
            if size not in rules.sizes:
                raise RefusedError(f"there are no figures for a {family} of size “{size}”", field="size")
            chosen = [checked_schools(rules, schools) for schools in (before, after)]
            names = string_names(family=family, count=4) or ()
            fitting = [
                s for s in uow.string_sets.of_family(family) if tuple(string.name for string in s.strings) == names
            ]
        plain = Instrument(uuid4(), "", family, size, names, left_handed=False, is_new=False, owner="", description="")
        now = datetime.now(UTC)
        loaded = VisitRecord(
            plain,
            Visit(uuid4(), plain.id, "bridge", "", now, None),
            fitting[0] if fitting else None,
            [],
            [],
            rules,
            now,
        )
        old, new = (target_lines(_under(loaded, schools).state()) for schools in chosen)
        return RecipeNumbers(new, changes(old, new), fitting[0].name if fitting else "")


def _under(loaded: VisitRecord, schools: Mapping[TargetQuestionCode, str]) -> VisitRecord:
    instrument = Instrument(**{**vars(loaded.instrument), "choice": TargetChoice(schools=schools)})
    return VisitRecord(instrument, loaded.visit, loaded.string_set, [], [], loaded.rules, loaded.now)


def _view(rules: Rules) -> RecipesOfFamily:
    return RecipesOfFamily(
        family=rules.family,
        sizes=list(rules.sizes),
        recipes=recipe_views(rules),
        shipped=[STARTING_RECIPE, *(name for name in shipped_recipes(rules.family) if name != STARTING_RECIPE)],
        questions=question_views(rules),
    )
