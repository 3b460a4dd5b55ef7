"""People, browsers, who is signed in where, and who changed what: values as they come out of the tables."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from datetime import datetime
from uuid import UUID


@dataclass(frozen=True)
class Person:
    """Someone of the shop. password_hash, pin_hash : None where there is none yet."""

    id: UUID
    name: str
    role: str
    password_hash: str | None
    pin_hash: str | None
    active: bool


@dataclass(frozen=True)
class Browser:
    """A browser that somebody signed in with, or a device that was paired.

    known_people : who signed in here with a password.  signed_in : names of who is signed in now.
    """

    id: UUID
    name: str
    is_paired: bool
    known_people: tuple[UUID, ...]
    created_at: datetime
    last_seen_at: datetime
    signed_in: tuple[str, ...] = ()


@dataclass(frozen=True)
class WrongGuesses:
    """At one secret of one person. what : password or pin.  line : of the audit, the last of them."""

    name: str
    what: str
    count: int
    last_at: datetime
    line: int


@dataclass(frozen=True)
class AuditEntry:
    """Who changed what and when. instrument_id : None for an act on the house.  detail : before and after, by name."""

    act: str
    subject: str
    by: str
    browser: str
    request_id: str
    instrument_id: UUID | None = None
    detail: Mapping[str, object] = field(default_factory=dict)
    at: datetime | None = None


@dataclass(frozen=True)
class SignIn:
    """A browser that is signed in.

    person : who signed in.  at_bench : who is at the bench now.  others_in : who gave a PIN here as well.
    form_token : what a changing request has to bring along.
    confirmed_by, confirmed_at : who gave the password again last, and when.
    """

    form_token: str
    person: Person
    at_bench: Person
    others_in: tuple[UUID, ...]
    last_seen_at: datetime
    browser_id: UUID
    browser_name: str
    confirmed_by: UUID | None
    confirmed_at: datetime | None

    def holds(self, person_id: UUID) -> bool:
        """Whether someone is known in this browser."""
        return person_id == self.person.id or person_id in self.others_in
