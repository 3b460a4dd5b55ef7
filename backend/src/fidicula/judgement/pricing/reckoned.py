"""A plan in money, reckoned once for everything that shows or checks it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property
from uuid import UUID

from fidicula.codes import WorkCode
from fidicula.core.pricing.estimate import Item, PartUsed, Priced, Totals, priced, totals
from fidicula.core.pricing.minutes import Minutes, minutes_of
from fidicula.core.pricing.money import NOTHING, Span, total
from fidicula.domain.plan import Approval, Discount, InStock, PlanLine, PlanPart, PlanTime
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.pricing.terms import ShopTerms
from fidicula.tables.pricing import GRADES, Grade, WorkStep, jobs, work_steps


@dataclass(frozen=True)
class ReckonedLine:
    """One line in money. minutes : of its steps.  left_out : steps that this instrument is not worth.

    grows : the work that its high end counts in, None for none.  took : money of what it took, None until it is done.
    """

    line: PlanLine
    minutes: Minutes
    steps: tuple[WorkStep, ...]
    left_out: tuple[WorkStep, ...]
    parts: tuple[PlanPart, ...]
    priced: Priced
    grows: WorkCode | None
    took: Priced | None

    @property
    def is_done(self) -> bool:
        return self.line.done_at is not None

    @property
    def counts(self) -> Priced:
        """As it is billed: what it took once it is done, else as estimated."""
        return self.priced if self.took is None else self.took


@dataclass(frozen=True)
class Reckoned:
    """A visit's plan with everything that its price goes by. value : of the instrument, None unsaid. [currency]"""

    assessment: Assessment
    shop: ShopTerms
    lines: tuple[ReckonedLine, ...]
    times: tuple[PlanTime, ...]
    approvals: tuple[Approval, ...]
    stock: Mapping[UUID, InStock]
    value: Decimal | None
    discount: Discount | None = None

    def sums(self, lines: Sequence[ReckonedLine]) -> Totals:
        return totals(
            [line.counts for line in lines],
            self.shop.terms(Decimal(0) if self.discount is None else self.discount.percent),
        )

    def variant(self, grade: Grade) -> list[ReckonedLine]:
        """Lines of a variant: its own, and those of every smaller one."""
        counted = GRADES[: GRADES.index(grade) + 1]
        return [line for line in self.lines if line.line.grade in counted]

    @cached_property
    def whole(self) -> Totals:
        return self.sums(self.lines)

    @property
    def approval(self) -> Approval | None:
        """The newest one; each covers what it names, done works too."""
        return self.approvals[-1] if self.approvals else None

    def is_approved(self, line: PlanLine) -> bool:
        return self.approval is not None and line.id in self.approval.lines

    @cached_property
    def spent(self) -> Decimal:
        """What approved works that are done came to, with tax. [currency]"""
        done = [line for line in self.lines if line.is_done and self.is_approved(line.line)]
        return self.sums(done).usual.total

    def would_come_to(self, line: ReckonedLine) -> Decimal:
        """All that was approved and done, and this line with it. [currency]"""
        done = [one for one in self.lines if one.is_done and self.is_approved(one.line)]
        return self.sums([*done, line]).usual.total


def reckoned_line(
    line: PlanLine,
    parts: tuple[PlanPart, ...],
    a: Assessment,
    shop: ShopTerms,
    own: Sequence[Decimal],
    *,
    value: Decimal | None,
    least: int,
) -> ReckonedLine:
    job, family = jobs()[line.work], a.state.instrument.family
    done, left_out = _steps(line.work, shop, value)
    minutes = minutes_of(_minutes(done, family, with_finer=value is not None), own, least=least)
    used = [PartUsed(part.count, part.price) for part in parts]
    hourly = shop.rate(job.who)
    found = priced(Item(minutes.span, hourly, used), shop.rounding)
    grows = job.grows_to if job.grows_to and any(sign in a.signs for sign in job.grows_when) else None
    if grows is not None:
        more = _minutes(_steps(grows, shop, value)[0], family, with_finer=value is not None)
        extra = priced(Item(more, shop.rate(jobs()[grows].who)), shop.rounding).labour.usual
        found = Priced(Span(found.labour.low, found.labour.usual, found.labour.high + extra), found.parts)
    took = None
    if line.done_at is not None and line.minutes is not None:
        spent = Span(line.minutes, line.minutes, line.minutes)
        took = priced(Item(spent, hourly, used), shop.rounding)
    return ReckonedLine(line, minutes, done, left_out, parts, found, grows, took)


def _steps(work: WorkCode, shop: ShopTerms, value: Decimal | None) -> tuple[tuple[WorkStep, ...], tuple[WorkStep, ...]]:
    """Steps that are done on an instrument of this value, and those that are left out."""
    steps = work_steps()[work]
    if value is None or value >= shop.amount("graded_from"):
        return steps, ()
    return tuple(step for step in steps if not step.graded), tuple(step for step in steps if step.graded)


def _minutes(steps: Sequence[WorkStep], family: str, *, with_finer: bool) -> Span:
    """[min] with_finer : else finer steps count at the high end alone, for nobody said what it is worth."""
    plain = total(step.minutes(family) for step in steps if with_finer or not step.graded)
    finer = NOTHING if with_finer else total(step.minutes(family) for step in steps if step.graded)
    return Span(plain.low, plain.usual, plain.high + finer.high)
