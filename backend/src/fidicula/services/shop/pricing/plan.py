"""The plan of a visit: works are added, ordered, begun, finished with their minutes, and approved by the owner."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID, uuid5

from fidicula.codes import WorkCode
from fidicula.core.pricing.order import out_of_order
from fidicula.db.unit_of_work import AtOnceError, Engine, UnitOfWork
from fidicula.domain.errors import ConflictError, NotFoundError, RefusedError
from fidicula.domain.plan import Discount, Origin, PlanLine, PlanPart
from fidicula.judgement.pricing.reckoned import Reckoned, ReckonedLine
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading.records import check_in_house, load_bench, load_to_change, note_instruction
from fidicula.services.people.ranks import check_rank
from fidicula.services.shop.pricing.approving import ASKING, Approving, chosen_of, write_approval
from fidicula.services.shop.pricing.proposals import proposals
from fidicula.services.shop.pricing.reckoning import reckon
from fidicula.services.shop.pricing.shown import plan_view
from fidicula.services.shop.pricing.stopping import running, stopped_by
from fidicula.services.shop.pricing.typed import typed_amount
from fidicula.services.shop.pricing.view import SumOfLines, VisitPlan
from fidicula.services.shop.pricing.writing import work_of, written_since
from fidicula.tables.pricing import GRADES, Grade, bundles, gates, jobs
from fidicula.tables.rows import code_of
from fidicula.tables.work import works
from fidicula.words import pricing as say
from fidicula.words.numbers import money

MOST_LINES = 60
LONGEST = Decimal(60 * 24 * 14)
"""Of one work. [min]"""
_ALL = Decimal(100)


@dataclass(frozen=True)
class Adding:
    """Works to plan. reason : in words, of what was found underway; then it is asked for again.

    because : the finding, question or measure that proposes it.
    """

    works: Sequence[str]
    origin: Origin
    because: str = ""
    reason: str = ""


@dataclass(frozen=True)
class _Open:
    """An instrument's records under its lock, and its plan in money."""

    loaded: VisitRecord
    reckoned: Reckoned


class Plans:
    """Use cases around the plan of an open visit."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def view(self, ticket: str) -> VisitPlan:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            loaded = load_bench(uow, ticket)
            return plan_view(reckon(uow, loaded), loaded)

    def add(self, ticket: str, adding: Adding, *, line_id: UUID, by: str) -> VisitPlan:
        """Plan works, each once; a bundle's name stands for its works.

        Raises RefusedError naming `works` or `reason`.
        """

        def change(uow: UnitOfWork, of: _Open) -> None:
            wanted = [work for name in adding.works for work in _works_of(name)]
            if adding.origin == "underway" and not adding.reason.strip():
                raise RefusedError("say what was found: the owner will want to know why it grows", field="reason")
            spoken_for = {one.work: one for one in proposals(of.reckoned.assessment)}
            there = {line.line.work for line in of.reckoned.lines if not line.is_done}
            lines = [line.line for line in of.reckoned.lines]
            if len(lines) + len(wanted) > MOST_LINES:
                raise RefusedError(f"a plan has up to {MOST_LINES} works", field="works")
            for i, work in enumerate(dict.fromkeys(wanted)):
                if work in there:
                    continue
                place = _place_for(work, lines)
                by_itself = spoken_for.get(work) if adding.origin == "wish" else None
                new = PlanLine(
                    id=line_id if i == 0 else uuid5(line_id, work),
                    visit_id=of.loaded.visit.id,
                    work=work,
                    grade=jobs()[work].grade,
                    origin=adding.origin if by_itself is None else by_itself.origin,
                    because=adding.because if by_itself is None else by_itself.because,
                    reason=adding.reason.strip(),
                    place=place,
                    added_by=by,
                )
                uow.plan.add_line(new)
                lines = sorted([*lines, new], key=lambda line: line.place)

        return self._change(ticket, change)

    def drop(self, ticket: str, line_id: UUID, *, by: str) -> VisitPlan:
        """Take a work off the plan; its parts are free again. Raises ConflictError for one that is begun or done."""

        def change(uow: UnitOfWork, of: _Open) -> None:
            line = _line(of.reckoned, line_id)
            if line.is_done:
                raise ConflictError("it is done: undo the work first")
            if running(of.reckoned, line) is not None:
                raise ConflictError("somebody is at it: stop it first")
            uow.plan.take_back("plan_line", line.line.id, by)

        return self._change(ticket, change)

    def move(self, ticket: str, line_id: UUID, *, before: UUID | None) -> VisitPlan:
        """Put a work before another, or last. Raises ConflictError where that breaks a gate."""

        def change(uow: UnitOfWork, of: _Open) -> None:
            moved = _line(of.reckoned, line_id)
            others = [line for line in of.reckoned.lines if line is not moved]
            at = (
                len(others)
                if before is None
                else next((i for i, line in enumerate(others) if line.line.id == before), len(others))
            )
            order = [line.line.work for line in (*others[:at], moved, *others[at:]) if not line.is_done]
            wrong = out_of_order(order, gates())
            if wrong is not None:
                raise ConflictError(
                    f"“{works()[wrong[0]].label}” comes after “{works()[wrong[1]].label}”: the one undoes the other"
                )
            low = others[at - 1].line.place if at else (others[0].line.place - 2 if others else 0.0)
            high = others[at].line.place if at < len(others) else low + 2
            uow.plan.move(moved.line.id, (low + high) / 2)

        return self._change(ticket, change)

    def grade(self, ticket: str, line_id: UUID, grade: Grade) -> VisitPlan:
        """In which variant a work counts first."""

        def change(uow: UnitOfWork, of: _Open) -> None:
            if grade not in GRADES:
                raise RefusedError("it is in one of the three variants", field="grade")
            uow.plan.grade(_line(of.reckoned, line_id).line.id, grade)

        return self._change(ticket, change)

    def use(self, ticket: str, line_id: UUID, *, item_id: UUID, count: str, part_id: UUID, by: str) -> VisitPlan:
        """Reserve something for a work. count : as typed. Raises RefusedError naming `count`, or `item`."""

        def change(uow: UnitOfWork, of: _Open) -> None:
            line = _line(of.reckoned, line_id)
            if line.is_done:
                raise ConflictError("it is done: undo the work first, or count it out of the drawer")
            if not uow.stock.lock(item_id):
                raise NotFoundError("that is not in the drawers", field="item")
            found = uow.stock.by_ids([item_id])[item_id]
            many = typed_amount(count or "1", what="how many", field="count", most=Decimal(1000))
            if many <= 0:
                raise RefusedError("how many: at least a part of one", field="count")
            if found.price is None:
                raise RefusedError(f"{found.item.label} has no price yet: enter one in the drawers", field="item")
            if found.free < many:
                raise ConflictError(say.missing(found.item.label, f"{max(found.free, Decimal(0)).normalize():f}"))
            uow.plan.add_part(PlanPart(part_id, line.line.id, item_id, many, found.price, by))

        return self._change(ticket, change)

    def put_back(self, ticket: str, part_id: UUID, *, by: str) -> VisitPlan:
        """A part is not used after all."""

        def change(uow: UnitOfWork, of: _Open) -> None:
            line = next((line for line in of.reckoned.lines if any(part.id == part_id for part in line.parts)), None)
            if line is None:
                raise NotFoundError("that part is not in the plan")
            if line.is_done:
                raise ConflictError("the work is done with it: undo the work first")
            uow.plan.take_back("plan_part", part_id, by)

        return self._change(ticket, change)

    def give_discount(self, ticket: str, *, percent: str, reason: str, discount_id: UUID, by: str) -> VisitPlan:
        """So much off all lines; empty or 0 for none any more. percent : as typed. Raises RefusedError naming it."""

        def change(uow: UnitOfWork, of: _Open) -> None:
            share = typed_amount(percent or "0", what="the discount", field="percent")
            if share > _ALL:
                raise RefusedError("the discount is at most 100 %", field="percent")
            uow.plan.give_discount(Discount(discount_id, of.loaded.visit.id, share, reason.strip(), by))

        return self._change(ticket, change)

    def begin(self, ticket: str, line_id: UUID, *, time_id: UUID, by: str) -> VisitPlan:
        """Somebody begins. Raises ConflictError, saying why it may not be begun, or that somebody is at it."""

        def change(uow: UnitOfWork, of: _Open) -> None:
            line = _line(of.reckoned, line_id)
            if any(time.id == time_id for time in of.reckoned.times):
                return
            stopped = stopped_by(of.reckoned, line)
            if stopped:
                raise ConflictError(stopped)
            check_rank(line.line.work)
            try:
                uow.plan.begin(time_id, line.line.id, by)
            except AtOnceError as error:
                raise ConflictError("somebody began it at the same moment") from error

        return self._change(ticket, change)

    def pause(self, ticket: str, line_id: UUID) -> VisitPlan:
        def change(uow: UnitOfWork, of: _Open) -> None:
            uow.plan.end(_line(of.reckoned, line_id).line.id)

        return self._change(ticket, change)

    def finish(self, ticket: str, line_id: UUID, *, minutes: str, work_id: UUID, by: str) -> VisitPlan:
        """It is done, in so many minutes, as typed; the work is written down, unless it was since it was planned.

        Raises RefusedError naming `minutes`, ConflictError where the work may not be done as things stand.
        """

        def change(uow: UnitOfWork, of: _Open) -> None:
            line = _line(of.reckoned, line_id)
            if line.is_done:
                return
            check_rank(line.line.work)
            stopped = stopped_by(of.reckoned, line, even_if_begun=True)
            if stopped:
                raise ConflictError(stopped)
            took = typed_amount(minutes, what="minutes", field="minutes", most=LONGEST)
            if took <= 0:
                raise RefusedError("how many minutes it took, for instance 45", field="minutes")
            written = written_since(of.loaded, of.reckoned, line)
            if written is None:
                uow.log.add_work(work_of(uow, of.loaded, of.reckoned, line, work_id=work_id, by=by))
            uow.plan.end(line.line.id)
            work_id_kept = work_id if written is None else written.id
            uow.plan.finish(line.line.id, minutes=took, by=by, work_id=work_id_kept, terms=line.terms.kept)

        return self._change(ticket, change)

    def approve(self, ticket: str, approving: Approving, *, approval_id: UUID, by: str) -> VisitPlan:
        """Write down that the owner agrees to the plan as it stands.

        Raises MeanwhileError naming `total` where the sum changed since it was shown.
        """

        def change(uow: UnitOfWork, of: _Open) -> None:
            if all(one.id != approval_id for one in of.reckoned.approvals):
                write_approval(uow, of.loaded, of.reckoned, approving, approval_id=approval_id, by=by)

        return self._change(ticket, change)

    def sum_of(self, ticket: str, lines: Sequence[UUID]) -> SumOfLines:
        """What some lines come to, with those that are done. Raises RefusedError naming `lines`."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            reckoned = reckon(uow, load_bench(uow, ticket))
            total = reckoned.sums(chosen_of(reckoned, lines)).usual.total
            return SumOfLines(str(total), money(total, reckoned.shop.currency))

    def take_back_approval(self, ticket: str, approval_id: UUID, *, by: str) -> VisitPlan:
        def change(uow: UnitOfWork, of: _Open) -> None:
            if not any(one.id == approval_id for one in of.reckoned.approvals):
                raise NotFoundError("that approval is not among this visit's")
            uow.plan.take_back("approval", approval_id, by)
            uow.plan.refuse([one.line.id for one in of.reckoned.lines if one.line.refused == approval_id], None)
            for question in ASKING:
                uow.log.take_back_decision(uuid5(approval_id, question), by)

        return self._change(ticket, change)

    def _change(self, ticket: str, change: Callable[[UnitOfWork, _Open], None]) -> VisitPlan:
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            change(uow, _Open(loaded, reckon(uow, loaded)))
            after = load_to_change(uow, ticket)
            note_instruction(uow, after.assess())
            view = plan_view(reckon(uow, after), after)
            uow.commit()
            return view


def _line(reckoned: Reckoned, line_id: UUID) -> ReckonedLine:
    found = next((line for line in reckoned.lines if line.line.id == line_id), None)
    if found is None:
        raise NotFoundError("that work is not on the plan any more")
    return found


def _works_of(name: str) -> Sequence[WorkCode]:
    """Of a bundle, or the one work that is meant."""
    if name in bundles():
        return bundles()[name].works
    work = code_of(jobs(), name)
    if work is None:
        raise RefusedError(f"“{name}” is not a work that can be planned", field="works")
    return (work,)


def _place_for(work: WorkCode, lines: Sequence[PlanLine]) -> float:
    """Last, but before the first line that has to come after it."""
    followers = [i for i, line in enumerate(lines) if work in gates().get(line.work, ())]
    if not followers:
        return (lines[-1].place if lines else 0.0) + 1
    at = followers[0]
    low = lines[at - 1].place if at else lines[at].place - 2
    return (low + lines[at].place) / 2
