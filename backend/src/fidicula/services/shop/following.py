"""What one instrument follows: its recipe, its own schools, and targets that were read somewhere else."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from uuid import UUID

from fidicula.codes import MeasureCode, TargetQuestionCode
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import NotFoundError, RefusedError
from fidicula.domain.instruments import Instrument
from fidicula.domain.targets import TargetChoice
from fidicula.judgement.measures import MEASURES, said_of_all
from fidicula.judgement.targets.rules import Rules
from fidicula.judgement.targets.sources import AS_FOUND, MEASURES_FROM_ELSEWHERE
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading.records import changed_sheet, following, load_bench, load_to_change
from fidicula.tables.rows import code_of
from fidicula.tables.schools import School, questions
from fidicula.views.sheet.build import sheet_of
from fidicula.views.sheet.lines import changes, target_lines
from fidicula.views.sheet.model import BenchSheet, Choice, TargetChange, TargetLine
from fidicula.words.numbers import sentence


@dataclass(frozen=True)
class SchoolOffered:
    """says : what following it means.  families_own : whether it needs figures that the family has."""

    school: str
    label: str
    says: str


@dataclass(frozen=True)
class QuestionView:
    """What the schools disagree on, and who is offered. part : of the instrument."""

    question: str
    title: str
    part: str
    schools: list[SchoolOffered]


@dataclass(frozen=True)
class RecipeView:
    """One recipe: a school for each question. shop : the family follows it unless an instrument has its own."""

    name: str
    schools: Mapping[str, str]
    shop: bool


@dataclass(frozen=True)
class SourceOf:
    """Where a measure's target comes from, if not from the recipe. of : the visit or the ticket."""

    measure: MeasureCode
    kind: str
    of: str


@dataclass(frozen=True)
class TargetsWanted:
    """A choice as it is asked for. recipe : None for the shop's own."""

    recipe: str | None
    schools: Mapping[str, str]
    sources: Mapping[MeasureCode, Mapping[str, str]]


@dataclass(frozen=True)
class Following:
    """What an instrument follows, what it could follow, and every target in numbers."""

    ticket: str
    family: str
    size: str
    recipe: str | None
    own: Mapping[str, str]
    sources: list[SourceOf]
    reason: str
    recipes: list[RecipeView]
    questions: list[QuestionView]
    measures: list[Choice]
    earlier_visits: list[Choice]
    others_here: list[str]
    lines: list[TargetLine]


@dataclass(frozen=True)
class Preview:
    """What a choice would change. same : how many targets stay as they are.  problem : where the shape could not be."""

    changes: list[TargetChange]
    same: int
    problem: str | None


def question_views(rules: Rules) -> list[QuestionView]:
    """Every question with the schools that a family can follow."""
    return [
        QuestionView(row.question, row.title, row.part, [_offered(one) for one in rules.offered()[row.question]])
        for row in questions().values()
        if row.question in rules.offered()
    ]


def _offered(school: School) -> SchoolOffered:
    return SchoolOffered(school.school, school.label, f"{sentence(school.says)} {school.why}")


def recipe_views(rules: Rules) -> list[RecipeView]:
    return [RecipeView(name, _as_text(chosen), name == rules.shop_recipe) for name, chosen in rules.recipes.items()]


def _as_text(schools: Mapping[TargetQuestionCode, str]) -> dict[str, str]:
    return {question: name for question, name in schools.items()}  # noqa: C416 - the keys become plain text


def checked_schools(rules: Rules, schools: Mapping[str, str]) -> dict[TargetQuestionCode, str]:
    """As they were asked for. Raises RefusedError for a school that the family cannot follow."""
    offered = rules.offered()
    checked: dict[TargetQuestionCode, str] = {}
    for typed, name in schools.items():
        question = code_of(offered, typed)
        if question is None:
            raise RefusedError(f"“{typed}” is nothing that schools disagree on", field="schools")
        if name not in {school.school for school in offered[question]}:
            raise RefusedError(
                f"there is no school “{name}” of {questions()[question].title.lower()} for a {rules.family}",
                field="schools",
            )
        checked[question] = name
    return checked


class Followings:
    """Use cases around what an instrument follows."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def following(self, ticket: str) -> Following:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            instrument, choice = loaded.instrument, loaded.instrument.choice
            visits = [visit for visit in uow.visits.of(instrument.id) if visit.id != loaded.visit.id]
            return Following(
                ticket=ticket,
                family=instrument.family,
                size=instrument.size,
                recipe=choice.recipe if choice.recipe in loaded.rules.recipes else None,
                own=_as_text(choice.schools),
                sources=[SourceOf(m, source["from"], source.get("of", "")) for m, source in choice.sources.items()],
                reason=choice.reason,
                recipes=recipe_views(loaded.rules),
                questions=question_views(loaded.rules),
                measures=[Choice(measure, said_of_all(measure)) for measure in MEASURES_FROM_ELSEWHERE],
                earlier_visits=[
                    Choice(
                        str(visit.id), f"{visit.opened_at.day} {visit.opened_at:%B %Y}, {visit.complaint or visit.kind}"
                    )
                    for visit in visits
                ],
                others_here=[other.ticket for other in _alike(uow, instrument)],
                lines=target_lines(loaded.state()),
            )

    def preview(self, ticket: str, asked: TargetsWanted) -> Preview:
        """What would change in numbers, before anything is taken. Raises RefusedError."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            after = following(uow, loaded, _choice(loaded, asked))
            _check_readable(after, asked)
            before_lines, after_lines = target_lines(loaded.state()), target_lines(after.state())
            changed = changes(before_lines, after_lines)
            problem = sheet_of(after.assess(), after.rules).problem
            return Preview(changed, len(after_lines) - len(changed), None if problem is None else problem.sentence)

    def choose(self, ticket: str, asked: TargetsWanted, *, choice_id: UUID, reason: str, by: str) -> BenchSheet:
        """Follow it from now on; the choice before it is kept. Raises RefusedError."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            choice = _choice(loaded, asked, choice_id=choice_id, reason=reason, by=by)
            _check_readable(following(uow, loaded, choice), asked)
            uow.instruments.choose_targets(loaded.instrument.id, choice)
            return changed_sheet(uow, ticket)

    def take_back(self, ticket: str, choice_id: UUID, by: str) -> BenchSheet:
        """Undo a choice: what was followed before it holds again."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            if not any(choice.id == choice_id for choice, _ in uow.instruments.choices(loaded.instrument.id)):
                raise NotFoundError("that choice is not written down for this instrument")
            uow.instruments.take_back_choice(choice_id, by)
            return changed_sheet(uow, ticket)


def _alike(uow: UnitOfWork, instrument: Instrument) -> list[Instrument]:
    return [
        entry.instrument
        for entry in uow.open_visits.in_house()
        if entry.instrument.id != instrument.id
        and (entry.instrument.family, entry.instrument.size) == (instrument.family, instrument.size)
        and len(entry.instrument.string_names) == len(instrument.string_names)
    ]


def _choice(
    loaded: VisitRecord, asked: TargetsWanted, *, choice_id: UUID | None = None, reason: str = "", by: str = ""
) -> TargetChoice:
    """The choice as it is kept: only what differs from the recipe."""
    if asked.recipe is not None and asked.recipe not in loaded.rules.recipes:
        raise RefusedError(f"there is no recipe “{asked.recipe}” for a {loaded.instrument.family}", field="recipe")
    schools = checked_schools(loaded.rules, asked.schools)
    of_recipe = loaded.rules.recipe(TargetChoice(recipe=asked.recipe))
    return TargetChoice(
        id=choice_id,
        recipe=asked.recipe,
        schools={question: name for question, name in schools.items() if of_recipe[question] != name},
        sources=asked.sources,
        reason=reason,
        chosen_by=by,
    )


def _check_readable(after: VisitRecord, asked: TargetsWanted) -> None:
    """A target that is to come from a reading needs that reading."""
    for measure in asked.sources:
        names = after.instrument.string_names
        unread = [
            (names[position] if position is not None else MEASURES[measure].label, taken.words)
            for (of, position), taken in after.taken.items()
            if of == measure and taken.value is None
        ]
        if unread:
            what = ", ".join(name for name, _ in unread)
            where = MEASURES[measure].label if MEASURES[measure].for_each_string else ""
            said = f"{what} {where}".strip()
            kind = asked.sources[measure].get("from")
            hint = (
                "measure it first, or let the recipe say"
                if kind == AS_FOUND
                else "let the recipe say, or choose another source"
            )
            raise RefusedError(f"{said}, {unread[0][1]}: {hint}", field="sources")
