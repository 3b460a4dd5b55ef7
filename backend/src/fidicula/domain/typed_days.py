"""Days and moments as somebody types them: the one place that reads them."""

from __future__ import annotations

import re
from datetime import date, datetime

from fidicula import limits

_DAY = re.compile(r"\d{4}-\d{2}-\d{2}", re.ASCII)


def day_of(typed: str) -> date | None:
    """A day as year, month and day, 2026-12-24; None for what is none, or lies where no workshop's day does."""
    text = typed.strip()
    if not _DAY.fullmatch(text):
        return None
    try:
        day = date.fromisoformat(text)
    except ValueError:
        return None
    return day if limits.EARLIEST.date() <= day < limits.LATEST.date() else None


def moment_of(typed: str) -> datetime | None:
    """A moment as 2026-12-24T10:00, in the shop's time where it names no other; None for what is none."""
    text = typed.strip()
    try:
        at = datetime.fromisoformat(text)
    except ValueError:
        return None
    # Near the ends of the calendar another zone's time cannot be told.
    if not limits.EARLIEST.date() < at.date() < limits.LATEST.date():
        return None
    return at.astimezone() if at.tzinfo is None else at
