"""Amounts as hands type them, with either decimal mark, and what is said of an instrument's value."""

from __future__ import annotations

from decimal import Decimal

import pytest
from fidicula.domain.errors import RefusedError
from fidicula.judgement.pricing.value import said_value
from fidicula.services.shop.pricing.typed import typed_amount


@pytest.mark.parametrize(
    ("typed", "amount"),
    [
        ("12", "12"),
        ("12.5", "12.5"),
        ("12,50", "12.50"),
        ("1 200", "1200"),
        ("1.200,50", "1200.50"),
        ("1,200.50", "1200.50"),
        ("1.234.567,8", "1234567.8"),
        ("0,005", None),
        ("1.200", None),
        ("1,2,3", None),
        ("1.2.3", None),
        ("-1", None),
        ("", None),
        ("twelve", None),
        ("10000001", None),
    ],
)
def test_an_amount_is_read_or_refused_with_its_field(typed: str, amount: str | None) -> None:
    if amount is None:
        with pytest.raises(RefusedError) as refused:
            typed_amount(typed, what="the price", field="price")
        assert refused.value.field == "price"
        assert refused.value.sentence.startswith("the price")
    else:
        assert typed_amount(typed, what="the price", field="price") == Decimal(amount)


@pytest.mark.parametrize(
    ("words", "value"),
    [
        ("about 900", "900"),
        ("2 000 to the family", "2000"),
        ("1.500,-", "1500"),
        ("1,200.50", "1200.50"),
        ("between 800 and 1000", "800"),
        ("a family piece", None),
        ("0", None),
        ("", None),
    ],
)
def test_the_first_amount_in_what_is_said_is_its_value(words: str, value: str | None) -> None:
    assert said_value(words) == (None if value is None else Decimal(value))
