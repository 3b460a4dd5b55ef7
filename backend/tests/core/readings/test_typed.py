"""What is typed at the bench, and by a caliper that types by itself."""

from __future__ import annotations

import pytest
from fidicula.core.errors import CoreError, UnreadableError
from fidicula.core.readings.typed import in_unit, millimetres, signed_number


@pytest.mark.parametrize(
    ("typed", "value"),
    [
        ("5.2", 5.2),
        ("5,2", 5.2),
        (".85", 0.85),
        ("5.", 5.0),
        ("+005.12mm", 5.12),
        (" 5.12 MM\r", 5.12),
        ("32.8cm", 328.0),
        ("1 050 mm", 1050.0),
        ("+ 5.2", 5.2),
        ("0.5in", 12.7),
        ('1"', 25.4),
        ("27,35", 27.35),
        ("0", 0.0),
        ("-0.00", 0.0),
    ],
)
def test_both_decimal_marks_signs_and_units_are_understood(typed: str, value: float) -> None:
    assert millimetres(typed) == pytest.approx(value)


@pytest.mark.parametrize(
    "typed", ["", "  ", "abc", "5.2.1", "1.050,5", "5 2", "5. 2", "1 05", "5x", "5 furlongs", "NaN", "1e3", "--5", "٣"]
)
def test_anything_else_is_told_with_its_place_and_what_would_do(typed: str) -> None:
    with pytest.raises(UnreadableError) as refused:
        millimetres(typed, what="G at the nut")
    assert refused.value.path == ("typed",)
    assert refused.value.sentence.startswith("G at the nut")


def test_what_is_far_too_long_is_told_by_its_beginning() -> None:
    with pytest.raises(UnreadableError, match=f"“{'x' * 40}” is not a measurement"):
        millimetres("x" * 400)


def test_a_negative_height_cannot_be() -> None:
    with pytest.raises(CoreError, match="cannot be negative"):
        millimetres("-5.1", what="G at the board's end")


def test_a_change_may_be_negative_and_a_reading_may_not() -> None:
    assert signed_number("-0,2") == pytest.approx(-0.2)
    assert signed_number("−0.2 mm") == pytest.approx(-0.2)
    with pytest.raises(CoreError, match="cannot be negative"):
        millimetres("-0,2")


@pytest.mark.parametrize(
    ("typed", "inches"),
    [("13/64", 13 / 64), ("1-3/64", 1 + 3 / 64), ("1 3/64 in", 1 + 3 / 64), ('5/8"', 0.625), ("12 7/8in", 12.875)],
)
def test_a_fraction_is_of_an_inch_whatever_stands_behind_it(typed: str, inches: float) -> None:
    assert millimetres(typed) == pytest.approx(inches * 25.4)


@pytest.mark.parametrize("typed", ["1/3", "13/60", "1/64mm", "3/", "/64", "1/2/4"])
def test_a_fraction_that_is_on_no_rule_is_refused(typed: str) -> None:
    with pytest.raises(UnreadableError):
        millimetres(typed)


@pytest.mark.parametrize(
    ("unit", "typed", "value"),
    [("°", "158°", 158), ("%", "48,5 %", 48.5), ("°C", "20.5", 20.5), ("°C", "20.5 °C", 20.5), ("Hz", "442Hz", 442)],
)
def test_what_is_no_length_says_its_own_unit(unit: str, typed: str, value: float) -> None:
    assert in_unit(unit, typed, what="it") == value


@pytest.mark.parametrize(("unit", "typed"), [("°", "158 mm"), ("%", "48 Hz"), ("Hz", "A"), ("°C", ""), ("%", "-5")])
def test_another_unit_is_no_such_thing(unit: str, typed: str) -> None:
    with pytest.raises(CoreError):
        in_unit(unit, typed, what="it")


@pytest.mark.parametrize("typed", ["158x", "158°x", "x"])
def test_what_ends_in_no_digit_is_named_as_what_it_is_not(typed: str) -> None:
    """The last sign decides: it is told that it is no angle, not that a unit is unknown."""
    with pytest.raises(CoreError, match="is no angle"):
        in_unit("°", typed, what="it")
