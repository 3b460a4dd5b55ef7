"""Whatever is typed into a field for a number, a day, a moment or an amount: it is read as it was meant, or refused."""

from __future__ import annotations

import math
import re
from collections.abc import Callable
from contextlib import suppress
from datetime import date, datetime, time
from decimal import Decimal
from functools import partial
from typing import TypeVar

from fidicula import limits
from fidicula.core.errors import CoreError
from fidicula.core.readings.plain import plain_number, whole_number
from fidicula.core.readings.typed import in_unit, millimetres, signed_number
from fidicula.domain.errors import RefusedError
from fidicula.domain.typed_days import day_of, moment_of
from fidicula.judgement.pricing.value import said_value
from fidicula.services.shop.pricing.typed import typed_amount
from hypothesis import given
from hypothesis import strategies as st

LIKE_A_NUMBER = st.text("0123456789.,+-−eE'/ \t\u00a0²٣mcin\"", max_size=24)
ANYTHING = st.one_of(
    st.text(max_size=60), LIKE_A_NUMBER, st.sampled_from(("nan", "sNaN", "-inf", "1e308", "0x1F", "1_0"))
)
AROUND = st.sampled_from(("", " ", "\t", "\u00a0"))
MARK = st.sampled_from((".", ","))
SIGN = st.sampled_from(("", "+", "-", "−"))
DIGITS = re.compile(r"[0-9]")


Value = TypeVar("Value")


def read_or_none(read: Callable[[], Value]) -> Value | None:
    """What was read; None where that is refused in a sentence."""
    with suppress(CoreError, RefusedError):
        return read()
    return None


@given(SIGN, st.integers(0, 10**12 - 1), MARK, st.text("0123456789", min_size=1, max_size=12), AROUND, AROUND)
def test_a_plain_number_is_itself_with_either_mark(
    sign: str, whole: int, mark: str, places: str, before: str, after: str
) -> None:
    read = plain_number(f"{before}{sign}{whole}{mark}{places}{after}")
    meant = float(f"{whole}.{places}") * (-1 if sign in ("-", "−") else 1)
    assert read == meant


@given(ANYTHING)
def test_no_text_becomes_a_number_that_is_none(typed: str) -> None:
    for read in (plain_number(typed), whole_number(typed)):
        assert read is None or (math.isfinite(read) and DIGITS.search(typed))
    for reader in (millimetres, signed_number, lambda text: in_unit("°", text, what="the lean", signed=True)):
        value = read_or_none(partial(reader, typed))
        assert value is None or (math.isfinite(value) and DIGITS.search(typed))


@given(st.integers(0, 10**9 - 1), AROUND)
def test_a_whole_number_is_itself(whole: int, around: str) -> None:
    assert whole_number(f"{around}{whole}{around}") == whole


@given(st.dates(), AROUND)
def test_a_day_is_itself_where_a_workshops_day_lies(day: date, around: str) -> None:
    meant = day if limits.EARLIEST.date() <= day < limits.LATEST.date() else None
    assert day_of(f"{around}{day.isoformat()}{around}") == meant


@given(st.one_of(ANYTHING, st.text("0123456789-T:+Z W", max_size=30)))
def test_no_text_becomes_a_day_or_moment_outside_of_the_calendar(typed: str) -> None:
    day, at = day_of(typed), moment_of(typed)
    assert day is None or limits.EARLIEST.date() <= day < limits.LATEST.date()
    if at is not None:
        assert at.tzinfo is not None
        assert at.utcoffset() is not None


@given(st.dates(date(1900, 1, 2), date(2199, 12, 31)), st.times())
def test_a_moment_is_itself(day: date, clock: time) -> None:
    told = datetime.combine(day, clock)
    at = moment_of(told.isoformat())
    assert at is not None
    # An hour that the clocks leave out, or go through twice, is one of its two.
    assert abs((at.replace(tzinfo=None) - told).total_seconds()) <= 3600


@given(st.decimals(0, limits.MOST_AMOUNT, places=2), MARK, AROUND)
def test_an_amount_is_itself_to_the_cent(amount: Decimal, mark: str, around: str) -> None:
    typed = f"{around}{amount:.2f}{around}".replace(".", mark)
    assert typed_amount(typed, what="the price", field="price") == amount


@given(ANYTHING)
def test_no_text_becomes_an_amount_that_is_none(typed: str) -> None:
    """Nor is a mark taken for what it may not be: what could be read in two ways is asked about."""
    amount = read_or_none(lambda: typed_amount(typed, what="the price", field="price"))
    if amount is not None:
        assert 0 <= amount <= limits.MOST_AMOUNT
        assert amount == round(amount, limits.AMOUNT_PLACES)
        assert re.sub(r"[^0-9]", "", typed).lstrip("0").rstrip("0") == (
            re.sub(r"[^0-9]", "", f"{amount:f}").lstrip("0").rstrip("0")
        )
    said = said_value(typed)
    assert said is None or 0 < said <= limits.MOST_AMOUNT
