"""Kinds of visit with stops of their own: a buzz is found first, a bridge is made from a blank in its order."""

from __future__ import annotations

from datetime import timedelta
from uuid import uuid4

import pytest
from fidicula.domain.visits import CourseMark
from fidicula.domain.work_details import CrownCut

from ...scenario import CARRY, SLOPE, VISIT, Bench, blank, measured, strung


def test_a_buzz_is_found_first_and_what_was_found_says_where_to_look() -> None:
    bench = measured(kind="buzz")
    assert bench.told().code == "find_buzz"
    open_string = measured(kind="buzz").found("sound", "buzz_open")
    assert open_string.told().code == "check_nut_edge"
    stopped = measured(kind="buzz").found("sound", "buzz_stopped")
    assert stopped.told().code == "check_board"


def test_a_bridge_from_a_blank_has_its_own_order() -> None:
    """Mask, feet, marks, crown, outer strings, heights again, thickness, openings, protector."""
    bench = blank()
    assert bench.told().code == "baseline"
    bench.skipped("baseline")
    codes = [bench.told().code]
    bench.marked("mask", "done")
    codes.append(bench.told().code)
    bench.did("feet_refitted")
    codes.append(bench.told().code)
    marks = bench.told().values("mark_height")
    bench.marked("marks", "done")
    cut = bench.told()
    codes.append(cut.code)
    assert cut.values("mark_height") == marks
    bench.did("crown_cut", CrownCut())
    codes.append(bench.told().code)
    assert codes == ["mask_top", "fit_feet", "mark_line", "cut_crown", "string_outer"]
    assert bench.told().keys == (("end_height", 0), ("end_height", 3))


def test_the_marks_are_the_targets_over_the_boards_line() -> None:
    """0.5 at the nut, 5.0 at the end of 270: 0.5 + 4.5 * 328 / 270 over the line at 328, longer by its slope."""
    bench = blank("mask").did("feet_refitted")
    assert bench.told().values("mark_height")[0] == pytest.approx(SLOPE * 0.5 + 4.5 * CARRY)
    assert "Set up from the marks: G 6.0" in bench.sheet().instruction.do[0]


def test_after_the_heights_come_thickness_openings_and_protector() -> None:
    bench = strung()
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


def test_words_beside_a_finding_go_with_it_once_it_was_mended_after_it_was_found() -> None:
    bench = measured().did("pegs_fitted").found("pegs", "peg_slips", words="most of all at A")
    assert any("most of all at A" in line for line in bench.sheet().proposals)
    assert not any("most of all at A" in line for line in bench.did("pegs_fitted").sheet().proposals)
    plain = measured().found("saddle").sheet().proposals
    assert [line for line in plain if "saddle" in line] == ["saddle: work needed"]


@pytest.mark.parametrize(("hours", "ends", "says"), [(20, 20, "out at a concert"), (5, 12, "")])
def test_of_two_waits_the_longer_one_counts(hours: int, ends: int, says: str) -> None:
    """The glue under a new nut dries for twelve hours; somebody said beside it that the crown waits."""
    bench = measured(over=1.0).did("new_nut", ago=timedelta(0))
    until = bench.now + timedelta(hours=hours)
    bench.marks.append(
        CourseMark(uuid4(), VISIT, "crown", "wait", "out at a concert", until, 1, "Ilse Varnholt", bench.now)
    )
    crown = next(stop for stop in bench.assess().stops if stop.key == "crown")
    assert (crown.state, crown.until, crown.reason) == ("waiting", bench.now + timedelta(hours=ends), says)


def test_a_wait_is_over_for_whoever_goes_on_until_another_work_brings_one() -> None:
    def crown(bench: Bench) -> str:
        return next(stop.state for stop in bench.assess().stops if stop.key == "crown")

    bench = measured(over=1.0).did("new_nut", ago=timedelta(hours=1))
    assert crown(bench) == "waiting"
    assert crown(bench.marked("crown", "go_on")) != "waiting"
    assert crown(bench.did("seam_glued", ago=timedelta(hours=1))) == "waiting"
