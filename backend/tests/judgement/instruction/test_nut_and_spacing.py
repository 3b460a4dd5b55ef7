"""Nut and spacing: by how much and to what, what cannot be filed, and strings too close together."""

from __future__ import annotations

import pytest
from fidicula.codes import FindingCode
from fidicula.core.geometry.spacing import string_offsets
from fidicula.judgement.assessment.nut import wanted_offsets
from fidicula.tables.signs import findings
from fidicula.views.templates import nut_strip

from ...scenario import CARRY, SLOPE, measured


def test_the_nut_is_filed_by_and_to() -> None:
    """0.4 over the card's aims, each known to 0.098 by its reading: six tenths of that, 0.059, stay over the aim. To a
    tenth above that first; what it gives is counted in the cut."""
    bench = measured(over=1.0, nut_over=0.4)
    told = bench.told()
    aims, left = bench.aims("nut_height"), 0.6 * 1.96 * 0.05
    assert (told.code, told.records) == ("file_nut", "nut_filed")
    assert told.values("file_by") == pytest.approx(dict.fromkeys(range(4), 0.4 - left))
    assert told.values("file_to") == pytest.approx({i: aim + left for i, aim in enumerate(aims)})
    said = bench.sheet().instruction
    first = "First G by 0.24, to 0.66; D by 0.24, to 0.61; A by 0.24, to 0.56; E by 0.24, to 0.51 mm."
    assert said.do[0] == f"{first} String up and measure."
    assert said.do[1] == "Then, as measured, on to G 0.56, D 0.51, A 0.46 and E 0.41 mm."
    assert said.says[-1] == "Its heights are known to ±0.12 mm. A little of that stays over the aim."
    last = measured(over=1.0, nut_over=0.25).sheet().instruction
    assert last.do[0].startswith("A stroke at a time: G by 0.19, to 0.56")
    assert said.caution is not None
    assert "Too low cannot be filed back" in said.caution
    plain = [s.wood or 0 for s in measured(over=1.0).assess().cut.strings]
    with_nut = [s.wood or 0 for s in bench.assess().cut.strings]
    assert [a - b for a, b in zip(with_nut, plain, strict=True)] == pytest.approx([-0.4 * SLOPE * 58 / 270] * 4)


def test_a_nut_in_band_stays_as_it_is() -> None:
    """0.55 is in the card's band of 0.4 to 0.6: nobody files it, and the cut is worked out with it."""
    bench = measured(over=1.0).read("nut_height", 0.55, at=0)
    string = bench.assess().cut.strings[0]
    assert string.nut_to_file == 0
    assert string.drop == pytest.approx(CARRY)


def test_a_nut_slot_that_is_too_low_is_decided() -> None:
    told = measured(over=1.0).read("nut_height", 0.2, at=0).told()
    assert (told.code, told.stop) == ("decide", "nut_low")


def test_filling_says_how_much_is_missing() -> None:
    bench = measured(over=1.0).read("nut_height", 0.2, at=0).decided("nut_low", "fill", "a hire instrument")
    told = bench.told()
    assert told.code == "fill_slot"
    assert told.values("height_added") == pytest.approx({0: 0.3})


def test_strings_too_close_together_are_an_instruction_and_not_copied() -> None:
    """2.4 under the spread that is wanted: 1.2 too close on each side, and the new marks from the lowest string."""
    bench = measured(over=1.0, singles={"bridge_spread": 31.1})
    assert (bench.told().code, bench.told().stop) == ("decide", "narrow_spacing")
    told = bench.decided("narrow_spacing", "recut").told()
    offsets = string_offsets(spread=33.5, diameters=[0.80, 0.86, 0.68, 0.27])
    assert told.code == "recut_slots"
    assert told.values("closer") == pytest.approx({None: 1.2})
    assert told.values("mark") == pytest.approx({i: y - offsets[0] for i, y in enumerate(offsets)})
    said = bench.sheet().instruction
    assert said.says[-1] == "The strings stand 1.20 ±0.12 mm too close on each side."
    assert said.do[0] == "Mark the new spacing from the lowest string: 0 / 11.3 / 22.5 / 33.5 mm."


def test_the_crown_is_planned_for_the_spacing_that_is_wanted_unless_it_is_to_stay() -> None:
    narrow = measured(over=1.0, singles={"bridge_spread": 31.1})
    kept = measured(over=1.0, singles={"bridge_spread": 31.1}).decided("narrow_spacing", "leave", "she is used to it")
    for bench, spread in ((narrow, 33.5), (kept, 31.1)):
        a = bench.assess()
        assert a.computed is not None
        offsets = [string.line.bridge_offset for string in a.computed.plan.strings]
        assert offsets[-1] - offsets[0] == pytest.approx(spread)


def test_a_bridge_that_faces_the_wrong_way_is_asked_about() -> None:
    bench = measured(over=1.0).found("bridge", "bridge_wrong_way")
    told = bench.told()
    assert (told.code, told.stop) == ("decide", "bridge_wrong_way")
    assert bench.decided("bridge_wrong_way", "turn").told().records == "bridge_turned_round"
    left = (
        measured(over=1.0)
        .found("bridge", "bridge_wrong_way")
        .decided("bridge_wrong_way", "leave", "it was cut so, by the owner's wish")
    )
    assert left.told().code == "cut_crown"


def test_a_wrong_spread_at_the_nut_is_not_copied() -> None:
    """14.0 between the outer strings: the next nut, its strip and its front are set out by what is wanted."""
    bench = measured(singles={"nut_spread": 14.0})
    wanted = bench.assess().state.wanted(("nut_spread", None))
    assert wanted is not None
    offsets = wanted_offsets(bench.assess().state)
    assert offsets is not None
    assert offsets[-1] - offsets[0] == pytest.approx(wanted.band.aim)
    strip = nut_strip(bench.assess().state)
    marks = [line.points[0][0] for line in strip.lines if line.kind == "mark"]
    assert max(marks) - min(marks) == pytest.approx(wanted.band.aim)
    as_it_is = measured(singles={"nut_spread": wanted.band.high})
    kept = wanted_offsets(as_it_is.assess().state)
    assert kept is not None
    assert kept[-1] - kept[0] == pytest.approx(wanted.band.high)


@pytest.mark.parametrize(
    ("finding", "works"), [("nut_too_high", {"nut_filed"}), ("nut_too_low", {"new_nut", "slot_filled"})]
)
def test_a_nut_that_is_too_high_or_too_low_can_be_seen_before_it_is_measured(
    finding: FindingCode, works: set[str]
) -> None:
    assert set(findings()[finding].works) == works
    asked = {one.question for one in measured().found("nut", finding).assess().questions}
    assert ("nut_low" in asked) == (finding == "nut_too_low")
