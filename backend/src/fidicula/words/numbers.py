"""Numbers, days, times and lists as a reader writes them: the one place that turns them into text."""

from __future__ import annotations

import math
from collections.abc import Sequence
from datetime import date, datetime
from decimal import Decimal

from babel.dates import format_date, format_time
from babel.lists import format_list
from babel.numbers import format_currency, format_decimal

from fidicula.core.rounding import rounded_down
from fidicula.numerals import (
    LOCALE,
    _figures,
    number,
    short,
)

_EIGHTHS = {1: "⅛", 2: "¼", 3: "⅜", 4: "½", 5: "⅝", 6: "¾", 7: "⅞"}


def turns_words(turns: float) -> str:
    """“1⅝ turns down”, “½ turn up”, to the nearest eighth."""
    eighths = round(abs(turns) * 8)
    whole, rest = divmod(eighths, 8)
    said = f"{whole or ''}{_EIGHTHS.get(rest, '')}" or "0"
    return f"{said} {'turn' if eighths <= 8 else 'turns'} {'up' if turns > 0 else 'down'}"


def signed_short(value: float, most: int = 2) -> str:
    """A change with as many places as it needs: “+3”, “−0.35”, “0”."""
    shown = short(value, most)
    return f"+{shown}" if round(value, most) > 0 else shown


def changed(value: float, by: float) -> str:
    """A sum as it is worked out: “56”, “56 + 2”, “56 − 2.5”."""
    return short(value) if not round(by, 6) else f"{short(value)} {'+' if by > 0 else '−'} {short(abs(by))}"


def to_take(value: float, places: int = 1) -> str:
    """An amount to take: rounded down, never up."""
    return number(rounded_down(value, places), places)


def give_or_take(value: float, places: int = 1) -> str:
    """What a value may be off by, rounded up: never less than it is. “0.1” for 0.04"""
    scale: int = 10**places
    return number(math.ceil(value * scale - 1e-6) / scale, places)


def told_within(value: float, known_to: float) -> str:
    """A value and what covers 95 % of it, to the places that this leaves: “5.21 ±0.12”, “27.3 ±0.4”, “328 ±3”.

    A value that is known to nothing is exact, and told as it is.
    """
    if known_to <= 0:
        return short(value)
    places = next((places for places, below in ((2, 0.2), (1, 2.0)) if known_to < below), 0)
    return f"{number(value, places)} ±{give_or_take(known_to, places)}"


def band(low: float, high: float, *, aim: float | None = None) -> str:
    """“4.0 to 5.0, aim 4.5”."""
    said = f"{short(low)} to {short(high)}"
    return said if aim is None else f"{said}, aim {short(aim)}"


def listed(items: Sequence[str]) -> str:
    """“G”, “G and D”, “G, D and A”."""
    return str(format_list(list(items), style="standard", locale=LOCALE))


def times(count: int) -> str:
    """“once”, “twice”, “3 times”."""
    return {1: "once", 2: "twice"}.get(count, f"{count} times")


def plural(count: int, one: str, many: str) -> str:
    """“1 reading”, “3 readings”."""
    return f"{number(count, 0)} {one if LOCALE.plural_form(count) == 'one' else many}"


def day(when: date) -> str:
    """“6 December”."""
    return str(format_date(when, "d MMMM", locale=LOCALE))


def day_and_year(when: date) -> str:
    """“6 December 2026”."""
    return str(format_date(when, "d MMMM y", locale=LOCALE))


def clock(when: datetime) -> str:
    """“14:05”, where the shop is."""
    return str(format_time(when.astimezone(), "HH:mm", locale=LOCALE))


def day_and_clock(when: datetime) -> str:
    """“14:05 on 6 December”, where the shop is."""
    return f"{clock(when)} on {day(when.astimezone().date())}"


def sentence(words: str) -> str:
    """With a capital, and a full stop where it ends in none."""
    said = words[:1].upper() + words[1:]
    return said if not said or said[-1] in ".?!" else f"{said}."


def answered(title: str, answer: str) -> str:
    """What was asked or decided about, and what came of it: “Projection: accepted”, “Has it settled? It has”."""
    return f"{title} {answer[:1].upper()}{answer[1:]}" if title.endswith("?") else f"{title}: {lower_first(answer)}"


def lower_first(words: str) -> str:
    """As it goes on in the middle of a sentence; an abbreviation keeps its letters."""
    return words if words[1:2].isupper() else words[:1].lower() + words[1:]


def money(amount: Decimal, currency: str) -> str:
    """“€1,234.50”, as the reader writes it."""
    return str(format_currency(amount, currency, locale=_figures.get()))


def percent(share: Decimal) -> str:
    """“31 %”."""
    return f"{format_decimal(share.quantize(Decimal(1)), locale=LOCALE)} %"


def tax_rate(rate: Decimal) -> str:
    """“20 %”, “9.5 %”."""
    return f"{how_many(rate)} %"


def how_many(amount: Decimal) -> str:
    """“2”, “0.5”."""
    return str(format_decimal(amount.normalize(), format="#,##0.##", locale=LOCALE))
