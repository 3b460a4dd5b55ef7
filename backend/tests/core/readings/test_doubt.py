"""Slips of typing: kept, doubted, with what may have been meant."""

from __future__ import annotations

import pytest
from fidicula.core.readings.doubt import Doubt, doubt_of, plausible_around


def doubt(value: float, aim: float) -> Doubt | None:
    return doubt_of(value=value, plausible=plausible_around(aim), aim=aim, largest=3000, name="it")


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
    assert f"{meant:g}" in found.sentence


@pytest.mark.parametrize(("value", "aim"), [(5.0, 5.0), (2.0, 5.0), (12.5, 5.0), (0.1, 0.5), (2.5, 0.5)])
def test_what_is_odd_but_can_be_is_left_alone(value: float, aim: float) -> None:
    """0.4 to 2.5 times a length over 2 mm, 0.15 to 5 times a smaller one; the limits count in."""
    assert doubt(value, aim) is None


def test_nonsense_has_no_suggestion() -> None:
    found = doubt(0, 5.0)
    assert found is not None
    assert found.suggested is None
