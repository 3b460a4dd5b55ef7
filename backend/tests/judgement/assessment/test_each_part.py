"""Each part of the instrument by itself."""

from __future__ import annotations

import pytest
from fidicula.judgement.assessment.parts import PartAssessment, part_of
from fidicula.judgement.measures import MEASURES
from fidicula.tables.parts import parts
from fidicula.tables.signs import items
from fidicula.tables.workflow import questions

from ...scenario import Bench, measured


def part(bench: Bench, name: str) -> PartAssessment:
    return next(one for one in bench.assess().parts if one.part == name)


def test_every_part_is_there_in_order_and_unknown_before_anything_is_read() -> None:
    found = Bench().assess().parts
    assert [one.part for one in found] == list(parts())
    assert {one.part for one in found if one.state != "unknown"} == {"strings"}


@pytest.mark.parametrize(
    ("bench", "name", "state"),
    [
        (measured(), "strings", "in_order"),
        (measured(), "post", "unknown"),
        (measured().found("board", verdict="fine"), "board", "in_order"),
        (measured().found("pegs", "peg_slips"), "pegs", "work"),
        (measured().found("saddle", words="a splinter missing"), "tailpiece", "work"),
        (measured().found("bridge", "has_adjusters", verdict="fine"), "bridge", "in_order"),
        (measured(over=0.8), "bridge", "above"),
        (measured(over=0.8).decided("high_strings", "bridge"), "bridge", "above"),
        (measured(over=0.02), "bridge", "in_order"),
        (measured(singles={"nut_spread": 14.0}), "nut", "below"),
        (measured(singles={"projection": 25.0}).decided("projection", "accept", "a low arch"), "neck", "left"),
        (Bench().read("end_height", 5.5, 5.0, 4.5, 4.2), "neck", "assumed"),
        (measured(singles={"projection": 24.6}), "neck", "decide"),
        (measured().found("post", "post_fallen"), "post", "decide"),
        (measured().did("strings_changed"), "bridge", "stale"),
        (Bench(has_strings=False), "strings", "unknown"),
        (measured().did("strings_changed"), "nut", "stale"),
        (measured().did("tailgut_changed"), "nut", "in_order"),
    ],
)
def test_the_first_of_what_is_open_is_its_state(bench: Bench, name: str, state: str) -> None:
    assert part(bench, name).state == state


def test_a_part_has_its_questions_findings_stale_places_and_what_is_assumed() -> None:
    bench = measured().found("pegs", "peg_slips").did("new_nut")
    nut, pegs = part(bench, "nut"), part(bench, "pegs")
    assert pegs.findings == ("peg_slips",)
    assert (pegs.done, nut.done) == ((), ("new_nut",))
    assert [key for key in nut.again if key[0] == "nut_height"] == [("nut_height", i) for i in range(4)]
    half = Bench().read("end_height", 5.5, 5.0, 4.5, 4.2)
    assert ("projection", None) in part(half, "neck").assumed
    assert part(half, "neck").again == ()
    assert [one.question for one in part(measured(over=0.8), "bridge").questions] == ["high_strings"]
    assert part(measured(over=0.8).decided("high_strings", "bridge"), "bridge").questions == ()


def test_a_part_is_off_by_its_farthest_reading() -> None:
    """0.8 over what is wanted: the band's own half is not counted."""
    heights = measured(over=[0.8, 0.5, 0.5, 0.2]).decided("high_strings", "bridge")
    bridge = part(heights, "bridge")
    (place, by), *others = bridge.off
    wanted = heights.assess().state.wanted_as_read(("end_height", 0))
    assert wanted is not None
    assert place == ("end_height", 0)
    assert by == pytest.approx(0.8 - (wanted.band.high - wanted.band.aim), abs=0.02)
    assert all(abs(other) <= by for _, other in others)


def test_every_measure_item_and_question_belongs_somewhere() -> None:
    """What is of the day, or about the visit, belongs to no part."""
    assert {row.part for row in MEASURES.values() if part_of(row.measure) is None} == {"the day"}
    assert {row.part for row in items().values()} <= set(parts())
    visit = {"estimate", "acclimatise", "deadline", "approval"}
    assert {one.question for one in questions().values() if one.part is None} == visit
