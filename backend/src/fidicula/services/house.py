"""The house: what hangs on the rail, and what comes through the door."""

from __future__ import annotations

import gzip
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, date, datetime
from uuid import uuid4

from fidicula.db.records import Instrument, TargetChoice, Visit
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.services.errors import NotHereError, NotNowError, RefusedError
from fidicula.services.loaded import changed_sheet, load_bench, note_step
from fidicula.services.measures import MEASURES
from fidicula.services.sheet.course import newest_mark
from fidicula.services.sheet.model import Choice
from fidicula.services.sheet.seen import left_blank
from fidicula.services.targets.rules import load_rules
from fidicula.tables import figures
from fidicula.tables.course import visit_kinds
from fidicula.tables.work import tools, works

KNOWN_SHOWN = 8
MATERIALS = ("synthetic", "steel", "gut")


@dataclass(frozen=True)
class Tag:
    """One instrument on the rail. step : where its course stands.  waits_for, waits_until : what only time helps."""

    ticket: str
    family: str
    size: str
    owner: str
    left_handed: bool
    is_fleet: bool
    complaint: str
    kind: str
    step: str
    waits_for: str
    waits_until: datetime | None
    deadline: date | None
    promised: date | None


@dataclass(frozen=True)
class Rail:
    """Every tag, as a JSON list. stamp : changes whenever anything on it does.  packed : the same, by gzip."""

    stamp: str
    tags: bytes
    packed: bytes


@dataclass(frozen=True)
class SizeChoice:
    family: str
    size: str


@dataclass(frozen=True)
class Stringing:
    family: str
    names: list[str]


@dataclass(frozen=True)
class ToolChoice:
    """is_for_heights : it reads how high a string stands, one way or the other."""

    tool: str
    label: str
    direction: str
    is_for_heights: bool


@dataclass(frozen=True)
class MeasureWords:
    """How a measure is taken, and how it usually goes wrong; the same in every sheet, and so told once."""

    measure: str
    how: str
    slip: str


@dataclass(frozen=True)
class Choices:
    """What forms offer, and words that every sheet shares."""

    sizes: list[SizeChoice]
    stringings: list[Stringing]
    materials: list[str]
    tools: list[ToolChoice]
    works: list[Choice]
    kinds: list[Choice]
    measures: list[MeasureWords]
    next_ticket: str


@dataclass(frozen=True)
class VisitAsked:
    """What is asked of a visit. climate : damp, dry or empty.  freeze_days : without risky work before the deadline."""

    climate: str = ""
    deadline: date | None = None
    freeze_days: int = 3
    promised: date | None = None


@dataclass(frozen=True)
class Arrival:
    """An instrument at the door. ticket : empty for the next free one; string_names : empty for the usual four.

    size_without_figures : it is meant that the size has no figures yet.
    """

    ticket: str
    family: str
    size: str
    string_names: Sequence[str]
    left_handed: bool
    is_new: bool
    owner: str
    description: str
    complaint: str
    kind: str
    visit: VisitAsked
    asked: Mapping[str, str] = field(default_factory=dict)
    is_fleet: bool = False
    size_without_figures: bool = False


@dataclass(frozen=True)
class KnownView:
    """An instrument that has been here. last_opened : of its newest visit."""

    ticket: str
    family: str
    size: str
    owner: str
    description: str
    last_opened: datetime
    last_complaint: str
    in_house: bool


def next_ticket(tickets: Sequence[str]) -> str:
    """The ticket after the highest one, in its own manner of numbering."""
    numbered = [m for m in (re.fullmatch(r"(.*?)(\d+)", ticket) for ticket in tickets) if m]
    if not numbered:
        return "1"
    prefix, digits = max(numbered, key=lambda m: int(m[2])).groups()
    return f"{prefix}{int(digits) + 1:0{len(digits)}d}"


class House:
    """Use cases around the whole house."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._rail: Rail | None = None

    def rail(self) -> Rail:
        """Every `Tag`, by ticket. What nothing has changed since it was last asked for is not put together again."""
        with UnitOfWork(self._engine, only_reads=True) as work:
            stamp = work.instruments.rail_stamp()
            kept = self._rail
            if kept is not None and kept.stamp == stamp:
                return kept
            tags, unsaid = work.instruments.rail({row.kind: row.label for row in visit_kinds().values()})
        if unsaid:
            self._say_where_each_stands()
            return self.rail()
        self._rail = Rail(stamp, tags.encode(), gzip.compress(tags.encode(), compresslevel=5))
        return self._rail

    def _say_where_each_stands(self) -> None:
        """Of visits that nobody has touched since the rail came to tell it."""
        with UnitOfWork(self._engine) as work:
            for entry in work.instruments.in_house():
                if not entry.visit.at_step and not entry.visit.waits_for:
                    loaded = load_bench(work, entry.instrument.ticket)
                    note_step(work, loaded.visit, loaded.sheet())
            work.commit()

    def choices(self) -> Choices:
        with UnitOfWork(self._engine, only_reads=True) as work:
            tickets = work.instruments.tickets()
            own_sizes = work.rules.own_sizes()
        return Choices(
            sizes=[
                *(SizeChoice(size.family, size.size) for size in figures.sizes()),
                *(SizeChoice(family, size) for family, size in own_sizes),
            ],
            stringings=[
                Stringing(family, list(names))
                for family, by_count in figures.default_stringings().items()
                for names in by_count.values()
            ],
            materials=list(MATERIALS),
            tools=[
                ToolChoice(tool.tool, tool.label, tool.direction, tool.tool in MEASURES["end_height"].tools)
                for tool in tools().values()
            ],
            works=[Choice(row.work, row.label) for row in works().values() if row.at_bench],
            kinds=[Choice(row.kind, row.label) for row in visit_kinds().values()],
            measures=[MeasureWords(row.measure, row.how, row.slip or "") for row in MEASURES.values()],
            next_ticket=next_ticket(tickets),
        )

    def register(self, arrival: Arrival, by: str = "") -> str:
        """Take an instrument in and open its visit; returns its ticket."""
        check_kind(arrival.kind)
        check_dates(arrival.visit)
        with UnitOfWork(self._engine) as work:
            instrument = _take_in(work, arrival, by)
            changed_sheet(work, instrument.ticket)
        return instrument.ticket

    def register_fleet(self, arrivals: Sequence[Arrival], *, recipe: str | None, by: str) -> list[str]:
        """Take many in at once, all of them or none; returns their tickets in order.

        recipe : that all of them follow, None for the shop's own.
        Raises RefusedError naming `recipe`, or the very line as `instruments.3.size`.
        """
        if not arrivals:
            raise RefusedError("a fleet has one line for each instrument: enter the first", field="instruments")
        check_kind(arrivals[0].kind)
        check_dates(arrivals[0].visit)
        tickets = []
        with UnitOfWork(self._engine) as work:
            if recipe is not None and recipe not in load_rules(work, arrivals[0].family).recipes:
                raise RefusedError(f"there is no recipe “{recipe}” for a {arrivals[0].family}", field="recipe")
            for i, arrival in enumerate(arrivals):
                try:
                    instrument = _take_in(work, arrival, by)
                except RefusedError as error:
                    raise RefusedError(error.sentence, field=f"instruments.{i}.{error.field}") from error
                if recipe is not None:
                    choice = TargetChoice(recipe=recipe, id=uuid4(), reason="shared by the fleet", chosen_by=by)
                    work.instruments.choose_targets(instrument.id, choice)
                loaded = load_bench(work, instrument.ticket)
                note_step(work, loaded.visit, loaded.sheet())
                tickets.append(instrument.ticket)
            work.commit()
        return tickets

    def known(self, words: str) -> str:
        """Instruments that have been here, by ticket, owner or description: a JSON list of `KnownView`."""
        if not words.strip():
            return "[]"
        with UnitOfWork(self._engine, only_reads=True) as work:
            return work.instruments.known(words, limit=KNOWN_SHOWN)

    def receive_again(self, ticket: str, *, kind: str, complaint: str, asked: VisitAsked) -> None:
        """Open a new visit of an instrument that has been here. Raises NotNowError while it hangs on the rail."""
        check_kind(kind)
        check_dates(asked)
        with UnitOfWork(self._engine) as work:
            instrument, visit = _found(work, ticket)
            if visit.closed_at is None:
                raise NotNowError(f"{ticket} hangs on the rail already: open it there")
            work.instruments.open_visit(
                id=uuid4(), instrument_id=instrument.id, kind=kind, complaint=complaint, asked=vars(asked)
            )
            changed_sheet(work, ticket)

    def hand_over(self, ticket: str, by: str) -> None:
        """Close the visit: the instrument leaves the rail, its record stays."""
        with UnitOfWork(self._engine) as work:
            _, visit = _found(work, ticket)
            if visit.closed_at is not None:
                raise NotNowError(f"{ticket} was handed over already")
            _check_looked_over(work, ticket, visit)
            work.instruments.close_visit(visit.id, by=by)
            work.commit()

    def take_back_hand_over(self, ticket: str) -> None:
        """It was not handed over after all: the same visit goes on."""
        with UnitOfWork(self._engine) as work:
            _, visit = _found(work, ticket)
            if visit.closed_at is None:
                raise NotNowError(f"{ticket} hangs on the rail: there is nothing to take back")
            work.instruments.close_visit(visit.id, by=None)
            work.commit()


def _found(work: UnitOfWork, ticket: str) -> tuple[Instrument, Visit]:
    found = work.instruments.by_ticket(ticket)
    if found is None:
        raise NotHereError(f"there is no instrument with the ticket {ticket} in the house", field="ticket")
    return found


def _take_in(work: UnitOfWork, arrival: Arrival, by: str) -> Instrument:
    """Add an instrument with its visit. Raises RefusedError."""
    names = tuple(arrival.string_names) or figures.string_names(family=arrival.family, count=4) or ()
    if not 3 <= len(names) <= 6 or len(set(names)) < len(names) or not all(name.strip() for name in names):
        raise RefusedError("name three to six strings, each once, from the lowest to the highest", field="string_names")
    _check_size(work, arrival, by)
    asked = arrival.ticket.strip()
    for _ in range(20):
        ticket = asked or next_ticket(work.instruments.tickets())
        instrument = Instrument(
            id=uuid4(),
            ticket=ticket,
            family=arrival.family,
            size=arrival.size,
            string_names=names,
            left_handed=arrival.left_handed,
            is_new=arrival.is_new,
            owner=arrival.owner.strip(),
            description=arrival.description.strip(),
            asked={name: words.strip() for name, words in arrival.asked.items()},
            is_fleet=arrival.is_fleet,
        )
        if work.instruments.add(instrument):
            break
        if asked:
            raise RefusedError(f"the ticket {ticket} hangs on the rail already: choose another", field="ticket")
    else:
        raise RefusedError("no free ticket was found: type one", field="ticket")
    work.instruments.open_visit(
        id=uuid4(),
        instrument_id=instrument.id,
        kind=arrival.kind,
        complaint=arrival.complaint.strip(),
        asked=vars(arrival.visit),
    )
    return instrument


def _check_looked_over(work: UnitOfWork, ticket: str, visit: Visit) -> None:
    """Nothing is left blank when a full visit is signed off; “not looked at”, with a reason, is not blank."""
    kind = visit_kinds().get(visit.kind)
    if kind is None or not kind.all_looked_at:
        return
    loaded = load_bench(work, ticket)
    passed = newest_mark(loaded.marks, "look")
    blank = left_blank(loaded.state(), visit.kind)
    if blank and (passed is None or passed.mark != "passed"):
        raise NotNowError(
            f"nobody has said anything yet of {', '.join(blank)}: look it over, say of each why not, or pass the "
            "whole step over with a reason"
        )


def check_kind(kind: str) -> None:
    if kind not in visit_kinds():
        raise RefusedError(f"an instrument comes for {', '.join(visit_kinds())}; it was “{kind}”", field="kind")


def check_dates(asked: VisitAsked, *, but: Sequence[str] = ()) -> None:
    """A day is still to come; what it is needed for is not before it is promised. but : days that stand already."""
    today = datetime.now(UTC).astimezone().date()
    for name, day in (("deadline", asked.deadline), ("promised", asked.promised)):
        if day is not None and day < today and name not in but:
            raise RefusedError(f"{day.day} {day:%B %Y} has passed: choose today or later", field=name)
    if asked.deadline is not None and asked.promised is not None and asked.promised > asked.deadline:
        raise RefusedError("it is promised for later than it is needed", field="promised")


def _check_size(work: UnitOfWork, arrival: Arrival, by: str) -> None:
    """A size without figures is taken in when it is meant; nothing is scaled for it."""
    known = load_rules(work, arrival.family).sizes
    if arrival.size in known:
        return
    if not arrival.size.strip():
        raise RefusedError("say which size it is, or its body's length in mm", field="size")
    if not arrival.size_without_figures:
        raise RefusedError(
            f"there are no figures for a {arrival.family} of size “{arrival.size}”: choose one of {', '.join(known)}, "
            "or take it in without figures and enter the shop's own",
            field="size",
        )
    work.rules.add_own_size(family=arrival.family, size=arrival.size, by=by)
