"""People, signing in, and who is at the bench."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid4

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import ConflictError, ForbiddenError, NotFoundError, NotSignedInError, RefusedError
from fidicula.domain.people import Browser, Person, SignIn, WrongGuesses
from fidicula.services.loading.remembered import Remembered
from fidicula.services.people.audit import note
from fidicula.services.people.browsers import known_browser, name_of
from fidicula.services.people.guessing import OWN, PERSON, check_guess
from fidicula.services.people.persons import PersonTyped, changed_person, differences
from fidicula.services.people.roles import MAY, RANK, Role
from fidicula.services.people.secrets import new_token, password_fits, pin_fits, token_hash

IDLE = timedelta(hours=12)
CONFIRMED_FOR = timedelta(minutes=10)
REMEMBERED_S = 2.0
"""So long a browser is known without asking the records again; whatever changes people here ends it at once."""
SEEN_EVERY = timedelta(minutes=1)
UNKNOWN_BROWSER = "new"
"""Where a guess comes from that no browser is known by."""
_WRONG = "the name or the password is not right"


@dataclass(frozen=True)
class PersonView:
    """is_in : takes the bench in this browser without a PIN.  has_pin, has_password : not what they are."""

    id: UUID
    name: str
    role: Role
    active: bool
    is_in: bool
    has_pin: bool
    has_password: bool


@dataclass(frozen=True)
class SignedIn:
    """What a browser knows of itself. form_token : to be brought along with every change.  browser : its name.

    guesses : that were wrong since whoever signed in here last did: at their own secrets; an owner hears of all.
    """

    form_token: str
    person: PersonView
    at_bench: PersonView
    people: list[PersonView]
    may: list[str]
    browser: str
    guesses: list[WrongGuesses]


@dataclass(frozen=True)
class Asking:
    """The browser that asks for a sign-in. token : that it is known by, or empty.  user_agent : what it says it is."""

    token: str = ""
    user_agent: str = ""


@dataclass(frozen=True)
class LetIn:
    """token : of the session.  browser_token : that the browser is known by from now on."""

    token: str
    browser_token: str


class People:
    """Use cases around who is who."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._browsers: Remembered[str, SignIn] = Remembered(seconds=REMEMBERED_S)

    def is_first(self) -> bool:
        """Whether nobody is known yet: the first to come is the owner."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return not uow.people.all()

    def begin(self, typed: PersonTyped, asking: Asking = Asking()) -> LetIn:
        """The first person, who owns the shop. Raises ConflictError afterwards."""
        owner = changed_person(Person(uuid4(), "", "owner", None, None, active=True), replace(typed, role="owner"))
        if owner.password_hash is None:
            raise RefusedError("choose a password", field="password")
        with UnitOfWork(self._engine) as uow:
            uow.people.lock()
            if uow.people.all():
                raise ConflictError("the shop has its owner already: sign in")
            uow.people.add(owner)
            note(uow, "person.added", owner.name, by=owner.name, detail={"role": owner.role})
            return _let_in(uow, owner, known_browser(uow, asking.token), asking)

    def sign_in(self, name: str, password: str, asking: Asking = Asking()) -> LetIn:
        """Raises NotSignedInError, and TooManyGuessesError."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            person = uow.people.by_name(name.strip())
            browser = known_browser(uow, asking.token)
        kept = person.password_hash if person is not None and person.active else None
        is_right = check_guess(
            self._engine,
            "password",
            name.strip().lower()[:80],
            from_where=_from_where(browser, person),
            fits=lambda: password_fits(kept, password),
            name=person.name if person is not None else "",
        )
        if not is_right or person is None:
            raise NotSignedInError(_WRONG, field="password")
        with UnitOfWork(self._engine) as uow:
            uow.people.sign_out_idle(after=IDLE)
            return _let_in(uow, person, browser, asking)

    def who(self, token: str) -> SignIn:
        """Who this browser's token belongs to. Raises NotSignedInError."""
        if not token:
            raise NotSignedInError("sign in first")
        return self._browsers.read(token, lambda: self._read_who(token))

    def remembered(self, token: str) -> SignIn | None:
        """Who this browser's token belonged to a moment ago."""
        return self._browsers.get(token)

    def _read_who(self, token: str) -> SignIn:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            found = uow.people.signed_in(token_hash(token))
        now = datetime.now(UTC)
        if found is None or not found.person.active or now - found.last_seen_at > IDLE:
            raise NotSignedInError("sign in first")
        if now - found.last_seen_at > SEEN_EVERY:
            with UnitOfWork(self._engine) as uow:
                uow.people.seen(token_hash(token))
                uow.browsers.seen(found.browser_id)
                uow.commit()
        return found

    def signed_in(self, sign_in: SignIn) -> SignedIn:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            everyone = uow.people.all()
            whose = sign_in.person
            guesses = uow.audit.wrong_guesses(whose.name, of_everyone=whose.role == "owner")
        return SignedIn(
            form_token=sign_in.form_token,
            person=_view(sign_in.person, sign_in),
            at_bench=_view(sign_in.at_bench, sign_in),
            people=[_view(person, sign_in) for person in everyone],
            may=sorted(MAY[sign_in.at_bench.role]),
            browser=sign_in.browser_name,
            guesses=guesses,
        )

    def sign_out(self, token: str) -> None:
        with UnitOfWork(self._engine) as uow:
            uow.people.sign_out(token_hash(token))
            uow.commit()
        self._browsers.forget()

    def sign_out_everywhere(self, sign_in: SignIn) -> None:
        """Of every browser that whoever signed in here signed in at, or gave a PIN in."""
        with UnitOfWork(self._engine) as uow:
            uow.people.sign_out_everywhere(sign_in.person.id)
            note(uow, "person.signed_out_everywhere", sign_in.person.name)
            uow.commit()
        self._browsers.forget()

    def confirm(self, token: str, sign_in: SignIn, password: str) -> None:
        """Whoever is at the bench gives the password again. Raises RefusedError, and TooManyGuessesError."""
        person = sign_in.at_bench
        if person.password_hash is None:
            raise RefusedError(f"{person.name} has no password yet: another owner can give one", field="password")
        kept = person.password_hash
        is_right = check_guess(
            self._engine,
            "password",
            person.name.lower(),
            from_where=self._from_signed(sign_in, person),
            fits=lambda: password_fits(kept, password),
            name=person.name,
        )
        if not is_right:
            raise RefusedError(f"that is not {person.name}'s password", field="password")
        with UnitOfWork(self._engine) as uow:
            uow.people.confirm(token_hash(token), person.id)
            uow.commit()
        self._browsers.forget()

    def to_the_bench(self, token: str, sign_in: SignIn, person_id: UUID, pin: str) -> None:
        """Someone else takes the place at the bench, with a PIN unless they are known here and stand no higher."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            person = uow.people.by_id(person_id)
        if person is None or not person.active:
            raise NotFoundError("nobody of that name works here", field="person")
        if not _needs_no_pin(person, sign_in):
            self._check_pin(person, sign_in, pin)
        with UnitOfWork(self._engine) as uow:
            uow.people.put_at_bench(token_hash(token), person_id)
            uow.commit()
        self._browsers.forget()

    def sign(self, sign_in: SignIn, person: Person, pin: str) -> None:
        """Someone puts their name under something, with their PIN. Raises RefusedError naming `pin`."""
        if not pin.strip():
            raise RefusedError(f"{person.name} signs with a PIN: type it", field="pin")
        self._check_pin(person, sign_in, pin)

    def _check_pin(self, person: Person, sign_in: SignIn, typed: str) -> None:
        """The PIN, or the password of someone who signed in here and has no PIN."""
        if person.pin_hash is not None:
            kept, fits, what = person.pin_hash, pin_fits, "pin"
        elif person.id == sign_in.person.id and person.password_hash is not None:
            kept, fits, what = person.password_hash, password_fits, "password"
        else:
            raise RefusedError(f"{person.name} has no PIN yet: the owner can give one", field="pin")
        is_right = check_guess(
            self._engine,
            what,
            person.name.lower() if what == "password" else str(person.id),
            from_where=self._from_signed(sign_in, person),
            fits=lambda: fits(kept, typed),
            name=person.name,
        )
        if not is_right:
            raise RefusedError(f"that is not {person.name}'s {'PIN' if what == 'pin' else what}", field="pin")

    def _from_signed(self, sign_in: SignIn, person: Person) -> str:
        """Where a guess comes from, of somebody who is signed in: a browser of the secret's owner, or that person."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            is_known = uow.browsers.knows(sign_in.browser_id, person.id)
        return f"{OWN}{sign_in.browser_id}" if is_known else f"{PERSON}{sign_in.person.id}"

    def acting(self, sign_in: SignIn, person_id: UUID) -> Person:
        """Who did something, of those who unlocked this browser. Raises ForbiddenError."""
        if not sign_in.holds(person_id):
            raise ForbiddenError("whoever took this has to give a PIN here before it is kept", field="person")
        with UnitOfWork(self._engine, only_reads=True) as uow:
            person = uow.people.by_id(person_id)
        if person is None or not person.active:
            raise ForbiddenError("whoever took this does not work here any more", field="person")
        return person

    def add(self, typed: PersonTyped) -> None:
        new = changed_person(Person(uuid4(), "", typed.role, None, None, active=True), typed)
        with UnitOfWork(self._engine) as uow:
            if not uow.people.add(new):
                raise RefusedError(f"there is someone named {new.name} already", field="name")
            note(uow, "person.added", new.name, detail={"role": new.role})
            uow.commit()

    def change(self, person_id: UUID, typed: PersonTyped) -> None:
        """Change someone; who leaves, or gets another password or PIN, is signed out where it was used."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            known = uow.people.by_id(person_id)
        if known is None:
            raise NotFoundError("nobody of that name works here", field="name")
        # Hashed before anything is locked: it takes long on purpose.
        asked = changed_person(known, typed)
        with UnitOfWork(self._engine) as uow:
            uow.people.lock()
            before = uow.people.by_id(person_id)
            if before is None:
                raise NotFoundError("nobody of that name works here", field="name")
            after = replace(
                asked,
                password_hash=asked.password_hash if typed.password else before.password_hash,
                pin_hash=asked.pin_hash if typed.pin else before.pin_hash,
            )
            namesake = uow.people.by_name(after.name)
            if namesake is not None and namesake.id != person_id:
                raise RefusedError(f"there is someone named {after.name} already", field="name")
            others = [p for p in uow.people.all() if p.id != person_id and p.active and p.role == "owner"]
            if not others and not (after.active and after.role == "owner"):
                raise ConflictError("the shop needs an owner: make someone else one first")
            uow.people.change(after)
            note(uow, "person.changed", after.name, detail=differences(before, after))
            if not after.active or after.password_hash != before.password_hash:
                uow.people.sign_out_everywhere(person_id)
            elif after.pin_hash != before.pin_hash:
                uow.people.forget_pin(person_id)
            uow.commit()
        self._browsers.forget()

    def forget(self) -> None:
        """Who is signed in where was changed: it is read again."""
        self._browsers.forget()

    def is_an_owners(self, password: str) -> bool:
        """Whether a password is that of somebody who owns the shop."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            owners = [p for p in uow.people.all() if p.active and p.role == "owner"]
        return _fits_any([owner.password_hash for owner in owners], password)


def is_confirmed(sign_in: SignIn, person: Person) -> bool:
    """Whether someone gave the password again not long ago."""
    at = sign_in.confirmed_at
    return sign_in.confirmed_by == person.id and at is not None and datetime.now(UTC) - at < CONFIRMED_FOR


def _fits_any(kept: Sequence[str | None], typed: str) -> bool:
    # All of them are compared: how long it takes says nothing of whose it was.
    right = [password_fits(one, typed) for one in kept]
    return any(right)


def _from_where(browser: Browser | None, person: Person | None) -> str:
    """A browser that someone signed in with before is counted by itself, also when others guess at their name."""
    if browser is None:
        return UNKNOWN_BROWSER
    is_known = person is not None and person.id in browser.known_people
    return f"{OWN}{browser.id}" if is_known else f"stranger at {browser.id}"


def _let_in(uow: UnitOfWork, person: Person, browser: Browser | None, asking: Asking) -> LetIn:
    token, browser_token = new_token(), asking.token
    browser_id = browser.id if browser is not None else uuid4()
    if browser is None:
        browser_token = new_token()
        called = name_of(asking.user_agent)
        uow.browsers.add(id=browser_id, token_hash=token_hash(browser_token), name=called, is_paired=False)
    uow.browsers.seen(browser_id, person_id=person.id)
    uow.people.sign_in(token_hash=token_hash(token), form_token=new_token(), person_id=person.id, browser_id=browser_id)
    called = browser.name if browser is not None else name_of(asking.user_agent)
    note(uow, "person.signed_in", person.name, by=person.name, browser=called)
    uow.commit()
    return LetIn(token, browser_token)


def _needs_no_pin(person: Person, sign_in: SignIn) -> bool:
    """Known here, and no step up from who is at the bench: a higher role is not left lying about."""
    is_step_up = RANK[person.role] > RANK[sign_in.at_bench.role]
    return sign_in.holds(person.id) and not is_step_up


def _view(person: Person, sign_in: SignIn) -> PersonView:
    return PersonView(
        id=person.id,
        name=person.name,
        role=person.role,  # type: ignore[arg-type]  # the table's own check keeps it to the four
        active=person.active,
        is_in=_needs_no_pin(person, sign_in),
        has_pin=person.pin_hash is not None,
        has_password=person.password_hash is not None,
    )
