"""What is said of the strings on an instrument: since when they serve, where old ones went, how they settle."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date

from fidicula.core.sound.wear import DAYS_IN_MONTH
from fidicula.numerals import number
from fidicula.words.numbers import day_and_year, plural, signed_short

FATES = {"spare": "kept as a spare", "given_on": "given on", "discarded": "thrown away"}
FATE_UNSAID = "not said where it went"
SINCE_UNKNOWN = "date unknown"
CHECKS = ("after two hours", "after a day")
MONTHS_OVER = 45
"""Over so many days what is left is told in months."""


def served(since: date, *, hours: float | None, of_hours: int | None, days_left: float | None) -> str:
    """hours : played since, None where nobody said how much it is played.

    days_left : None for strings whose life no table has.
    """
    said = f"since {day_and_year(since)}"
    if days_left is None:
        return said
    if hours is not None:
        said += f", about {number(hours, 0)} of {of_hours} hours"
    if days_left <= 0:
        return f"{said}: past its time"
    return f"{said}: {_left(days_left)} left"


def _left(days: float) -> str:
    if days > MONTHS_OVER:
        return plural(round(days / DAYS_IN_MONTH), "month", "months")
    return plural(max(1, round(days)), "day", "days")


def drift(gone: Sequence[tuple[str, Sequence[float]]]) -> str:
    """gone : each string with the cents that it had gone at the last tunings."""
    said = [f"{name} {', '.join(signed_short(one) for one in cents)}" for name, cents in gone]
    return f"Gone since the tuning before, in cents: {'; '.join(said)}." if said else ""


def fitted(words: str, *, is_change: bool, since_known: bool) -> str:
    """words : the set."""
    if is_change:
        return f"{words} put on"
    return f"{words}, on it since then" if since_known else f"{words}, on it already"


def best(player: str, when: date, *, mean: float, place: int, on: str) -> str:
    """on : which strings were on, empty where that is not on record."""
    with_set = f", with {on} on it." if on else "; which strings were on is not on record."
    return f"It sounded best to {player} on {day_and_year(when)}, {number(mean)} of 5, at place {place}{with_set}"


def diameter_of(name: str) -> str:
    return f"the {name} string's diameter"


def tension_of(name: str) -> str:
    return f"the {name} string's tension"
