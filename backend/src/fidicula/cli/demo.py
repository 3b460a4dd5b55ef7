"""The invented Reedwater Workshop, loaded through the same use cases that the screens call."""

from __future__ import annotations

import json
from datetime import UTC, datetime, timedelta
from importlib import resources
from typing import Any
from uuid import uuid4

from fidicula.cli.demo_leaving import bring, hand_over, mark, seal_earlier
from fidicula.cli.demo_plan import load_plan, load_stock
from fidicula.cli.demo_trail import days_on, load_earlier_sound, load_event
from fidicula.codes import MeasureCode, ToolCode, WorkCode
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.people import Person
from fidicula.domain.readings import NewReading
from fidicula.domain.strings import SetString, StringSet
from fidicula.domain.work_details import StringsFitted
from fidicula.domain.works import NewWork
from fidicula.judgement.measures import MEASURES
from fidicula.services.adjusting.strings import Stringing, Strings
from fidicula.services.bench.bench import Bench
from fidicula.services.bench.taking import ReadingInput
from fidicula.services.people.persons import PersonTyped, changed_person
from fidicula.services.shop.figures import Figures, FigureTyped
from fidicula.services.shop.following import Followings, TargetsWanted
from fidicula.services.shop.pricing.settings import Settings
from fidicula.services.shop.recipes import Recipes
from fidicula.services.shop.tool_checks import ToolChecks
from fidicula.services.visits.arrivals import Arrival, VisitAsked
from fidicula.services.visits.house import House
from fidicula.services.visits.workflow import Workflow
from fidicula.tables.figures import FigureKey


def load_demo(engine: Engine) -> bool:
    """Load the demo into an empty house; False, and nothing is touched, where instruments are there already.

    Everything is judged as at the bench: a figure that is a slip would be doubted here too.
    """
    with UnitOfWork(engine) as uow:
        if uow.instruments.tickets():
            return False
    data = _data()
    set_ids = _load_sets(engine, data["string_sets"])
    _load_people(engine, data["people"])
    _load_rules(engine, data)
    load_stock(engine, data["stock"], set_ids, by=data["taken_by"])
    for setting, value in data["shop"].items():
        Settings(engine).enter(setting, value, entry_id=uuid4(), by=data["people"][0]["name"])
    for entry in data["instruments"]:
        _load_instrument(engine, entry, set_ids, by=data["taken_by"], tool=data["tool"])
        if "plan" in entry:
            load_plan(engine, entry["ticket"], entry["plan"], by=data["taken_by"])
    return True


def _data() -> dict[str, Any]:
    data: dict[str, Any] = json.loads(resources.files("fidicula.cli").joinpath("demo.json").read_text(encoding="utf-8"))
    return data


def demo_sign_ins() -> list[tuple[str, str, str, str]]:
    """Name, role, password and PIN of everyone in the demo; all of them made up."""
    return [(p["name"], p["role"], p["password"], p["pin"]) for p in _data()["people"]]


def _load_people(engine: Engine, entries: list[dict[str, Any]]) -> None:
    with UnitOfWork(engine) as uow:
        for e in entries:
            typed = PersonTyped(e["name"], e["role"], True, e["password"], e["pin"])
            uow.people.add(changed_person(Person(uuid4(), "", typed.role, None, None, active=True), typed))
        uow.commit()


def _load_sets(engine: Engine, entries: list[dict[str, Any]]) -> dict[tuple[str, str], StringSet]:
    found = {}
    with UnitOfWork(engine) as uow:
        for entry in entries:
            new = StringSet(
                id=uuid4(),
                name=entry["name"],
                family=entry["family"],
                material=entry["material"],
                strings=tuple(SetString(**string) for string in entry["strings"]),
            )
            uow.string_sets.add(new)
            found[new.family, new.name] = new
        uow.commit()
    return found


def _load_rules(engine: Engine, data: dict[str, Any]) -> None:
    """What the shop has entered of its own: figures, and a recipe for the hire fleet."""
    figures, recipes = Figures(engine), Recipes(engine)
    for entry in data["figures"]:
        key = FigureKey(
            entry["family"], entry["size"], entry["measure"], entry.get("question", ""), entry.get("school", "")
        )
        typed = FigureTyped(
            entry["low"], entry["aim"], entry["high"], entry["source"], confirmed=entry["confirmed"], sure=False
        )
        figures.enter(key, typed, page_size=entry["size"], entry_id=uuid4(), by=entry["by"])
    for entry in data["recipes"]:
        known = {recipe.name: recipe.schools for recipe in recipes.of_family(entry["family"]).recipes}
        schools = {**known[entry["from"]], **entry["schools"]}
        recipes.save(entry["family"], entry["name"], schools, entry_id=uuid4(), by=entry["by"])
    for tool, check in data["tool_checks"].items():
        ToolChecks(engine).check(tool, check_id=uuid4(), **check)


def _load_instrument(
    engine: Engine,
    entry: dict[str, Any],
    sets: dict[tuple[str, str], StringSet],
    *,
    by: str,
    tool: str,
) -> None:
    house, bench = House(engine), Bench(engine)
    ticket = house.register(_arrival(entry), by)
    for earlier in entry.get("earlier_visits", []):
        was_on = sets.get((entry["family"], earlier.get("set", "")))
        _load_earlier(engine, ticket, earlier, was_on, by=by, tool=tool)
    after_work = 0
    if "set" in entry:
        since = days_on(entry.get("strings_in_days"))
        stringing = Stringing(
            sets[entry["family"], entry["set"]].id,
            None,
            entry.get("put_on_now", False),
            since=since,
            hours_a_week=entry.get("hours_a_week", ""),
        )
        sheet = Strings(engine).name(ticket, stringing, work_id=uuid4(), by=by)
        after_work = sheet.last_work
    _read(bench, ticket, entry.get("readings", {}), after_work=after_work, by=by, tool=tool)
    if "targets" in entry:
        asked = TargetsWanted(
            entry["targets"].get("recipe"), entry["targets"].get("schools", {}), entry["targets"].get("sources", {})
        )
        Followings(engine).choose(ticket, asked, choice_id=uuid4(), reason=entry["targets"]["reason"], by=by)
    _load_course(engine, ticket, entry, by=by)
    for event in entry.get("trail", []):
        load_event(engine, ticket, event, by=by)
    for seen in entry.get("damage", []):
        mark(engine, ticket, seen, by=by)
    for thing in entry.get("belongings", []):
        bring(engine, ticket, thing, by=by)
    _came(engine, ticket, days_ago=entry.get("came_days_ago", 0))


def _arrival(entry: dict[str, Any]) -> Arrival:
    return Arrival(
        id=uuid4(),
        ticket=entry["ticket"],
        family=entry["family"],
        size=entry["size"],
        string_names=entry.get("string_names", []),
        left_handed=entry.get("left_handed", False),
        opposite_build=False,
        is_new=False,
        owner=entry["owner"],
        description=entry["description"],
        complaint=entry["complaint"],
        kind=entry.get("kind", "bridge"),
        visit=VisitAsked(
            climate=entry.get("climate", ""),
            deadline=days_on(entry.get("needed_in_days")),
            promised=days_on(entry.get("promised_in_days")),
        ),
        asked=entry.get("asked", {}),
        is_fleet=entry.get("fleet", False),
    )


def _read(bench: Bench, ticket: str, readings: dict[MeasureCode, Any], *, after_work: int, by: str, tool: str) -> None:
    """readings : by measure, one value, or one for each string or place, low first."""
    for measure, values in readings.items():
        single = not isinstance(values, list)
        for position, value in enumerate([values] if single else values):
            if value is None:
                continue
            taking = ReadingInput(
                id=uuid4(),
                measure=measure,
                position=None if single else position,
                typed=f"{value:g}",
                tool=_with(measure, tool),
                taken_by=by,
                taken_at=datetime.now(UTC),
                after_work=after_work,
                repeats=False,
            )
            bench.take_reading(ticket, taking, made=lambda sheet: sheet)


def _came(engine: Engine, ticket: str, *, days_ago: int) -> None:
    """It has been in the house for some days, and its strings were named when it came."""
    came = datetime.now(UTC) - timedelta(days=days_ago)
    with UnitOfWork(engine) as uow:
        uow.visits.came(ticket, at=came, strings_named_at=came + timedelta(minutes=40 if days_ago else 0))
        uow.commit()


def _load_course(engine: Engine, ticket: str, entry: dict[str, Any], *, by: str) -> None:
    """What was seen, decided and done, and whether it went home again."""
    course, bench = Workflow(engine), Bench(engine)
    for item, found in entry.get("seen", {}).items():
        course.see(ticket, item, seen_id=uuid4(), found=found, verdict="", words="", by=by)
    for made in entry.get("decisions", []):
        course.decide(ticket, decision_id=uuid4(), by=by, **made)
    for work in entry.get("works", []):
        bench.do_work(ticket, work_id=uuid4(), kind=work, by=by)
    if entry.get("handed_over"):
        hand_over(engine, ticket, entry["handed_over"], by=by)


def _with(measure: MeasureCode, tool: str) -> ToolCode:
    """The tool in the hand where it reads this, else the usual one; inside it is the card gauge."""
    if MEASURES[measure].tools[0] == "card_gauge":
        return "card_gauge"
    tools = MEASURES[measure].tools
    return next((one for one in tools if one == tool), tools[0])


def _load_earlier(
    engine: Engine, ticket: str, visit: dict[str, Any], was_on: StringSet | None, *, by: str, tool: str
) -> None:
    """A visit of some time ago, with the readings that it closed with."""
    opened = datetime.now(UTC)
    with UnitOfWork(engine) as uow:
        found = uow.instruments.by_ticket(ticket)
        assert found is not None
        visit_id = uuid4()
        uow.visits.open(
            id=visit_id,
            instrument_id=found[0].id,
            kind=visit.get("kind", "bridge"),
            complaint=visit["complaint"],
            opened_at=opened,
            closed_at=opened + timedelta(days=2),
            closed_by=by,
        )
        for work in visit.get("works", []):
            uow.log.add_work(NewWork(uuid4(), visit_id, work, by, done_at=opened))
        for measure, values in visit["readings"].items():
            single = not isinstance(values, list)
            for position, value in enumerate([values] if single else values):
                uow.log.add_reading(
                    NewReading(
                        id=uuid4(),
                        visit_id=visit_id,
                        measure=measure,
                        position=None if single else position,
                        typed=f"{value:g}",
                        value=value,
                        tool=_with(measure, tool),
                        direction="vertical" if MEASURES[measure].height else None,
                        taken_by=by,
                        taken_at=opened,
                        after_work=None,
                        repeats=False,
                        doubt=None,
                        suggested=None,
                    ),
                    corrects=None,
                )
        if was_on is not None:
            strung: WorkCode = "strings_changed" if visit.get("new_strings") else "strings_named"
            named = NewWork(uuid4(), visit_id, strung, by, StringsFitted(set=was_on.name), was_on.id, opened)
            uow.log.add_work(named)
        load_earlier_sound(uow, visit, visit_id, opened, by=by)
        seal_earlier(uow, visit_id, opened + timedelta(days=2), days_ago=visit["days_ago"], by=by)
        uow.commit()
