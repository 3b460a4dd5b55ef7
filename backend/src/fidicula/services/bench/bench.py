"""The bench: readings and works of one instrument. Every use case answers with the new sheet."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import TypeVar
from uuid import UUID

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import ConflictError, NotFoundError, RefusedError
from fidicula.domain.readings import Reading
from fidicula.domain.works import NewWork
from fidicula.judgement.measures import MEASURES, name_of
from fidicula.judgement.visit_record import VisitRecord
from fidicula.numerals import short
from fidicula.services.bench.gates import check_may_be_done, check_not_by_two
from fidicula.services.bench.said import Said, as_said
from fidicula.services.bench.taking import ReadingInput, names_a_side, new_reading, of_two
from fidicula.services.loading.records import (
    at_visit,
    changed_sheet,
    check_in_house,
    keep_changed,
    load_bench,
    load_sheet,
    load_to_change,
    note_instruction,
)
from fidicula.services.loading.taken_targets import as_found, last_of
from fidicula.services.people.ranks import check_rank
from fidicula.tables.rows import row_of
from fidicula.tables.work import works
from fidicula.views.sheet.beside import Beside, beside
from fidicula.views.sheet.build import sheet_of
from fidicula.views.sheet.cell import CardPlace
from fidicula.views.sheet.cells import card_places
from fidicula.views.sheet.log import log_lines
from fidicula.views.sheet.model import BenchSheet, LogLine
from fidicula.views.sheet.views import Views, views
from fidicula.words.meanwhile import AT_EARLIER_VISIT
from fidicula.words.model import Why
from fidicula.words.whys import whys

OTHER_WORK = "other_work"
Made = TypeVar("Made")


NOTHING_SAID = Said()


class Bench:
    """Use cases at one instrument."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def sheet(self, ticket: str) -> BenchSheet:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return load_sheet(uow, ticket)

    def card(self, ticket: str) -> list[CardPlace]:
        """The places of its card, which are the same at every visit."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return card_places(load_bench(uow, ticket).instrument)

    def whys(self, ticket: str) -> dict[str, Why]:
        """Behind each figure of the sheet, by its name."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            a = load_bench(uow, ticket).assess()
        return whys(a.state, a.computed)

    def views(self, ticket: str) -> Views:
        """The instrument from its side and from above."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return views(load_bench(uow, ticket).state())

    def beside(self, ticket: str) -> list[Beside]:
        """What the readings of now can be compared with: as it came, and earlier visits, newest first."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            earlier = [
                (visit, last_of(uow, visit.id, ""))
                for visit in uow.visits.of(loaded.instrument.id)
                if visit.id != loaded.visit.id
            ]
            came = as_found(uow, loaded.visit, "")
        return beside(loaded.state(), loaded.visit, came, earlier)

    def log(self, ticket: str) -> list[LogLine]:
        """Everything written down for this visit, newest first, also what was taken back or corrected."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            return log_lines(
                loaded.state(),
                uow.log.all_readings(loaded.visit.id),
                uow.instruments.choices(loaded.instrument.id),
                uow.instruments.particulars_log(loaded.visit.id),
            )

    def take_reading(
        self, ticket: str, taking: ReadingInput, *, made: Callable[[BenchSheet], Made], more_follow: bool = False
    ) -> Made | None:
        """Keep a reading. One that looks like a slip is kept as doubted and counts in nothing until confirmed.

        made : of the sheet, while the records are still being kept: the answer.
        more_follow : others of this instrument wait behind it, the last of which is answered with the sheet.
        Raises CoreError naming `typed` where it is no measurement, and RefusedError for an unknown place or tool.
        """
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            if taking.visit is not None and taking.visit != loaded.visit.id:
                return made(_take_at_earlier(uow, at_visit(uow, loaded, taking.visit), taking))
            check_in_house(loaded, taking.taken_at)
            diameter = _post_diameter(uow, loaded, taking)
            new, corrects = new_reading(loaded, loaded.state(), taking, post_diameter=diameter)
            notice = of_two(loaded, taking, new, corrects)
            added = uow.log.add_reading(new, corrects=corrects)
            if added is not None:
                loaded = loaded.with_reading(added, corrects=corrects)
            if more_follow and not notice:
                uow.commit()
                keep_changed(uow, loaded)
                return None
            a = loaded.assess()
            told, visit = note_instruction(uow, a)
            said = notice if added is not None else ""
            answer = uow.commit_meanwhile(lambda: made(replace(sheet_of(a, loaded.rules, told), notice=said)))
            keep_changed(uow, loaded.at(loaded.now, visit=visit))
            return answer

    def confirm_reading(self, ticket: str, reading_id: UUID, by: str) -> BenchSheet:
        """Let a doubted reading count as it was typed."""

        def confirm(uow: UnitOfWork, loaded: VisitRecord) -> None:
            reading = _find_reading(uow, loaded, reading_id)
            measure = MEASURES[reading.measure]
            if abs(reading.value) > measure.largest or (reading.value < 0 and not measure.signed):
                name = name_of(measure, loaded.instrument.string_names, reading.position)
                raise ConflictError(
                    f"{short(reading.value)} {measure.unit} cannot be {name}: it is over "
                    f"{short(measure.largest)}; measure again"
                )
            uow.log.confirm(reading_id, by)

        return self._change(ticket, confirm)

    def take_back_reading(self, ticket: str, reading_id: UUID, by: str) -> BenchSheet:
        """Undo a reading: it stays in the log and no longer counts."""

        def take_back(uow: UnitOfWork, loaded: VisitRecord) -> None:
            uow.log.take_back_reading(_find_reading(uow, loaded, reading_id), by)

        return self._change(ticket, take_back)

    def do_work(
        self,
        ticket: str,
        *,
        work_id: UUID,
        kind: str,
        by: str,
        known: int | None = None,
        said: Said = NOTHING_SAID,
    ) -> BenchSheet:
        """Write down a work done; what it touches goes stale. A cut keeps what it set out to take.

        known : the last work that the page knew.
        Raises ConflictError where somebody recorded the same since.
        """
        row = row_of(works(), kind)
        if row is None or not row.at_bench:
            raise RefusedError(f"“{kind}” is not a work of this bench", field="work")
        work = row.work
        if kind == OTHER_WORK and not said.words.strip():
            raise RefusedError("describe the work in a few words", field="words")

        def add(uow: UnitOfWork, loaded: VisitRecord) -> None:
            if any(done.id == work_id for done in loaded.works):
                return
            check_rank(kind)
            check_not_by_two(loaded, work, known)
            a = loaded.assess()
            check_may_be_done(a, work)
            detail = as_said(a, work, said)
            uow.log.add_work(NewWork(id=work_id, visit_id=loaded.visit.id, work=work, done_by=by, detail=detail))

        return self._change(ticket, add)

    def take_back_work(self, ticket: str, work_id: UUID, by: str) -> BenchSheet:
        """Undo a work that was written down by mistake; what it made stale holds again."""

        def take_back(uow: UnitOfWork, loaded: VisitRecord) -> None:
            if not any(done.id == work_id for done in loaded.works):
                raise NotFoundError("that work is not written down for this instrument")
            uow.log.take_back_work(work_id, by)

        return self._change(ticket, take_back)

    def _change(self, ticket: str, change: Callable[[UnitOfWork, VisitRecord], None]) -> BenchSheet:
        """Change something, commit, and answer with the sheet as it then is."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            change(uow, loaded)
            return changed_sheet(uow, ticket)


def _find_reading(uow: UnitOfWork, loaded: VisitRecord, reading_id: UUID) -> Reading:
    reading = uow.log.reading(reading_id)
    if reading is None or reading.visit_id != loaded.visit.id:
        raise NotFoundError("that reading is not in this instrument's log")
    return reading


def _post_diameter(uow: UnitOfWork, loaded: VisitRecord, taking: ReadingInput) -> float | None:
    """Of the post that was described last, where the reading needs it. [mm]"""
    if not names_a_side(taking):
        return None
    posts = uow.sound.posts(loaded.instrument.id)
    return next((post.diameter for post in reversed(posts) if post.diameter is not None), None)


def _take_at_earlier(uow: UnitOfWork, loaded: VisitRecord, taking: ReadingInput) -> BenchSheet:
    """A reading that waited while its visit ended and another began: kept where it was taken; the sheet of now."""
    check_in_house(loaded, taking.taken_at)
    new, corrects = new_reading(loaded, loaded.state(), taking, post_diameter=_post_diameter(uow, loaded, taking))
    uow.log.add_reading(new, corrects=corrects)
    sheet = changed_sheet(uow, loaded.instrument.ticket)
    return replace(sheet, notice=AT_EARLIER_VISIT)
