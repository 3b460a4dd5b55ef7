"""The history of an instrument: what changed since last time, measures through the seasons, every visit's entries."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Iterable
from dataclasses import replace
from datetime import datetime
from typing import Protocol, TypeVar
from uuid import UUID

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.visits import Visit
from fidicula.services.loading.records import load_bench
from fidicula.views.history.changes import changes_since
from fidicula.views.history.charts import HUMIDITY, charts, last_of_each
from fidicula.views.history.entries import Lines, entries, visit_label, visit_views
from fidicula.views.history.view import Changed, InstrumentHistory, LogOfVisit
from fidicula.views.sheet.log import log_lines
from fidicula.words import history as say


class Histories:
    """Reading what was written down over all visits."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def of(self, ticket: str) -> InstrumentHistory:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            one, state = loaded.instrument.id, loaded.state()
            visits = uow.visits.of(one)
            ids = [visit.id for visit in visits]
            lines = Lines(
                counts=uow.history.counts(one),
                works=uow.history.works(one),
                decisions=uow.history.decisions(one),
                seen=uow.history.seen(one),
                posts=uow.sound.posts(one),
                heard=uow.sound.heard(one),
                photos=uow.history.photos(one),
                seals=uow.leaving.seals(ids),
                additions=uow.leaving.additions(ids),
                damage=loaded.damage,
                documents=uow.billing.documents(one),
                payments=uow.billing.payments(one),
            )
            measured = last_of_each(state, uow.history.last_readings(one))
            changed, since = changes_since(state, visits)
            return InstrumentHistory(
                ticket=ticket,
                changed_since=since,
                changed=[Changed(**vars(row)) for row in changed],
                done_since=[say.work(work) for work in lines.works_at(loaded.visit.id)],
                charts=charts(state, measured),
                humidity=measured.get((HUMIDITY, None), []),
                visits=visit_views(visits, lines, entries(lines)),
            )

    def log(self, ticket: str) -> list[LogOfVisit]:
        """Of every visit, the newest first."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            one, state = loaded.instrument.id, loaded.state()
            readings, works = _by_visit(uow.history.readings(one)), _by_visit(uow.history.works(one))
            decisions, seen = _by_visit(uow.history.decisions(one)), _by_visit(uow.history.seen(one))
            marks, choices = _by_visit(uow.history.marks(one)), uow.instruments.choices(one)
            found = []
            for visit in uow.visits.of(one):
                there = replace(
                    state,
                    works=works[visit.id],
                    decisions=decisions[visit.id],
                    seen=seen[visit.id],
                    marks=marks[visit.id],
                )
                chosen = [pair for pair in choices if _is_within(pair[0].chosen_at, visit)]
                particulars = uow.instruments.particulars_log(visit.id)
                lines = log_lines(there, list(reversed(readings[visit.id])), chosen, particulars)
                found.append(LogOfVisit(str(visit.id), visit_label(visit), visit.opened_at, lines))
            return found


class _OfVisit(Protocol):
    @property
    def visit_id(self) -> UUID: ...


Line = TypeVar("Line", bound=_OfVisit)


def _by_visit(lines: Iterable[Line]) -> dict[UUID, list[Line]]:
    found: dict[UUID, list[Line]] = defaultdict(list)
    for line in lines:
        found[line.visit_id].append(line)
    return found


def _is_within(at: datetime | None, visit: Visit) -> bool:
    """Whether it was entered while the instrument was here for this visit."""
    return at is not None and visit.opened_at <= at and (visit.closed_at is None or at <= visit.closed_at)
