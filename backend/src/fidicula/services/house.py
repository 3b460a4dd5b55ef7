"""The house: what hangs on the rail, and what comes through the door."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from datetime import UTC, date, datetime
from uuid import uuid4

from fidicula.db.records import Instrument, RailEntry, Visit
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.services.errors import NotHereError, NotNowError, RefusedError
from fidicula.services.sheet.model import Choice
from fidicula.tables import figures
from fidicula.tables.work import tools, visit_kinds, works

KNOWN_SHOWN = 8
MATERIALS = ("synthetic", "steel", "gut")


@dataclass(frozen=True)
class Tag:
    """One instrument on the rail."""

    ticket: str
    family: str
    size: str
    owner: str
    left_handed: bool
    complaint: str
    step: str


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
    tool: str
    label: str
    direction: str


@dataclass(frozen=True)
class Choices:
    """What forms offer."""

    sizes: list[SizeChoice]
    stringings: list[Stringing]
    materials: list[str]
    tools: list[ToolChoice]
    works: list[Choice]
    kinds: list[Choice]
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
    """An instrument at the door. ticket : empty for the next free one; string_names : empty for the usual four."""

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

    def rail(self) -> list[Tag]:
        with UnitOfWork(self._engine, only_reads=True) as work:
            return [_tag(entry) for entry in work.instruments.rail()]

    def choices(self) -> Choices:
        with UnitOfWork(self._engine, only_reads=True) as work:
            tickets = work.instruments.tickets()
        return Choices(
            sizes=[SizeChoice(size.family, size.size) for size in figures.sizes()],
            stringings=[
                Stringing(family, list(names))
                for family, by_count in figures.default_stringings().items()
                for names in by_count.values()
            ],
            materials=list(MATERIALS),
            tools=[ToolChoice(tool.tool, tool.label, tool.direction) for tool in tools().values()],
            works=[Choice(row.work, row.label) for row in works().values() if row.at_bench],
            kinds=[Choice(row.kind, row.label) for row in visit_kinds().values()],
            next_ticket=next_ticket(tickets),
        )

    def register(self, arrival: Arrival) -> str:
        """Take an instrument in and open its visit; returns its ticket."""
        _check_kind(arrival.kind)
        _check_dates(arrival.visit)
        if not any(s.family == arrival.family and s.size == arrival.size for s in figures.sizes()):
            known = ", ".join(s.size for s in figures.sizes() if s.family == arrival.family)
            raise RefusedError(
                f"there are no figures for a {arrival.family} of size “{arrival.size}”: choose one of {known}",
                field="size",
            )
        names = tuple(arrival.string_names) or figures.string_names(family=arrival.family, count=4) or ()
        if not 3 <= len(names) <= 6 or len(set(names)) < len(names) or not all(name.strip() for name in names):
            raise RefusedError(
                "name three to six strings, each once, from the lowest to the highest", field="string_names"
            )
        asked = arrival.ticket.strip()
        with UnitOfWork(self._engine) as work:
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
            work.commit()
        return ticket

    def known(self, words: str) -> list[KnownView]:
        """Instruments that have been here, by ticket, owner or description."""
        if not words.strip():
            return []
        with UnitOfWork(self._engine, only_reads=True) as work:
            found = work.instruments.known(words, limit=KNOWN_SHOWN)
        return [
            KnownView(
                ticket=entry.instrument.ticket,
                family=entry.instrument.family,
                size=entry.instrument.size,
                owner=entry.instrument.owner,
                description=entry.instrument.description,
                last_opened=entry.last_opened,
                last_complaint=entry.last_complaint,
                in_house=entry.in_house,
            )
            for entry in found
        ]

    def receive_again(self, ticket: str, *, kind: str, complaint: str, asked: VisitAsked) -> None:
        """Open a new visit of an instrument that has been here. Raises NotNowError while it hangs on the rail."""
        _check_kind(kind)
        _check_dates(asked)
        with UnitOfWork(self._engine) as work:
            instrument, visit = _found(work, ticket)
            if visit.closed_at is None:
                raise NotNowError(f"{ticket} hangs on the rail already: open it there")
            work.instruments.open_visit(
                id=uuid4(), instrument_id=instrument.id, kind=kind, complaint=complaint, asked=vars(asked)
            )
            work.commit()

    def hand_over(self, ticket: str, by: str) -> None:
        """Close the visit: the instrument leaves the rail, its record stays."""
        with UnitOfWork(self._engine) as work:
            _, visit = _found(work, ticket)
            if visit.closed_at is not None:
                raise NotNowError(f"{ticket} was handed over already")
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


def _check_kind(kind: str) -> None:
    if kind not in visit_kinds():
        raise RefusedError(f"an instrument comes for {', '.join(visit_kinds())}; it was “{kind}”", field="kind")


def _check_dates(asked: VisitAsked) -> None:
    """A day is still to come; what it is needed for is not before it is promised."""
    today = datetime.now(UTC).astimezone().date()
    for name, day in (("deadline", asked.deadline), ("promised", asked.promised)):
        if day is not None and day < today:
            raise RefusedError(f"{day.day} {day:%B %Y} has passed: choose today or later", field=name)
    if asked.deadline is not None and asked.promised is not None and asked.promised > asked.deadline:
        raise RefusedError("it is promised for later than it is needed", field="promised")


def _tag(entry: RailEntry) -> Tag:
    if not entry.strings_known:
        step = "which strings?"
    elif entry.last_work == "crown_cut":
        step = "heights again"
    elif entry.readings_taken:
        step = "crown"
    else:
        step = "measure"
    instrument = entry.instrument
    return Tag(
        ticket=instrument.ticket,
        family=instrument.family,
        size=instrument.size,
        owner=instrument.owner,
        left_handed=instrument.left_handed,
        complaint=entry.complaint,
        step=step,
    )
