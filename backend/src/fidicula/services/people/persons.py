"""Someone of the shop as typed by its owner, and what that changes."""

from __future__ import annotations

import re
from dataclasses import dataclass

from fidicula.domain.errors import RefusedError
from fidicula.domain.people import Person
from fidicula.services.people.roles import Role
from fidicula.services.people.secrets import password_hash, pin_hash

SHORTEST_PASSWORD = 12


@dataclass(frozen=True)
class PersonTyped:
    """Someone as typed by the owner. password, pin : empty to leave them as they are."""

    name: str
    role: Role
    active: bool
    password: str
    pin: str


def changed_person(before: Person, typed: PersonTyped) -> Person:
    """The person as typed. Raises RefusedError naming the field at fault."""
    name = " ".join(typed.name.split())
    if not name:
        raise RefusedError("type the name", field="name")
    if typed.password and len(typed.password) < SHORTEST_PASSWORD:
        raise RefusedError(f"a password has {SHORTEST_PASSWORD} characters or more", field="password")
    if typed.pin and not re.fullmatch(r"[0-9]{6,8}", typed.pin):
        raise RefusedError("a PIN is six to eight digits", field="pin")
    return Person(
        id=before.id,
        name=name,
        role=typed.role,
        password_hash=password_hash(typed.password) if typed.password else before.password_hash,
        pin_hash=pin_hash(typed.pin) if typed.pin else before.pin_hash,
        active=typed.active,
    )


def differences(before: Person, after: Person) -> dict[str, object]:
    """What changed, by name; of secrets only that they did."""
    found: dict[str, object] = {}
    for name in ("name", "role", "active"):
        was, now = getattr(before, name), getattr(after, name)
        if was != now:
            found[name] = [was, now]
    for secret in ("password", "pin"):
        if getattr(before, f"{secret}_hash") != getattr(after, f"{secret}_hash"):
            found[secret] = "changed"
    return found
