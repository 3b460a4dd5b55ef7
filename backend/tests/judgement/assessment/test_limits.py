"""Where a limit stands and which side it counts to, worked by hand: one step inside and one outside."""

from __future__ import annotations

from datetime import timedelta

import pytest
from fidicula.core.readings.doubt import Plausible
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.columns import columns
from fidicula.judgement.assessment.findings import off_middle, spacing
from fidicula.judgement.assessment.leaning import width_at_bridge
from fidicula.judgement.assessment.likely import plausible_at
from fidicula.judgement.assessment.placing import is_beside
from fidicula.judgement.assessment.post import post_target
from fidicula.judgement.assessment.projection import is_unsure
from fidicula.judgement.measures import MEASURES

from ...scenario import SLOPE, Bench, measured


def test_the_boards_line_passes_the_middle_on_the_side_of_the_nearer_nick() -> None:
    """20 and 18 to the nicks: the line is 1 nearer to the treble nick, so -1 on the bass side."""
    state = Bench().read("neck_to_nick", 20.0, 18.0).assess().state
    assert off_middle(state) == pytest.approx(-1.0)
    assert off_middle(Bench().read("neck_to_nick", 18.0, 18.0).assess().state) == pytest.approx(0.0)
    for at in (0, 1):
        assert off_middle(Bench().read("neck_to_nick", 20.0, at=at).assess().state) is None


def test_a_column_stands_the_way_most_of_its_strings_were_read() -> None:
    bench = measured()
    heights = bench.aims("end_height")
    for i in (0, 1, 2):
        bench.read("end_height", heights[i] / SLOPE, at=i, direction="shortest")
    state = bench.assess().state
    column = columns(state)["end_height"]
    assert column.direction == "shortest"
    shown, direction = column.value(state, 3, heights[3], "vertical")
    assert direction == "shortest"
    # Square to a board that slopes away under the outer string: less than along the slope alone.
    assert 0.9 * heights[3] / SLOPE < shown < heights[3] / SLOPE
    assert column.value(state, 0, 4.0, "shortest") == (4.0, "shortest")
    wanted = column.wanted(state, 3, state.wanted_upright(("end_height", 3)))
    assert wanted is not None
    assert wanted.direction == "shortest"
    upright = state.wanted_upright(("end_height", 3))
    assert upright is not None
    assert wanted.band.high / upright.band.high == pytest.approx(shown / heights[3], rel=0.01)
    two = measured()
    for i in (0, 1):
        two.read("end_height", heights[i] / SLOPE, at=i, direction="shortest")
    assert columns(two.assess().state)["end_height"].direction == "vertical"


def test_a_height_of_a_string_between_is_about_what_its_neighbours_say() -> None:
    state = Bench().assess().state
    low, high = state.usual(("end_height", 0)), state.usual(("end_height", 3))
    assert low is not None
    assert high is not None
    assert state.usual(("end_height", 1)) == pytest.approx(low + (high - low) / 3)
    assert state.usual(("end_height", 2)) == pytest.approx(high + (low - high) / 3)
    ratio = state.targets.slot_depth_ratio
    assert ratio is not None
    assert state.usual(("slot_depth", 2)) == pytest.approx(ratio * 0.68)
    assert Bench(has_strings=False).assess().state.usual(("slot_depth", 2)) is None


def test_the_board_drawn_out_is_wider_at_the_bridge() -> None:
    """From 24 to 42 over 270 it widens by 18: at 328 it is 45.87."""
    bench = Bench().read("fingerboard_width", 24.0, 42.0).read("fingerboard_length", 270.0).read("string_length", 328.0)
    assert width_at_bridge(bench.assess().state) == pytest.approx(24 + 18 * 328 / 270)


@pytest.mark.parametrize(("after", "off"), [(54.7, False), (57.2, False), (52.1, False), (57.4, True), (52.0, True)])
def test_a_sixth_is_near_enough_within_eight_thousandths_of_the_string(after: float, off: bool) -> None:
    """328 / 6 = 54.667; 0.8 % of the string length is 2.624."""
    signs = measured(singles={"string_length": 328.0}).read("afterlength", after).assess().signs
    assert ("afterlength_off" in signs) is off


def test_the_post_stands_half_of_what_was_read_behind_the_foot() -> None:
    """The usual setback is half a post; a post of 6.5 that was read moves it, one from the figures does not."""
    by_post = Bench(schools={"post_setback": "half_post"}).assess().state
    usual, read = post_target(by_post), post_target(by_post, post_diameter=6.5)
    assert usual is not None
    assert read is not None
    diameter = by_post.targets.others["post_diameter"].band.aim
    assert (usual.is_read, read.is_read) == (False, True)
    assert read.setback == pytest.approx(usual.setback / diameter * 6.5)
    mirrored = Bench(schools={"post_inset": "mirror_bar"}).read("bar_inset", 1.4).assess().state
    found = post_target(mirrored)
    assert found is not None
    assert (found.inset, found.is_read) == (1.4, True)


def test_what_is_decided_to_wait_waits_its_hours_from_then() -> None:
    bench = measured(visit={"climate": "damp"}).decided("acclimatise", "wait")
    asked = bench.assess().question("acclimatise")
    assert asked is not None
    assert asked.outcome is not None
    assert asked.outcome.waits_hours is not None
    assert asked.waits_until == bench.now + timedelta(hours=asked.outcome.waits_hours)


def swapped(*indexes: int) -> Bench:
    """Every string high, those typed from the treble side."""
    bench = measured(over=0.4)
    heights = [one.value for one in bench.readings if one.measure == "end_height"]
    for i in indexes:
        bench.read("end_height", heights[3 - i], at=i)
    return bench


def test_heights_the_other_way_round_are_told_from_one_that_is_odd() -> None:
    codes = [slip.code for slip in swapped(0, 1, 2, 3).assess().slips]
    assert "bass_treble_swapped" in codes
    assert "bass_treble_swapped" not in [slip.code for slip in swapped(3).assess().slips]
    kept = swapped(0, 1, 2, 3)
    kept.readings = [one.__class__(**{**vars(one), "confirmed": True}) for one in kept.readings]
    assert "bass_treble_swapped" not in [slip.code for slip in kept.assess().slips]


@pytest.mark.parametrize(
    ("strings", "slips"),
    [
        ((("G", 0.27), ("D", 0.68), ("A", 0.86), ("E", 0.80)), True),
        ((("G", 0.80), ("D", 0.86), ("A", 0.68), ("E", 0.80)), False),
        ((("E", 2.50), ("A", 2.00), ("D", 3.00)), True),
        ((("G", 0.27), ("E", 0.80)), False),
    ],
)
def test_a_set_with_its_thin_string_in_the_bass_is_the_wrong_way_round(
    strings: tuple[tuple[str, float], ...], slips: bool
) -> None:
    codes = [slip.code for slip in Bench(strings=strings).assess().slips]
    assert ("strings_swapped" in codes) is slips


def test_slots_read_from_an_edge_stand_from_the_middle_of_the_board() -> None:
    """A board of 24 at the nut, the first mark 3.85 from its edge: 8.15 from the middle on the bass side."""
    bench = measured().read("fingerboard_width", 24.0, at=0)
    bench.read("string_mark_nut", 3.85, 9.25, 14.75, 20.15)
    found = spacing(bench.assess().state, "nut")
    assert found is not None
    assert found.offsets[0] == pytest.approx(3.85 - 12.0)
    assert found.offsets[-1] == pytest.approx(3.85 - 12.0 + 16.3)


@pytest.mark.parametrize(("over", "may"), [(1.0, True), (0.02, False)])
def test_a_cut_may_be_recorded_where_there_is_wood_to_take(over: float, may: bool) -> None:
    """The inspection comes first here: the crown may be recorded beside it."""
    told = measured(over=over, nut_over=0.3, kind="full_set_up").told()
    assert told.records == ""
    assert ("crown_cut" in told.also) is may


def test_a_flat_under_the_low_string_is_counted_in_the_crown_and_not_in_its_heights() -> None:
    """The C's height is read over the flat: what it has to drop stays, its wanted height reads as before, and the curve
    through the inner strings comes down with it."""
    plain = measured("cello", over=1.0).assess()
    flat = measured("cello", over=1.0).read("facet_width", 20.0).read("facet_string", 10.0).assess()
    drop = flat.state.facet
    assert drop > 0.2
    assert flat.cut.strings[0].target_end == pytest.approx(plain.cut.strings[0].target_end, abs=0.01)
    assert flat.cut.strings[0].drop == pytest.approx(plain.cut.strings[0].drop or 0, abs=0.01)
    assert (flat.cut.strings[1].target_end or 0) < (plain.cut.strings[1].target_end or 0) - 0.1
    assert flat.state.facet_at(1) == 0


def test_a_chord_tells_a_radius_with_its_rise_alone() -> None:
    """c² / 8h + h / 2: 30 and 2.8 make 41.6."""
    place: MeasurementKey = ("fingerboard_radius", None)
    assert Bench().read("board_chord", 30.0).assess().state.derived(place) is None
    assert Bench().read("board_rise", 2.8).assess().state.derived(place) is None
    told = Bench().read("board_chord", 30.0).read("board_rise", 2.8).assess().state.derived(place)
    assert told is not None
    assert told.value == pytest.approx(30**2 / (8 * 2.8) + 1.4)


def test_two_cards_tell_a_height_between_them() -> None:
    """0.40 passes and 0.50 does not: 0.45, to half of what lies between."""
    bench = Bench().read("nut_passes", 0.40, at=1)
    assert bench.assess().state.derived(("nut_height", 1)) is None
    told = bench.read("nut_stops", 0.50, at=1).assess().state.derived(("nut_height", 1))
    assert told is not None
    assert (told.value, told.known_to) == (pytest.approx(0.45), pytest.approx(0.05))


def test_what_may_lie_either_side_is_plausible_on_both() -> None:
    assert plausible_at(MEASURES["post_inset"], 3.0) == Plausible(-7.5, 7.5)
    assert plausible_at(MEASURES["string_length"], 300.0).low == pytest.approx(120.0)


def test_a_flat_that_no_board_can_have_is_none() -> None:
    state = measured().read("facet_width", 60.0).read("facet_string", 1.0).read("fingerboard_width", 42.0, at=1)
    assert state.assess().state.facet == 0.0


@pytest.mark.parametrize(("shift", "beside"), [(0.0, False), (-1.2, False), (1.2, False), (-1.4, True), (1.4, True)])
def test_a_bridge_is_beside_its_place_by_more_than_a_rule_tells(shift: float, beside: bool) -> None:
    """0.004 of 327 is 1.31: the line between the nicks is 195 from the edge, the bridge's stop that or about it."""
    bench = measured(kind="full_set_up").read("nick_stop", 195.0, 195.0).read("stop_length", 195.0 + shift, at=0)
    assert is_beside(bench.assess().state, "nicks") is beside


@pytest.mark.parametrize(("times", "unsure"), [(1, True), (3, True), (4, False)])
def test_a_projection_at_the_edge_is_read_four_times(times: int, unsure: bool) -> None:
    low = measured().assess().state.targets[("projection", None)]
    assert low is not None
    bench = measured().read("projection", low.band.low - 0.03, times=times)
    assert is_unsure(bench.assess().state) is unsure
    far = measured().read("projection", low.band.low - 2.0)
    assert not is_unsure(far.assess().state)


def test_what_was_decided_of_a_projection_holds_for_that_projection_alone() -> None:
    bench = measured(singles={"projection": 24.6}).decided("projection", "accept", "it is old")
    asked = bench.assess().question("projection")
    assert asked is not None
    assert asked.outcome is not None
    moved = bench.read("projection", 23.9).assess().question("projection")
    assert moved is not None
    assert moved.outcome is None
