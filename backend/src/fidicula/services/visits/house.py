"""The house: what hangs on the rail, and what comes through the door."""

from __future__ import annotations

import gzip
from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date, datetime
from hashlib import blake2b
from uuid import UUID, uuid4

from fidicula.codes import WorkCode
from fidicula.db.unit_of_work import DatabaseError, Engine, UnitOfWork
from fidicula.domain.errors import ConflictError, NotFoundError, RefusedError
from fidicula.domain.instruments import Instrument
from fidicula.domain.targets import TargetChoice
from fidicula.domain.tickets import check_ticket, next_ticket
from fidicula.domain.visits import UNREADABLE, Visit
from fidicula.services.adjusting.strings import Stringing, fitted
from fidicula.services.loading.records import changed_sheet, load_to_change, note_instruction
from fidicula.services.loading.rules import load_rules
from fidicula.services.logging import journal
from fidicula.services.people.audit import note
from fidicula.services.visits.arrivals import Arrival, VisitAsked, came_as, check_dates, check_kind
from fidicula.tables import figures
from fidicula.tables.workflow import visit_kinds
from fidicula.views.choices import Choices, choices_of
from fidicula.words.instructions import open_visit_words

KNOWN_SHOWN = 8


@dataclass(frozen=True)
class DoneOnTag:
    """A work of the visit that is open. work : what was done, in words."""

    at: datetime
    work: WorkCode
    by: str


@dataclass(frozen=True)
class Tag:
    """One instrument on the rail. step : where its course stands.  waits_for, waits_until : what only time helps.

    opened_at : when this visit began.  of_owner : whether it waits for the owner's word.  done : at this visit.
    """

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
    opened_at: datetime
    of_owner: bool
    done: list[DoneOnTag]


@dataclass(frozen=True)
class Rail:
    """Every tag, as a JSON list.

    stamp : changes whenever anything in this house does that stands on it.  packed : the same tags, by gzip.
    digest : of the tags themselves. A stamp counts within one house: another one under the same address, as a copy that
    was put back is, may be at the same count with other tags.
    """

    stamp: str
    tags: bytes
    packed: bytes
    digest: str


def _rail(stamp: str, tags: bytes) -> Rail:
    return Rail(stamp, tags, gzip.compress(tags, compresslevel=5), blake2b(tags, digest_size=12).hexdigest())


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


class House:
    """Use cases around the whole house."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._rail: Rail | None = None

    def rail(self) -> Rail:
        """Every `Tag`, by ticket. What nothing has changed since it was last asked for is not put together again."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            stamp = uow.open_visits.stamp()
            kept = self._rail
            if kept is not None and kept.stamp == stamp:
                return kept
            tags, unsaid = uow.open_visits.tags(
                {row.kind: row.label for row in visit_kinds().values()}, open_visit_words()
            )
        if unsaid:
            self._say_where_each_stands()
            with UnitOfWork(self._engine, only_reads=True) as uow:
                stamp = uow.open_visits.stamp()
                tags, _ = uow.open_visits.tags(
                    {row.kind: row.label for row in visit_kinds().values()}, open_visit_words()
                )
        self._rail = _rail(stamp, tags.encode())
        return self._rail

    def _say_where_each_stands(self) -> None:
        """Of visits that nobody has touched since the rail came to tell it."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            unsaid = [
                e.instrument.ticket
                for e in uow.open_visits.in_house()
                if not (e.visit.instruction or e.visit.waits_for)
            ]
        for ticket in unsaid:
            try:
                with UnitOfWork(self._engine) as uow:
                    note_instruction(uow, load_to_change(uow, ticket).assess())
                    uow.commit()
            except DatabaseError:
                raise
            except Exception as error:  # noqa: BLE001 - one instrument that cannot be read never hides the others
                journal().error("unreadable", ticket=ticket, kind=type(error).__name__, exc_info=True)
                self._note_unreadable(ticket, error)

    def _note_unreadable(self, ticket: str, error: Exception) -> None:
        """Its records contradict each other: the rail says so, and its page why."""
        said = getattr(error, "sentence", "") or f"{type(error).__name__}: {error}"
        with UnitOfWork(self._engine) as uow:
            found = uow.instruments.by_ticket(ticket)
            if found is not None:
                uow.visits.note_instruction(
                    found[1].id, instruction=UNREADABLE, subject=said[:200], waits_for="", waits_until=None
                )
            uow.commit()

    def choices(self) -> Choices:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return choices_of(uow.instruments.tickets(), uow.rules.own_sizes())

    def register(self, arrival: Arrival, by: str = "") -> str:
        """Take an instrument in and open its visit; returns its ticket. The same arrival again changes nothing."""
        check_kind(arrival.kind)
        check_dates(arrival.visit)
        with UnitOfWork(self._engine) as uow:
            ticket, is_new = _take_in(uow, arrival, by)
            if is_new:
                changed_sheet(uow, ticket)
        return ticket

    def register_fleet(
        self, arrivals: Sequence[Arrival], *, recipe: str | None, set_id: UUID | None, by: str
    ) -> list[str]:
        """Take many in at once, all of them or none; returns their tickets in order.

        recipe : that all of them follow, None for the shop's own.  set_id : the strings on them, None for unknown.
        Raises RefusedError naming `recipe`, `set_id`, or the very line as `instruments.3.size`.
        """
        if not arrivals:
            raise RefusedError("a fleet has one line for each instrument: enter the first", field="instruments")
        check_kind(arrivals[0].kind)
        check_dates(arrivals[0].visit)
        tickets = []
        with UnitOfWork(self._engine) as uow:
            if recipe is not None and recipe not in load_rules(uow, arrivals[0].family).recipes:
                raise RefusedError(f"there is no recipe “{recipe}” for a {arrivals[0].family}", field="recipe")
            for i, arrival in enumerate(arrivals):
                try:
                    ticket, is_new = _take_in(uow, arrival, by)
                except RefusedError as error:
                    raise RefusedError(error.sentence, field=f"instruments.{i}.{error.field}") from error
                tickets.append(ticket)
                if not is_new:
                    continue
                if recipe is not None:
                    choice = TargetChoice(recipe=recipe, id=uuid4(), reason="shared by the fleet", chosen_by=by)
                    uow.instruments.choose_targets(arrival.id, choice)
                loaded = load_to_change(uow, ticket)
                if set_id is not None:
                    uow.log.add_work(fitted(uow, loaded, Stringing(set_id, None, False), work_id=uuid4(), by=by))
                    loaded = load_to_change(uow, ticket)
                note_instruction(uow, loaded.assess())
            uow.commit()
        return tickets

    def known(self, words: str) -> str:
        """Instruments that have been here, by ticket, owner or description: a JSON list of `KnownView`."""
        if not words.strip():
            return "[]"
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return uow.open_visits.known(words, limit=KNOWN_SHOWN)

    def receive_again(
        self,
        ticket: str,
        *,
        visit_id: UUID,
        kind: str,
        complaint: str,
        asked: VisitAsked,
        comes: Sequence[str] = (),
        by: str = "",
    ) -> None:
        """Open a new visit of an instrument that has been here. comes : in which of the states of `COMES`.

        Raises ConflictError while it is in the house.
        """
        check_kind(kind)
        check_dates(asked)
        with UnitOfWork(self._engine) as uow:
            instrument, _ = _found_to_change(uow, ticket)
            is_open = uow.visits.open(
                id=visit_id, instrument_id=instrument.id, kind=kind, complaint=complaint, asked=vars(asked)
            )
            if not is_open:
                raise ConflictError(f"{ticket} is in the house already: open it from the list")
            for line in came_as(comes, visit_id=visit_id, by=by):
                uow.workflow.add(line)
            note(uow, "visit.opened", ticket, instrument_id=instrument.id, detail={"kind": kind})
            changed_sheet(uow, ticket)


def _found_to_change(uow: UnitOfWork, ticket: str) -> tuple[Instrument, Visit]:
    uow.instruments.lock(ticket)
    found = uow.instruments.by_ticket(ticket)
    if found is None:
        raise NotFoundError(f"there is no instrument with the ticket {ticket} in the house", field="ticket")
    return found


def _take_in(uow: UnitOfWork, arrival: Arrival, by: str) -> tuple[str, bool]:
    """Add an instrument with its visit; its ticket, and False where this arrival is written down already.

    Raises RefusedError.
    """
    there = uow.instruments.ticket_of(arrival.id)
    if there is not None:
        uow.check_entry()
        return there, False
    names = tuple(arrival.string_names) or figures.string_names(family=arrival.family, count=4) or ()
    if not 3 <= len(names) <= 6 or len(set(names)) < len(names) or not all(name.strip() for name in names):
        raise RefusedError("name three to six strings, each once, from the lowest to the highest", field="string_names")
    _check_size(uow, arrival, by)
    asked = check_ticket(arrival.ticket) if arrival.ticket.strip() else ""
    for _ in range(20):
        ticket = asked or next_ticket(uow.instruments.tickets())
        instrument = Instrument(
            id=arrival.id,
            ticket=ticket,
            family=arrival.family,
            size=arrival.size,
            string_names=names,
            left_handed=arrival.left_handed,
            opposite_build=arrival.opposite_build,
            is_new=arrival.is_new,
            owner=arrival.owner.strip(),
            description=arrival.description.strip(),
            asked={name: words.strip() for name, words in arrival.asked.items()},
            is_fleet=arrival.is_fleet,
        )
        if uow.instruments.add(instrument):
            break
        there = uow.instruments.ticket_of(arrival.id)
        if there is not None:
            uow.check_entry()
            return there, False
        if asked:
            raise RefusedError(f"the ticket {ticket} is taken: choose another", field="ticket")
    else:
        raise RefusedError("no free ticket was found: type one", field="ticket")
    visit_id = uuid4()
    uow.visits.open(
        id=visit_id,
        instrument_id=instrument.id,
        kind=arrival.kind,
        complaint=arrival.complaint.strip(),
        asked=vars(arrival.visit),
    )
    for line in came_as(arrival.comes, visit_id=visit_id, by=by):
        uow.workflow.add(line)
    note(uow, "instrument.arrived", ticket, instrument_id=instrument.id, by=by, detail={"kind": arrival.kind})
    return ticket, True


def _check_size(uow: UnitOfWork, arrival: Arrival, by: str) -> None:
    """A size without figures is taken in when it is meant; nothing is scaled for it."""
    known = load_rules(uow, arrival.family).sizes
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
    uow.rules.add_own_size(family=arrival.family, size=arrival.size, by=by)
