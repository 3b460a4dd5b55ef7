"""When and at which visit what is written now was entered: it may have waited in a browser since."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from contextvars import ContextVar
from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID

from sqlalchemy import Table


@dataclass
class Entry:
    """What a request enters. id : made where it was entered.  ticket : of its instrument, empty for none.

    digest : of all that was entered, the same for the same entry sent again.
    is_kept : by this request, which may write in several units of work.
    """

    id: UUID
    ticket: str
    digest: Callable[[], bytes]
    is_kept: bool = False


@dataclass(frozen=True)
class Entered:
    """at : when, by the browser's clock.  visit : that the page showed. None where the browser did not say.

    entry : None where nothing with an id is entered.
    """

    at: datetime | None = None
    visit: UUID | None = None
    entry: Entry | None = None


_NOW = Entered()
_entered: ContextVar[Entered] = ContextVar("entered", default=_NOW)
_TIMES = ("done_at", "decided_at", "seen_at", "made_at", "heard_at", "tuned_at", "begun_at", "recorded_at")
_WAITED = timedelta(minutes=1)
"""What came sooner was written as it was entered: the clock here counts, which is the same for everybody."""


def was_entered(entered: Entered) -> None:
    """What is written from here on in this request was entered then and there."""
    _entered.set(entered)


def entered_now() -> Entered:
    return _entered.get()


def with_time(table: Table, values: Mapping[str, Any]) -> Mapping[str, Any]:
    """A new line with the time at which it was entered, where it waited since and says none itself."""
    at = _entered.get().at
    name = next((name for name in _TIMES if name in table.c), None)
    if at is None or name is None or values.get(name) is not None or at > datetime.now(UTC) - _WAITED:
        return values
    return {**values, name: at}
