"""Slips: the headline, one act that puts it right, and no cut meanwhile."""

from __future__ import annotations

import pytest

from ...scenario import Bench, measured


def test_swapped_bass_and_treble_stop_the_cut() -> None:
    bench = measured(over=1.0).read("end_height", 4.2, 4.8, 5.4, 6.0)
    told = bench.told()
    assert told.slip is not None
    assert (told.code, told.slip.act, told.records, told.also) == ("check_readings", "swap", "", ())
    assert told.slip.values == (6.0, 4.2)
    assert bench.sheet().instruction.title == "Check: bass and treble swapped?"


def test_heights_that_fall_as_they_should_are_no_slip() -> None:
    assert measured(over=1.0).assess().slips == ()
    confirmed = measured(over=1.0).read("end_height", 4.2, 4.8, 5.4, 6.0, confirmed=True)
    assert confirmed.assess().slips == ()


def test_two_strings_of_a_set_the_other_way_round() -> None:
    told = measured(strings=(("G", 0.27), ("D", 0.68), ("A", 0.86), ("E", 0.80))).told()
    assert told.slip is not None
    assert (told.slip.code, told.slip.act) == ("strings_swapped", "choose_strings")


def another_instrument() -> Bench:
    bench = Bench(kind="recheck")
    return bench.last_visit("string_length", 328).last_visit("fingerboard_length", 270).last_visit("nut_spread", 16.3)


def test_readings_of_another_instrument() -> None:
    """A half size's lengths typed for a full size that was here before: two that leap are another instrument."""
    one = another_instrument().read("string_length", 286)
    assert one.assess().slips == ()
    two = one.read("fingerboard_length", 232)
    slip = two.told().slip
    assert slip is not None
    assert (slip.code, slip.act) == ("wrong_instrument", "move")
    assert slip.keys == (("string_length", None), ("fingerboard_length", None))
    assert slip.before == (328, 270)
    assert (
        "Is this RW-1? Not as before: string length 286, before 328 and board length 232, before 270."
        in (two.sheet().instruction.says[0])
    )


def doubted(bench: Bench, *positions: int, code: str = "changed") -> Bench:
    for position in positions:
        bench.read("end_height", 4.9, at=position, doubt=code, doubt_about=6.0)
    return bench


def test_a_height_that_changed_with_nothing_done_is_asked_about() -> None:
    bench = doubted(measured(over=1.0), 0)
    told = bench.told()
    assert told.slip is not None
    assert (told.slip.code, told.slip.act, told.slip.keys) == (
        "changed_without_work", "record_cut", (("end_height", 0),)
    )  # fmt: skip
    assert bench.sheet().instruction.says[0] == (
        "G at the board's end was 6 and is 4.9, with no work recorded. Was the crown cut, or is this a slip?"
    )


@pytest.mark.parametrize(("count", "code"), [(2, "changed_without_work"), (3, "wrong_instrument")])
def test_many_that_changed_at_once_are_another_instruments(count: int, code: str) -> None:
    slip = doubted(measured(over=1.0), *range(count)).told().slip
    assert slip is not None
    assert slip.code == code


def test_air_and_tools_are_notices_that_stop_nothing() -> None:
    bench = measured(over=1.0).last_visit("humidity", 40).read("humidity", 55)
    a = bench.assess()
    assert [(slip.code, slip.stops) for slip in a.slips] == [("other_air", False)]
    assert bench.told().code == "cut_crown"
    assert len(bench.sheet().notices) == 1
    near = measured(over=1.0).last_visit("humidity", 40).read("humidity", 54.9)
    assert near.assess().slips == ()
