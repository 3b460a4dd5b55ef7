"""Slips of typing: kept, doubted, with what may have been meant."""

from __future__ import annotations

from dataclasses import astuple

import pytest
from fidicula.core.readings.doubt import (
    Doubt,
    change_without_work,
    doubt_about_zero,
    doubt_of,
    leap_from,
    plausible_around,
)


def doubt(value: float, aim: float) -> Doubt | None:
    return doubt_of(value=value, plausible=plausible_around(aim), aim=aim, largest=3000)


@pytest.mark.parametrize(
    ("value", "aim", "meant"),
    [
        (55, 5.0, 5.5),  # a lost decimal mark
        (3.35, 33.5, 33.5),  # the mark one place too early
        (32.8, 328, 328),  # centimetres
        (1.05, 1050, 1050),  # a comma meant for thousands
        (0.197, 5.0, 5.0038),  # inches
        (610, 5.0, 6.1),
    ],
)
def test_a_slip_is_doubted_with_what_was_meant(value: float, aim: float, meant: float) -> None:
    found = doubt(value, aim)
    assert found is not None
    assert found.suggested == pytest.approx(meant)
    assert (found.code, found.about) == ("small" if value < aim else "large", aim)


@pytest.mark.parametrize(("value", "aim"), [(5.0, 5.0), (2.0, 5.0), (12.5, 5.0), (0.1, 0.5), (2.5, 0.5)])
def test_what_is_odd_but_can_be_is_left_alone(value: float, aim: float) -> None:
    """0.4 to 2.5 times a length over 2 mm, 0.15 to 5 times a smaller one; the limits count in."""
    assert doubt(value, aim) is None


def test_nonsense_has_no_suggestion() -> None:
    found = doubt(0, 5.0)
    assert found is not None
    assert found.suggested is None


@pytest.mark.parametrize(
    ("value", "before", "leaps"),
    [
        (33.5, 27.0, True),  # a spread typed for the projection
        (29.16, 27.0, False),  # eight hundredths of what stood there count in
        (29.17, 27.0, True),
        (24.83, 27.0, True),  # the other way just as much
        (9.0, 8.0, False),  # a millimetre is no leap
        (9.01, 8.0, True),
    ],
)
def test_a_length_far_from_what_stood_there_leaps(value: float, before: float, leaps: bool) -> None:
    found = leap_from(value=value, before=before)
    assert found == (Doubt("leap", before) if leaps else None)


@pytest.mark.parametrize(
    ("value", "uncertainty", "changed"),
    [(5.7, 0.02, False), (5.69, 0.02, True), (6.31, 0.02, True), (5.6, 0.1, False), (5.59, 0.1, True)],
)
def test_a_height_of_6_that_changed_with_nothing_done_is_asked_about(
    value: float, uncertainty: float, changed: bool
) -> None:
    """More than 0.3, and more than four times what measuring explains; the limits count as measured."""
    found = change_without_work(value=value, before=6.0, uncertainty=uncertainty)
    assert found == (Doubt("changed", 6.0) if changed else None)


@pytest.mark.parametrize(
    ("value", "aim", "meant"),
    [
        (50.0, 5.0, 5.0),
        (0.5, 5.0, 5.0),
        (500.0, 5.0, 5.0),
        (2.0, 200.0, 200.0),
        (0.328, 328.0, 328.0),
        (13.0, 330.0, 330.2),
    ],
)
def test_every_usual_slip_is_known(value: float, aim: float, meant: float) -> None:
    """A decimal mark one and two places off either way, a comma meant for thousands, inches."""
    found = doubt_of(value=value, plausible=plausible_around(aim), aim=aim, largest=5000)
    assert found is not None
    assert found.suggested == pytest.approx(meant)


def test_lengths_and_small_heights_are_doubted_from_other_shares() -> None:
    for aim, low, high in ((4, 1.6, 10), (2, 0.3, 10), (0.8, 0.12, 4)):
        assert astuple(plausible_around(aim)) == pytest.approx((low, high))


@pytest.mark.parametrize(
    ("value", "doubt"),
    [
        (2.5, None),
        (-2.5, None),
        (5, Doubt("large", 0.0, 0.5)),
        (-5, Doubt("large", 0.0, -0.5)),
        (120, Doubt("large", 0.0, 1.2)),
        (2600, Doubt("large", 0.0, None)),
    ],
)
def test_a_lean_lies_about_zero(value: float, doubt: Doubt | None) -> None:
    assert doubt_about_zero(value=value, beyond=2.5) == doubt
