"""Which readings hold: the log judged."""

from __future__ import annotations

import pytest
from fidicula.core.readings.states import LoggedReading, LoggedWork, MeasurementKey, ReadingState, reading_states

PLACE: MeasurementKey = ("end_height", 0)
STALE_AFTER = {"end_height": {"crown_cut": "the crown was cut"}}


def reading(
    number: int, value: float, *, after: int = 0, repeats: bool = False, doubted: bool = False, tool: float = 0.02
) -> LoggedReading:
    return LoggedReading(number, PLACE, value, after, repeats, doubted, tool)


def stand(*readings: LoggedReading, works: tuple[LoggedWork, ...] = ()) -> ReadingState:
    return reading_states(readings=readings, works=works, invalidations=STALE_AFTER)[PLACE]


def test_the_last_word_counts() -> None:
    assert stand(reading(1, 5.0), reading(2, 5.2)).usable == 5.2


def test_repeats_are_meant_and_their_spread_is_told() -> None:
    found = stand(reading(1, 9.0), reading(2, 5.0), reading(3, 5.1, repeats=True), reading(4, 5.2, repeats=True))
    assert (found.count, round(found.usable or 0, 6), round(found.repeat_spread, 6)) == (3, 5.1, 0.2)


def test_a_doubted_reading_counts_in_nothing_and_does_not_bring_the_old_one_back() -> None:
    found = stand(reading(1, 5.0), reading(2, 55, doubted=True))
    assert found.state == "doubted"
    assert found.usable is None


def test_a_doubted_repeat_leaves_the_sound_ones() -> None:
    found = stand(reading(1, 5.0), reading(2, 55, repeats=True, doubted=True))
    assert found.usable == 5.0


def test_work_makes_earlier_readings_stale_and_later_ones_not() -> None:
    cut = LoggedWork(7, "crown_cut")
    assert stand(reading(1, 5.0), works=(cut,)).state == "stale"
    assert stand(reading(1, 5.0), works=(cut,)).stale_because == "the crown was cut"
    assert stand(reading(1, 5.0), reading(2, 4.6, after=7), works=(cut,)).usable == 4.6


def test_work_that_does_not_touch_a_measure_leaves_it() -> None:
    assert stand(reading(1, 5.0), works=(LoggedWork(7, "strings_named"),)).state == "current"


def test_a_reading_that_waited_without_a_network_stands_before_the_work_it_was_taken_before() -> None:
    """It arrives after the cut, was taken before it, and so does not push out what was measured since."""
    cut = LoggedWork(7, "crown_cut")
    late = reading(9, 6.1, after=0)
    assert stand(reading(8, 4.6, after=7), late, works=(cut,)).usable == 4.6
    assert stand(late, works=(cut,)).state == "stale"


def test_the_coarser_tool_says_how_well_a_mean_is_known() -> None:
    """Two readings of 0.1: 1.96 times 0.1 over the root of two."""
    found = stand(reading(1, 5.0, tool=0.02), reading(2, 5.1, repeats=True, tool=0.1))
    assert found.scatter == 0.1
    assert found.known_to == pytest.approx(1.96 * 0.1 / 2**0.5)


def test_repeats_contradict_each_other_beyond_what_chance_does() -> None:
    """Two of 0.05 by 4.65 times that, 0.2325; eight by 5.83 times, 0.2914; then the median counts."""

    def of(*values: float, tool: float = 0.05) -> ReadingState:
        first, *more = values
        later = [reading(n, value, repeats=True, tool=tool) for n, value in enumerate(more, start=2)]
        return stand(reading(1, first, tool=tool), *later)

    assert not of(5.00).is_wide
    assert not of(5.00, 5.23).is_wide
    assert of(5.00, 5.24).is_wide
    assert not of(5.00, 5.24, tool=0.1).is_wide
    assert not of(*[5.0] * 7, 5.29).is_wide
    assert of(*[5.0] * 7, 5.30).is_wide
    wide = of(5.00, 5.02, 5.60)
    assert (wide.usable, wide.known_to) == (5.02, pytest.approx(0.3))
    assert of(5.00, 5.02, 5.07).usable == pytest.approx(5.03)


def test_a_work_that_names_its_strings_leaves_the_others_as_they_are() -> None:
    elsewhere, here = LoggedWork(1, "crown_cut", frozenset({2, 3})), LoggedWork(1, "crown_cut", frozenset({0}))
    assert PLACE[1] == 0
    assert stand(reading(1, 5.0), works=(elsewhere,)).state == "current"
    assert stand(reading(1, 5.0), works=(here,)).state == "stale"
    assert LoggedWork(1, "crown_cut", frozenset({0})).touches(None)
