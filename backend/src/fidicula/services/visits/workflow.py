"""The course of a visit: what is decided, what is seen, and what somebody says of a step."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from datetime import UTC, datetime, timedelta
from uuid import UUID

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import ConflictError, ForbiddenError, NotFoundError, RefusedError
from fidicula.domain.visits import CourseMark, Decision, Seen
from fidicula.judgement.assessment.inspection import verdict_of
from fidicula.judgement.assessment.questions import needs_reason
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading.records import changed_sheet, check_in_house, load_bench, load_to_change
from fidicula.services.people.roles import may_undo
from fidicula.tables.rows import code_of, row_of
from fidicula.tables.signs import VERDICTS, findings, findings_of, items
from fidicula.views.sheet.build import sheet_of
from fidicula.views.sheet.inspection import item_views
from fidicula.views.sheet.model import BenchSheet, ItemView, Stop

_LONGEST_WAIT = timedelta(days=60)
_WHY = "say why: it is kept, and printed with the sheet"


class Workflow:
    """Use cases around the course of one visit. Every one answers with the new sheet."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def decide(
        self, ticket: str, *, decision_id: UUID, question: str, outcome: str, reason: str, by: str
    ) -> BenchSheet:
        """Decide a question; against what the signs speak for, or past a gate, with a reason.

        Raises RefusedError, and ConflictError where the question is not asked here.
        """

        def decide(uow: UnitOfWork, loaded: VisitRecord) -> None:
            if any(made.id == decision_id for made in loaded.decisions):
                return
            asked = next((one for one in loaded.assess().questions if one.question == question), None)
            if asked is None:
                raise ConflictError("there is nothing to decide about that here")
            chosen = next((row for row in asked.options if row.outcome == outcome), None)
            if chosen is None:
                raise RefusedError(f"“{outcome}” is no way to decide that", field="outcome")
            if needs_reason(asked, chosen) and not reason:
                raise RefusedError(_WHY, field="reason")
            at = asked.deciding.at_measure
            held = None if at is None else loaded.state().held(at)
            value = None if held is None else held.value
            after_work = loaded.state().last_work
            uow.log.decide(
                Decision(
                    decision_id,
                    loaded.visit.id,
                    asked.question,
                    chosen.outcome,
                    reason,
                    value,
                    by,
                    after_work=after_work,
                )
            )

        return self._change(ticket, decide)

    def take_back_decision(self, ticket: str, decision_id: UUID, by: str) -> BenchSheet:
        """Undo a decision; the one before it holds again."""

        def take_back(uow: UnitOfWork, loaded: VisitRecord) -> None:
            if not any(made.id == decision_id for made in loaded.decisions):
                raise NotFoundError("that decision is not written down for this instrument")
            uow.log.take_back_decision(decision_id, by)

        return self._change(ticket, take_back)

    def done(self, ticket: str, step: str, *, mark_id: UUID, by: str) -> BenchSheet:
        """Say that a step is done that shows in nothing else."""

        def check(stop: Stop) -> None:
            if not stop.by_hand:
                raise ConflictError(f"“{stop.label}” is done by itself, when its readings or its work say so")
            if stop.state == "waiting":
                raise ConflictError(f"{stop.says}: it waits, or somebody says that it need not")

        return self._mark(ticket, step, "done", check, mark_id=mark_id, reason="", until=None, by=by)

    def pass_over(self, ticket: str, step: str, *, mark_id: UUID, reason: str, by: str) -> BenchSheet:
        """Leave a step out, with a reason."""
        return self._mark(ticket, step, "passed", _needs(reason), mark_id=mark_id, reason=reason, until=None, by=by)

    def wait(self, ticket: str, step: str, *, mark_id: UUID, until: datetime, reason: str, by: str) -> BenchSheet:
        """Let a step rest until a time: the glue, the owner, a part that was ordered."""

        def check(_stop: Stop) -> None:
            now = datetime.now(UTC)
            if not now < until <= now + _LONGEST_WAIT:
                raise RefusedError(f"choose a time to come, within {_LONGEST_WAIT.days} days", field="until")
            if not reason:
                raise RefusedError("say what it waits for", field="reason")

        return self._mark(ticket, step, "wait", check, mark_id=mark_id, reason=reason, until=until, by=by)

    def go_on(self, ticket: str, step: str, *, mark_id: UUID, reason: str, by: str) -> BenchSheet:
        """A step need not wait any longer, with a reason."""

        def check(stop: Stop) -> None:
            if stop.state != "waiting":
                raise ConflictError(f"“{stop.label}” does not wait")
            _needs(reason)(stop)

        return self._mark(ticket, step, "go_on", check, mark_id=mark_id, reason=reason, until=None, by=by)

    def take_back_mark(self, ticket: str, mark_id: UUID, by: str) -> BenchSheet:
        """Undo what was said of a step."""

        def take_back(uow: UnitOfWork, loaded: VisitRecord) -> None:
            mark = next((mark for mark in loaded.marks if mark.id == mark_id), None)
            if mark is None:
                raise NotFoundError("nothing of that kind is written down for this instrument")
            maker, asking = uow.people.by_name(mark.made_by), uow.people.by_name(by)
            if mark.made_by != by and asking and not may_undo(asking.role, maker.role if maker else None):
                raise ForbiddenError(f"{mark.made_by} set this: a luthier undoes it")
            uow.workflow.take_back(mark, by)

        return self._change(ticket, take_back)

    def look(self, ticket: str) -> list[ItemView]:
        """What this instrument is looked over for, and what was seen so far."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            return item_views(loaded.state(), loaded.visit.kind)

    def see(
        self,
        ticket: str,
        item: str,
        *,
        seen_id: UUID,
        found: Sequence[str],
        verdict: str,
        words: str,
        by: str,
    ) -> BenchSheet:
        """Write down what was seen at an item. verdict : empty for what the findings ask for."""

        def see(uow: UnitOfWork, loaded: VisitRecord) -> None:
            if any(line.id == seen_id for line in loaded.seen):
                return
            family = loaded.instrument.family
            row = row_of(items(), item)
            known = None if row is None else findings_of(family).get(row.item)
            if row is None or known is None:
                raise RefusedError(f"“{item}” is nothing that a {family} is looked over for", field="item")
            unknown = [name for name in found if name not in {row.finding for row in known}]
            if unknown:
                raise RefusedError(f"“{unknown[0]}” cannot be seen at the {item}", field="findings")
            if verdict and verdict not in VERDICTS:
                raise RefusedError(f"it is {', '.join(VERDICTS.values())}; it was “{verdict}”", field="verdict")
            if verdict == "not_looked_at" and not words:
                raise RefusedError("say why it was not looked at", field="words")
            if verdict == "fine" and any(row.verdict == "work" for row in known if row.finding in found):
                wrong = next(row for row in known if row.finding in found and row.verdict == "work")
                raise RefusedError(
                    f"“fine” and “{wrong.label}” contradict each other: choose work needed, or leave the finding out",
                    field="verdict",
                )
            uow.workflow.add(
                Seen(
                    id=seen_id,
                    visit_id=loaded.visit.id,
                    item=row.item,
                    verdict=verdict or verdict_of(family, row.item, list(found)),
                    findings=tuple(one for name in dict.fromkeys(found) if (one := code_of(findings(), name))),
                    words=words,
                    seen_by=by,
                    after_work=loaded.state().last_work,
                )
            )

        return self._change(ticket, see)

    def take_back_seen(self, ticket: str, seen_id: UUID, by: str) -> BenchSheet:
        """Undo what was seen; what was seen there before stands again."""

        def take_back(uow: UnitOfWork, loaded: VisitRecord) -> None:
            line = next((line for line in loaded.seen if line.id == seen_id), None)
            if line is None:
                raise NotFoundError("nothing of that kind is written down for this instrument")
            uow.workflow.take_back(line, by)

        return self._change(ticket, take_back)

    def _mark(
        self,
        ticket: str,
        step: str,
        mark: str,
        check: Callable[[Stop], None],
        *,
        mark_id: UUID,
        reason: str,
        until: datetime | None,
        by: str,
    ) -> BenchSheet:
        def add(uow: UnitOfWork, loaded: VisitRecord) -> None:
            if any(made.id == mark_id for made in loaded.marks):
                return
            stop = next(
                (s for s in sheet_of(loaded.assess(), loaded.rules).course if s.key == step and not s.is_question), None
            )
            if stop is None:
                raise NotFoundError(f"“{step}” is no step of this visit")
            check(stop)
            uow.workflow.add(
                CourseMark(mark_id, loaded.visit.id, step, mark, reason, until, loaded.state().last_work, by)
            )

        return self._change(ticket, add)

    def _change(self, ticket: str, change: Callable[[UnitOfWork, VisitRecord], None]) -> BenchSheet:
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            change(uow, loaded)
            return changed_sheet(uow, ticket)


def _needs(reason: str) -> Callable[[Stop], None]:
    def check(_stop: Stop) -> None:
        if not reason:
            raise RefusedError(_WHY, field="reason")

    return check
