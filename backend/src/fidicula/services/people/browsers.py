"""Browsers that somebody signed in with, and devices of the workshop that were paired: by name, each to be revoked."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID, uuid4

from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.errors import NotFoundError
from fidicula.domain.people import Browser
from fidicula.services.loading.remembered import Remembered
from fidicula.services.people.audit import note
from fidicula.services.people.secrets import new_token, token_hash

LONGEST_NAME = 60
_REMEMBERED_S = 2.0
_PROGRAMS = (("Edg/", "Edge"), ("Firefox/", "Firefox"), ("Chrom", "Chromium"), ("Safari/", "Safari"))
_SYSTEMS = (
    *(("Android", "Android"), ("iPhone", "iPhone"), ("iPad", "iPad"), ("Windows", "Windows")),
    *(("Macintosh", "macOS"), ("Linux", "Linux")),
)


@dataclass(frozen=True)
class BrowserView:
    """is_paired : over the workshop's network.  signed_in : names.  is_this : the one that asks."""

    id: UUID
    name: str
    is_paired: bool
    signed_in: list[str]
    since: datetime
    last_seen_at: datetime
    is_this: bool


def name_of(user_agent: str) -> str:
    """A browser in words, by what it says of itself."""
    program = next((name for mark, name in _PROGRAMS if mark in user_agent), "a browser")
    system = next((name for mark, name in _SYSTEMS if mark in user_agent), "")
    return f"{program} on {system}" if system else program


class Browsers:
    """Use cases around browsers and devices."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self._paired: Remembered[str, bool] = Remembered(seconds=_REMEMBERED_S)

    def all(self, this: UUID | None = None) -> list[BrowserView]:
        """Those that are not revoked, the one used last first."""
        with UnitOfWork(self._engine, only_reads=True) as uow:
            found = uow.browsers.all()
        return [
            BrowserView(b.id, b.name, b.is_paired, list(b.signed_in), b.created_at, b.last_seen_at, b.id == this)
            for b in found
        ]

    def is_paired(self, token: str) -> bool:
        """Whether a device was let in by the code, and not sent away since."""
        if not token:
            return False
        return self._paired.read(token, lambda: self._read_paired(token))

    def _read_paired(self, token: str) -> bool:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            found = uow.browsers.by_token(token_hash(token))
        return found is not None and found.is_paired

    def pair(self, name: str) -> str:
        """The token that a device keeps from now on. name : as it was typed there, or what it says of itself."""
        token = new_token()
        called = " ".join(name.split())[:LONGEST_NAME] or "a device"
        with UnitOfWork(self._engine) as uow:
            uow.browsers.add(id=uuid4(), token_hash=token_hash(token), name=called, is_paired=True)
            note(uow, "device.paired", called, by="")
            uow.commit()
        return token

    def revoke(self, browser_id: UUID, by: str) -> None:
        """Sign it out; a paired device has to be paired again. Raises NotFoundError."""
        with UnitOfWork(self._engine) as uow:
            name = uow.browsers.revoke(browser_id, by)
            if name is None:
                raise NotFoundError("there is no such device, or it was revoked already", field="browser_id")
            note(uow, "device.revoked", name)
            uow.commit()
        self._paired.forget()


def known_browser(uow: UnitOfWork, token: str) -> Browser | None:
    """What a browser's token stands for."""
    return uow.browsers.by_token(token_hash(token)) if token else None
