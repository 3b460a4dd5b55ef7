"""The invented Reedwater Workshop, loaded through the same use cases that the screens call."""

from __future__ import annotations

import json
from datetime import UTC, datetime
from importlib import resources
from typing import Any
from uuid import uuid4

from fidicula.db.records import SetString, StringSet
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.services.bench import Bench, Taking
from fidicula.services.house import Arrival, House


def load_demo(engine: Engine) -> bool:
    """Load the demo into an empty house; False, and nothing is touched, where instruments are there already.

    Everything is judged as at the bench: a figure that is a slip would be doubted here too.
    """
    with UnitOfWork(engine) as work:
        if work.instruments.tickets():
            return False
    data = json.loads(resources.files("fidicula.cli").joinpath("demo.json").read_text(encoding="utf-8"))
    set_ids = _load_sets(engine, data["string_sets"])
    house, bench = House(engine), Bench(engine)
    for entry in data["instruments"]:
        _load_instrument(house, bench, entry, set_ids, by=data["taken_by"], tool=data["tool"])
    return True


def _load_sets(engine: Engine, entries: list[dict[str, Any]]) -> dict[tuple[str, str], StringSet]:
    found = {}
    with UnitOfWork(engine) as work:
        for entry in entries:
            new = StringSet(
                id=uuid4(),
                name=entry["name"],
                family=entry["family"],
                material=entry["material"],
                strings=tuple(SetString(**string) for string in entry["strings"]),
            )
            work.string_sets.add(new)
            found[new.family, new.name] = new
        work.commit()
    return found


def _load_instrument(
    house: House,
    bench: Bench,
    entry: dict[str, Any],
    sets: dict[tuple[str, str], StringSet],
    *,
    by: str,
    tool: str,
) -> None:
    ticket = house.register(
        Arrival(
            ticket=entry["ticket"],
            family=entry["family"],
            size=entry["size"],
            string_names=entry.get("string_names", []),
            left_handed=entry.get("left_handed", False),
            is_new=False,
            owner=entry["owner"],
            description=entry["description"],
            complaint=entry["complaint"],
            kind="bridge",
        )
    )
    after_work = 0
    if "set" in entry:
        sheet = bench.name_strings(
            ticket,
            work_id=uuid4(),
            set_id=sets[entry["family"], entry["set"]].id,
            own=None,
            put_on_now=False,
            by=by,
        )
        after_work = sheet.last_work
    for measure, school in entry.get("schools", {}).items():
        bench.choose_school(ticket, measure=measure, school=school)
    for measure, values in entry.get("readings", {}).items():
        single = not isinstance(values, list)
        for position, value in enumerate([values] if single else values):
            if value is None:
                continue
            taking = Taking(
                id=uuid4(),
                measure=measure,
                position=None if single else position,
                typed=f"{value:g}",
                tool=tool,
                taken_by=by,
                taken_at=datetime.now(UTC),
                after_work=after_work,
                repeats=False,
            )
            bench.take_reading(ticket, taking)
