"""Plain numbers as a reader writes them."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from contextvars import ContextVar
from functools import lru_cache

from babel import Locale, UnknownLocaleError
from babel.numbers import format_decimal

LOCALE = Locale("en", "GB")


_figures: ContextVar[Locale] = ContextVar("figures", default=LOCALE)
"""How figures are written: the words stay as they are."""


@contextmanager
def in_format_of(languages: str) -> Iterator[None]:
    """Figures as a reader of these languages writes them. languages : as a browser tells them, the first one counts."""
    first = languages.split(",")[0].split(";")[0].strip()
    try:
        told = _figures.set(Locale.parse(first, sep="-") if first else LOCALE)
    except (ValueError, UnknownLocaleError):
        told = _figures.set(LOCALE)
    try:
        yield
    finally:
        _figures.reset(told)


MINUS = "−"


def number(value: float, places: int = 1) -> str:
    """A number with so many places: “5.0”, “−0.4”; what rounds to nothing has no sign."""
    return _written(round(value, places) + 0.0, "0" if places == 0 else f"0.{'0' * places}", _figures.get())


@lru_cache(maxsize=4096)
def _written(value: float, pattern: str, locale: Locale) -> str:
    return str(format_decimal(value, format=pattern, locale=locale)).replace("-", MINUS)


def places_needed(values: Sequence[float], most: int = 2) -> int:
    """So many places that every one of them is told in full, `most` at most: a row of figures has the same."""
    return next((n for n in range(most) if all(round(value, n) == round(value, most) for value in values)), most)


def signed(value: float, places: int = 1) -> str:
    """A number with its sign: “+0.4”, “−0.4”, “0.0”."""
    shown = number(value, places)
    return f"+{shown}" if round(value, places) > 0 else shown


def of_unit(figure: str, unit: str) -> str:
    """A figure with its unit: an angle's sign stands close to it."""
    return f"{figure}{unit}" if unit == "°" else f"{figure} {unit}"


def short(value: float, most: int = 2) -> str:
    """A number with as many places as it needs, up to `most`: “328”, “27.5”, “0.35”."""
    return _written(round(value, most) + 0.0, f"0.{'#' * most}", _figures.get())
