"""Creeping down on a cut."""

from __future__ import annotations

import pytest
from fidicula.core.work.stepwise_cut import Pass, next_pass
from hypothesis import given
from hypothesis import strategies as st


def test_without_a_pass_before_it_is_the_first() -> None:
    """1.0 less the reserve of 0.2."""
    assert next_pass(wood=1.0, uncertainty=0.05, passes=[]) == pytest.approx(0.8)


def test_the_next_pass_goes_by_the_share_that_the_last_one_took() -> None:
    """0.5 set out took 0.75: of 0.9 left, 0.9 / 1.5 is set out, less than all but the reserve."""
    assert next_pass(wood=0.9, uncertainty=0.02, passes=[Pass(0.5, 0.75)]) == pytest.approx(0.6)


def test_a_hand_that_takes_less_is_never_sent_below_the_target() -> None:
    """0.7 set out took 0.35: twice as much would be 0.8 of the 0.4 that are left; all but the reserve is 0.2."""
    assert next_pass(wood=0.4, uncertainty=0.05, passes=[Pass(0.7, 0.35)]) == pytest.approx(0.2)


def test_passes_of_unlike_shares_tell_nothing_of_the_hand() -> None:
    """1.0 of the first and 1.5 of the second: all but the reserve, not 0.9 / 1.5."""
    assert next_pass(wood=0.9, uncertainty=0.0, passes=[Pass(0.5, 0.5), Pass(0.5, 0.75)]) == pytest.approx(0.7)
    alike = [Pass(0.5, 0.65), Pass(0.5, 0.75)]
    assert next_pass(wood=0.9, uncertainty=0.0, passes=alike) == pytest.approx(0.6)


@pytest.mark.parametrize(("taken", "believed"), [(0.39, False), (0.4, True), (1.6, True), (1.61, False), (-0.1, False)])
def test_what_a_pass_cannot_have_taken_is_measured_again(taken: float, believed: bool) -> None:
    found = next_pass(wood=0.5, uncertainty=0.02, passes=[Pass(1.0, taken)])
    assert (found is not None) is believed


@given(
    wood=st.floats(0, 5),
    uncertainty=st.floats(0, 1),
    settling=st.sampled_from([0.0, 0.1]),
    shares=st.lists(st.floats(0.4, 1.6), max_size=3),
)
def test_no_pass_takes_more_than_is_left_and_sure(
    wood: float, uncertainty: float, settling: float, shares: list[float]
) -> None:
    passes = [Pass(1.0, share) for share in shares]
    found = next_pass(wood=wood, uncertainty=uncertainty, passes=passes, settling=settling)
    assert found is not None
    assert 0 <= found <= max(0.0, wood - uncertainty - settling) + 1e-9


def test_the_last_pass_is_the_one_that_has_to_be_believed() -> None:
    """An odd first pass is past; an odd last one is measured again."""
    odd, right = Pass(set_out=0.5, taken=2.0), Pass(set_out=0.5, taken=0.5)
    assert not odd.is_believable
    assert next_pass(wood=0.4, uncertainty=0.1, passes=[odd, right]) is not None
    assert next_pass(wood=0.4, uncertainty=0.1, passes=[right, odd]) is None
