"""Stretches of days as they are said: this year, since June, in the last 30 days."""

from __future__ import annotations

from dataclasses import dataclass
from datetime import date, timedelta

from fidicula.core.readings.plain import whole_number
from fidicula.domain.typed_days import day_of

MONTHS = (
    *("january", "february", "march", "april", "may", "june"),
    *("july", "august", "september", "october", "november", "december"),
)
_DAYS = {"day": 1, "days": 1, "week": 7, "weeks": 7, "month": 30, "months": 30, "year": 365, "years": 365}


@dataclass(frozen=True)
class Stretch:
    """since, until : both counted in; None for open.  took : so many words said it."""

    since: date | None
    until: date | None
    took: int


def stretch_at(words: list[str], today: date) -> Stretch | None:
    """The stretch of days that these words begin with, if they do.

    words : in small letters.  today : where the shop is.  A month without its year is the last one that has begun.
    Source: how days are said in English.
    """
    match words[:2]:
        case ["this", unit] if unit in ("week", "month", "year"):
            return Stretch(*_of(unit, today), 2)
        case ["last", unit] if unit in ("week", "month", "year"):
            first, _ = _of(unit, today)
            return Stretch(*_of(unit, first - timedelta(days=1)), 2)
        case ["today", *_]:
            return Stretch(today, today, 1)
        case ["yesterday", *_]:
            day = today - timedelta(days=1)
            return Stretch(day, day, 1)
    for lead, took in ((["in", "the", "last"], 3), (["within", "the", "last"], 3), (["the", "last"], 2)):
        if words[:took] != lead or len(words) <= took + 1 or words[took + 1] not in _DAYS:
            continue
        count = whole_number(words[took])
        if count is not None:
            span = count * _DAYS[words[took + 1]]
            return Stretch(today - timedelta(days=min(span, 36_500)), today, took + 2)
    if words[:1] in (["since"], ["from"]):
        found = _day(words[1:], today)
        return None if found is None else Stretch(found[0], None, found[1] + 1)
    if words[:1] == ["before"]:
        found = _day(words[1:], today)
        return None if found is None else Stretch(None, found[0] - timedelta(days=1), found[1] + 1)
    if words[:1] == ["in"]:
        found = _day(words[1:], today)
        if found is None:
            return None
        first, took = found
        return Stretch(first, _end(words[1 : 1 + took], first), took + 1)
    return None


def ahead_at(words: list[str], today: date) -> Stretch | None:
    """A stretch of days to come: this month, within 30 days, until June; to the end of it.

    words : in small letters.  today : where the shop is.  Source: how days are said in English.
    """
    match words[:3]:
        case ["within" | "in", typed, unit] if (count := whole_number(typed)) is not None and unit in _DAYS:
            return Stretch(None, today + timedelta(days=min(count * _DAYS[unit], 36_500)), 3)
        case ["next", unit, *_] if unit in ("week", "month", "year"):
            _, last = _of(unit, today)
            return Stretch(*_of(unit, last + timedelta(days=1)), 2)
    if words[:1] in (["until"], ["by"]):
        found = _day(words[1:], today, ahead=True)
        return None if found is None else Stretch(None, _end(words[1 : 1 + found[1]], found[0]), found[1] + 1)
    found_stretch = stretch_at(words, today)
    if found_stretch is None or found_stretch.until is None:
        return None
    # What was due before and did not come is due still.
    return Stretch(None, found_stretch.until, found_stretch.took)


def _of(unit: str, day: date) -> tuple[date, date]:
    """First and last day of the week, month or year that a day is in."""
    if unit == "week":
        first = day - timedelta(days=day.weekday())
        return first, first + timedelta(days=6)
    if unit == "month":
        return day.replace(day=1), _end_of_month(day)
    return date(day.year, 1, 1), date(day.year, 12, 31)


def _end_of_month(day: date) -> date:
    return (day.replace(day=28) + timedelta(days=4)).replace(day=1) - timedelta(days=1)


def _end(words: list[str], first: date) -> date:
    """The last day of what was named: a day, a month or a year."""
    if any(word.count("-") == 2 for word in words) or (
        words and whole_number(words[0]) is not None and len(words[0]) <= 2
    ):
        return first
    return _end_of_month(first) if _is_month(words[0]) else date(first.year, 12, 31)


def _is_month(word: str) -> bool:
    return _month(word) is not None


def _month(word: str) -> int | None:
    """1 to 12, of a name or its first three letters."""
    named = [i for i, name in enumerate(MONTHS, start=1) if len(word) >= 3 and name.startswith(word)]
    return named[0] if len(named) == 1 else None


def _day(words: list[str], today: date, *, ahead: bool = False) -> tuple[date, int] | None:
    """A day, a month's first or a year's first, and how many words say it."""
    if not words:
        return None
    first = words[0]
    written = day_of(first)
    if written is not None:
        return written, 1
    number = whole_number(first)
    if number is not None and len(first) == 4:
        return (found, 1) if (found := day_of(f"{first}-01-01")) is not None else None
    day, rest, took = 1, words, 0
    if number is not None and 1 <= number <= 31 and len(words) > 1:
        day, rest, took = number, words[1:], 1
    month = _month(rest[0])
    if month is None:
        return None
    took += 1
    year = today.year
    if len(rest) > 1 and len(rest[1]) == 4 and (said := whole_number(rest[1])) is not None:
        year, took = said, took + 1
    elif ahead and month < today.month:
        year += 1
    elif not ahead and month > today.month:
        year -= 1
    found = day_of(f"{year:04d}-{month:02d}-{day:02d}")
    return None if found is None else (found, took)
