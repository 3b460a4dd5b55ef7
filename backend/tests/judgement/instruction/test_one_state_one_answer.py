"""The same state gets the same answer, whatever the visit is for; and ready is only what nothing speaks against."""

from __future__ import annotations

import pytest
from fidicula.codes import VisitKindCode
from fidicula.domain.work_details import SlotsFiled
from fidicula.tables.workflow import visit_kinds

from ...scenario import Bench, cut_roughly, measured

ENDING = tuple(kind for kind, row in visit_kinds().items() if "settled" in row.stops.split() and kind != "new_bridge")


def ended(bench: Bench) -> Bench:
    """Everything that somebody confirms by hand is confirmed."""
    for step in ("find", "look", "post", "rest", "baseline"):
        bench.marked(step, "done")
    return bench


@pytest.mark.parametrize("kind", ENDING)
def test_in_band_is_in_band_for_every_kind_of_visit(kind: VisitKindCode) -> None:
    told = ended(measured(over=0.2, kind=kind)).told()
    assert (told.code, told.records) == ("hand_over", "")


@pytest.mark.parametrize("kind", ENDING)
def test_out_of_band_is_cut_by_the_same_amounts_in_every_kind(kind: VisitKindCode) -> None:
    of_bridge = ended(measured(over=1.0, kind="bridge")).told()
    told = ended(measured(over=1.0, kind=kind)).told()
    assert (told.code, told.amounts) == (of_bridge.code, of_bridge.amounts)
    assert told.code == "cut_crown"


@pytest.mark.parametrize("over", [0.02, 0.03, 0.035])
def test_what_is_left_is_too_little_to_be_told_or_felt_and_nothing_more_is_read(over: float) -> None:
    """In band, and known to no better than what is left: read once more each and then let be."""
    once = cut_roughly(over, times=1).told()
    assert max(once.times.values(), default=0) <= 1
    bench = cut_roughly(over, times=2)
    assert all(string.landed for string in bench.assess().cut.strings)
    told = bench.told()
    assert not any(key[0] == "end_height" for key in told.keys)
    assert told.code != "file_slots"


def test_ready_is_not_said_while_a_question_is_open() -> None:
    told = ended(measured(over=0.02, singles={"bridge_spread": 31.0})).told()
    assert told.code == "decide"
    assert told.question is not None
    assert told.question.question == "narrow_spacing"
    decided = ended(measured(over=0.02, singles={"bridge_spread": 31.0}).decided("narrow_spacing", "leave", "as found"))
    assert decided.told().code == "hand_over"


def test_slots_that_were_not_read_after_the_crown_came_down_open_no_bridge() -> None:
    bench = cut_roughly(0.0)
    bench.read("slot_depth", 0.6, 0.6, 0.6, 0.6, times=2).did("crown_beside", SlotsFiled(by=(0.3,) * 4))
    bridge = next(part for part in bench.assess().parts if part.part == "bridge")
    assert ("slot_depth", 0) not in bridge.again
