"""The days without risky work before an instrument is needed."""

from __future__ import annotations

from datetime import date, timedelta

from fidicula.domain.visits import Visit


def no_risk_from(visit: Visit) -> date | None:
    """The first day without risky work; None without a deadline."""
    return None if visit.deadline is None else visit.deadline - timedelta(days=visit.freeze_days)
