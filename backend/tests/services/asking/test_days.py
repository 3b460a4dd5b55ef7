"""How days are said, on a Wednesday: 25 November 2026."""

from __future__ import annotations

from datetime import date

import pytest
from fidicula.services.asking.days import Stretch, ahead_at, stretch_at

TODAY = date(2026, 11, 25)


def day(said: str) -> date | None:
    return date.fromisoformat(said) if said else None


@pytest.mark.parametrize(
    ("words", "since", "until", "took"),
    [
        ("today or so", "2026-11-25", "2026-11-25", 1),
        ("yesterday", "2026-11-24", "2026-11-24", 1),
        ("this week and", "2026-11-23", "2026-11-29", 2),
        ("last week", "2026-11-16", "2026-11-22", 2),
        ("this month", "2026-11-01", "2026-11-30", 2),
        ("last month", "2026-10-01", "2026-10-31", 2),
        ("this year", "2026-01-01", "2026-12-31", 2),
        ("last year", "2025-01-01", "2025-12-31", 2),
        ("in the last 30 days", "2026-10-26", "2026-11-25", 5),
        ("within the last 2 weeks then", "2026-11-11", "2026-11-25", 5),
        ("the last 1 year", "2025-11-25", "2026-11-25", 4),
        ("the last 2 months", "2026-09-26", "2026-11-25", 4),
        ("since june", "2026-06-01", "", 2),
        ("since december", "2025-12-01", "", 2),
        ("from 2024", "2024-01-01", "", 2),
        ("since 3 jun 2025", "2025-06-03", "", 4),
        ("since 2026-02-28", "2026-02-28", "", 2),
        ("before march", "", "2026-02-28", 2),
        ("before 31 may", "", "2026-05-30", 3),
        ("in feb 2024", "2024-02-01", "2024-02-29", 3),
        ("in 2025", "2025-01-01", "2025-12-31", 2),
        ("in 5 october", "2026-10-05", "2026-10-05", 3),
        ("in november", "2026-11-01", "2026-11-30", 2),
    ],
)
def test_a_stretch_of_days_gone_by(words: str, since: str, until: str, took: int) -> None:
    assert stretch_at(words.split(), TODAY) == Stretch(day(since), day(until), took)


@pytest.mark.parametrize(
    ("words", "until", "took"),
    [
        ("within 30 days", "2026-12-25", 3),
        ("in 2 weeks or", "2026-12-09", 3),
        ("until june", "2027-06-30", 2),
        ("by 3 december", "2026-12-03", 3),
        ("until 2027", "2027-12-31", 2),
        ("by 2026-12-01", "2026-12-01", 2),
        ("this month", "2026-11-30", 2),
        ("in december 2026", "2026-12-31", 3),
    ],
)
def test_what_is_to_come_has_no_first_day(words: str, until: str, took: int) -> None:
    """What was due before and did not come is due still."""
    assert ahead_at(words.split(), TODAY) == Stretch(None, day(until), took)


@pytest.mark.parametrize(
    ("words", "since", "until"),
    [
        ("next week", "2026-11-30", "2026-12-06"),
        ("next month please", "2026-12-01", "2026-12-31"),
        ("next year", "2027-01-01", "2027-12-31"),
    ],
)
def test_what_is_next_begins_after_this(words: str, since: str, until: str) -> None:
    assert ahead_at(words.split(), TODAY) == Stretch(day(since), day(until), 2)


@pytest.mark.parametrize(
    "words",
    [
        "", "this post", "last post", "in the last", "the last 3", "the last few days", "since", "since ju", "since ma",
        "since 31 june", "in 3", "before spring", "in 1800", "from 32 may", "in the post",
    ],
)  # fmt: skip
def test_what_says_no_days_is_none(words: str) -> None:
    assert stretch_at(words.split(), TODAY) is None


@pytest.mark.parametrize("words", ["since june", "in 3 posts", "next post", "until", "by 31 june", "within x days"])
def test_what_says_nothing_of_days_to_come_is_none(words: str) -> None:
    assert ahead_at(words.split(), TODAY) is None


def test_a_thousand_years_are_a_hundred() -> None:
    """What a date cannot hold is as far as the program looks."""
    assert ahead_at(["within", "9000", "years"], TODAY) == Stretch(None, date(2126, 11, 1), 3)
    assert stretch_at(["the", "last", "9000", "years"], TODAY) == Stretch(date(1926, 12, 20), TODAY, 4)
