"""Readings from a table: every line is judged as at the bench and shown first; then all of them come in, or none."""

from __future__ import annotations

import hashlib
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime, time
from uuid import UUID, uuid5

from fidicula import limits
from fidicula.core.errors import CoreError
from fidicula.core.readings.plain import whole_number
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.documents.readings_table import SEPARATORS, ReadingsTable, TableError, readings_table
from fidicula.domain.errors import RefusedError, ServiceError
from fidicula.domain.typed_days import day_of, moment_of
from fidicula.judgement.measures import MEASURES, measure_code, name_of
from fidicula.judgement.visit_record import VisitRecord
from fidicula.numerals import of_unit, short
from fidicula.services.bench.taking import ReadingInput, new_reading
from fidicula.services.loading.records import check_in_house, load_bench, load_to_change, note_instruction
from fidicula.services.people.audit import note
from fidicula.services.people.ranks import check_takes_for
from fidicula.tables.measures import MeasureRow
from fidicula.tables.work import tools
from fidicula.words.doubts import doubt_words

MOST_BYTES = 4_000_000
"""Of a table that comes in."""
_LINES = UUID("6c1f6a3e-0b52-4c5b-9a53-7f2f1a4d9b10")
"""Ids of lines are made from the file and their number: the same file twice is the same readings."""


@dataclass(frozen=True)
class LineView:
    """One line. what, value : as it would be kept.  doubt : what looks like a slip.  problem : why it cannot be kept.

    is_here : it was taken in before.
    """

    number: int
    ticket: str
    what: str
    value: str
    doubt: str
    problem: str
    is_here: bool


@dataclass(frozen=True)
class TableView:
    """A table before it comes in, or as it came in. columns : by what they mean, the name in the file."""

    encoding: str
    separator: str
    columns: dict[str, str]
    ignored: list[str]
    lines: list[LineView]
    good: int
    taken_in: bool


class ReadingsIn:
    """Use cases around readings in a table."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def look_at(self, data: bytes, *, ticket: str, encoding: str, separator: str, by: str) -> TableView:
        """What each line would be; nothing is kept. ticket : of lines that name none.

        Raises RefusedError naming `encoding`, `separator` or `file`.
        """
        table = _table(data, encoding, separator)
        with UnitOfWork(self._engine) as uow:
            return _view(table, _Lines(uow, table, data, ticket=ticket, by=by, is_kept=False).all(), taken_in=False)

    def take_in(
        self, data: bytes, *, ticket: str, encoding: str, separator: str, by: str, leave_out_bad: bool
    ) -> TableView:
        """Keep every line. leave_out_bad : those that cannot come in are left out; else one such refuses all."""
        table = _table(data, encoding, separator)
        with UnitOfWork(self._engine) as uow:
            lines = _Lines(uow, table, data, ticket=ticket, by=by, is_kept=True)
            view = _view(table, lines.all(), taken_in=True)
            bad = [line for line in view.lines if line.problem]
            if bad and not leave_out_bad:
                raise RefusedError(f"line {bad[0].number}: {bad[0].problem}; nothing was taken in", field="file")
            if not view.good:
                raise RefusedError("no line of it can be taken in", field="file")
            lines.finish()
            uow.commit()
        return view


def _table(data: bytes, encoding: str, separator: str) -> ReadingsTable:
    try:
        return readings_table(data, encoding=encoding, separator=separator)
    except TableError as error:
        raise RefusedError(str(error), field=error.field) from error


def _view(table: ReadingsTable, lines: list[LineView], *, taken_in: bool) -> TableView:
    return TableView(
        encoding=table.encoding,
        separator=SEPARATORS[table.separator],
        columns=dict(table.columns),
        ignored=list(table.ignored),
        lines=lines,
        good=sum(not line.problem for line in lines),
        taken_in=taken_in,
    )


class _Lines:
    """The lines of a table, each judged with those before it."""

    def __init__(
        self, uow: UnitOfWork, table: ReadingsTable, data: bytes, *, ticket: str, by: str, is_kept: bool
    ) -> None:
        self._uow, self._table, self._ticket, self._by, self._is_kept = uow, table, ticket, by, is_kept
        self._of_file = hashlib.sha256(data).hexdigest()
        self._loaded: dict[str, VisitRecord] = {}

    def all(self) -> list[LineView]:
        # In one order for everybody, so that two files never wait for each other.
        tickets = sorted({cells.get("ticket", "") or self._ticket for _, cells in self._table.lines})
        for ticket in tickets:
            self._load(ticket)
        return [self._line(number, cells) for number, cells in self._table.lines]

    def finish(self) -> None:
        """Where each instrument stands now, and who did it."""
        for ticket, loaded in self._loaded.items():
            note_instruction(self._uow, load_bench(self._uow, ticket).assess())
            note(self._uow, "readings.taken_in", ticket, instrument_id=loaded.instrument.id, by=self._by)

    def _load(self, ticket: str) -> None:
        try:
            loaded = (load_to_change if self._is_kept else load_bench)(self._uow, ticket)
            check_in_house(loaded)
            self._loaded[ticket] = loaded
        except ServiceError:
            return

    def _line(self, number: int, cells: Mapping[str, str]) -> LineView:
        ticket = cells.get("ticket", "") or self._ticket
        what = value = doubt = problem = ""
        is_here = False
        try:
            loaded = self._found(ticket)
            taking = self._taking(number, cells, loaded)
            row = MEASURES[measure_code(taking.measure)]
            what = name_of(row, loaded.instrument.string_names, taking.position)
            there = self._uow.log.reading(taking.id)
            is_here = there is not None
            if there is None:
                new, corrects = new_reading(loaded, loaded.state(), taking)
                there = self._uow.log.add_reading(new, corrects=corrects)
                if there is not None:
                    self._loaded[ticket] = loaded.with_reading(there, corrects=corrects)
            if there is not None:
                value = of_unit(short(there.value), row.unit)
                doubt = "" if there.doubt is None else doubt_words(there, what, row.unit)
        except (CoreError, ServiceError) as error:
            problem = error.sentence
        return LineView(number, ticket, what, value, doubt, problem, is_here)

    def _found(self, ticket: str) -> VisitRecord:
        if not ticket:
            raise RefusedError("it names no ticket, and none was said for all of them", field="ticket")
        if ticket not in self._loaded:
            raise RefusedError(f"{ticket} is not in the house", field="ticket")
        return self._loaded[ticket]

    def _taking(self, number: int, cells: Mapping[str, str], loaded: VisitRecord) -> ReadingInput:
        measure = _measure(cells["measure"])
        taken_at, is_dated = _when(cells.get("taken_at", ""))
        return ReadingInput(
            id=uuid5(_LINES, f"{self._of_file} {number}"),
            measure=measure.measure,
            position=_position(measure, cells.get("position", ""), loaded),
            typed=cells["typed"],
            tool=_tool(measure, cells.get("tool", "")),
            taken_by=_who(cells.get("taken_by", ""), self._by),
            taken_at=taken_at,
            after_work=0 if is_dated else loaded.state().last_work,
            repeats=False,
            from_paper=is_dated,
        )


def _measure(said: str) -> MeasureRow:
    wanted = said.strip().lower()
    for row in MEASURES.values():
        if wanted in (row.measure, row.label.lower()):
            return row
    raise RefusedError(f"there is no measure “{said[:60]}”", field="measure")


def _position(measure: MeasureRow, said: str, loaded: VisitRecord) -> int | None:
    names = loaded.instrument.string_names
    places = measure.positions(len(names))
    if places == (None,):
        return None
    told = {measure.place_name(place, names): place for place in places if place is not None}
    found = next((place for name, place in told.items() if name.lower() == said.lower()), None)
    if found is not None:
        return found
    number = whole_number(said)
    if number in places:
        return number
    raise RefusedError(f"{measure.label} is read at {', '.join(told)}; it says “{said[:40]}”", field="position")


def _tool(measure: MeasureRow, said: str) -> str:
    if not said:
        return measure.tools[0]
    return next((name for name, row in tools().items() if said.lower() in (name, row.label.lower())), said)


def _who(said: str, by: str) -> str:
    if not said:
        return by
    check_takes_for(said, by=by)
    if len(said) > limits.LABEL:
        raise RefusedError(f"a name has {limits.LABEL} characters at most; it says “{said[:40]}…”", field="taken_by")
    return said


def _when(said: str) -> tuple[datetime, bool]:
    """When it was taken, and whether the line says so: a day, or a moment."""
    if not said:
        return datetime.now(UTC), False
    day, at, now = day_of(said), moment_of(said), datetime.now(UTC)
    if at is None:
        told = f"write the day as 2026-11-28, after {limits.EARLIEST.year}; it says “{said[:40]}”"
        raise RefusedError(told, field="taken_at")
    if day is not None:
        at = datetime.combine(day, time(12)).astimezone()
        # A day is all of it: of today's, what is past by now.
        if day == now.astimezone().date():
            return min(at, now), True
    if at > now:
        raise RefusedError(f"{said[:40]} is still to come", field="taken_at")
    return at, True
