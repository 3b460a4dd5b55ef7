"""Creeping down on a cut."""

from __future__ import annotations

import pytest
from fidicula.core.work.creeping import Pass, first_pass, next_pass
from hypothesis import given
from hypothesis import strategies as st


@pytest.mark.parametrize(
    ("wood", "uncertainty", "settling", "take"),
    [
        (1.0, 0.05, 0.0, 0.7),  # seven tenths first
        (0.5, 0.05, 0.0, 0.35),  # from half a millimetre on in two passes
        (0.49, 0.05, 0.0, 0.44),  # less goes at once, but for what measuring cannot tell
        (1.0, 0.35, 0.0, 0.65),  # never into the uncertainty
        (1.0, 0.25, 0.1, 0.65),  # nor into what new strings may still drop
        (0.1, 0.12, 0.0, 0.0),
        (-0.3, 0.05, 0.0, 0.0),
    ],
)
def test_the_first_pass_leaves_what_is_not_sure(wood: float, uncertainty: float, settling: float, take: float) -> None:
    assert first_pass(wood=wood, uncertainty=uncertainty, settling=settling) == pytest.approx(take)


def test_without_a_pass_before_it_is_the_first() -> None:
    assert next_pass(wood=1.0, uncertainty=0.05, passes=[]) == pytest.approx(0.7)


def test_the_next_pass_goes_by_the_share_that_the_last_one_took() -> None:
    """0.7 set out took 0.84: of 0.44 left, 0.44 ÷ 1.2 is set out."""
    assert next_pass(wood=0.44, uncertainty=0.02, passes=[Pass(0.7, 0.84)]) == pytest.approx(0.44 / 1.2)


def test_a_hand_that_takes_less_is_never_sent_below_the_target() -> None:
    """0.7 set out took 0.35: twice as much would be 0.8 of the 0.4 that are left; 0.35 is all that is sure."""
    assert next_pass(wood=0.4, uncertainty=0.05, passes=[Pass(0.7, 0.35)]) == pytest.approx(0.35)


def test_passes_of_unlike_shares_tell_nothing_of_the_hand() -> None:
    """0.6 of the first and 1.0 of the second: a first pass again, not 0.5 ÷ 1."""
    assert next_pass(wood=0.6, uncertainty=0.0, passes=[Pass(1.0, 0.6), Pass(0.5, 0.5)]) == pytest.approx(0.42)
    alike = [Pass(1.0, 0.75), Pass(0.5, 0.5)]
    assert next_pass(wood=0.4, uncertainty=0.0, passes=alike) == pytest.approx(0.4)


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
