"""The shop's recipes, and what an instrument follows."""

from __future__ import annotations

from typing import Annotated, Literal
from uuid import UUID

from fastapi import APIRouter, Path
from pydantic import BaseModel, ConfigDict, Field

from fidicula.api.auth import Acting, may
from fidicula.api.errors import RESPONSES
from fidicula.api.services import AllServices
from fidicula.api.words import Label, Sentence, Ticket
from fidicula.codes import Family
from fidicula.judgement.measures import measure_code
from fidicula.services.shop.following import Following, Preview, TargetsWanted
from fidicula.services.shop.recipes import RecipeNumbers, RecipesOfFamily
from fidicula.views.sheet.model import BenchSheet

router = APIRouter(prefix="/api", tags=["recipes"], responses=RESPONSES)

Schools = Annotated[dict[Label, Label], Field(max_length=60)]
RecipeName = Annotated[Label, Field(max_length=40)]


class SourceBody(BaseModel):
    """Where a target is read. of : the earlier visit, or the other instrument's ticket."""

    model_config = ConfigDict(extra="forbid", populate_by_name=True)

    kind: Literal["as_found", "visit", "instrument"]
    of: Label = ""


class FollowBody(BaseModel):
    """recipe : None for the shop's own.  schools : where it differs.  sources : by measure."""

    model_config = ConfigDict(extra="forbid")

    recipe: RecipeName | None = None
    schools: Schools = {}
    sources: Annotated[dict[Label, SourceBody], Field(max_length=20)] = {}

    def targets_wanted(self) -> TargetsWanted:
        sources = {
            measure_code(measure, field="sources"): {"from": source.kind, "of": source.of}
            for measure, source in self.sources.items()
        }
        return TargetsWanted(self.recipe, self.schools, sources)


class ChooseBody(FollowBody):
    id: UUID
    reason: Sentence = ""


class EntryBody(BaseModel):
    model_config = ConfigDict(extra="forbid")

    id: UUID


class SaveBody(EntryBody):
    schools: Schools


class NumbersBody(BaseModel):
    """Schools of two choices, to set against each other on one size."""

    model_config = ConfigDict(extra="forbid")

    size: Annotated[Label, Field(max_length=20)]
    before: Schools
    after: Schools


Name = Annotated[str, Path(max_length=40, pattern=r"^[^/\x00]*$")]


@router.get("/instruments/{ticket}/targets")
def following(services: AllServices, ticket: Ticket) -> Following:
    """What the instrument follows, and every target in numbers."""
    return services.followings.following(ticket)


@router.post("/instruments/{ticket}/targets/preview")
def preview(services: AllServices, ticket: Ticket, body: FollowBody) -> Preview:
    """What a choice would change in numbers."""
    return services.followings.preview(ticket, body.targets_wanted())


@router.put("/instruments/{ticket}/targets", dependencies=[may("measure")])
def choose(services: AllServices, ticket: Ticket, body: ChooseBody, person: Acting) -> BenchSheet:
    """Follow a recipe, its own schools and other sources from now on."""
    return services.followings.choose(
        ticket, body.targets_wanted(), choice_id=body.id, reason=body.reason.strip(), by=person.name
    )


@router.post("/instruments/{ticket}/targets/{choice_id}/take-back", dependencies=[may("measure")])
def take_back(services: AllServices, ticket: Ticket, choice_id: UUID, person: Acting) -> BenchSheet:
    """Undo a choice of targets."""
    return services.followings.take_back(ticket, choice_id, person.name)


@router.get("/recipes/{family}")
def recipes_of(services: AllServices, family: Family) -> RecipesOfFamily:
    """A family's recipes, and the questions that they answer."""
    return services.recipes.of_family(family)


@router.post("/recipes/{family}/numbers")
def numbers(services: AllServices, family: Family, body: NumbersBody) -> RecipeNumbers:
    """What a choice of schools wants of a size, against another choice."""
    return services.recipes.numbers(family, body.size, before=body.before, after=body.after)


@router.put("/recipes/{family}/{name}", dependencies=[may("recipes")])
def save(services: AllServices, family: Family, name: Name, body: SaveBody, person: Acting) -> RecipesOfFamily:
    """Keep a recipe under a name."""
    return services.recipes.save(family, name, body.schools, entry_id=body.id, by=person.name)


@router.post("/recipes/{family}/{name}/retire", dependencies=[may("recipes")])
def retire(services: AllServices, family: Family, name: Name, body: EntryBody, person: Acting) -> RecipesOfFamily:
    """Take a recipe off the list, or bring a shipped one back to what it was."""
    return services.recipes.retire(family, name, entry_id=body.id, by=person.name)


@router.post("/recipes/{family}/{name}/follow", dependencies=[may("recipes")])
def follow(services: AllServices, family: Family, name: Name, body: EntryBody, person: Acting) -> RecipesOfFamily:
    """Let the family follow this recipe."""
    return services.recipes.follow(family, name, entry_id=body.id, by=person.name)
