"""The owner's word on a plan: what was agreed, by whom, and up to which sum."""

from __future__ import annotations

import re
from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID, uuid5

from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.errors import MeanwhileError, RefusedError
from fidicula.domain.plan import AgreedPrice, Approval
from fidicula.domain.visits import Decision
from fidicula.judgement.pricing.reckoned import Reckoned, ReckonedLine
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.shop.pricing.typed import typed_amount
from fidicula.words import pricing as say
from fidicula.words.numbers import money

ASKING = ("estimate", "approval")
"""Questions that the owner's word answers."""


@dataclass(frozen=True)
class Approving:
    """What the owner agreed to. total : that was shown, as a plain number.  up_to : as typed, empty for that total."""

    who: str
    how: str
    total: str
    up_to: str = ""
    words: str = ""
    signature: str = ""


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
    now, currency = reckoned.whole.usual.total, reckoned.shop.currency
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
            lines=tuple(line.line.id for line in reckoned.lines),
            total=now,
            up_to=up_to,
            currency=currency,
            words=approving.words.strip(),
            signature=approving.signature,
            entered_by=by,
            terms=reckoned.today.kept,
            prices={line.line.id: _agreed(line) for line in reckoned.lines},
        )
    )
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
