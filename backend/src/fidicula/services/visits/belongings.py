"""Fittings as objects, what came along with an instrument, what the shop lent: written down, changed, asked back."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime
from uuid import UUID, uuid5

from fidicula.core.errors import CoreError
from fidicula.core.readings.plain import whole_number
from fidicula.core.readings.typed import in_unit
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.belongings import BelongingEntry, BelongingPlace
from fidicula.domain.errors import NotFoundError, RefusedError
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading.records import check_in_house, load_bench, load_to_change
from fidicula.tables.belongings import Group, belonging_kinds
from fidicula.words import belongings as say

_MOST_MASS = 20_000.0
_MOST = 200


@dataclass(frozen=True)
class BelongingTyped:
    """A thing as it was typed. thing : that the line is about.  count, mass : may be empty."""

    thing: UUID
    kind: str
    which: str
    material: str
    count: str
    mass: str
    made_on: date | None
    stamp: str
    place: BelongingPlace
    lies: str


@dataclass(frozen=True)
class BelongingView:
    """says : the thing in one line.  is_here : it was written down at this visit, and can be undone. mass : [g]"""

    id: str
    thing: str
    kind: str
    label: str
    group: Group
    says: str
    which: str
    material: str
    count: int | None
    mass: float | None
    made_on: date | None
    stamp: str
    place: BelongingPlace
    lies: str
    entered_by: str
    entered_at: datetime | None
    is_here: bool


@dataclass(frozen=True)
class KindOffered:
    kind: str
    label: str
    group: Group
    counted: bool
    which: str


@dataclass(frozen=True)
class BelongingsView:
    """things : that are there, in the order of their kinds.  gone : that were.  says : what to heed, in words."""

    things: list[BelongingView]
    gone: list[BelongingView]
    kinds: list[KindOffered]
    says: list[str]


class Belongings:
    """Use cases. by : who writes it down."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def view(self, ticket: str) -> BelongingsView:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return _view(uow, load_bench(uow, ticket))

    def enter(self, ticket: str, typed: BelongingTyped, *, entry_id: UUID, by: str) -> BelongingsView:
        """Write a thing down, or say something else of one. Raises RefusedError naming the field."""
        kind = belonging_kinds().get(typed.kind)
        if kind is None:
            raise RefusedError("choose what it is", field="kind")
        count, mass = _count(typed.count), _mass(typed.mass)
        if kind.group == "along" and kind.kind == "other" and not typed.which.strip():
            raise RefusedError("say what it is, in your words", field="which")
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            if not kind.fits(loaded.instrument.family):
                raise RefusedError(f"a {loaded.instrument.family} has no {kind.label}", field="kind")
            entry = BelongingEntry(
                id=entry_id,
                visit_id=loaded.visit.id,
                thing=typed.thing,
                kind=typed.kind,
                which=typed.which.strip(),
                material=typed.material.strip(),
                count=count,
                mass=mass,
                made_on=typed.made_on,
                stamp=typed.stamp.strip(),
                place=typed.place,
                lies=typed.lies.strip() if typed.place == "off" else "",
                entered_by=by,
            )
            uow.belongings.add(entry)
            uow.commit()
        return self.view(ticket)

    def came(self, ticket: str, words: str, *, visit_id: UUID, by: str) -> None:
        """Write down what came along, as it was named at the door. visit_id : so that a retry writes nothing twice."""
        if not words.strip():
            return
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            for i, (kind, which, count) in enumerate(named(words, loaded.instrument.family)):
                entry_id = uuid5(visit_id, f"along {i}")
                uow.belongings.add(
                    BelongingEntry(
                        id=entry_id,
                        visit_id=loaded.visit.id,
                        thing=entry_id,
                        kind=kind,
                        which=which,
                        material="",
                        count=count,
                        mass=None,
                        made_on=None,
                        stamp="",
                        place="with_it",
                        lies="",
                        entered_by=by,
                    )
                )
            uow.commit()

    def take_back(self, ticket: str, entry_id: UUID, by: str) -> BelongingsView:
        """Undo a line of this visit: what was said of the thing before stands again."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            if not uow.belongings.take_back(entry_id, loaded.visit.id, by):
                raise NotFoundError("that was not written down at this visit")
            uow.commit()
        return self.view(ticket)


def named(words: str, family: str) -> list[tuple[str, str, int | None]]:
    """What came along as somebody named it: kind, the piece's own words, and how many where that was said.

    words : pieces between commas, such as “case, 2 bows, shoulder rest”; one that nothing knows is kept in its words.
    """
    found = []
    for piece in (part.strip() for part in re.split(r"[,;\n]| and ", words)):
        if not piece:
            continue
        match = re.match(r"(\d{1,2})\s*[x×]?\s+(.*)", piece, re.ASCII)
        count, said = (int(match[1]) or None, match[2]) if match else (None, piece)
        tokens = set(re.findall(r"[a-z]+", said.lower()))
        known = (row for row in belonging_kinds().values() if row.words and row.fits(family))
        kind = next((row for row in known if tokens & set((row.words or "").split())), None)
        plain = kind is not None and tokens <= set((kind.words or "").split()) | set(kind.label.split())
        found.append(("other" if kind is None else kind.kind, "" if plain else said, count))
    return found


def things_of(entries: Sequence[BelongingEntry]) -> list[BelongingEntry]:
    """The last line about each thing, in the order of their kinds."""
    last = {entry.thing: entry for entry in entries}
    order = {kind: i for i, kind in enumerate(belonging_kinds())}
    return sorted(last.values(), key=lambda entry: order.get(entry.kind, len(order)))


def _view(uow: UnitOfWork, loaded: VisitRecord) -> BelongingsView:
    things = [_shown(entry, loaded) for entry in things_of(uow.belongings.of(loaded.instrument.id))]
    family = loaded.instrument.family
    there = [one for one in things if one.place != "gone"]
    tuners = next((one for one in there if one.kind == "fine_tuners"), None)
    return BelongingsView(
        things=there,
        gone=[one for one in things if one.place == "gone"],
        kinds=[
            KindOffered(row.kind, row.label, row.group, row.counted, row.which or "")
            for row in belonging_kinds().values()
            if row.fits(family)
        ],
        says=say.tuners(
            None if tuners is None else tuners.count,
            school=loaded.state().targets.schools["fine_tuners"],
            strings=len(loaded.instrument.string_names),
        ),
    )


def _shown(entry: BelongingEntry, loaded: VisitRecord) -> BelongingView:
    kind = belonging_kinds().get(entry.kind)
    return BelongingView(
        id=str(entry.id),
        thing=str(entry.thing),
        kind=entry.kind,
        label=entry.kind if kind is None else kind.label,
        group="along" if kind is None else kind.group,
        says=say.thing(entry),
        which=entry.which,
        material=entry.material,
        count=entry.count,
        mass=entry.mass,
        made_on=entry.made_on,
        stamp=entry.stamp,
        place=entry.place,
        lies=entry.lies,
        entered_by=entry.entered_by,
        entered_at=entry.entered_at,
        is_here=entry.visit_id == loaded.visit.id,
    )


def _count(typed: str) -> int | None:
    text = typed.strip()
    if not text:
        return None
    count = whole_number(text)
    if count is None or not 1 <= count <= _MOST:
        raise RefusedError(f"how many is a whole number from 1 to {_MOST}; it was “{text[:20]}”", field="count")
    return count


def _mass(typed: str) -> float | None:
    if not typed.strip():
        return None
    try:
        mass = in_unit("g", typed, what="the mass")
    except CoreError as error:
        raise RefusedError(error.sentence, field="mass") from error
    if not 0 < mass <= _MOST_MASS:
        raise RefusedError(f"the mass is over 0 g and up to {_MOST_MASS:.0f} g", field="mass")
    return mass
