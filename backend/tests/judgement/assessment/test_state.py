"""Where a value comes from, how well it is known, and in which direction it is judged."""

from __future__ import annotations

import pytest
from fidicula.judgement.assessment.judging import with_reading
from fidicula.judgement.measures import MEASURES

from ...scenario import Bench, measured


def test_a_reading_comes_before_the_last_visit_and_that_before_the_figure() -> None:
    bench = Bench().last_visit("nut_spread", 16.6)
    figure = Bench().assess().state.held("nut_spread")
    last = bench.assess().state.held("nut_spread")
    read = bench.read("nut_spread", 16.1).assess().state.held("nut_spread")
    assert [(one.value, one.origin, one.assumed) for one in (figure, last, read) if one is not None] == [
        (16.3, "figure", True),
        (16.6, "last_visit", False),
        (16.1, "read", False),
    ]


def test_a_figure_may_be_off_by_half_its_band_and_a_slot_by_a_quarter_string() -> None:
    """A G of 0.80 lies anything from nothing to half its thickness deep."""
    state = Bench().assess().state
    wanted = state.targets["nut_spread", None]
    spread, slot = state.held("nut_spread"), state.held("slot_depth", 0)
    assert wanted is not None
    assert spread is not None
    assert slot is not None
    assert spread.resolution == pytest.approx((wanted.band.high - wanted.band.low) / 2)
    assert slot.resolution == pytest.approx(0.80 / 4)
    assert slot.value == pytest.approx(0.80 / 3, abs=0.01)


def test_a_height_of_now_is_never_assumed() -> None:
    assert Bench().assess().state.held("end_height", 0) is None


def test_a_rule_is_known_by_what_its_readings_scatter_and_repeats_by_the_root_of_their_number() -> None:
    once = Bench().read("projection", 27.0)
    first = once.assess().state.held("projection")
    earlier = list(once.readings)
    once.read("projection", 27.4, repeats=True).readings[:0] = earlier
    again = once.assess().state.held("projection")
    assert first is not None
    assert again is not None
    # The rule's own 0.15 and 0.15 of laying it on; its last digit of 0.1; 0.05 that a whole rule may be off.
    chance, rounding, gauge = 0.15 * 2**0.5, 0.1 / 12**0.5, 0.05
    assert first.resolution == pytest.approx(1.96 * (chance**2 + rounding**2 + gauge**2) ** 0.5)
    # Repeats lessen what is chance, and neither the last digit nor the gauge.
    assert again.resolution == pytest.approx(1.96 * (chance**2 / 2 + rounding**2 + gauge**2) ** 0.5)


def test_no_number_of_equal_readings_says_more_than_the_tool() -> None:
    """25 times 5.00 by a caliper that reads 0.02 and may be off by 0.03: ± 0.06 and a little, not 0.01."""
    held = Bench().read("end_height", 5.0, at=0, times=25).assess().state.held("end_height", 0)
    assert held is not None
    assert 1.96 * 0.03 < held.resolution < 0.07
    other = Bench().read("end_height", 5.0, at=0, times=25).read("end_height", 4.4, at=1).assess()
    single = other.state.held("end_height", 1)
    assert single is not None
    assert single.chance > 1.96 * 0.5 * 0.05, "a hand that read one place alike still scatters at another"


@pytest.mark.parametrize(
    ("days", "works", "origin"),
    [(30, (), "last_visit"), (30, ("new_nut",), "figure"), (30, ("crown_cut",), "last_visit")],
)
def test_last_time_counts_until_a_work_makes_it_void(days: int, works: tuple[str, ...], origin: str) -> None:
    held = Bench().last_visit("nut_spread", 16.6, days=days, works=works).assess().state.held("nut_spread")
    assert held is not None
    assert held.origin == origin


def test_what_moves_by_itself_counts_on_its_last_day_and_not_after_it() -> None:
    keeps = MEASURES["projection"].keeps_days
    assert keeps is not None

    def origin(days: float) -> str:
        held = Bench().last_visit("projection", 26.4, days=days).assess().state.held("projection")
        assert held is not None
        return held.origin

    assert (origin(keeps), origin(keeps + 0.001)) == ("last_visit", "figure")


def test_inner_strings_are_about_what_lies_between_the_outer_ones() -> None:
    """5.0 and 3.2: the A lies at 3.2 + 1.8 / 3."""
    state = Bench().assess().state
    usual = [state.usual(("end_height", i)) for i in range(4)]
    assert usual == pytest.approx([5.0, 4.4, 3.8, 3.2])


def test_a_wedge_reads_the_shortest_way_and_is_held_against_a_band_of_its_own() -> None:
    """The outer strings stand over a round board: the shortest way to it is shorter than straight up."""
    bench = measured()
    for position in (0, 3):
        aim = bench.aims("end_height")[position]
        bench.read("end_height", aim, at=position, tool="wedge", direction="shortest")
    state = bench.assess().state
    for position in (0, 3):
        upright, as_read = (
            state.wanted_upright(("end_height", position)),
            state.wanted_as_read(("end_height", position)),
        )
        assert upright is not None
        assert as_read is not None
        assert (upright.direction, as_read.direction) == ("vertical", "shortest")
        assert as_read.band.aim < upright.band.aim - 0.05
        back = state.upright(("end_height", position), as_read.band.aim, "shortest")
        assert back == pytest.approx(upright.band.aim, abs=1e-6)


def test_marks_tell_a_spread_whatever_the_strings_thickness_and_the_air_does_not() -> None:
    """Marks 0, 11, 22, 33: 33 from middle to middle. Air of 10 each: the thicknesses of the strings come on top."""
    by_marks = Bench().read("string_mark_bridge", 0.0, 11.0, 22.0, 33.0).assess().state.held("bridge_spread")
    by_air = Bench().read("string_gap_bridge", 10.0, 10.0, 10.0).assess().state.held("bridge_spread")
    assert by_marks is not None
    assert by_air is not None
    assert (by_marks.origin, by_air.origin) == ("derived", "derived")
    assert by_marks.value == pytest.approx(33.0)
    assert by_air.value == pytest.approx(30 + 0.80 / 2 + 0.86 + 0.68 + 0.27 / 2)
    assert by_marks.resolution > 0


def test_a_simulated_reading_is_marked_and_leaves_the_cut_open() -> None:
    bench = measured(over=1.0)
    assert bench.assess().cut.state == "firm"
    bench.read("nut_spread", 16.4, simulated=True)
    held = bench.assess().state.held("nut_spread")
    assert held is not None
    assert (held.origin, held.assumed) == ("simulated", True)
    assert bench.assess().cut.state == "provisional"


@pytest.mark.parametrize("repeats", [False, True])
def test_one_more_reading_stands_as_if_all_were_judged_anew(repeats: bool) -> None:
    bench = measured(over=0.5).did("crown_cut")
    before = bench.assess().state
    old = next(one for one in before.readings if (one.measure, one.position) == ("end_height", 1))
    kept = list(bench.readings)
    bench.read("end_height", 4.6, at=1, repeats=repeats)
    new = next(one for one in bench.readings if one not in kept)
    bench.readings = [one for one in kept if repeats or one != old] + [new]
    anew = bench.assess().state
    quick = with_reading(before, new, bench.readings)
    assert quick.reading_states == anew.reading_states
    assert [one.number for one in quick.readings] == [one.number for one in anew.readings]
