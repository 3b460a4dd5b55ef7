"""One act on many instruments: each by itself, so that one that cannot does not stand in the way of the rest."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from uuid import uuid4

from fidicula.core.errors import CoreError
from fidicula.db.unit_of_work import Engine
from fidicula.domain.errors import ConflictError, MeanwhileError, NotFoundError, RefusedError
from fidicula.services.adjusting.strings import Stringing, Strings
from fidicula.services.bench.bench import OTHER_WORK, Bench
from fidicula.services.bench.said import Said
from fidicula.services.shop.following import Followings, TargetsWanted
from fidicula.services.visits.handover.handing import HandingOver, Signature
from fidicula.services.visits.particulars import Change, Particulars
from fidicula.services.visits.workflow import Workflow
from fidicula.tables.rows import row_of
from fidicula.tables.work import OF_ONE, works

PARTICULARS = ("kind", "promised", "deadline", "owner")
"""What may be said of many at once."""


@dataclass(frozen=True)
class Told:
    """What became of one. sentence : why it was not done, empty where it was."""

    ticket: str
    done: bool
    sentence: str


class Batch:
    """Use cases for many instruments at once."""

    def __init__(self, engine: Engine) -> None:
        self._bench = Bench(engine)
        self._course = Workflow(engine)
        self._followings = Followings(engine)
        self._leaving = HandingOver(engine)
        self._particulars = Particulars(engine)
        self._strings = Strings(engine)

    def hand_over(self, tickets: Sequence[str], signature: Signature, *, all_right: bool, by: str) -> list[Told]:
        """all_right : every point of the check at pitch was looked at on each of them, and is right."""
        return _each(
            tickets,
            lambda ticket: self._leaving.hand_over(ticket, signature, seal_id=uuid4(), by=by, all_right=all_right),
        )

    def take_back_hand_over(self, tickets: Sequence[str], by: str) -> list[Told]:
        return _each(tickets, lambda ticket: self._leaving.take_back(ticket, by))

    def follow(self, tickets: Sequence[str], *, recipe: str | None, reason: str, by: str) -> list[Told]:
        """Let each follow a recipe, None for the shop's own; what it followed of its own goes on record."""
        asked = TargetsWanted(recipe=recipe, schools={}, sources={})
        return _each(
            tickets,
            lambda ticket: self._followings.choose(ticket, asked, choice_id=uuid4(), reason=reason, by=by),
        )

    def pass_over(self, tickets: Sequence[str], *, step: str, reason: str, by: str) -> list[Told]:
        """Leave a step out of each visit, with one reason."""
        return _each(
            tickets,
            lambda ticket: self._course.pass_over(ticket, step, mark_id=uuid4(), reason=reason, by=by),
        )

    def work(self, tickets: Sequence[str], *, work: str, words: str, by: str) -> list[Told]:
        """Write one work down at each; what may not be done at one is refused there.

        Raises RefusedError for a work that follows the readings of each: a cut is never the same for many.
        """
        row = row_of(works(), work)
        if row is None or not row.at_bench or work in OF_ONE:
            raise RefusedError("that is not written down for many at once: each has readings of its own", field="work")
        if work == OTHER_WORK and not words.strip():
            raise RefusedError("describe the work in a few words", field="words")
        return _each(
            tickets, lambda ticket: self._bench.do_work(ticket, work_id=uuid4(), kind=work, by=by, said=Said(words))
        )

    def strings(self, tickets: Sequence[str], stringing: Stringing, *, by: str) -> list[Told]:
        """Put one set on each, or say that it is on them; one that it does not fit says so."""
        return _each(tickets, lambda ticket: self._strings.name(ticket, stringing, work_id=uuid4(), by=by))

    def change(self, tickets: Sequence[str], *, field: str, now: str, by: str) -> list[Told]:
        """Say one particular of each. Raises RefusedError for one that is not said of many."""
        if field not in PARTICULARS:
            raise RefusedError(f"of many at once one says {', '.join(PARTICULARS)}; it was “{field}”", field="field")
        return _each(tickets, lambda ticket: self._change(ticket, field, now, by))

    def _change(self, ticket: str, field: str, now: str, by: str) -> None:
        instrument = self._bench.sheet(ticket).instrument
        stands = {
            "kind": instrument.visit_kind,
            "owner": instrument.owner,
            "promised": "" if instrument.promised is None else instrument.promised.isoformat(),
            "deadline": "" if instrument.deadline is None else instrument.deadline.isoformat(),
        }
        if stands[field] != now:
            self._particulars.change(ticket, [Change(field, stands[field], now)], by=by)


def _each(tickets: Sequence[str], act: Callable[[str], object]) -> list[Told]:
    told = []
    for ticket in dict.fromkeys(tickets):
        try:
            act(ticket)
        except (CoreError, MeanwhileError, NotFoundError, ConflictError, RefusedError) as error:
            told.append(Told(ticket, done=False, sentence=str(error)))
        else:
            told.append(Told(ticket, done=True, sentence=""))
    return told
