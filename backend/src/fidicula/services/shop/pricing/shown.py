"""From a reckoned plan to what is shown of it."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import UTC, datetime

from fidicula.core.pricing.estimate import Sum, share_of_value, weight
from fidicula.core.pricing.money import Span
from fidicula.judgement.pricing.reckoned import Reckoned, ReckonedLine
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.shop.pricing.proposals import proposals
from fidicula.services.shop.pricing.stopping import running, stopped_by
from fidicula.services.shop.pricing.view import (
    ApprovalView,
    BundleView,
    JobChoice,
    PartLine,
    PartWanted,
    PlannedWork,
    ProposalView,
    StepLine,
    SumView,
    VariantView,
    VisitPlan,
)
from fidicula.tables.pricing import GRADES, Grade, bundles, jobs, stock_kinds
from fidicula.tables.work import works
from fidicula.words import pricing as say
from fidicula.words.numbers import day_and_clock, how_many, money, percent, tax_rate
from fidicula.words.parts import label_of


def plan_view(reckoned: Reckoned, loaded: VisitRecord) -> VisitPlan:
    """Everything that the plan's page, its paper and its tests read."""
    shop, approval = reckoned.shop, reckoned.approval
    planned = {line.line.work for line in reckoned.lines if not line.is_done}
    since = [works()[line.line.work].label for line in reckoned.wanted if not reckoned.is_approved(line.line)]
    now, given = datetime.now(UTC), reckoned.discount
    return VisitPlan(
        ticket=loaded.instrument.ticket,
        currency=shop.currency,
        tax=", ".join(tax_rate(one.rate) for one in reckoned.whole.usual.by_rate) or tax_rate(shop.amount("tax")),
        lines=[_line(reckoned, line, now) for line in reckoned.lines],
        proposals=[
            ProposalView(
                work=one.work,
                label=works()[one.work].label,
                because=say.because(one.origin, one.because, ""),
                grade=jobs()[one.work].grade,
                origin=one.origin,
                because_of=one.because,
            )
            for one in proposals(reckoned.assessment)
            if one.work not in {line.line.work for line in reckoned.lines}
        ]
        + _refused_before(reckoned),
        bundles=[
            BundleView(bundle.bundle, bundle.label, [works()[work].label for work in bundle.works])
            for bundle in sorted(bundles().values(), key=lambda one: loaded.visit.kind not in one.kinds)
            if not set(bundle.works) <= planned
        ],
        jobs=sorted(
            (JobChoice(work, works()[work].label) for work in jobs() if work not in planned), key=lambda one: one.label
        ),
        variants=[_variant(reckoned, grade) for grade in GRADES],
        approvals=[
            ApprovalView(
                str(one.id),
                say.approved(
                    one.who,
                    one.how,
                    "" if one.approved_at is None else day_and_clock(one.approved_at),
                    money(one.up_to, one.currency),
                ),
                one.words,
                one.approved_at,
                one.signature,
            )
            for one in reversed(reckoned.approvals)
        ],
        unapproved=_unapproved(reckoned, since),
        spent=""
        if approval is None
        else say.spent(money(reckoned.spent, shop.currency), money(approval.up_to, shop.currency)),
        agreed="" if approval is None else money(approval.up_to, shop.currency),
        value=say.NO_VALUE if reckoned.value is None else money(reckoned.value, shop.currency),
        total=str(reckoned.whole.usual.total),
        total_says=_range(reckoned.whole.low, reckoned.whole.high, shop.currency),
        how=dict(say.HOW),
        is_open=loaded.visit.closed_at is None,
        discount="" if given is None or not given.percent else say.discount(percent(given.percent), given.reason),
        discount_percent="" if given is None or not given.percent else f"{given.percent.normalize():f}",
    )


def _line(reckoned: Reckoned, line: ReckonedLine, now: datetime) -> PlannedWork:
    row, job, currency = line.line, jobs()[line.line.work], reckoned.shop.currency
    at_it = running(reckoned, line)
    part = works()[row.work].part
    chosen = {reckoned.stock[one.item_id].item.kind for one in line.parts}
    times = [time for time in reckoned.times if time.line_id == row.id]
    ran = sum((((time.ended_at or now) - time.begun_at).total_seconds() for time in times), 0.0)
    family = reckoned.assessment.state.instrument.family
    if line.is_done:
        state = "done"
    elif at_it is not None:
        state = "running"
    elif row.refused is not None:
        state = "refused"
    else:
        state = "paused" if times else "planned"
    return PlannedWork(
        id=str(row.id),
        work=row.work,
        label=works()[row.work].label,
        part="" if part is None else label_of(part, family),
        grade=_grade(row.grade),
        because=say.because(row.origin, row.because, row.reason),
        state=state,
        stopped="" if line.is_done else stopped_by(reckoned, line, even_if_begun=at_it is not None),
        approved=reckoned.is_approved(row),
        amount=say.amount(line.counts.amount, currency),
        usual=str(line.counts.amount.usual),
        minutes=say.minutes(line.minutes.span),
        own_minutes=say.own_minutes(line.minutes),
        rate=money(line.hourly, currency),
        steps=[
            StepLine(
                step.label, say.minutes(step.minutes(family)), say.of_step(step.why, step.waits), step in line.left_out
            )
            for step in (*line.steps, *line.left_out)
        ],
        parts=[
            PartLine(
                str(one.id),
                str(one.item_id),
                say.part_words(
                    reckoned.stock[one.item_id].item.label, how_many(one.count), money(one.count * one.price, currency)
                ),
                how_many(reckoned.stock[one.item_id].on_hand),
            )
            for one in line.parts
        ],
        wants=[
            PartWanted(kind, stock_kinds()[kind].label) for kind in job.parts if kind not in chosen and not line.is_done
        ],
        risk=job.risk or "",
        caution=works()[row.work].danger or "",
        grows="" if line.grows is None else say.grows(line.grows),
        why=job.why or "",
        stale=say.stale_after(row.work),
        notes=[say.NOT_FINER] if line.left_out else [],
        by=row.done_by or at_it or row.added_by,
        since=row.done_at or next((time.begun_at for time in times if time.ended_at is None), row.added_at),
        minutes_so_far=f"{ran / 60:.0f}" if ran >= 30 else "",
        took="" if row.minutes is None else f"{row.minutes:f} min",
    )


def _unapproved(reckoned: Reckoned, since: Sequence[str]) -> str:
    """What the owner is to be asked about again: works that came since, or a work that took more than was agreed."""
    if reckoned.approval is None:
        return ""
    if reckoned.spent > reckoned.agreed:
        currency = reckoned.shop.currency
        return say.took_more(money(reckoned.spent, currency), money(reckoned.agreed, currency))
    return say.not_approved(since) if since else ""


def _refused_before(reckoned: Reckoned) -> list[ProposalView]:
    """Works that the owner left out last time, where nothing else speaks for them."""
    there = {line.line.work for line in reckoned.lines} | {one.work for one in proposals(reckoned.assessment)}
    return [
        ProposalView(
            work=one.work,
            label=works()[one.work].label,
            because=say.refused_before(one.words, one.refused_at),
            grade=jobs()[one.work].grade,
            origin="wish",
            because_of="",
        )
        for one in reckoned.refused_before
        if one.work in jobs() and one.work not in there
    ]


def _grade(grade: str) -> Grade:
    return next(one for one in GRADES if one == grade)


def _variant(reckoned: Reckoned, grade: Grade) -> VariantView:
    lines, shop = reckoned.variant(grade), reckoned.shop
    sums, currency = reckoned.sums(lines), shop.currency
    against, weighs = "", ""
    if reckoned.value is not None and lines:
        share = share_of_value(sums.usual.total, reckoned.value)
        found = weight(
            share,
            say=shop.amount("say_from"),
            discuss=shop.amount("discuss_from"),
            advise_against=shop.amount("advise_against_from"),
        )
        against = say.against_value(found, share, money(sums.usual.total, currency), money(reckoned.value, currency))
        weighs = found
    return VariantView(
        grade=grade,
        label=say.GRADES[grade],
        works=[works()[line.line.work].label for line in lines],
        low=_sum(sums.low, currency),
        usual=_sum(sums.usual, currency),
        high=_sum(sums.high, currency),
        deposit=money(sums.deposit, currency),
        against=against,
        weight=weighs,
        total=str(sums.usual.total),
    )


def _sum(found: Sum, currency: str) -> SumView:
    return SumView(*(money(one, currency) for one in (found.net, found.discount, found.tax, found.total)))


def _range(low: Sum, high: Sum, currency: str) -> str:
    return say.amount(Span(low.total, low.total, high.total), currency)
