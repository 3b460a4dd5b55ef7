"""Several readings put right at once: confirmed as they are, undone, swapped, or moved to the ticket they belong to."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from typing import Literal
from uuid import UUID, uuid5

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import NotFoundError, RefusedError
from fidicula.domain.readings import NewReading, Reading
from fidicula.domain.work_details import CrownCut
from fidicula.domain.works import NewWork
from fidicula.judgement.measures import MEASURES, name_of
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.bench.gates import check_may_be_done
from fidicula.services.loading.records import (
    changed_sheet,
    check_in_house,
    load_bench,
    load_to_change,
    note_instruction,
)
from fidicula.views.sheet.model import BenchSheet

Act = Literal["keep", "undo", "swap", "move", "record_cut"]


class Slips:
    """Use cases. Every one answers with the new sheet."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def put_right(
        self, ticket: str, *, act: Act, readings: Sequence[UUID], to: str, act_id: UUID, by: str
    ) -> BenchSheet:
        """readings : of this visit, by id.  to : the ticket that they belong to, for `move`.

        Nothing is lost: what is swapped or moved is undone here and taken again, under ids made from `act_id`.
        Raises NotFoundError, and RefusedError naming `to` or `readings`.
        """
        with UnitOfWork(self._engine) as uow:
            if act == "move":
                _check_to(ticket, to)
                # Both instruments are locked in one order, so that two who move across do not wait for each other.
                for locked in sorted({ticket, to}):
                    uow.instruments.lock(locked)
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            chosen = [_find(uow, loaded, reading_id) for reading_id in readings]
            standing = [one for one in chosen if not one.taken_back and one.corrected_by is None]
            if act == "keep":
                for one in standing:
                    uow.log.confirm(one.id, by)
            elif act == "undo":
                for one in standing:
                    uow.log.take_back_reading(one, by)
            elif act == "record_cut":
                _record_cut(uow, loaded, standing, act_id, by)
            elif act == "swap":
                _swap(uow, loaded, standing, act_id)
            else:
                _move(uow, loaded, standing, to, act_id, by)
            return changed_sheet(uow, ticket)


def _find(uow: UnitOfWork, loaded: VisitRecord, reading_id: UUID) -> Reading:
    found = uow.log.reading(reading_id)
    if found is None or found.visit_id != loaded.visit.id:
        raise NotFoundError("that reading is not in this instrument's log", field="readings")
    return found


def _check_to(ticket: str, to: str) -> None:
    if not to.strip():
        raise RefusedError("type the ticket that the readings belong to", field="to")
    if to == ticket:
        raise RefusedError(f"they are at {ticket} already: type another ticket", field="to")


def _anew(one: Reading, act_id: UUID) -> NewReading:
    """The same reading as a new line, confirmed by whoever put it right."""
    return NewReading(
        id=uuid5(act_id, str(one.id)),
        visit_id=one.visit_id,
        measure=one.measure,
        position=one.position,
        typed=one.typed,
        value=one.value,
        tool=one.tool,
        direction=one.direction,
        taken_by=one.taken_by,
        taken_at=one.taken_at,
        after_work=one.after_work,
        repeats=False,
        doubt=None,
        suggested=None,
        simulated=one.simulated,
    )


def _record_cut(uow: UnitOfWork, loaded: VisitRecord, chosen: Sequence[Reading], act_id: UUID, by: str) -> None:
    """The crown was cut before they were read: the work is recorded, and they stand after it."""
    if not chosen:
        return
    check_may_be_done(loaded.assess(), "crown_cut", despite_slips=True)
    work_id = uuid5(act_id, "crown_cut")
    uow.log.add_work(NewWork(id=work_id, visit_id=loaded.visit.id, work="crown_cut", done_by=by, detail=CrownCut()))
    number = next(work.number for work in uow.log.works(loaded.visit.id) if work.id == work_id)
    for one in chosen:
        uow.log.add_reading(replace(_anew(one, act_id), after_work=number), corrects=None)
        uow.log.take_back_reading(one, by)


def _swap(uow: UnitOfWork, loaded: VisitRecord, chosen: Sequence[Reading], act_id: UUID) -> None:
    """Counted from the other side: the lowest string's reading goes to the highest, and so on."""
    last = len(loaded.instrument.string_names) - 1
    for one in chosen:
        if one.position is None or not MEASURES[one.measure].for_each_string:
            raise RefusedError("only readings at the strings can be swapped", field="readings")
    numbers = {(one.measure, one.position): one.number for one in chosen}
    for one in chosen:
        other = last - (one.position or 0)
        uow.log.add_reading(replace(_anew(one, act_id), position=other), corrects=numbers.get((one.measure, other)))
        if (one.measure, other) not in numbers:
            uow.log.take_back_reading(one, one.taken_by)


def _move(uow: UnitOfWork, loaded: VisitRecord, chosen: Sequence[Reading], to: str, act_id: UUID, by: str) -> None:
    """Undone here, taken there, after the last work that was done there."""
    there = load_bench(uow, to)
    check_in_house(there)
    after = there.state().last_work or None
    count = len(there.instrument.string_names)
    for one in chosen:
        row = MEASURES[one.measure]
        if not row.fits(there.instrument.family) or one.position not in row.positions(count):
            name = name_of(row, loaded.instrument.string_names, one.position)
            raise RefusedError(
                f"{to} has no place for “{name}”: it is a {there.instrument.family} with {count} strings",
                field="to",
            )
        before = there.state().reading_states.get((one.measure, one.position))
        new = replace(_anew(one, act_id), visit_id=there.visit.id, after_work=after)
        corrects = before.reading.number if before is not None and before.reading.after_work == (after or 0) else None
        uow.log.add_reading(new, corrects=corrects)
        uow.log.take_back_reading(one, by)
    note_instruction(uow, load_bench(uow, to).assess())
