"""People, and who is signed in where."""

from __future__ import annotations

from datetime import timedelta
from uuid import UUID

from sqlalchemy import Connection, RowMapping, bindparam, case, delete, func, insert, or_, select, update
from sqlalchemy.dialects.postgresql import insert as upsert

from fidicula.db import schema
from fidicula.domain.people import Person, SignIn

_LOCK = 7301
_person = schema.person
_COLUMNS = ("id", "name", "role", "password_hash", "pin_hash", "active")
_at_bench = _person.alias("at_bench")
_BY_TOKEN = (
    select(
        schema.sign_in.c.form_token,
        schema.sign_in.c.others_in,
        schema.sign_in.c.last_seen_at,
        schema.sign_in.c.browser_id,
        schema.sign_in.c.confirmed_by,
        schema.sign_in.c.confirmed_at,
        schema.browser.c.name.label("browser_name"),
        *(_person.c[name].label(f"person_{name}") for name in _COLUMNS),
        *(_at_bench.c[name].label(f"bench_{name}") for name in _COLUMNS),
    )
    .join(_person, _person.c.id == schema.sign_in.c.person_id)
    .join(_at_bench, _at_bench.c.id == schema.sign_in.c.at_bench_id)
    .join(schema.browser, schema.browser.c.id == schema.sign_in.c.browser_id)
    .where(schema.sign_in.c.token_hash == bindparam("token_hash"), schema.browser.c.revoked_at.is_(None))
)


def _from(row: RowMapping, prefix: str = "") -> Person:
    return Person(**{name: row[f"{prefix}{name}"] for name in _COLUMNS})


class People:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def all(self) -> list[Person]:
        """Everyone, by name, also who has left."""
        rows = self._connection.execute(select(_person).order_by(func.lower(_person.c.name)))
        return [_from(row._mapping) for row in rows]

    def by_id(self, person_id: UUID) -> Person | None:
        row = self._connection.execute(select(_person).where(_person.c.id == person_id)).one_or_none()
        return None if row is None else _from(row._mapping)

    def by_name(self, name: str) -> Person | None:
        """Capitals count the same."""
        found = select(_person).where(func.lower(_person.c.name) == func.lower(name))
        row = self._connection.execute(found).one_or_none()
        return None if row is None else _from(row._mapping)

    def add(self, new: Person) -> bool:
        """Add someone; False where the name is taken."""
        added = upsert(_person).values(**vars(new)).on_conflict_do_nothing().returning(_person.c.id)
        return self._connection.execute(added).one_or_none() is not None

    def change(self, changed: Person) -> None:
        values = {name: value for name, value in vars(changed).items() if name != "id"}
        self._connection.execute(update(_person).where(_person.c.id == changed.id).values(**values))

    def lock(self) -> None:
        """Let no one else change people until this unit of work is over: there is always an owner left."""
        self._connection.execute(select(func.pg_advisory_xact_lock(_LOCK)))

    def sign_in(self, *, token_hash: bytes, form_token: str, person_id: UUID, browser_id: UUID) -> None:
        self._connection.execute(
            insert(schema.sign_in).values(
                token_hash=token_hash,
                form_token=form_token,
                person_id=person_id,
                at_bench_id=person_id,
                browser_id=browser_id,
            )
        )

    def signed_in(self, token_hash: bytes) -> SignIn | None:
        row = self._connection.execute(_BY_TOKEN, {"token_hash": token_hash}).one_or_none()
        return None if row is None else _from_row(row._mapping)

    def seen(self, token_hash: bytes) -> None:
        t = schema.sign_in
        self._connection.execute(update(t).where(t.c.token_hash == token_hash).values(last_seen_at=func.now()))

    def put_at_bench(self, token_hash: bytes, person_id: UUID) -> None:
        """Someone takes the place at the bench, and is known in this browser from now on."""
        t = schema.sign_in
        self._connection.execute(
            update(t)
            .where(t.c.token_hash == token_hash)
            .values(
                at_bench_id=person_id,
                others_in=func.array_append(func.array_remove(t.c.others_in, person_id), person_id),
            )
        )

    def sign_out(self, token_hash: bytes) -> None:
        self._connection.execute(delete(schema.sign_in).where(schema.sign_in.c.token_hash == token_hash))

    def sign_out_everywhere(self, person_id: UUID) -> None:
        """Of every browser that someone signed in at or gave a PIN in."""
        t = schema.sign_in
        self._connection.execute(
            delete(t).where(
                or_(t.c.person_id == person_id, t.c.at_bench_id == person_id, t.c.others_in.contains([person_id]))
            )
        )

    def forget_pin(self, person_id: UUID) -> None:
        """Whoever gave a PIN that is no more is not known by it any longer; the bench goes back to who signed in."""
        t = schema.sign_in
        self._connection.execute(
            update(t)
            .where(t.c.others_in.contains([person_id]))
            .values(
                others_in=func.array_remove(t.c.others_in, person_id),
                at_bench_id=case((t.c.at_bench_id == person_id, t.c.person_id), else_=t.c.at_bench_id),
            )
        )

    def confirm(self, token_hash: bytes, person_id: UUID) -> None:
        """Someone gave the password again."""
        t = schema.sign_in
        self._connection.execute(
            update(t).where(t.c.token_hash == token_hash).values(confirmed_by=person_id, confirmed_at=func.now())
        )

    def sign_out_idle(self, *, after: timedelta) -> None:
        """Sign-ins that ended by themselves are not kept."""
        t = schema.sign_in
        self._connection.execute(delete(t).where(t.c.last_seen_at < func.now() - after))


def _from_row(row: RowMapping) -> SignIn:
    return SignIn(
        form_token=row["form_token"],
        person=_from(row, "person_"),
        at_bench=_from(row, "bench_"),
        others_in=tuple(row["others_in"]),
        last_seen_at=row["last_seen_at"],
        browser_id=row["browser_id"],
        browser_name=row["browser_name"],
        confirmed_by=row["confirmed_by"],
        confirmed_at=row["confirmed_at"],
    )
