"""Who changed what and when: written with the change itself, in the same transaction, and never changed afterwards."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from contextvars import ContextVar
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import NotFoundError
from fidicula.domain.people import AuditEntry
from fidicula.services.logging import request_id
from fidicula.words.audit import act_label, change_words, subject_words

FROM_THE_SHELL = "from the shell"


@dataclass(frozen=True)
class Actor:
    """Who asks, as what, and from which browser."""

    name: str
    browser: str
    role: str = "owner"


_SHELL = Actor(FROM_THE_SHELL, "")
_actor: ContextVar[Actor | None] = ContextVar("actor", default=None)


def role_now() -> str:
    """What whoever asks is here; who asks from the shell owns the shop."""
    return (_actor.get() or _SHELL).role


def acts_now(actor: Actor) -> None:
    """What is written from here on in this request is this person's."""
    _actor.set(actor)


def note(
    uow: UnitOfWork,
    act: str,
    subject: str = "",
    *,
    instrument_id: UUID | None = None,
    by: str | None = None,
    browser: str | None = None,
    detail: Mapping[str, object] | None = None,
) -> None:
    """Write down an act. act : `figure.entered`, say.  subject : what it is about.  detail : before and after, by name.

    by, browser : None for whoever asks, and from where.
    """
    actor = _actor.get() or _SHELL
    uow.audit.add(
        AuditEntry(
            act=act,
            subject=subject,
            by=actor.name if by is None else by,
            browser=actor.browser if browser is None else browser,
            request_id=request_id(),
            instrument_id=instrument_id,
            detail={name: value for name, value in (detail or {}).items() if value is not None},
        )
    )


_NONE = UUID(int=0)


@dataclass(frozen=True)
class AuditLine:
    """number : None for a line that stands in an instrument's own log.  label, change : in words."""

    number: int | None
    at: datetime
    act: str
    label: str
    subject: str
    change: str
    ticket: str
    detail: dict[str, object]
    by: str
    browser: str
    request_id: str


class Audit:
    """Reading what was changed."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def of_house(self, before: int | None = None) -> list[AuditLine]:
        """Newest first. before : the number of the oldest line that is here already."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            lines = uow.audit.of_house(before=before)
            tickets = {e.instrument_id: "" for _, e in lines if e.instrument_id is not None}
            tickets = {key: uow.instruments.ticket_of(key) or "" for key in tickets}
        return [_line(number, entry, tickets.get(entry.instrument_id or _NONE, "")) for number, entry in lines]

    def of_instrument(self, ticket: str) -> list[AuditLine]:
        """Of every visit, newest first."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            found = uow.instruments.by_ticket(ticket)
            if found is None:
                raise NotFoundError(f"there is no instrument with the ticket {ticket} in the house", field="ticket")
            instrument = found[0]
            lines = uow.audit.of_instrument(instrument.id)
        return [_line(None, entry, ticket, instrument.string_names) for entry in lines]


def _line(number: int | None, entry: AuditEntry, ticket: str, string_names: Sequence[str] = ()) -> AuditLine:
    assert entry.at is not None
    return AuditLine(
        number=number,
        at=entry.at,
        act=entry.act,
        label=act_label(entry.act),
        subject=subject_words(entry.act, entry.subject, entry.detail, string_names),
        change=change_words(entry.act, entry.subject, entry.detail),
        ticket=ticket,
        detail=dict(entry.detail),
        by=entry.by,
        browser=entry.browser,
        request_id=entry.request_id,
    )
