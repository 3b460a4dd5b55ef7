"""How long strings still serve."""

from __future__ import annotations

DAYS_IN_MONTH = 30.44


def hours_played(*, days: float, hours_a_week: float) -> float:
    """For how long strings were played. [hours]

    days : since they were put on, 0 or more.  hours_a_week : that the instrument is played.
    """
    return hours_a_week * days / 7


def days_left(*, days: float, months: float, hours: float, hours_a_week: float | None) -> float:
    """How many days strings still serve, by months or by hours, whichever is over first; below 0 they are past it.

    days : since they were put on, 0 or more.  months, hours : that they serve, above 0.
    hours_a_week : that the instrument is played; None or 0 leaves the hours out.
    """
    by_months = months * DAYS_IN_MONTH - days
    if not hours_a_week:
        return by_months
    return min(by_months, (hours - hours_played(days=days, hours_a_week=hours_a_week)) / hours_a_week * 7)
