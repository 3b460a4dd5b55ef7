"""How much, in numbers, worked by hand beside the code."""

from __future__ import annotations

import pytest
from fidicula.codes import InstructionCode
from fidicula.judgement.instruction.amounts import new_bridge, told

from ...scenario import Bench, measured


def values(bench: Bench, code: InstructionCode) -> dict[str, list[float]]:
    found: dict[str, list[float]] = {}
    for amount in told(bench.assess(), code).amounts:
        found.setdefault(amount.name, []).append(round(amount.value, 3))
    return found


def tail(after: float, gap: float = 6.0) -> Bench:
    return measured(singles={"string_length": 328.0}).read("afterlength", after).read("saddle_gap", gap)


def test_the_tailpiece_goes_to_a_sixth_or_all_the_way_to_the_saddle() -> None:
    """328 / 6 = 54.667. At 50 it goes 4.667 on, with 5 and more to spare; to the saddle whatever is free."""
    assert told(measured().assess(), "move_tailpiece").keys == (("afterlength", None), ("saddle_gap", None))
    only_one = measured().read("afterlength", 50.0).assess()
    assert told(only_one, "move_tailpiece").keys == (("saddle_gap", None),)
    assert values(tail(50.0, gap=20.0), "move_tailpiece")["move"] == pytest.approx([4.667], abs=0.01)
    assert values(tail(58.0), "move_tailpiece")["move"] == pytest.approx([-3.333], abs=0.01)
    saddle = tail(50.0, gap=20.0).decided("afterlength", "to_saddle")
    found = values(saddle, "move_tailpiece")["move"][0]
    assert 4.667 < found < 20.0


def test_a_nut_is_filed_where_it_is_worth_it_and_only_there() -> None:
    none = measured()
    assert values(none, "file_nut") == {}
    one = measured().read("nut_height", 1.10, at=0)
    found = told(one.assess(), "file_nut").amounts
    assert [(amount.name, amount.position) for amount in found] == [("file_by", 0), ("file_first", 0), ("file_to", 0)]
    by, first, to = found
    assert by.value + to.value == pytest.approx(1.10)
    assert by.value - first.value == pytest.approx(0.1)


def test_new_marks_stand_evenly_and_say_how_much_closer_they_were() -> None:
    """Wanted 33.5 from middle to middle, read 31.1: 1.2 too close on each side; marks from the G's middle."""
    wanted = measured().assess().state.wanted(("bridge_spread", None))
    assert wanted is not None
    found = values(measured(singles={"bridge_spread": wanted.band.aim - 2.4}), "recut_slots")
    assert found["closer"] == pytest.approx([1.2])
    assert found["mark"][0] == 0.0
    assert found["mark"][-1] == pytest.approx(wanted.band.aim)
    assert found["mark"] == sorted(found["mark"])
    wide = values(measured(singles={"bridge_spread": wanted.band.low}), "recut_slots")
    assert wide["closer"] == [0.0]
    assert wide["mark"][-1] == pytest.approx(wanted.band.low)


def test_a_board_is_read_before_it_is_dressed_and_each_side_has_its_own_amount() -> None:
    keys = told(measured().assess(), "dress_board").keys
    assert keys == tuple(("relief", i) for i in range(6))
    half = measured().read("relief", 0.1, 0.1, 0.1)
    assert [(a.name, a.side) for a in told(half.assess(), "dress_board").amounts] == [("most_off", "bass")]
    assert told(half.assess(), "dress_board").keys == ()


def test_a_line_is_marked_over_the_board_at_each_string() -> None:
    found = values(measured(), "mark_line")["mark_height"]
    plan = measured().assess().computed
    assert plan is not None
    assert found == pytest.approx([s.mark_height for s in plan.plan.strings], abs=1e-3)
    assert values(Bench(has_strings=False), "mark_line") == {}


def test_the_blank_whose_foot_comes_best_over_the_bar() -> None:
    """The bar is 1 inside a foot of 88 and 3 is wanted: 92 puts it 3 inside."""
    bench = measured("cello").read("bar_inset", 1.0).read("bridge_foot_width", 88)
    assert [one.value for one in new_bridge(bench.assess(blanks=(96, 86, 92, 90))).amounts] == [92]
    assert not new_bridge(bench.assess()).amounts
    for unread in (measured("cello").read("bar_inset", 1.0), measured("cello").read("bridge_foot_width", 88)):
        assert not new_bridge(unread.assess(blanks=(86, 92))).amounts


def test_what_neither_bars_may_be_recorded_beside_it() -> None:
    """While the nut is the step no crown is offered above it."""
    assert measured(over=0.8, nut_over=0.3, kind="full_set_up").told().also == ("crown_cut", "nut_filed")
    assert measured(nut_over=0.3, kind="full_set_up").told().also == ("nut_filed",)
    assert measured(over=0.4, nut_over=0.3).told().also == ()


@pytest.mark.parametrize(("family", "over"), [("bass", 3.0), ("cello", 2.0)])
def test_wheels_bring_the_strings_down_as_far_as_the_sheet_says(family: str, over: float) -> None:
    """Legs straight under a crown that comes down alike: as far as each string has to, by the sheet's own angle."""
    bench = measured(family, over=over).read("adjuster_spread", 90).read("thread_pitch", 1.25)
    a = bench.found("bridge", "has_adjusters", verdict="fine").assess()
    legs = [one.value for one in told(a, "turn_wheels").amounts if one.name == "leg"]
    drops = [string.drop or 0.0 for string in a.cut.strings]
    assert legs == pytest.approx([-drops[0], -drops[-1]], abs=0.005)
