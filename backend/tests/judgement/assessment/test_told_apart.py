"""Two things that are easily taken for each other: the one is read, and the other beside it changes nothing."""

from __future__ import annotations

from dataclasses import replace

import pytest
from fidicula.judgement.assessment.findings import spacing
from fidicula.judgement.assessment.judging import with_reading
from fidicula.judgement.assessment.nut import slot_turn
from fidicula.judgement.assessment.post import post_target
from fidicula.judgement.assessment.scoop import dressings, is_too_thin
from fidicula.judgement.instruction.instruct import instruct

from ...scenario import Bench, measured


def test_a_board_is_measured_across_at_the_nut_and_at_its_end() -> None:
    """23 at the nut: the first mark, 3.5 from the edge, lies 8 from the middle; 42 at its end says nothing of it."""
    bench = measured().read("fingerboard_width", 23.0, 42.0).read("string_mark_nut", 3.5, 9.0, 14.5, 19.5)
    found = spacing(bench.assess().state, "nut")
    assert found is not None
    assert found.offsets[0] == pytest.approx(-8.0)


def test_how_well_a_spread_is_known_is_told_by_both_marks() -> None:
    """The first by a caliper, the last by a rule: their uncertainties add."""
    bench = measured().without("bridge_spread")
    by_caliper = bench.copy().read("string_mark_bridge", 2.0, 13.0, 24.0, 35.0, tool="caliper")
    mixed = by_caliper.copy().read("string_mark_bridge", 35.0, at=3, tool="rule")
    fine, coarse = (one.assess().state.held("bridge_spread") for one in (by_caliper, mixed))
    assert fine is not None
    assert coarse is not None
    of_one = mixed.assess().state.reading_states["string_mark_bridge", 3].known_to
    assert coarse.resolution == pytest.approx(fine.resolution / 2 + of_one)


def test_one_edge_that_is_too_thin_is_enough() -> None:
    """The bass side is not read."""
    bench = measured().read("fingerboard_thickness", 3.5, at=1)
    state = bench.assess().state
    assert is_too_thin(state, dressings(state))


@pytest.mark.parametrize(("school", "by_peg"), [("fixed", False), ("to_peg", True)])
def test_a_slots_floor_falls_to_its_peg_unless_the_shop_has_one_fall(school: str, by_peg: bool) -> None:
    bench = Bench(schools={"slot_floor": school}).read("nut_thickness", 5.0)
    near, far = (
        slot_turn(bench.copy().read("peg_run", run).read("peg_drop", 8.0).read("peg_side", 2.0).assess().state, 0)
        for run in (20.0, 60.0)
    )
    assert near is not None
    assert far is not None
    assert (near != far) is by_peg
    assert (slot_turn(bench.assess().state, 0) is None) is by_peg


def test_a_far_side_is_of_the_post_that_stands_there() -> None:
    """13 to it on a cello: a post of 11 stands 2 behind the foot, one of 12 stands 1 behind it."""
    state = Bench("cello", schools={"post_setback": "far_side"}).assess().state
    plain, thick = post_target(state), post_target(state, post_diameter=12.0)
    assert plain is not None
    assert thick is not None
    assert (plain.setback, thick.setback) == pytest.approx((2.0, 1.0))
    assert (plain.is_read, thick.is_read) == (False, True)
    half = Bench("cello", schools={"post_setback": "half_post"}).assess().state
    by_half = [post_target(half, post_diameter=one) for one in (11.0, 12.0)]
    assert [one and one.setback for one in by_half] == [5.5, 6.0]


def test_a_post_behind_the_middle_of_its_foot_is_the_one_that_stands_there() -> None:
    bench = Bench(schools={"post_inset": "centred"}).read("bridge_foot_width", 41.5).read("foot_spread", 30.0)
    state = bench.assess().state
    figure = state.targets.others["post_diameter"].band.aim
    plain, same, thick = (post_target(state, post_diameter=one) for one in (None, figure, figure + 1.0))
    assert plain == same
    assert plain is not None
    assert thick is not None
    assert plain.inset - thick.inset == pytest.approx(0.5)


def test_a_height_is_turned_where_it_was_read_the_shortest_way_over_a_known_round() -> None:
    plain, wedge = measured(), measured().read("end_height", 5.2, at=0, tool="wedge", direction="shortest")
    assert plain.assess().state.as_read(("end_height", 0), 5.0) == 5.0
    assert wedge.assess().state.as_read(("end_height", 0), 5.0) < 4.99
    unknown = Bench(has_strings=False).read("end_height", 5.2, at=0, tool="wedge", direction="shortest")
    assert unknown.assess().state.as_read(("end_height", 0), 5.0) == 5.0


def test_one_more_reading_stands_as_if_all_were_read_anew() -> None:
    """One that corrects another takes its place, one that repeats it stands beside it."""
    before = measured().loaded()
    for repeats in (False, True):
        bench = measured().read("projection", 27.3, repeats=repeats)
        new = bench.readings[-1]
        old = next(one for one in before.readings if one.measure == "projection")
        corrected = old if repeats else replace(old, corrected_by=new.number)
        readings = [corrected if one is old else one for one in before.readings] + [new]
        anew = replace(measured().loaded(), readings=readings).state()
        added = with_reading(before.state(), new, readings)
        assert added.reading_states == anew.reading_states
        assert [one.id for one in added.readings] == [one.id for one in anew.readings]


def test_a_work_before_a_decision_does_not_fulfil_it() -> None:
    """The board was dressed, and is found humped again."""
    bench = measured().did("board_dressed")
    bench.read("relief", 0.5, 0.2, 0.6, 0.4, 0.1, 0.5)
    bench.readings = [replace(one, after_work=1) for one in bench.readings]
    bench.found("board", "board_hump").decided("board", "dress").decided("approval", "agreed", "by phone")
    told = bench.told()
    assert (told.code, told.is_decided) == ("dress_board", True)
    assert bench.did("board_dressed").told().code != "dress_board"


def test_a_baseline_is_lost_once_the_strings_are_off() -> None:
    def baseline(bench: Bench) -> bool:
        return next(stop.is_lost for stop in bench.assess().stops if stop.key == "baseline")

    assert not baseline(Bench(kind="strings"))
    assert baseline(Bench(kind="strings").did("strings_changed"))
    assert not baseline(measured(kind="strings").did("strings_changed"))


def test_figures_are_asked_for_until_heights_are_read() -> None:
    """A projection without a figure: a reading stands in for it, and nothing is computed before."""

    def without(bench: Bench) -> str:
        a = bench.assess()
        targets = replace(a.state.targets, missing=("projection",))
        return instruct(replace(a, computed=None, state=replace(a.state, targets=targets))).code

    assert without(Bench()) == "enter_figures"
    assert without(Bench().read("end_height", 5.5, 5.0, 4.5, 4.2)) != "enter_figures"
