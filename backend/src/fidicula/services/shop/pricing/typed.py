"""Amounts as they are typed, and as somebody says what an instrument is worth."""

from __future__ import annotations

import re
from decimal import Decimal, InvalidOperation

from fidicula import limits
from fidicula.domain.errors import RefusedError

_GROUPED = re.compile(r"\d{1,3}([.,])\d{3}", re.ASCII)
_PLAIN = re.compile(r"\d+(?:[.,]\d+)?", re.ASCII)
_BOTH = re.compile(r"\d{1,3}(?:([.,])\d{3})+([.,])\d+", re.ASCII)


def typed_amount(typed: str, *, what: str, field: str, most: Decimal = limits.MOST_AMOUNT) -> Decimal:
    """An amount as somebody types it, with either decimal mark. Raises RefusedError naming `field`.

    what : it is, in words, for instance “the price”.
    """
    plain = re.sub(r"[\s\u00a0\u202f']", "", typed)
    grouped, both = _GROUPED.fullmatch(plain), _BOTH.fullmatch(plain)
    if grouped:
        bare = plain.replace(grouped.group(1), "")
        asked = f"{what}: is {typed.strip()} meant as {bare}? Type {bare}, or two places after the mark"
        raise RefusedError(asked, field=field)
    if both and both.group(1) != both.group(2):
        plain = plain.replace(both.group(1), "").replace(both.group(2), ".")
    elif not _PLAIN.fullmatch(plain):
        told = f"{what}: type an amount with one decimal mark, for instance 12.50; it was “{typed.strip()[:40]}”"
        raise RefusedError(told, field=field)
    try:
        amount = Decimal(plain.replace(",", "."))
    except InvalidOperation as error:
        raise RefusedError(f"{what}: type an amount, for instance 12.50", field=field) from error
    if amount > most:
        raise RefusedError(f"{what}: {typed.strip()[:40]} is more than can be meant", field=field)
    if -amount.normalize().as_tuple().exponent > limits.AMOUNT_PLACES:  # type: ignore[operator]
        told = f"{what}: type {limits.AMOUNT_PLACES} places after the mark at most; it was “{typed.strip()[:40]}”"
        raise RefusedError(told, field=field)
    return amount
