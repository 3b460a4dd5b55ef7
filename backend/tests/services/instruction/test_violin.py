"""The word: what a luthier reads first, for each stage and each trouble."""

from __future__ import annotations

from datetime import UTC, datetime
from itertools import count
from typing import Any
from uuid import uuid4

import pytest
from fidicula.db.records import Instrument, Reading, SetString, StringSet, TargetChoice, Visit, WorkDone
from fidicula.services.assessment.state import bench_state
from fidicula.services.sheet.build import build_sheet
from fidicula.services.sheet.model import BenchSheet
from fidicula.services.targets.resolve import targets_of
from fidicula.services.targets.rules import make_rules

RULES = make_rules("violin")
NOW = datetime(2026, 11, 23, 9, 0, tzinfo=UTC)
WANTED = [5.0, 4.36, 3.81, 3.2]
NUT = [0.5, 0.45, 0.4, 0.35]
SLOTS = [0.27, 0.29, 0.23, 0.09]
SINGLES = {
    "projection": 27.0,
    "string_length": 328.0,
    "fingerboard_length": 270.0,
    "fingerboard_radius": 42.0,
    "nut_spread": 16.3,
    "bridge_spread": 33.5,
}


def sheet(
    *,
    heights: list[float | None] = [],  # noqa: B006 - never changed
    nut: list[float] = NUT,
    slots: list[float] = SLOTS,
    singles: dict[str, float] = SINGLES,
    works: list[WorkDone] = [],  # noqa: B006 - never changed
    **instrument_changes: Any,
) -> BenchSheet:
    """A violin with these readings, all of them taken before the works."""
    fields: dict[str, Any] = {
        "id": uuid4(),
        "ticket": "T-1",
        "family": "violin",
        "size": "4/4",
        "string_names": ("G", "D", "A", "E"),
        "left_handed": False,
        "is_new": False,
        "owner": "",
        "description": "",
        **instrument_changes,
    }
    instrument = Instrument(**fields)
    visit = Visit(uuid4(), instrument.id, "bridge", "", NOW, None)
    diameters = (0.80, 0.86, 0.68, 0.27)
    string_set = StringSet(
        uuid4(), "s", "violin", "synthetic", tuple(SetString(n, d) for n, d in zip("GDAE", diameters, strict=True))
    )
    numbers = count(1)
    readings = []

    def add(measure: str, position: int | None, value: float | None) -> None:
        if value is not None:
            number = next(numbers)
            readings.append(
                Reading(
                    number, uuid4(), visit.id, measure, position, f"{value:g}", value, "caliper", "vertical",
                    "Ilse Varnholt", NOW, NOW, None, None, False, None, None, False, False,
                )
            )  # fmt: skip

    if heights:
        for measure, values in (("end_height", heights), ("nut_height", nut), ("slot_depth", slots)):
            for position, value in enumerate(values):
                add(measure, position, value)
        for measure, value in singles.items():
            add(measure, None, value)
    state = bench_state(
        instrument=instrument,
        string_set=string_set,
        readings=readings,
        works=works,
        targets=targets_of(instrument, string_set, RULES),
    )
    return build_sheet(state, visit, RULES)


def raised(by: float) -> list[float | None]:
    return [height + by for height in WANTED]


def test_nothing_measured_asks_for_heights() -> None:
    assert sheet().words.title == "Measure the heights first"
    assert sheet().course[1].state == "here"


def test_high_strings_are_taken_down_in_two_passes_with_the_caution() -> None:
    """1 mm over at the end is 1.215 mm of wood; seven tenths of that, 0.85, come first."""
    words = sheet(heights=raised(1.0)).words
    assert words.title == "Take the crown down"
    assert words.do == ["First pass, about seven tenths: take G 0.9, D 0.9, A 0.9 and E 0.9. String up, measure again."]
    assert words.caution == "Cut in the vise, blade away from you. Too low cannot be put back."


def test_little_wood_is_taken_in_one_pass() -> None:
    heights: list[float | None] = [5.0, 4.36, 3.81, 3.52]
    words = sheet(heights=heights, singles={**SINGLES}).words
    assert words.do == ["Take E 0.4. String up, measure again."]


def test_in_band_nothing_has_to_come_off() -> None:
    found = sheet(heights=raised(0.2))
    assert found.words.title == "The heights stand in band"
    assert found.words.says[0].startswith("Nothing has to come off. To bring it to the aim, it would be G 0.2")
    assert found.words.caution == "Cut in the vise, blade away from you. Too low cannot be put back."
    assert [stop.state for stop in found.course] == ["done"] * 6


def test_a_bridge_that_must_go_up_is_not_cut() -> None:
    found = sheet(heights=raised(-1.0))
    assert found.words.title == "The bridge is too low"
    assert "wood cannot be put back" in found.words.says[0]
    assert not found.may_cut
    assert found.words.caution is None


def test_one_string_short_and_one_over_are_both_said() -> None:
    words = sheet(heights=[6.2, 5.0, 4.2, 2.5]).words
    assert any("too low at E" in line for line in words.says)
    assert words.title == "Take the crown down"


def test_the_nut_comes_first_and_what_it_gives_is_counted() -> None:
    generous = sheet(heights=raised(1.0), nut=[0.9, 0.85, 0.8, 0.75])
    assert generous.may_file_nut
    assert not sheet(heights=raised(1.0)).may_file_nut
    assert generous.words.do[0] == "File the nut: G 0.40, D 0.40, A 0.40 and E 0.40."
    woods = [s.wood or 0 for s in generous.cut.strings]
    plain = [s.wood or 0 for s in sheet(heights=raised(1.0)).cut.strings]
    assert [a - b for a, b in zip(woods, plain, strict=True)] == pytest.approx([-0.4 * 58 / 270] * 4)


def test_a_nut_in_band_stays_as_it_is() -> None:
    """0.55 is in the card's band of 0.4 to 0.6: nobody files it, and the cut is worked out with it."""
    found = sheet(heights=raised(1.0), nut=[0.55, 0.45, 0.4, 0.35])
    assert found.cut.strings[0].nut_to_file == 0
    assert found.cut.strings[0].down == pytest.approx(1.0 * 328 / 270)


def test_a_cell_says_how_far_out_of_its_band_it_is() -> None:
    """G's band is 4.5 to 5.5: 6.0 stands 0.5 above, 5.2 in band, 4.0 half a millimetre below."""
    for height, standing, outside in ((6.0, "above", 0.5), (5.2, "in_band", 0.0), (4.0, "below", -0.5)):
        band = sheet(heights=[height, 4.4, 3.8, 3.2]).cells[0].band
        assert band is not None
        assert band.side == standing
        assert band.outside_by == pytest.approx(outside)


def test_a_nut_slot_that_is_too_low_cannot_be_filed_right() -> None:
    words = sheet(heights=raised(1.0), nut=[0.2, 0.45, 0.4, 0.35]).words
    assert "The nut slot is too low at G; filing cannot put that right." in words.says


def test_old_slots_deeper_than_the_cut_are_filed_out_first() -> None:
    words = sheet(heights=[5.6, 4.5, 3.9, 3.6], slots=[0.27, 0.6, 0.5, 0.09]).words
    assert words.do[0].startswith("File out the old slots at D and A first")


def test_a_projection_out_of_band_is_decided_before_wood_is_cut() -> None:
    found = sheet(heights=raised(0.2), singles={**SINGLES, "projection": 25.1})
    assert found.words.title == "Decide first: projection"
    assert found.words.says[0] == "The projection is under its band."
    assert found.questions[0].title == "Projection 25.1, under 26.5 to 27.5"
    assert found.course[-1].state != "done"


def test_a_shape_that_cannot_be_is_the_first_word() -> None:
    found = sheet(heights=raised(1.0), singles={**SINGLES, "fingerboard_radius": 14.0})
    assert found.words.title == "This shape cannot be"
    assert found.problem is not None
    assert found.problem.measure == "fingerboard_radius"
    assert found.cut.state == "none"


def test_a_family_without_the_schools_figures_says_so() -> None:
    found = sheet(choice=TargetChoice(schools={"end_heights": "plucked_bass"}))
    assert found.words.title == "No figure for this instrument"
    assert "end height, bass" in found.words.says[0]


def test_every_figure_on_the_sheet_opens_to_a_why_with_a_source() -> None:
    found = sheet(heights=raised(1.0))
    for i in range(4):
        for name in ("wood", "down", "wanted"):
            assert "unsourced" in found.whys[f"{name}:{i}"].follows
    assert found.whys["wood:0"].lines[0] == "6.00 → 5.00 at the board's end is 1.00."
    assert found.whys["wood:0"].lines[-1].startswith("The tools leave ±")
    assert set(found.whys) >= {"crown_radius", "bow", "projection", "end_height:0", "slot_depth:3"}


def test_what_is_assumed_widens_the_give_and_take() -> None:
    """A slot that was not measured may be anything up to half the string: ±0.2 for 0.80 mm; the tools leave ±0.03."""
    known = sheet(heights=raised(1.0)).cut.strings[0]
    assumed = sheet(heights=raised(1.0), slots=[]).cut.strings[0]
    assert (known.state, assumed.state) == ("firm", "provisional")
    assert known.uncertainty == pytest.approx(0.03, abs=0.005)
    assert assumed.uncertainty == pytest.approx(0.2, abs=0.01)


def test_a_flatter_crown_lowers_the_inner_strings_alone() -> None:
    """A larger radius through the same outer points: outer heights stay, inner ones fall."""
    plain = [s.target_end or 0 for s in sheet().cut.strings]
    flat = [s.target_end or 0 for s in sheet(choice=TargetChoice(schools={"crown": "flatter"})).cut.strings]
    assert (flat[0], flat[3]) == pytest.approx((plain[0], plain[3]))
    assert flat[1] < plain[1]
    assert flat[2] < plain[2]


def test_work_makes_the_sheet_ask_again() -> None:
    cut = WorkDone(1, uuid4(), uuid4(), "crown_cut", "Ilse Varnholt", NOW, {"wood": [1.2, 1.2, 1.2, 1.2]}, None, False)
    found = sheet(heights=raised(1.0), works=[cut])
    assert found.words.title == "Measure again"
    assert [stop.state for stop in found.course][3:5] == ["done", "here"]
    assert all(s.state == "none" for s in found.cut.strings)
