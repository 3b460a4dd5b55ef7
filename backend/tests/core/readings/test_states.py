"""Which readings hold: the log judged."""

from __future__ import annotations

from fidicula.core.readings.states import LoggedReading, LoggedWork, ReadingState, reading_states

PLACE = ("end_height", 0)
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
    assert stand(reading(1, 5.0, tool=0.02), reading(2, 5.1, repeats=True, tool=0.1)).resolution == 0.1


def test_repeats_lie_wide_apart_beyond_twice_what_the_tool_is_good_for() -> None:
    """A caliper of ±0.02: 0.04 apart is its own doing, 0.05 is not; one reading alone is never wide."""

    def wide(*values: float, tool: float = 0.02) -> bool:
        first, *more = values
        later = [reading(n, value, repeats=True, tool=tool) for n, value in enumerate(more, start=2)]
        return stand(reading(1, first, tool=tool), *later).is_wide

    assert not wide(5.00)
    assert not wide(5.00, 5.04)
    assert wide(5.00, 5.05)
    assert not wide(5.00, 5.20, tool=0.1)
    assert wide(5.00, 5.22, tool=0.1)
