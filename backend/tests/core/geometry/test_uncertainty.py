"""How well results are known: the root of the sum of squares, worked by hand and as properties."""

from __future__ import annotations

import math
from collections.abc import Mapping

import pytest
from fidicula.core.errors import CoreError
from fidicula.core.geometry.board import UprightHeight
from fidicula.core.geometry.string_lines import Board, mark_height
from fidicula.core.geometry.uncertainty import uncertainties
from hypothesis import given
from hypothesis import strategies as st

SMALL = st.floats(0, 0.5)


def test_a_mark_height_by_hand() -> None:
    """S/L = 1.2. ±0.05 at the end is ±0.06 at the bridge; ±0.25 at the nut counts by a fifth, ±0.05: together 0.078."""

    def mark(values: Mapping[str, float]) -> list[float]:
        return [
            mark_height(
                nut_height=UprightHeight(values["nut"]),
                end_height=UprightHeight(values["end"]),
                board=Board(string_length=324, fingerboard_length=values["board"], radius_end=42, projection=27),
            )
        ]

    values = {"nut": 0.5, "end": 5.0, "board": 270.0}
    found = uncertainties(outcome=mark, values=values, known_to={"nut": 0.25, "end": 0.05})
    assert found == pytest.approx((math.hypot(0.05, 0.06),))
    # A board's length of ±1 mm moves 4.5 mm of rise by 4.5 * (324/271 - 324/270) = -0.020.
    board = uncertainties(outcome=mark, values=values, known_to={"board": 1.0})
    assert board == pytest.approx((4.5 * 324 * (1 / 270 - 1 / 271),))


@given(a=SMALL, b=SMALL, c=SMALL)
def test_of_a_sum_the_parts_add_as_squares_and_never_shrink(a: float, b: float, c: float) -> None:
    def outcome(values: Mapping[str, float]) -> list[float]:
        return [sum(values.values()), values["a"]]

    total, alone = uncertainties(
        outcome=outcome, values={"a": 1.0, "b": 2.0, "c": 3.0}, known_to={"a": a, "b": b, "c": c}
    )
    assert total == pytest.approx(math.hypot(a, b, c))
    assert alone == pytest.approx(a)
    assert total >= max(a, b, c) - 1e-9


def test_an_input_at_its_limit_is_moved_the_other_way() -> None:
    """√ of 1 - x cannot be had above 1: from 1 down by 0.19 it changes by √0.19."""

    def root(values: Mapping[str, float]) -> list[float]:
        if values["x"] > 1:
            raise CoreError("x", sentence="too large")
        return [math.sqrt(1 - values["x"])]

    assert uncertainties(outcome=root, values={"x": 1.0}, known_to={"x": 0.19}) == pytest.approx((math.sqrt(0.19),))


def test_an_exact_input_does_not_end_the_count() -> None:
    """1.0 ± 0 and 2.0 ± 0.3: the sum is known to 0.3, whichever comes first."""

    def total(values: Mapping[str, float]) -> list[float]:
        return [sum(values.values())]

    values = {"exact": 1.0, "rough": 2.0}
    assert uncertainties(outcome=total, values=values, known_to={"exact": 0.0, "rough": 0.3}) == pytest.approx((0.3,))
    assert uncertainties(outcome=total, values=values, known_to={"rough": 0.3, "exact": 0.0}) == pytest.approx((0.3,))
