"""The owner's word on a plan: what was agreed, by whom, and up to which sum."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID, uuid5

from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.errors import MeanwhileError, RefusedError
from fidicula.domain.plan import AgreedPrice, Approval
from fidicula.domain.visits import Decision
from fidicula.judgement.pricing.reckoned import Reckoned, ReckonedLine
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.shop.pricing.stopping import running
from fidicula.services.shop.pricing.typed import typed_amount
from fidicula.tables.work import works
from fidicula.words import pricing as say
from fidicula.words.numbers import money

ASKING = ("estimate", "approval")
"""Questions that the owner's word answers."""


@dataclass(frozen=True)
class Approving:
    """What the owner agreed to. total : that was shown, as a plain number.  up_to : as typed, empty for that total.

    lines : of the plan; None for all that they did not leave out before. What is done counts always.
    """

    who: str
    how: str
    total: str
    up_to: str = ""
    words: str = ""
    signature: str = ""
    lines: Sequence[UUID] | None = None


def chosen_of(reckoned: Reckoned, lines: Sequence[UUID] | None) -> list[ReckonedLine]:
    """Lines that an approval covers. Raises RefusedError naming `lines`."""
    if lines is None:
        return reckoned.wanted
    there = {line.line.id for line in reckoned.lines}
    if not set(lines) <= there:
        raise RefusedError("a work that you ticked is not on the plan any more: look again", field="lines")
    left = [line for line in reckoned.lines if line.line.id not in lines and not line.is_done]
    for line in left:
        if running(reckoned, line) is not None:
            label = works()[line.line.work].label
            raise RefusedError(f"somebody is at “{label}”: stop it first, or tick it", field="lines")
    return [line for line in reckoned.lines if line.is_done or line.line.id in lines]


def write_approval(
    uow: UnitOfWork, loaded: VisitRecord, reckoned: Reckoned, approving: Approving, *, approval_id: UUID, by: str
) -> None:
    """Keep what was agreed, and answer the questions that wait for it. Raises RefusedError and MeanwhileError."""
    if not approving.who.strip():
        raise RefusedError("say who agreed", field="who")
    if approving.how not in say.HOW:
        raise RefusedError(f"it was one of: {', '.join(say.HOW.values())}", field="how")
    if approving.how == "signature" and not approving.signature:
        raise RefusedError("sign in the field, or say how else it was agreed", field="signature")
    if not reckoned.lines:
        raise RefusedError("there is nothing to approve: plan the works first", field="total")
    chosen = chosen_of(reckoned, approving.lines)
    if not chosen:
        raise RefusedError("tick a work that the owner agrees to, or take the works off the plan", field="lines")
    now, currency = reckoned.sums(chosen).usual.total, reckoned.shop.currency
    if _shown(approving.total, now) != now:
        raise MeanwhileError({"total": f"the sum changed meanwhile: it is {money(now, currency)} now"})
    up_to = typed_amount(approving.up_to, what="up to", field="up_to") if approving.up_to.strip() else now
    if up_to < now:
        raise RefusedError(
            f"the plan comes to {money(now, currency)}: take works off it, or type at least that", field="up_to"
        )
    uow.plan.add_approval(
        Approval(
            id=approval_id,
            visit_id=loaded.visit.id,
            who=approving.who.strip(),
            how=approving.how,
            lines=tuple(line.line.id for line in chosen),
            total=now,
            up_to=up_to,
            currency=currency,
            words=approving.words.strip(),
            signature=approving.signature,
            entered_by=by,
            terms=reckoned.today.kept,
            prices={line.line.id: _agreed(line) for line in chosen},
        )
    )
    covered = {line.line.id for line in chosen}
    if approving.lines is not None:
        uow.plan.refuse(list(covered), None)
        uow.plan.refuse([line.line.id for line in reckoned.lines if line.line.id not in covered], approval_id)
    told = say.agreed(approving.who.strip(), approving.how, money(up_to, currency))
    for question in reckoned.assessment.questions:
        if question.question in ASKING and not question.is_open:
            decided = uuid5(approval_id, question.question)
            after = loaded.state().last_work
            uow.log.decide(
                Decision(decided, loaded.visit.id, question.question, "agreed", told, None, by, after_work=after)
            )


def _agreed(line: ReckonedLine) -> AgreedPrice:
    minutes, labour = line.minutes.span, line.priced.labour
    return AgreedPrice((minutes.low, minutes.usual, minutes.high), (labour.low, labour.usual, labour.high))


def _shown(told: str, now: Decimal) -> Decimal:
    """The plain number that a page was told, and sent back."""
    if not re.fullmatch(r"\d{1,12}(\.\d{1,6})?", told, re.ASCII):
        raise RefusedError(f"the sum that was shown is missing: it is {now} now", field="total")
    return Decimal(told)
