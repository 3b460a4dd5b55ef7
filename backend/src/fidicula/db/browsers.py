"""Browsers and paired devices by name, and guesses at secrets, counted for each of them."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime, timedelta
from uuid import UUID

from sqlalchemy import Connection, RowMapping, any_, delete, func, insert, literal, or_, select, update

from fidicula.db import schema
from fidicula.domain.people import Browser

_t, _guess = schema.browser, schema.guess
_COLUMNS = ("id", "name", "is_paired", "known_people", "created_at", "last_seen_at")
CLOCKS_JUMP = timedelta(minutes=1)
"""So far ahead of the clock a guess may be; one from further on was made before the clock was put back."""


def _from(row: RowMapping) -> Browser:
    return Browser(**{**{name: row[name] for name in _COLUMNS}, "known_people": tuple(row["known_people"])})


@dataclass(frozen=True)
class Guesses:
    """How many lately, and when the last was. here : from this place at this secret, of_browser : at any.

    of_house : at this secret from all places that are not its owner's.
    """

    here: int
    last_here: datetime | None
    of_browser: int
    last_of_browser: datetime | None
    of_house: int
    last_of_house: datetime | None
    now: datetime


class Browsers:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def add(self, *, id: UUID, token_hash: bytes, name: str, is_paired: bool) -> None:
        values = {"id": id, "token_hash": token_hash, "name": name, "is_paired": is_paired}
        self._connection.execute(insert(_t).values(**values))

    def by_token(self, token_hash: bytes) -> Browser | None:
        """None for one that is not known, or was revoked."""
        found = select(*(_t.c[name] for name in _COLUMNS)).where(
            _t.c.token_hash == token_hash, _t.c.revoked_at.is_(None)
        )
        row = self._connection.execute(found).one_or_none()
        return None if row is None else _from(row._mapping)

    def all(self) -> list[Browser]:
        """Every one that is not revoked, the one seen last first."""
        s, person = schema.sign_in, schema.person
        names = (
            select(func.array_agg(person.c.name))
            .join(s, s.c.person_id == person.c.id)
            .where(s.c.browser_id == _t.c.id)
            .correlate(_t)
            .scalar_subquery()
        )
        rows = self._connection.execute(
            select(*(_t.c[name] for name in _COLUMNS), names.label("signed_in"))
            .where(_t.c.revoked_at.is_(None))
            .order_by(_t.c.last_seen_at.desc(), _t.c.id)
        )
        found = []
        for row in rows:
            browser = _from(row._mapping)
            found.append(Browser(**{**vars(browser), "signed_in": tuple(sorted(row.signed_in or ()))}))
        return found

    def seen(self, browser_id: UUID, *, person_id: UUID | None = None) -> None:
        """It was used now. person_id : who signed in there with a password."""
        values: dict[str, object] = {"last_seen_at": func.now()}
        if person_id is not None:
            values["known_people"] = func.array_append(func.array_remove(_t.c.known_people, person_id), person_id)
        self._connection.execute(update(_t).where(_t.c.id == browser_id).values(**values))

    def knows(self, browser_id: UUID, person_id: UUID) -> bool:
        """Whether somebody signed in there with a password before."""
        known = select(_t.c.id).where(_t.c.id == browser_id, literal(person_id) == any_(_t.c.known_people))
        return self._connection.execute(known).one_or_none() is not None

    def revoke(self, browser_id: UUID, by: str) -> str | None:
        """End a browser and whoever is signed in there; its name, None where there is none."""
        ended = (
            update(_t)
            .where(_t.c.id == browser_id, _t.c.revoked_at.is_(None))
            .values(revoked_at=func.now(), revoked_by=by)
            .returning(_t.c.name)
        )
        name = self._connection.execute(ended).scalar_one_or_none()
        if name is not None:
            self._connection.execute(delete(schema.sign_in).where(schema.sign_in.c.browser_id == browser_id))
        return name

    def guesses(self, *, at_what: str, from_where: str, own: str, within: timedelta) -> Guesses:
        """Guesses of late, with nobody else guessing at it until the unit of work is over.

        own : how places of the secret's owner begin.

        What is older, or was made while the clock was ahead, is forgotten.
        """
        self._connection.execute(select(func.pg_advisory_xact_lock(func.hashtextextended(at_what, 0))))
        now = func.clock_timestamp()
        old = or_(_guess.c.guessed_at < now - within, _guess.c.guessed_at > now + CLOCKS_JUMP)
        self._connection.execute(delete(_guess).where(old))
        there, at_it = _guess.c.from_where == from_where, _guess.c.at_what == at_what
        others = at_it & ~_guess.c.from_where.startswith(own, autoescape=True)
        row = self._connection.execute(
            select(
                func.count().filter(there & at_it),
                func.max(_guess.c.guessed_at).filter(there & at_it),
                func.count().filter(there),
                func.max(_guess.c.guessed_at).filter(there),
                func.count().filter(others),
                func.max(_guess.c.guessed_at).filter(others),
                now,
            ).where(there | at_it)
        ).one()
        return Guesses(*row)

    def guess(self, *, at_what: str, from_where: str) -> None:
        """Count a guess before it is known whether it is right: many at once are all counted."""
        values = {"at_what": at_what, "from_where": from_where, "guessed_at": func.clock_timestamp()}
        self._connection.execute(insert(_guess).values(**values))

    def forget_guesses(self, *, at_what: str, from_where: str) -> None:
        """It was right."""
        self._connection.execute(delete(_guess).where(_guess.c.at_what == at_what, _guess.c.from_where == from_where))
