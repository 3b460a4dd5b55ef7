"""From a rough crown to strings that stand right: slots, repeats as a cut needs them, and the crown beside."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import Any

import pytest
from fidicula.core.work.convergence import MAY_BE_LOW, SURE, missed_by
from fidicula.domain.work_details import CrownBeside, CrownCut, SlotsFiled
from fidicula.words.acts import set_out_words

from ...scenario import CARRY, Bench, cut_roughly, filed, measured

EACH = (0, 1, 2, 3)


def test_after_the_rough_crown_each_string_comes_down_by_its_slot() -> None:
    """0.3 over at the end is 0.368 at the bridge; what may be too much is left, and what goes is rounded down."""
    bench = cut_roughly(0.3)
    told, string = bench.told(), bench.assess().cut.strings[0]
    assert (told.code, told.records, told.cut_role) == ("file_slots", "slots_filed", "slots")
    assert string.drop is not None
    assert string.drop == pytest.approx(0.3 * CARRY)
    assert string.drop_chance is not None
    assert string.drop_known_to is not None
    assert string.drop_known_to > string.drop_chance, "a gauge and the board's lean are not told by more readings"
    lands = ((string.drop_chance / 1.96) ** 2 + missed_by(string.drop) ** 2) ** 0.5
    assert string.slot_by == pytest.approx(string.drop - max(0.0, SURE * lands - MAY_BE_LOW))
    by = math.floor(100 * (string.slot_by or 0)) / 100
    assert told.values("slot_by") == pytest.approx(dict.fromkeys(EACH, by))
    said = bench.sheet().instruction
    assert said.do[0] == f"Deepen the slots: G by {by}, D by {by}, A by {by} and E by {by} mm."
    assert said.do[2] == "Tune, let it settle, tune again, and measure these strings."
    assert "Too low cannot be" in (said.caution or "")


def test_one_reading_is_too_little_for_a_slot_and_the_sheet_says_how_many_more() -> None:
    """Once with a caliper covers 0.12 at the bridge; 0.08 is needed to file 0.37, 0.085 to leave 0.024 as it is."""
    told = cut_roughly([0.3, 0.02, 0.02, 0.3], times=1).told()
    assert (told.code, told.repeats, told.leads_to) == ("measure", True, "file_slots")
    assert dict(told.times) == {("end_height", 0): 2, ("end_height", 1): 1, ("end_height", 2): 1, ("end_height", 3): 2}
    said = cut_roughly([0.3, 0.02, 0.02, 0.3], times=1).sheet().instruction
    assert said.do == ["At the board's end: G twice, D once, A once and E twice."]
    assert "G: its readings tell ±0.13 at the bridge, ±0.08 is needed." in said.says
    assert [(one.measure, one.position, one.times) for one in said.read] == [
        ("end_height", 0, 2), ("end_height", 1, 1), ("end_height", 2, 1), ("end_height", 3, 2),
    ]  # fmt: skip


def test_a_filed_slot_makes_its_own_string_stale_and_no_other() -> None:
    bench = cut_roughly(0.3).did("slots_filed", SlotsFiled(by=(0.36, None, None, 0.36)))
    told = bench.told()
    assert (told.code, told.again) == ("measure", True)
    assert told.keys == (("end_height", 0), ("end_height", 3))
    unnamed = cut_roughly(0.3).did("slots_filed", SlotsFiled()).told()
    assert unnamed.keys == tuple(("end_height", i) for i in EACH)


def test_what_was_set_out_and_what_is_read_weigh_together() -> None:
    """Filed by 0.36 at the bridge, 0.293 at the end: 0.3 over would be 0.007. Read once as 0.05, it lies between."""
    bench = filed(cut_roughly(0.3), (0.36,) * 4, [0.05] * 4, times=1)
    weighed = bench.assess().state.weighed[0]
    expected, read = 0.3 - 0.36 / CARRY, 0.05
    over = weighed.value - bench.aims("end_height")[0]
    assert expected < over < read
    assert weighed.deviation < 0.05
    assert not weighed.anew


def test_a_cut_that_took_twice_what_was_said_starts_the_estimate_anew() -> None:
    bench = filed(cut_roughly(0.3), (0.3, None, None, None), [-0.3, None, None, None], times=1)
    weighed = bench.assess().state.weighed[0]
    assert weighed.anew
    assert weighed.value == pytest.approx(bench.aims("end_height")[0] - 0.3)
    said = bench.sheet().instruction.says
    assert "Far from what was set out at G: only the new readings count there." in said
    other = cut_roughly(0.3).did("new_bridge").read("end_height", *cut_roughly(0.5).aims("end_height"))
    assert not other.assess().cut.begun, "another bridge is judged by its bands again"


def test_strings_that_landed_are_left_and_the_crown_comes_down_beside_the_deep_ones() -> None:
    """How deep each slot is follows from what was read before and filed since: it is not read again."""
    bench = cut_roughly([0.03, 0.02, -0.08, 0.0])
    bench.did("slots_filed", SlotsFiled(by=(0.3, 0.1, None, 0.16)))
    bench.read("end_height", *(aim + 0.01 for aim in bench.aims("end_height")), times=3)
    told = bench.told()
    assert (told.code, told.records) == ("lower_crown", "crown_beside")
    assert told.values("beside") == pytest.approx({0: 0.3, 3: 0.16}, abs=0.011)
    read = bench.copy().read("slot_depth", 0.8 / 3, 0.86 / 3 + 0.2, 0.68 / 3, 0.09).told()
    assert read.values("beside") == pytest.approx({1: 0.2}), "what was read counts before what follows"
    bench.did("crown_beside", CrownBeside(by=(0.3, None, None, 0.16)))
    assert bench.told().code == "hand_over"
    assert [one.state for one in bench.sheet().course] == ["done"] * len(bench.sheet().course)


def test_what_stands_at_the_edge_of_its_band_is_read_up_to_three_times() -> None:
    """E's band ends 0.35 over its aim: 0.3 over may be out of it. The mean of three decides."""
    once = measured(over=[0.0, 0.0, 0.0, 0.3])
    told = once.told()
    assert (told.code, told.keys, told.repeats) == ("measure", (("end_height", 3),), True)
    assert once.sheet().instruction.title == "Measure once more at the board's end: E"
    thrice = once.read("end_height", once.aims("end_height")[3] + 0.3, at=3, times=3)
    assert thrice.told().code == "hand_over"


def test_a_nut_that_is_hardly_over_is_left_and_one_that_is_hardly_low_is_read_again() -> None:
    wanted = measured().assess().state.wanted_as_read(("nut_height", 0))
    assert wanted is not None
    assert measured().read("nut_height", wanted.band.high + 0.05, at=0).told().code == "hand_over"
    over = measured().read("nut_height", wanted.band.high + 0.15, at=0).told()
    assert (over.code, list(over.values("file_by"))) == ("file_nut", [0])
    low = measured().read("nut_height", wanted.band.low - 0.05, at=0).told()
    assert (low.code, low.keys, low.notes) == ("measure", (("nut_height", 0),), ("edge",))


def test_a_filed_nut_leaves_the_heights_and_they_follow_it() -> None:
    """0.3 off the nut is 0.3 · (1 - 270/328) = 0.053 at the board's end, and nothing at the bridge."""
    bench = measured(over=1.0, nut_over=0.3)
    before = bench.assess()
    bench.did("nut_filed").read("nut_height", *bench.aims("nut_height"))
    after = bench.assess()
    assert not [key for key in bench.told().keys if key[0] == "end_height"]
    for i in EACH:
        fell = before.state.weighed[i].value - after.state.weighed[i].value
        assert fell == pytest.approx(0.3 * (1 - 270 / 328), abs=1e-6)
        was, drop = before.cut.strings[i].drop, after.cut.strings[i].drop
        assert was == pytest.approx(drop, abs=1e-6)


def test_the_lean_is_asked_for_where_a_wedge_was_used() -> None:
    upright = measured(over=1.0)
    assert ("board_tilt", None) not in upright.told().keys
    by_wedge = Bench().read("end_height", 5.5, at=0, tool="wedge", direction="shortest")
    assert ("board_tilt", None) in by_wedge.told().keys


def test_in_band_is_not_enough_once_wood_went() -> None:
    """0.2 over is in the outer strings' bands: untouched it is left, after a cut every string goes to its aim."""
    assert measured(over=0.2).told().code == "hand_over"
    assert cut_roughly(0.3).told().code == "file_slots"


def test_what_is_planned_stands_on_the_course_and_comes_before_the_hand_over() -> None:
    """A crown that is planned is the course's own step; cleaning has none, and stands before the heights again."""
    bench = measured(over=0.2)
    bench.planned = ("crown_cut", "cleaned")
    course = bench.sheet().course
    assert [(one.label, one.note, one.state) for one in course if one.key.startswith("planned:")] == [
        ("Cleaned", "planned", "ahead")
    ]
    labels = [one.label for one in course]
    assert labels.index("Cleaned") == labels.index("Heights again") - 1
    told = bench.told()
    assert (told.code, told.planned) == ("do_planned", "cleaned")
    assert bench.sheet().instruction.title == "Next on the plan: cleaned"
    bench.did("cleaned")
    assert bench.told().code == "hand_over"
    assert next(one.state for one in bench.sheet().course if one.label == "Cleaned") == "done"


def test_an_inner_string_out_of_its_band_is_cut_for() -> None:
    """The outer two in band, D 0.8 over: in band means each of them."""
    told = measured(over=[0.0, 0.8, 0.0, 0.0]).told()
    assert (told.code, list(told.values("take"))) == ("cut_crown", [1])


def test_a_crown_that_is_still_far_off_is_cut_roughly_again() -> None:
    """More than 0.8 at the bridge is no slot's work."""
    again = cut_roughly([0.7, 0.2, 0.2, 0.2]).read("slot_depth", 0.27, 0.29, 0.23, 0.09).told()
    assert again.code == "cut_crown"
    assert list(again.values("take")) == [0]


def test_a_deep_slot_is_read_once_more_before_the_wood_beside_it_goes() -> None:
    """What was read holds: it is one more of the same, and nothing went stale."""
    bench = measured(over=1.0)
    bench.read("slot_depth", 0.8 / 3 + 0.4, 0.29, 0.23, 0.25 / 3)
    told = bench.told()
    assert (told.code, told.keys, told.again, told.repeats) == ("measure", (("slot_depth", 0),), False, True)
    assert bench.sheet().instruction.title == "Measure the deep slots once more"


def test_a_shallow_slot_under_a_high_string_is_filed_and_no_wood_is_named() -> None:
    """0.35 over and no slot yet: 0.43 to come down, a third of 0.8 of it by the slot that is missing anyway."""
    bench = measured(over=0.35).read("end_height", *(aim + 0.62 for aim in measured().aims("end_height")), times=3)
    bench.read("slot_depth", 0.0, 0.0, 0.0, 0.0)
    told = bench.told()
    assert told.code == "cut_crown"
    low = cut_roughly(0.3).read("slot_depth", 0.0, 0.0, 0.0, 0.0).told()
    assert low.code == "file_slots"
    assert not low.values("take")


def test_before_any_cut_only_a_string_that_comes_down_is_read_again() -> None:
    """The highest stands a little over its band, by one reading; the others stand as wanted and stay there."""
    told = measured(over=(0.0, 0.0, 0.0, 0.33)).told()
    assert (told.code, told.keys, told.notes) == ("measure", (("end_height", 3),), ("edge",))
    all_of_them = cut_roughly([0.0, 0.0, 0.0, 0.33], times=1).told()
    assert [key for key in all_of_them.keys if key[0] == "end_height"] == [("end_height", i) for i in EACH]


def test_repeats_that_contradict_each_other_are_not_weighed() -> None:
    bench = cut_roughly(0.3)
    bench.read("end_height", bench.aims("end_height")[0] + 0.3, at=0)
    bench.readings.append(_again(bench, 0, bench.aims("end_height")[0] + 0.7))
    a = bench.assess()
    assert 0 not in a.state.weighed
    told, said = bench.told(), bench.sheet().instruction
    assert (told.code, told.keys, told.repeats) == ("measure", (("end_height", 0),), False)
    assert said.title == "Measure again: heights at the board's end (G)"
    assert said.says == ["These readings contradict each other: G 0.40 mm apart. Which is right?"]


def _again(bench: Bench, position: int, value: float) -> Any:
    last = max(
        (r for r in bench.readings if r.position == position and r.measure == "end_height"), key=lambda r: r.number
    )

    return replace(last, number=last.number + 1000, value=value, typed=f"{value:g}", repeats=True)


def test_the_log_says_what_was_set_out_at_which_string() -> None:
    assert set_out_words(SlotsFiled(by=(0.349, None, 0.2, None)), "GDAE") == "G by 0.34, A by 0.20 mm"
    assert set_out_words(CrownCut(passes=(0.99, 0.8, None, None)), "GDAE") == "G by 0.9, D by 0.8 mm"
    assert set_out_words(CrownBeside(by=(None, None, None, 0.25)), "GDAE") == "E by 0.25 mm"
    assert set_out_words(SlotsFiled(), "GDAE") == ""


def test_a_projection_at_the_edge_of_its_band_is_read_again_before_anything_is_decided() -> None:
    """A rule covers 0.29: 0.2 under the band is no finding yet; read three times 0.5 under, it is."""
    wanted = measured().assess().state.targets.places["projection", None]
    assert wanted is not None
    edge = measured(over=1.0, singles={"projection": wanted.band.low - 0.2})
    told = edge.told()
    assert (told.code, told.keys, told.repeats) == ("measure", (("projection", None),), True)
    assert edge.sheet().instruction.title == "Measure the projection once more"
    sure = measured(over=1.0).read("projection", wanted.band.low - 0.5, times=3)
    assert sure.assess().projection is not None
    assert sure.told().stop == "projection"
