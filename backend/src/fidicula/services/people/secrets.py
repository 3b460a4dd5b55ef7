"""Passwords, PINs and tokens: kept as hashes, compared so that right and wrong take as long."""

from __future__ import annotations

import hashlib
import secrets

from argon2 import PasswordHasher
from argon2.exceptions import Argon2Error, InvalidHashError

_passwords = PasswordHasher()
_pins = PasswordHasher(time_cost=2, memory_cost=19 * 1024, parallelism=1)
_NOBODY = _passwords.hash(secrets.token_hex(16))
"""Checked where there is no such person, so that the answer takes as long."""


def new_token() -> str:
    return secrets.token_urlsafe(32)


def token_hash(token: str) -> bytes:
    """What is kept of a token that a browser holds."""
    return hashlib.sha256(token.encode("utf-8", "surrogatepass")).digest()


def password_hash(password: str) -> str:
    return _passwords.hash(password)


def pin_hash(pin: str) -> str:
    return _pins.hash(pin)


def password_fits(kept: str | None, typed: str) -> bool:
    """kept : None where there is none; it takes as long."""
    return _fits(_passwords, kept or _NOBODY, typed) and kept is not None


def pin_fits(kept: str, typed: str) -> bool:
    return _fits(_pins, kept, typed)


def _fits(hasher: PasswordHasher, kept: str, typed: str) -> bool:
    try:
        return hasher.verify(kept, typed)
    except (Argon2Error, InvalidHashError):
        return False
