"""What comes in by an archive keeps the rules of what is typed: strings, places, tools, values, works and days.

The format's models hold kinds, lengths and ranges of single values; here it is what one value asks of another, and
what this program knows by name.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import contextmanager
from datetime import UTC, datetime, timedelta
from uuid import UUID

from pydantic import BaseModel, ValidationError

from fidicula.core.errors import CoreError
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.documents.dossier.archive import INSTRUMENTS, ArchiveError
from fidicula.documents.dossier.instrument import Dossier
from fidicula.documents.dossier.record import ReadingLine, VisitRecord, WorkLine
from fidicula.domain.errors import RefusedError, ServiceError
from fidicula.domain.tickets import check_ticket
from fidicula.domain.work_details import detail_of
from fidicula.services.loading.records import load_sheet
from fidicula.tables.measures import measures
from fidicula.tables.rows import code_of, row_of
from fidicula.tables.work import tools, works
from fidicula.tables.workflow import visit_kinds

_AHEAD = timedelta(days=1)
"""Clocks differ, and so do the zones of workshops."""
_MAY_BE_AHEAD = frozenset({"until"})
TRIED_ALL = 2_000
"""Of an archive of so many instruments each one is opened before it is kept; of a larger one those in the house."""


class Fault(Exception):
    """What is wrong with one dossier. field : where in it."""

    def __init__(self, field: str, sentence: str) -> None:
        super().__init__(f"{field}: {sentence}")
        self.field, self.sentence = field, sentence


@contextmanager
def _within(place: str) -> Iterator[None]:
    """Faults in here are at a field of this place."""
    try:
        yield
    except Fault as fault:
        raise Fault(f"{place}.{fault.field}", fault.sentence) from fault


class Checker:
    """Of one archive, line by line."""

    def __init__(self) -> None:
        self._line = 0
        self._tickets: set[str] = set()
        self._ids: set[UUID] = set()
        self._latest = datetime.now(UTC) + _AHEAD

    def check(self, dossier: Dossier) -> None:
        """Raises ArchiveError naming the line and the field."""
        self._line += 1
        try:
            self._check(dossier)
        except Fault as fault:
            place = f"{INSTRUMENTS}, line {self._line}, {dossier.instrument.ticket}"
            raise ArchiveError(str(fault), place) from fault

    def _check(self, dossier: Dossier) -> None:
        instrument = dossier.instrument
        if instrument.ticket in self._tickets:
            raise Fault("instrument.ticket", "it is in the archive twice")
        self._tickets.add(instrument.ticket)
        try:
            check_ticket(instrument.ticket)
        except RefusedError as error:
            raise Fault("instrument.ticket", error.sentence) from error
        names = instrument.string_names
        if len(set(names)) < len(names) or not all(name.strip() for name in names):
            raise Fault("instrument.string_names", "each string has one name, and no two have the same")
        if sum(visit.record.visit.closed_at is None for visit in dossier.visits) > 1:
            raise Fault("visits", "two of them never ended")
        self._check_ids(dossier)
        _check_named(dossier)
        _check_once(dossier)
        _check_past(dossier, "", self._latest)
        for set_line in dossier.string_sets:
            if sorted(one.position for one in set_line.strings) != list(range(len(set_line.strings))):
                raise Fault("string_sets.strings", "their positions go from 0 up, each once")
        sets = {one.id: len(one.strings) for one in dossier.string_sets}
        for i, visit in enumerate(dossier.visits):
            with _within(f"visits.{i}.record"):
                _check_record(visit.record, len(names), sets)

    def _check_ids(self, dossier: Dossier) -> None:
        ids = [("instrument.id", dossier.instrument.id)]
        ids += [(f"targets.{i}", line.id) for i, line in enumerate(dossier.targets)]
        ids += [(f"particulars.{i}", line.id) for i, line in enumerate(dossier.particulars)]
        for i, visit in enumerate(dossier.visits):
            ids.append((f"visits.{i}.record.visit.id", visit.record.visit.id))
            for name, lines in visit.record:
                if isinstance(lines, list):
                    ids += [(f"visits.{i}.record.{name}", line.id) for line in lines]
            ids += [(f"visits.{i}.seals", line.id) for line in visit.seals]
            ids += [(f"visits.{i}.additions", line.id) for line in visit.additions]
            ids += [(f"visits.{i}.documents", line.id) for line in visit.documents]
            ids += [(f"visits.{i}.payments", line.id) for line in visit.payments]
        for field, one in ids:
            if one in self._ids:
                raise Fault(field, f"the id {one} stands twice")
            self._ids.add(one)


_NAMES: Mapping[str, Mapping[str, str]] = {
    "blind_comparisons": {"first_id": "recordings", "second_id": "recordings"},
    "plan_parts": {"line_id": "plan"},
    "plan_times": {"line_id": "plan"},
}
"""What lines of a list name: by field, the list of the same visit that the other line is in."""


def _check_named(dossier: Dossier) -> None:
    """Each line that another one names is in the dossier."""
    sets, items = ({one.id for one in lines} for lines in (dossier.string_sets, dossier.stock_items))
    for i, item in enumerate(dossier.stock_items):
        if item.string_set_id is not None and item.string_set_id not in sets:
            raise Fault(f"stock_items.{i}.string_set_id", "that set is not in the archive")
    for i, visit in enumerate(dossier.visits):
        with _within(f"visits.{i}.record"):
            for name, fields in _NAMES.items():
                for field, of in fields.items():
                    there = {line.id for line in getattr(visit.record, of)}
                    for j, line in enumerate(getattr(visit.record, name)):
                        if getattr(line, field) not in there:
                            raise Fault(f"{name}.{j}.{field}", f"there is no such line in {of}")
            for j, part in enumerate(visit.record.plan_parts):
                if part.item_id not in items:
                    raise Fault(f"plan_parts.{j}.item_id", "that item is not in the archive")


def _check_once(dossier: Dossier) -> None:
    """What a visit has once, it has once."""
    for i, visit in enumerate(dossier.visits):
        hands = [(line.person, line.tool) for line in visit.hands]
        if len(set(hands)) < len(hands):
            raise Fault(f"visits.{i}.hands", "each person has one line for each tool")
        if sum(line.opened_again_at is None for line in visit.seals) > 1:
            raise Fault(f"visits.{i}.seals", "two of them hold")
        invoices = {line.id for line in visit.documents if line.kind == "invoice"}
        cancelled = [line.cancels for line in visit.documents if line.cancels is not None]
        if not set(cancelled) <= invoices or len(set(cancelled)) < len(cancelled):
            raise Fault(f"visits.{i}.documents", "a credit note takes back one invoice of its visit, each once")
        running = [line.line_id for line in visit.record.plan_times if line.ended_at is None]
        if len(set(running)) < len(running):
            raise Fault(f"visits.{i}.record.plan_times", "one work runs twice at a time")


def _check_past(value: object, place: str, latest: datetime) -> None:
    """What is said to have been done is not still to come."""
    match value:
        case datetime():
            if value > latest and place.rpartition(".")[2] not in _MAY_BE_AHEAD:
                raise Fault(place, f"{value.isoformat()} is still to come")
        case BaseModel():
            for name, part in value:
                _check_past(part, f"{place}.{name}".lstrip("."), latest)
        case list():
            for i, part in enumerate(value):
                _check_past(part, f"{place}.{i}", latest)


def _check_record(record: VisitRecord, strings: int, sets: Mapping[UUID, int]) -> None:
    if record.visit.kind not in visit_kinds():
        raise Fault("visit.kind", f"this program knows no kind of visit “{record.visit.kind}”: update it first")
    if record.visit.closed_at is not None and record.visit.closed_at < record.visit.opened_at:
        raise Fault("visit.closed_at", "it ended before it began")
    for i, reading in enumerate(record.readings):
        with _within(f"readings.{i}"):
            _check_reading(reading, strings)
    for i, work in enumerate(record.works):
        with _within(f"works.{i}"):
            _check_work(work, strings, sets)
    for i, retuning in enumerate(record.retunings):
        if len(retuning.cents) != strings:
            raise Fault(f"retunings.{i}.cents", f"this instrument has {strings} strings")


def _check_reading(reading: ReadingLine, strings: int) -> None:
    row = row_of(measures(), reading.measure)
    if row is None:
        raise Fault("measure", f"this program knows no measure “{reading.measure}”: update it first")
    if reading.position not in row.positions(strings):
        raise Fault("position", f"{row.label} is not read at {reading.position}")
    if reading.tool not in tools():
        raise Fault("tool", f"this program knows no tool “{reading.tool}”")
    if reading.doubt is None and (abs(reading.value) > row.largest or (reading.value < 0 and not row.signed)):
        raise Fault("value", f"{reading.value:g} is more than {row.label} can be, and it is not doubted")


def _check_work(work: WorkLine, strings: int, sets: Mapping[UUID, int]) -> None:
    code = code_of(works(), work.work)
    if code is None:
        raise Fault("work", f"this program knows no work “{work.work}”: update it first")
    try:
        detail = detail_of(code, work.detail)
    except ValidationError as error:
        raise Fault("detail", error.errors(include_url=False)[0]["msg"]) from error
    if any(isinstance(part, tuple) and len(part) > strings for _, part in detail):
        raise Fault("detail", f"it names more strings than the {strings} of this instrument")
    if work.string_set_id is not None and sets.get(work.string_set_id) != strings:
        raise Fault("string_set_id", f"the set is not here, or has not {strings} strings")


def try_out(uow: UnitOfWork, tickets: Sequence[str], named: Callable[[str], str]) -> None:
    """Open each of them as its page would. Raises ArchiveError for one whose records contradict each other.

    named : what a ticket is called in the archive.
    """
    for ticket in tickets:
        try:
            load_sheet(uow, ticket)
        except (CoreError, ServiceError, ArithmeticError, LookupError, TypeError, ValueError) as error:
            said = getattr(error, "sentence", "") or f"{type(error).__name__}: {error}"
            raise ArchiveError(f"its records do not go together ({said[:200]})", named(ticket)) from error
