"""What is found decides what may be done, whenever it is found: no cut overtakes damage."""

from __future__ import annotations

import pytest
from fidicula.codes import FindingCode, WorkCode
from fidicula.tables.signs import findings
from fidicula.tables.work import works
from fidicula.tables.workflow import questions

from ...scenario import Bench, measured

CUT: WorkCode = "crown_cut"
POST: WorkCode = "post_moved"
STRINGS: WorkCode = "strings_changed"
HELD_BACK: dict[FindingCode, tuple[WorkCode, ...]] = {
    "crack": (CUT, POST, STRINGS, "nut_filed", "board_dressed"),
    "repair_poor": (CUT, POST, STRINGS),
    "seam_open": (CUT, "nut_filed"),
    "f_wing_low": (POST, "post_set"),
    "board_hump": (CUT, "nut_filed"),
    "board_wave": (CUT, "nut_filed"),
    "board_flat": (CUT, "nut_filed"),
    "board_thin": (CUT, "nut_filed"),
    "board_pointed": (CUT, "nut_filed"),
    "board_hollow_outer": (CUT, "nut_filed"),
    "board_loose": (CUT, STRINGS, "board_dressed"),
    "bar_loose": (CUT, POST, STRINGS),
    "post_tight": (CUT, STRINGS),
    "post_fallen": (CUT, STRINGS),
    "feet_gap": (CUT, "slots_filed"),
    "bridge_wrong_way": (CUT,),
    "bridge_off_place": (POST,),
}
"""By finding, works that wait for what is decided of it."""
OF_DAMAGE = ("seams", "repairs", "f_holes", "board", "bar", "post")
"""Items whose findings are looked at one by one below; the rest are fittings, strings and how it sounds."""
NOTHING_TO_HOLD = {
    "old_repair", "refinished", "neck_grafted", "f_edge_dented", "board_edge_hollow", "board_soft", "post_loose",
    "post_ends_gape", "post_gapes_top", "post_gapes_bottom", "post_leans", "post_bottom_to_bass", "post_is_new",
    "bar_off",
}  # fmt: skip
"""Of those items, what is noted, planned or told with the sound, and stops no cut."""


def found_late(finding: FindingCode) -> Bench:
    """Everything is measured and the crown is due; then somebody sees it."""
    row = findings()[finding]
    return measured(over=1.0).found(row.item, finding, verdict=row.verdict)


@pytest.mark.parametrize(("finding", "work"), [(name, work) for name, all_ in HELD_BACK.items() for work in all_])
def test_what_is_found_late_holds_the_work_back(finding: FindingCode, work: WorkCode) -> None:
    assert measured(over=1.0).assess().barring(CUT) is None
    barring = found_late(finding).assess().barring(work)
    assert barring is not None
    assert finding in str(barring.deciding.asked_when)


@pytest.mark.parametrize("finding", HELD_BACK)
def test_the_work_that_mends_it_is_not_held_back_by_it_and_clears_it(finding: FindingCode) -> None:
    bench = found_late(finding)
    question = next(one.deciding for one in bench.assess().questions if finding in str(one.deciding.asked_when))
    assert question.settled_by
    mends = next(work for work in findings()[finding].works if work in question.settled_by)
    barring = bench.assess().barring(mends)
    assert barring is None or barring.deciding.question != question.question
    after = bench.did(mends).assess()
    assert question.question not in {one.question for one in after.questions if one.decision is None}


@pytest.mark.parametrize("finding", HELD_BACK)
def test_somebody_may_decide_to_go_on_and_says_why(finding: FindingCode) -> None:
    """The last way of each question lets the work go on, with a reason that is kept and printed."""
    asked = next(one for one in found_late(finding).assess().questions if finding in str(one.deciding.asked_when))
    last = asked.deciding.outcomes[-1]
    assert last.opens_gate
    decided = found_late(finding).decided(asked.question, last.outcome, "seen by the owner").assess()
    barring = decided.barring(HELD_BACK[finding][0])
    assert barring is None or barring.question != asked.question


def test_no_finding_of_the_body_is_left_out_here() -> None:
    of_damage = {name for name, row in findings().items() if row.item in OF_DAMAGE}
    assert of_damage == {name for name in HELD_BACK if findings()[name].item in OF_DAMAGE} | (
        NOTHING_TO_HOLD & of_damage
    )
    for deciding in questions().values():
        assert deciding.bars <= works().keys()
        assert not deciding.bars & deciding.settled_by
