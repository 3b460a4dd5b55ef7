"""Sayings in numbers, by hand and with a pencil."""

from __future__ import annotations

import pytest
from fidicula.core.errors import CoreError
from fidicula.core.mechanics.perspective import (
    cents_of_length,
    gape_of_shift,
    pull_growth,
    pull_of_cents,
    shift_of_lean,
)
from hypothesis import given
from hypothesis import strategies as st

LENGTHS = st.floats(100, 1200)


def test_five_millimetres_more_on_a_violin() -> None:
    """(333 / 328)² = 1.0307: the pull grows by 3 %."""
    assert pull_growth(string_length=328, longer=5) == pytest.approx(0.03072, abs=1e-5)


def test_a_millimetre_between_the_outer_strings() -> None:
    """1200 · log₂(329 / 328) = 5.27 cents."""
    assert cents_of_length(string_length=328, difference=1) == pytest.approx(5.27, abs=0.01)


def test_twenty_cents_sharp() -> None:
    """2^(40 / 1200) = 1.0234."""
    assert pull_of_cents(20) == pytest.approx(0.02337, abs=1e-5)
    assert pull_of_cents(-1200) == pytest.approx(-0.75)


def test_half_a_millimetre_at_one_end_of_a_violins_post() -> None:
    """0.5 / 53 over 6 mm: 0.057 mm."""
    assert gape_of_shift(shift=-0.5, length=53, diameter=6) == pytest.approx(0.0566, abs=1e-4)


@given(length=LENGTHS, cents=st.floats(-50, 50))
def test_longer_at_one_pitch_pulls_as_much_as_sharper_at_one_length(length: float, cents: float) -> None:
    longer = length * (2 ** (cents / 1200) - 1)
    assert pull_growth(string_length=length, longer=longer) == pytest.approx(pull_of_cents(cents), abs=1e-9)
    assert cents_of_length(string_length=length, difference=longer) == pytest.approx(cents, abs=1e-6)


@pytest.mark.parametrize(
    ("call", "field"),
    [
        (lambda: pull_growth(string_length=0, longer=1), "string_length"),
        (lambda: pull_growth(string_length=300, longer=-300), "longer"),
        (lambda: cents_of_length(string_length=-1, difference=1), "string_length"),
        (lambda: cents_of_length(string_length=300, difference=-300), "difference"),
        (lambda: gape_of_shift(shift=1, length=0, diameter=6), "length"),
        (lambda: gape_of_shift(shift=1, length=53, diameter=0), "diameter"),
    ],
)
def test_what_cannot_be_names_its_field(call: object, field: str) -> None:
    with pytest.raises(CoreError) as refused:
        call()  # type: ignore[operator]
    assert refused.value.path == (field,)


def test_one_degree_over_a_violins_post() -> None:
    """sin 1° · 53 = 0.925 mm; its 6 mm end then gapes by 0.925 / 53 · 6 = 0.105."""
    shift = shift_of_lean(degrees=1, length=53)
    assert shift == pytest.approx(0.925, abs=1e-3)
    assert gape_of_shift(shift=shift, length=53, diameter=6) == pytest.approx(0.105, abs=1e-3)
    for length in (0, -53):
        with pytest.raises(CoreError, match="length is over 0"):
            shift_of_lean(degrees=1, length=length)
