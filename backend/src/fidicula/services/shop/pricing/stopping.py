"""What stands before a planned work: the owner's word, works that come first, missing parts, somebody at it."""

from __future__ import annotations

from fidicula.judgement.pricing.reckoned import Reckoned, ReckonedLine
from fidicula.tables.pricing import jobs
from fidicula.words import pricing as say
from fidicula.words.numbers import money


def stopped_by(reckoned: Reckoned, line: ReckonedLine, *, even_if_begun: bool = False) -> str:
    """Why a work may not be begun, or go on; empty where it may."""
    if line.is_done:
        return say.ALREADY_DONE
    if line.line.refused is not None:
        return say.REFUSED
    at_it = running(reckoned, line)
    if at_it is not None and not even_if_begun:
        return say.runs(at_it)
    if reckoned.approval is None:
        return say.NO_APPROVAL
    if not reckoned.is_approved(line.line):
        return say.ADDED_SINCE
    would = reckoned.would_come_to(line)
    if would > reckoned.approval.up_to:
        currency = reckoned.shop.currency
        return say.beyond(money(would, currency), money(reckoned.approval.up_to, currency))
    before = jobs()[line.line.work].after
    waiting = next((one for one in reckoned.lines if not one.is_done and one.line.work in before), None)
    if waiting is not None:
        return say.first(waiting.line.work)
    for part in line.parts:
        here = reckoned.stock[part.item_id]
        if here.on_hand < part.count:
            return say.missing(here.item.label, f"{here.on_hand.normalize():f}")
    return ""


def running(reckoned: Reckoned, line: ReckonedLine) -> str | None:
    """Who is at it."""
    return next(
        (time.begun_by for time in reckoned.times if time.line_id == line.line.id and time.ended_at is None), None
    )
