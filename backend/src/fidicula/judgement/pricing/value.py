"""What an instrument is worth, as somebody says it."""

from __future__ import annotations

import re
from decimal import Decimal, InvalidOperation

from fidicula import limits


def said_value(words: str) -> Decimal | None:
    """The first amount in what was said of an instrument's value; None where there is none.

    “about 2 000”, “2.000,-” and “1,200.50” are understood: a mark before three digits groups them here.
    """
    found = re.search(r"\d[\d.,\s\u00a0']*", words)
    if found is None:
        return None
    digits = re.sub(r"[\s\u00a0']", "", found.group()).rstrip(".,")
    digits = re.sub(r"[.,](?=\d{3}(?:\D|$))", "", digits).replace(",", ".")
    try:
        value = Decimal(digits)
    except InvalidOperation:
        return None
    return value if 0 < value <= limits.MOST_AMOUNT else None
