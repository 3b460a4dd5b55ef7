"""Plain numbers as somebody types them: figures, counts. Nothing that only a computer calls a number is one."""

from __future__ import annotations

import re

_NUMBER = re.compile(r"(?P<sign>[+\-−]?)(?P<digits>\d{1,12}(?:[.,]\d{0,12})?|[.,]\d{1,12})", re.ASCII)
_WHOLE = re.compile(r"\d{1,9}", re.ASCII)


def plain_number(typed: str) -> float | None:
    """A number with either decimal mark, perhaps below 0; None for what is none.

    typed : up to twelve digits before and after the mark. “nan”, “inf”, “1e308” and digits of other scripts are none.

    >>> plain_number("-0,4"), plain_number("sNaN"), plain_number("1e308")
    (-0.4, None, None)
    """
    found = _NUMBER.fullmatch(typed.strip())
    if found is None:
        return None
    value = float(found["digits"].replace(",", "."))
    return -value if found["sign"] in ("-", "−") else value


_PARTS = {"⅛": 0.125, "¼": 0.25, "⅜": 0.375, "½": 0.5, "⅝": 0.625, "¾": 0.75, "⅞": 0.875}
_TURNS = re.compile(
    r"(?P<sign>[+\-−]?)\s*(?P<whole>\d{1,4})?\s*(?:(?P<part>[⅛¼⅜½⅝¾⅞])|(?<!\d)(?P<over>\d{1,2})/(?P<under>\d{1,2}))",
    re.ASCII,
)


def plain_turns(typed: str) -> float | None:
    """Turns of a wheel or a screw, as a number or with a fraction; None for what is none.

    >>> plain_turns("1 1/2"), plain_turns("−½"), plain_turns("0,25"), plain_turns("1/0")
    (1.5, -0.5, 0.25, None)
    """
    text = typed.strip()
    found = _TURNS.fullmatch(text)
    if found is None:
        return plain_number(text)
    if found["under"] is not None and int(found["under"]) == 0:
        return None
    part = _PARTS[found["part"]] if found["part"] else int(found["over"]) / int(found["under"])
    value = int(found["whole"] or 0) + part
    return -value if found["sign"] in ("-", "−") else value


def whole_number(typed: str) -> int | None:
    """A whole number from 0 up, of nine digits at most; None for what is none.

    >>> whole_number(" 12 "), whole_number("²"), whole_number("-1")
    (12, None, None)
    """
    found = _WHOLE.fullmatch(typed.strip())
    return None if found is None else int(found[0])
