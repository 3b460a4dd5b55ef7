"""Kinds of visit with stops of their own: a buzz is found first, a bridge is made from a blank in its order."""

from __future__ import annotations

import pytest
from fidicula.db.work_details import CrownCut

from ..scenario import CARRY, SLOPE, Bench, measured


def test_a_buzz_is_found_first_and_what_was_found_says_where_to_look() -> None:
    bench = measured(kind="buzz")
    assert bench.told().code == "find_buzz"
    open_string = measured(kind="buzz").found("sound", "buzz_open")
    assert open_string.told().code == "check_nut_edge"
    stopped = measured(kind="buzz").found("sound", "buzz_stopped")
    assert stopped.told().code == "check_board"


def blank() -> Bench:
    bench = Bench("violin", "new_bridge")
    for measure, value in (("projection", 27), ("string_length", 328), ("fingerboard_length", 270)):
        bench.read(measure, value)
    return bench.read("fingerboard_radius", 42).read("nut_spread", 16.3).read("nut_height", 0.5, 0.45, 0.4, 0.35)


def done(bench: Bench, *steps: str) -> Bench:
    for step in steps:
        bench.marked(step, "done")
    return bench


def test_a_bridge_from_a_blank_has_its_own_order() -> None:
    """Mask, feet, marks, crown, outer strings, heights again, thickness, openings, protector."""
    bench = blank()
    codes = [bench.told().code]
    done(bench, "mask")
    codes.append(bench.told().code)
    bench.did("feet_refitted")
    codes.append(bench.told().code)
    marks = bench.told().values("mark_height")
    done(bench, "marks")
    cut = bench.told()
    codes.append(cut.code)
    assert cut.values("mark_height") == marks
    bench.did("crown_cut", CrownCut())
    codes.append(bench.told().code)
    assert codes == ["mask_top", "fit_feet", "mark_line", "cut_crown", "string_outer"]
    assert bench.told().keys == (("end_height", 0), ("end_height", 3))


def test_the_marks_are_the_targets_over_the_boards_line() -> None:
    """0.5 at the nut, 5.0 at the end of 270: 0.5 + 4.5 * 328 / 270 over the line at 328, longer by its slope."""
    bench = done(blank(), "mask").did("feet_refitted")
    assert bench.told().values("mark_height")[0] == pytest.approx(SLOPE * 0.5 + 4.5 * CARRY)
    assert "Set up from the marks: G 6.0" in bench.sheet().instruction.do[0]


def test_after_the_heights_come_thickness_openings_and_protector() -> None:
    bench = measured(kind="new_bridge")
    bench = done(bench, "mask", "feet", "marks", "outer_strings").did("crown_cut", CrownCut())
    bench.read("end_height", *bench.aims("end_height"), times=3).read("slot_depth", 0.27, 0.29, 0.23, 0.09)
    bench.read("bridge_spread", 33.5)
    codes = []
    for work in ("bridge_thinned", "openings_cut", "protector_fitted"):
        codes.append(bench.told().code)
        bench.did(work)
    assert codes == ["thin_bridge", "cut_openings", "finish_bridge"]


def test_works_that_are_found_stand_under_what_is_to_be_planned() -> None:
    bench = measured().found("pegs", "peg_slips").found("button", "button_proud").found("cleanliness", "rosin")
    bench.found("saddle", words="a splinter missing at its bass end")
    said = bench.sheet().proposals
    assert any(line.startswith("pegs, a peg slips") and "plan: pegs fitted" in line for line in said)
    assert any("plan: end button fitted" in line for line in said)
    assert any("plan: cleaned" in line for line in said)
    assert any(line.endswith("a splinter missing at its bass end") for line in said)
    bench.did("pegs_fitted").did("cleaned")
    left = bench.sheet().proposals
    assert not any("peg" in line or "rosin" in line for line in left)
    assert any("splinter" in line for line in left)
