"""What was said at the door and has to be kept in mind at the bench."""

from __future__ import annotations

from datetime import date, timedelta

from fidicula.db.records import Instrument, Visit


def no_risk_from(visit: Visit) -> date | None:
    """The first day without risky work; None without a deadline."""
    return None if visit.deadline is None else visit.deadline - timedelta(days=visit.freeze_days)


def heed(instrument: Instrument, visit: Visit, *, today: date) -> list[str]:
    """One sentence each. today : where the shop is."""
    lines = []
    begins = no_risk_from(visit)
    if visit.deadline is not None and begins is not None:
        since = "any more" if today >= begins else f"from {_day(begins)}"
        lines.append(f"Needed on {_day(visit.deadline)}: no risky work {since}.")
    if visit.promised is not None:
        lines.append(f"Promised for {_day(visit.promised)}.")
    if instrument.asked.get("left_as_found"):
        lines.append(f"Left as found: {instrument.asked['left_as_found']}")
    return lines


def _day(day: date) -> str:
    return f"{day.day} {day:%B}"
