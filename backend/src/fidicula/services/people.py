"""People, signing in, and who is at the bench."""

from __future__ import annotations

import hashlib
import re
import secrets
from collections.abc import Mapping
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from typing import Literal
from uuid import UUID, uuid4

from argon2 import PasswordHasher
from argon2.exceptions import Argon2Error, InvalidHashError

from fidicula.db.records import Person, SignIn
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.services.errors import (
    ConflictError,
    ForbiddenError,
    NotFoundError,
    NotSignedInError,
    RefusedError,
    TooManyGuessesError,
)
from fidicula.services.remembered import Remembered

Role = Literal["owner", "luthier", "apprentice", "desk"]
Act = Literal["look", "arrive", "measure", "sign_off", "recipes", "figures", "people"]

MAY: Mapping[str, frozenset[Act]] = {
    "owner": frozenset({"look", "arrive", "measure", "sign_off", "recipes", "figures", "people"}),
    "luthier": frozenset({"look", "arrive", "measure", "sign_off", "recipes"}),
    "apprentice": frozenset({"look", "arrive", "measure"}),
    "desk": frozenset({"look", "arrive"}),
}
"""What each role may do: an apprentice does not sign off, the desk does not measure, the owner alone edits figures."""

SHORTEST_PASSWORD = 10
IDLE = timedelta(hours=12)
REMEMBERED_S = 2.0
"""So long a browser is known without asking the records again; whatever changes people here ends it at once."""
SEEN_EVERY = timedelta(minutes=1)
FREE_GUESSES = 5
GUESSES_WITHIN = timedelta(minutes=30)
LONGEST_WAIT = 900
_WRONG = "the name or the password is not right"

_passwords = PasswordHasher()
_pins = PasswordHasher(time_cost=2, memory_cost=19 * 1024, parallelism=1)
_NOBODY = _passwords.hash(secrets.token_hex(16))
"""Checked where there is no such person, so that the answer takes as long."""


@dataclass(frozen=True)
class PersonView:
    """is_in : known in this browser, so that no PIN is needed.  has_pin, has_password : not what they are."""

    id: UUID
    name: str
    role: Role
    active: bool
    is_in: bool
    has_pin: bool
    has_password: bool


@dataclass(frozen=True)
class SignedIn:
    """What a browser knows of itself. form_token : to be brought along with every change."""

    form_token: str
    person: PersonView
    at_bench: PersonView
    people: list[PersonView]
    may: list[str]


@dataclass(frozen=True)
class PersonTyped:
    """Someone as typed by the owner. password, pin : empty to leave them as they are."""

    name: str
    role: Role
    active: bool
    password: str
    pin: str


def token_hash(token: str) -> bytes:
    return hashlib.sha256(token.encode()).digest()


class People:
    """Use cases around who is who."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._browsers: Remembered[str, SignIn] = Remembered(seconds=REMEMBERED_S)

    def is_first(self) -> bool:
        """Whether nobody is known yet: the first to come is the owner."""
        with UnitOfWork(self._engine, only_reads=True) as work:
            return not work.people.all()

    def begin(self, typed: PersonTyped) -> str:
        """The first person, who owns the shop; returns the browser's token. Raises ConflictError afterwards."""
        with UnitOfWork(self._engine) as work:
            work.people.lock()
            if work.people.all():
                raise ConflictError("the shop has its owner already: sign in")
            owner = _changed(Person(uuid4(), "", "owner", None, None, active=True), replace(typed, role="owner"))
            if owner.password_hash is None:
                raise RefusedError("choose a password", field="password")
            work.people.add(owner)
            return self._let_in(work, owner)

    def sign_in(self, name: str, password: str) -> str:
        """The token that this browser keeps. Raises NotSignedInError, and TooManyGuessesError."""
        with UnitOfWork(self._engine) as work:
            guessing_at = f"password {name.strip().lower()}"
            _slow_down(work, guessing_at)
            person = work.people.by_name(name.strip())
            known = person.password_hash if person is not None and person.active else None
            if not _fits(_passwords, known or _NOBODY, password) or known is None or person is None:
                work.people.guess_was_wrong(guessing_at)
                work.commit()
                raise NotSignedInError(_WRONG, field="password")
            work.people.forget_guesses(guessing_at)
            return self._let_in(work, person)

    def _let_in(self, work: UnitOfWork, person: Person) -> str:
        token = secrets.token_urlsafe(32)
        work.people.sign_in(token_hash=token_hash(token), form_token=secrets.token_urlsafe(24), person_id=person.id)
        work.commit()
        return token

    def who(self, token: str) -> SignIn:
        """Who this browser's token belongs to. Raises NotSignedInError."""
        if not token:
            raise NotSignedInError("sign in first")
        return self._browsers.read(token, lambda: self._read_who(token))

    def remembered(self, token: str) -> SignIn | None:
        """Who this browser's token belonged to a moment ago."""
        return self._browsers.get(token)

    def _read_who(self, token: str) -> SignIn:
        with UnitOfWork(self._engine, only_reads=True) as work:
            found = work.people.signed_in(token_hash(token))
        now = datetime.now(UTC)
        if found is None or not found.person.active or now - found.last_seen_at > IDLE:
            raise NotSignedInError("sign in first")
        if now - found.last_seen_at > SEEN_EVERY:
            with UnitOfWork(self._engine) as work:
                work.people.seen(token_hash(token))
                work.commit()
        return found

    def signed_in(self, sign_in: SignIn) -> SignedIn:
        with UnitOfWork(self._engine, only_reads=True) as work:
            everyone = work.people.all()
        return SignedIn(
            form_token=sign_in.form_token,
            person=_view(sign_in.person, sign_in),
            at_bench=_view(sign_in.at_bench, sign_in),
            people=[_view(person, sign_in) for person in everyone],
            may=sorted(MAY[sign_in.at_bench.role]),
        )

    def sign_out(self, token: str) -> None:
        with UnitOfWork(self._engine) as work:
            work.people.sign_out(token_hash(token))
            work.commit()
        self._browsers.forget()

    def to_the_bench(self, token: str, sign_in: SignIn, person_id: UUID, pin: str) -> None:
        """Someone else takes the place at the bench, with a PIN unless they are known here."""
        with UnitOfWork(self._engine) as work:
            person = work.people.by_id(person_id)
            if person is None or not person.active:
                raise NotFoundError("nobody of that name works here", field="person")
            if not sign_in.holds(person_id):
                guessing_at = f"pin {person_id}"
                _slow_down(work, guessing_at)
                if person.pin_hash is None:
                    raise RefusedError(f"{person.name} has no PIN yet: the owner can give one", field="pin")
                if not _fits(_pins, person.pin_hash, pin):
                    work.people.guess_was_wrong(guessing_at)
                    work.commit()
                    raise RefusedError(f"that is not {person.name}'s PIN", field="pin")
                work.people.forget_guesses(guessing_at)
            work.people.put_at_bench(token_hash(token), person_id)
            work.commit()
        self._browsers.forget()

    def acting(self, sign_in: SignIn, person_id: UUID) -> Person:
        """Who did something, of those known in this browser. Raises ForbiddenError."""
        if not sign_in.holds(person_id):
            raise ForbiddenError("whoever took this has to give a PIN here before it is kept", field="person")
        with UnitOfWork(self._engine, only_reads=True) as work:
            person = work.people.by_id(person_id)
        if person is None or not person.active:
            raise ForbiddenError("whoever took this does not work here any more", field="person")
        return person

    def add(self, typed: PersonTyped) -> None:
        with UnitOfWork(self._engine) as work:
            new = _changed(Person(uuid4(), "", typed.role, None, None, active=True), typed)
            if not work.people.add(new):
                raise RefusedError(f"there is someone named {new.name} already", field="name")
            work.commit()

    def change(self, person_id: UUID, typed: PersonTyped) -> None:
        """Change someone; who leaves, or gets another password, is signed out everywhere."""
        with UnitOfWork(self._engine) as work:
            work.people.lock()
            before = work.people.by_id(person_id)
            if before is None:
                raise NotFoundError("nobody of that name works here", field="name")
            after = _changed(before, typed)
            namesake = work.people.by_name(after.name)
            if namesake is not None and namesake.id != person_id:
                raise RefusedError(f"there is someone named {after.name} already", field="name")
            others = [p for p in work.people.all() if p.id != person_id and p.active and p.role == "owner"]
            if not others and not (after.active and after.role == "owner"):
                raise ConflictError("the shop needs an owner: make someone else one first")
            work.people.change(after)
            if not after.active or after.password_hash != before.password_hash:
                work.people.sign_out_everywhere(person_id)
            work.commit()
        self._browsers.forget()


def _view(person: Person, sign_in: SignIn) -> PersonView:
    return PersonView(
        id=person.id,
        name=person.name,
        role=person.role,  # type: ignore[arg-type]  # the table's own check keeps it to the four
        active=person.active,
        is_in=sign_in.holds(person.id),
        has_pin=person.pin_hash is not None,
        has_password=person.password_hash is not None,
    )


def _changed(before: Person, typed: PersonTyped) -> Person:
    name = " ".join(typed.name.split())
    if not name:
        raise RefusedError("type the name", field="name")
    if typed.password and len(typed.password) < SHORTEST_PASSWORD:
        raise RefusedError(f"a password has {SHORTEST_PASSWORD} characters or more", field="password")
    if typed.pin and not re.fullmatch(r"[0-9]{4,8}", typed.pin):
        raise RefusedError("a PIN is four to eight digits", field="pin")
    return Person(
        id=before.id,
        name=name,
        role=typed.role,
        password_hash=_passwords.hash(typed.password) if typed.password else before.password_hash,
        pin_hash=_pins.hash(typed.pin) if typed.pin else before.pin_hash,
        active=typed.active,
    )


def _fits(hasher: PasswordHasher, kept: str, typed: str) -> bool:
    try:
        return hasher.verify(kept, typed)
    except (Argon2Error, InvalidHashError):
        return False


def _slow_down(work: UnitOfWork, guessing_at: str) -> None:
    """After five wrong guesses each next one waits twice as long, up to a quarter of an hour."""
    count, last, now = work.people.wrong_guesses(guessing_at, within=GUESSES_WITHIN)
    if count < FREE_GUESSES or last is None:
        return
    wait = min(LONGEST_WAIT, 15 * 2 ** (count - FREE_GUESSES)) - (now - last).total_seconds()
    if wait > 0:
        seconds = int(wait) + 1
        raise TooManyGuessesError(
            f"too many wrong guesses: try again in {seconds} s"
            if seconds < 120
            else f"too many wrong guesses: try again in {seconds // 60 + 1} minutes",
            wait=seconds,
        )
