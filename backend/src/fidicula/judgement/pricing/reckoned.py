"""A plan in money, reckoned once for everything that shows or checks it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from decimal import Decimal
from functools import cached_property
from uuid import UUID

from fidicula.codes import WorkCode
from fidicula.core.pricing.estimate import Item, PartUsed, Priced, Totals, priced, totals
from fidicula.core.pricing.minutes import Minutes, minutes_of
from fidicula.core.pricing.money import NOTHING, Span, certain, total
from fidicula.domain.plan import Approval, Discount, InStock, PlanLine, PlanPart, PlanTime, RefusedWork
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.pricing.terms import ShopTerms
from fidicula.tables.pricing import GRADES, Grade, WorkStep, jobs, work_steps


@dataclass(frozen=True)
class ReckonedLine:
    """One line in money. minutes : of its steps.  left_out : steps that this instrument is not worth.

    grows : the work that its high end counts in, None for none.  took : money of what it took, None until it is done.
    terms : what the shop charges for it.
    """

    line: PlanLine
    minutes: Minutes
    steps: tuple[WorkStep, ...]
    left_out: tuple[WorkStep, ...]
    parts: tuple[PlanPart, ...]
    priced: Priced
    grows: WorkCode | None
    took: Priced | None
    terms: ShopTerms

    @property
    def hourly(self) -> Decimal:
        """What an hour of it costs. [currency/h]"""
        return self.terms.rate(jobs()[self.line.work].who)

    @property
    def is_done(self) -> bool:
        return self.line.done_at is not None

    @property
    def counts(self) -> Priced:
        """As it is billed: what it took once it is done, else as estimated."""
        return self.priced if self.took is None else self.took


@dataclass(frozen=True)
class Reckoned:
    """A visit's plan with everything that its price goes by. value : of the instrument, None unsaid. [currency]

    shop : as the owner agreed to it at last, or as it is today.  today : what is agreed to now goes by it.
    """

    assessment: Assessment
    shop: ShopTerms
    lines: tuple[ReckonedLine, ...]
    times: tuple[PlanTime, ...]
    approvals: tuple[Approval, ...]
    stock: Mapping[UUID, InStock]
    value: Decimal | None
    today: ShopTerms
    discount: Discount | None = None
    refused_before: tuple[RefusedWork, ...] = ()

    def sums(self, lines: Sequence[ReckonedLine]) -> Totals:
        return totals(
            [line.counts for line in lines],
            self.shop.terms(Decimal(0) if self.discount is None else self.discount.percent),
        )

    def variant(self, grade: Grade) -> list[ReckonedLine]:
        """Lines of a variant: its own, and those of every smaller one."""
        counted = GRADES[: GRADES.index(grade) + 1]
        return [line for line in self.wanted if line.line.grade in counted]

    @cached_property
    def wanted(self) -> list[ReckonedLine]:
        """Lines that the owner did not leave out."""
        return [line for line in self.lines if line.line.refused is None]

    @cached_property
    def whole(self) -> Totals:
        return self.sums(self.wanted)

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

    @property
    def agreed(self) -> Decimal:
        """The most that the owner agreed to; nothing while they were not asked. [currency]"""
        return Decimal(0) if self.approval is None else self.approval.up_to

    def would_come_to(self, line: ReckonedLine) -> Decimal:
        """All that was approved and done, and this line with it. [currency]"""
        done = [one for one in self.lines if one.is_done and self.is_approved(one.line)]
        return self.sums([*done, line]).usual.total


def agreed_terms(shop: ShopTerms, approvals: Sequence[Approval]) -> ShopTerms:
    """What the newest approval was given to; today's where there is none."""
    return shop.as_agreed(approvals[-1].terms) if approvals else shop


def reckoned_line(
    line: PlanLine,
    parts: tuple[PlanPart, ...],
    a: Assessment,
    shop: ShopTerms,
    own: Sequence[Decimal],
    *,
    value: Decimal | None,
    least: int,
    approvals: Sequence[Approval],
) -> ReckonedLine:
    """A line in money. shop : as it is today.  approvals : oldest first; the first that covers it holds."""
    job, family = jobs()[line.work], a.state.instrument.family
    covered = next((one for one in approvals if line.id in one.lines), None)
    agreed = None if covered is None else covered.prices.get(line.id)
    terms = shop.as_agreed(covered.terms if covered is not None else {})
    done, left_out = _steps(line.work, terms, value)
    minutes = minutes_of(_minutes(done, family, with_finer=value is not None), own, least=least)
    used = [PartUsed(part.count, part.price) for part in parts]
    found = priced(Item(minutes.span, terms.rate(job.who), used), terms.rounding)
    grows = job.grows_to if job.grows_to and any(sign in a.signs for sign in job.grows_when) else None
    if grows is not None:
        more = _minutes(_steps(grows, terms, value)[0], family, with_finer=value is not None)
        extra = priced(Item(more, terms.rate(jobs()[grows].who)), terms.rounding).labour.usual
        found = replace(found, labour=Span(found.labour.low, found.labour.usual, found.labour.high + extra))
    if agreed is not None:
        minutes, found = replace(minutes, span=Span(*agreed.minutes)), replace(found, labour=Span(*agreed.labour))
    found, took = replace(found, tax=terms.amount("tax")), None
    if line.done_at is not None and line.minutes is not None:
        terms = terms.as_agreed(line.terms)
        spent = Item(certain(line.minutes), terms.rate(job.who), used)
        took = replace(priced(spent, terms.rounding), tax=terms.amount("tax"))
    return ReckonedLine(line, minutes, done, left_out, parts, found, grows, took, terms)


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
