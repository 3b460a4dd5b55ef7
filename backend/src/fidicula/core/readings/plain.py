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


def whole_number(typed: str) -> int | None:
    """A whole number from 0 up, of nine digits at most; None for what is none.

    >>> whole_number(" 12 "), whole_number("²"), whole_number("-1")
    (12, None, None)
    """
    found = _WHOLE.fullmatch(typed.strip())
    return None if found is None else int(found[0])
