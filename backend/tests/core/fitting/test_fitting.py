"""Nut, post, blanks, afterlength, wheels and gauges."""

from __future__ import annotations

import math

import pytest
from fidicula.core.errors import DoesNotFitError
from fidicula.core.fitting.nut import Peg, judge_slot, smallest_file, turn_to_peg
from fidicula.core.fitting.post import (
    BlankChoice,
    as_gauged,
    bar_insets,
    ends_room_change,
    fit_after,
    lean_room_change,
    leaning_bottom,
    nearest_blank,
    post_place,
    room_change,
    stance,
)
from fidicula.core.fitting.tailpiece import (
    StringChange,
    adjuster_legs,
    nearest_gauge,
    plan_afterlength,
    wanted_tension,
)
from hypothesis import given
from hypothesis import strategies as st


@given(st.floats(3, 12), st.floats(1, 60), st.floats(1, 40), st.floats(-15, 15))
def test_the_slots_floor_points_straight_to_the_peg(thickness: float, behind: float, drop: float, side: float) -> None:
    """From the back of the nut, the arc's last direction goes through the peg."""
    peg = Peg(run=thickness + behind, drop=drop, side=side)
    turn = turn_to_peg(nut_thickness=thickness, peg=peg)
    fall = math.radians(turn.fall_angle)
    assert turn.floor_fall + behind * math.tan(fall) == pytest.approx(drop, rel=1e-6)
    assert turn.floor_radius * math.sin(fall) == pytest.approx(thickness)
    assert turn.floor_radius * (1 - math.cos(fall)) == pytest.approx(turn.floor_fall, rel=1e-6)


@pytest.mark.parametrize(
    ("height", "state"), [(0.56, "file"), (0.55, "at_target"), (0.45, "at_target"), (0.44, "too_low")]
)
def test_slots_are_judged_with_their_limits_in(height: float, state: str) -> None:
    assert judge_slot(height=height, target_height=0.5, tolerance=0.05) == state


def test_the_smallest_file_that_does_not_grip_is_taken() -> None:
    assert smallest_file(files=[1.1, 0.9, 0.84, 0.7], wanted=(0.84, 1.08)) == 0.84
    assert smallest_file(files=[0.7, 1.1], wanted=(0.84, 1.08)) is None


def test_post_place_by_hand() -> None:
    """A 6 mm post 3 behind the foot and 2 inside a 40 mm foot width: its middle is at 6 and 20 - 2 - 3 = 15."""
    assert post_place(setback=3, inset=2, foot_width=40, post_diameter=6) == (6, 15)


def test_moving_a_post_outward_under_closing_plates_makes_it_tight() -> None:
    change = room_change(offset_change=1.0, top_slope=5, back_slope=3)
    assert change == pytest.approx(-(math.tan(math.radians(5)) + math.tan(math.radians(3))))
    assert fit_after(change=change, tolerance=0.1) == "tighter"
    assert fit_after(change=-0.1, tolerance=0.1) == "same"
    assert fit_after(change=0.11, tolerance=0.1) == "looser"


def test_the_bar_stays_where_it_is_under_another_blank() -> None:
    """Bar 1.6 inside a foot of 41.8: its edge is 19.3 from the middle; under 41 that is 1.2 inside."""
    assert bar_insets(foot_width=41.8, bar_inset=1.6, widths=[41]) == pytest.approx([1.2])
    choices = [BlankChoice(42, 1.5), BlankChoice(41, 0.9)]
    assert nearest_blank(choices=choices, bar_inset_target=1.2) == BlankChoice(41, 0.9)


def test_afterlength_as_far_as_the_saddle_lets_it() -> None:
    plan = plan_afterlength(string_length=330, measured=51, saddle_gap=2, divisor=6)
    assert (plan.target, plan.shift_to_saddle, plan.reachable, plan.best) == (55, 4, False, 52)
    assert plan_afterlength(string_length=330, measured=51, saddle_gap=2, divisor=None).target == 52


def test_wheels_carry_the_strings_as_they_were_asked() -> None:
    """Legs at the strings' own places move as the strings do; further out, further."""
    bass, treble = StringChange(-40, -2), StringChange(40, -1)
    assert adjuster_legs(bass_string=bass, treble_string=treble, adjuster_spread=80) == (-2, -1)
    assert adjuster_legs(bass_string=bass, treble_string=treble, adjuster_spread=160) == (-2.5, -0.5)


def test_a_semitone_sharp_wants_a_ninth_more_tension() -> None:
    assert wanted_tension(tension=100, cents=600) == pytest.approx(200)
    assert nearest_gauge(wanted=105, tensions=[110, 100]) == 1
    assert nearest_gauge(wanted=105, tensions=[]) is None


def test_each_end_of_a_post_makes_its_own_room() -> None:
    """Top 1.0 outward under 3.5 degrees, bottom 0.5 inward over 2.5: -(0.06116 - 0.02183) = -0.0393."""
    change = ends_room_change(top_offset_change=1.0, bottom_offset_change=-0.5, top_slope=3.5, back_slope=2.5)
    assert change == pytest.approx(-0.0393, abs=1e-4)


@given(st.floats(-5, 5), st.floats(-10, 10), st.floats(-10, 10))
def test_with_both_ends_alike_it_is_the_whole_posts_room(over: float, top: float, back: float) -> None:
    alike = ends_room_change(top_offset_change=over, bottom_offset_change=over, top_slope=top, back_slope=back)
    assert alike == pytest.approx(room_change(offset_change=over, top_slope=top, back_slope=back), abs=1e-12)


def test_a_posts_lean_and_the_room_along_it() -> None:
    """A post of 53 whose top stands 0.925 toward the tailpiece leans asin(0.925 / 53) = 1.0 degrees that way.

    Set upright it is longer than its room by 53 - sqrt(53^2 - 0.925^2) = 0.0081: a little tighter.
    """
    leans = stance(top=(5.925, 15.0), bottom=(5.0, 15.0), length=53)
    assert (leans.along, leans.across) == (pytest.approx(1.0, abs=1e-3), 0)
    tighter = lean_room_change(apart_now=0.925, apart_then=0.0, length=53)
    assert tighter == pytest.approx(-(53 - math.sqrt(53**2 - 0.925**2)))
    assert lean_room_change(apart_now=0.925, apart_then=0.925, length=53) == pytest.approx(0)
    with pytest.raises(DoesNotFitError, match="longer than 60 mm"):
        stance(top=(60, 0), bottom=(0, 0), length=53)
    with pytest.raises(DoesNotFitError, match="longer than 60 mm"):
        lean_room_change(apart_now=60, apart_then=0, length=53)


@given(st.floats(-5, 30), st.floats(-5, 30), st.floats(20, 200), st.floats(3, 20))
def test_a_card_gauge_reads_back_what_placed_the_post(setback: float, inset: float, foot: float, post: float) -> None:
    at = post_place(setback=setback, inset=inset, foot_width=foot, post_diameter=post)
    read = as_gauged(at, foot_width=foot, post_diameter=post)
    assert (read.setback, read.inset) == (pytest.approx(setback, abs=1e-9), pytest.approx(inset, abs=1e-9))


@given(st.floats(-8, 8), st.floats(40, 400))
def test_a_post_set_to_lean_with_its_bridge_leans_so(lean: float, length: float) -> None:
    bottom = leaning_bottom(top=(6.0, 15.0), length=length, lean=lean)
    found = stance(top=(6.0, 15.0), bottom=bottom, length=length)
    assert (found.along, found.across) == (pytest.approx(lean, abs=1e-6), 0)
