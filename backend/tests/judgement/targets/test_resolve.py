"""Targets through schools and the shop's own figures, each case worked by hand."""

from __future__ import annotations

import math
from typing import Any, cast
from uuid import uuid4

import pytest
from fidicula.codes import FigureCode, MeasureCode, TargetQuestionCode
from fidicula.domain.instruments import Instrument
from fidicula.domain.strings import SetString, StringSet
from fidicula.domain.targets import FigureEntry, TargetChoice
from fidicula.judgement.assessment.computing import Computed, compute
from fidicula.judgement.assessment.judging import bench_state
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.targets.resolve import targets_of
from fidicula.judgement.targets.rules import Rules, make_rules
from fidicula.judgement.targets.wanted import Taken
from fidicula.tables.figures import string_names
from fidicula.views.sheet.lines import changes, target_lines
from fidicula.words.target_lines import NO_FIGURE

from ...scenario import NOW, SLOPE

DIAMETERS = {"violin": (0.8, 0.86, 0.68, 0.27), "cello": (1.6, 1.2, 1.0, 0.8), "bass": (2.4, 2.0, 1.5, 1.1)}


def own_figure(
    measure: FigureCode, *band: float, question: str = "", school: str = "", size: str = "4/4"
) -> FigureEntry:
    low, aim, high = band
    return FigureEntry(
        uuid4(), "violin", size, measure, question, school, low, aim, high, "three players", "Ilse", False, "Ilse"
    )


def state_of(
    family: str = "violin",
    size: str = "4/4",
    *,
    material: str = "synthetic",
    rules: Rules | None = None,
    taken: Any = None,
    **schools: str,
) -> BenchState:
    """An instrument of which nothing was measured, with these schools in the place of the shop's."""
    names = string_names(family=family, count=4) or ()
    strings = tuple(SetString(n, d) for n, d in zip(names, DIAMETERS[family], strict=True))
    string_set = StringSet(uuid4(), "s", family, material, strings)
    instrument = Instrument(
        uuid4(),
        "T",
        family,
        size,
        names,
        False,
        False,
        "",
        "",
        TargetChoice(schools=cast(dict[TargetQuestionCode, str], schools)),
    )
    targets = targets_of(instrument, string_set, rules or make_rules(family), taken)
    return bench_state(instrument=instrument, string_set=string_set, readings=[], works=[], targets=targets, now=NOW)


def aim(state: BenchState, measure: MeasureCode, position: int | None = None) -> float:
    wanted = state.wanted_upright((measure, position))
    assert wanted is not None
    return wanted.band.aim


def planned(state: BenchState) -> Computed:
    found = compute(state)
    assert isinstance(found, Computed)
    return found


def line(state: BenchState, key: str) -> Any:
    return next(found for found in target_lines(state) if found.key == key)


def test_a_planned_material_counts_whatever_is_on() -> None:
    """Gut adds 1.0 at the board's end of a cello, and 0.3 and 0.2 to its scoop: 7.5 + 1.0 and 1.5 + 0.3."""
    as_strung, gut = state_of("cello", material="steel"), state_of("cello", material="steel", string_material="gut")
    assert aim(as_strung, "end_height", 0) == pytest.approx(7.5 - 0.4)
    assert aim(gut, "end_height", 0) == pytest.approx(8.5)
    assert gut.targets.others["relief_bass"].band.aim == pytest.approx(1.8)
    assert "+1.0 for gut strings" in line(gut, "end_height:0").source


def test_a_wide_spread_has_its_own_band_and_five_strings_their_factor() -> None:
    assert aim(state_of("cello", nut_spread="wide"), "nut_spread") == 25.0
    assert aim(state_of(bridge_spread="close"), "bridge_spread") == 33.3


def test_a_shifted_group_keeps_its_margin_and_the_crown_follows() -> None:
    """A cello's board of 32 with a spread of 22.8 and a top string of 0.8: the middle moves 1.2 to the treble."""
    state = state_of("cello", string_group="shifted")
    assert planned(state).nut_centre == pytest.approx(1.2)
    assert line(state, "nut_centre").aim == pytest.approx(1.2)
    assert planned(state_of("cello")).nut_centre == 0


def test_figures_meant_the_shortest_way_stand_higher_upright() -> None:
    """5.0 the shortest way to a string of 0.8 over a board of 42 at y = 15.0: its middle is 47.4 from the board's."""
    state = state_of(height_direction="shortest")
    y = planned(state).plan.strings[0].line.end_offset
    upright = (47.4**2 - y**2) ** 0.5 - 0.4 - (42**2 - y**2) ** 0.5
    assert upright > 5.2
    assert aim(state, "end_height", 0) == pytest.approx(upright)
    assert planned(state).plan.strings[0].end_height == pytest.approx(upright)


def test_heights_stated_at_the_mark_are_the_same_until_the_shop_has_figures_there() -> None:
    """Without its own figures the board's-end ones hold. 5.5 along the bridge is 5.446 square to the board."""
    converted = state_of(height_reference="bridge_mark")
    assert planned(converted).plan.strings[0].end_height == pytest.approx(5.0)
    figures = [
        own_figure("mark_height_bass", 5.0, 5.5, 6.0, question="height_reference", school="bridge_mark"),
        own_figure("mark_height_treble", 3.5, 3.8, 4.1, question="height_reference", school="bridge_mark"),
    ]
    own = state_of(height_reference="bridge_mark", rules=make_rules("violin", figures=figures))
    assert planned(own).plan.strings[0].mark_height == pytest.approx(5.5)
    assert aim(own, "end_height", 0) == pytest.approx(0.5 + (5.5 / SLOPE - 0.5) * 270 / 328)
    assert planned(own).plan.strings[0].end_height == pytest.approx(aim(own, "end_height", 0))
    nut = aim(own, "nut_height", 3)
    assert aim(own, "end_height", 3) == pytest.approx(nut + (3.8 / SLOPE - nut) * 270 / 328)
    half = state_of(height_reference="bridge_mark", rules=make_rules("violin", figures=figures[:1]))
    assert half.targets.marks is None


def test_the_post_stands_where_its_school_puts_it() -> None:
    """A post of 6.0 and a foot of 4.3: half a post 3.0, a whole one 6.0, half a foot 2.15, the top's thickness 3.0."""
    setbacks = {
        "near": 1.0, "half_post": 3.0, "whole_post": 6.0, "top_thickness": 3.0, "half_foot": 2.15,
    }  # fmt: skip
    for school, wanted in setbacks.items():
        assert state_of(post_setback=school).targets.others["post_setback"].band.aim == pytest.approx(wanted)
    insets = {"mirror_bar": 1.2, "shallow": 1.0, "deep": 2.5}
    for school, wanted in insets.items():
        assert state_of(post_inset=school).targets.others["post_inset"].band.aim == pytest.approx(wanted)


def test_the_afterlength_is_a_sixth_or_what_the_saddle_leaves() -> None:
    assert line(state_of(), "afterlength").aim == pytest.approx(328 / 6)
    to_saddle = line(state_of(afterlength="to_saddle"), "afterlength")
    assert to_saddle.aim is None
    assert "as near the saddle" in to_saddle.source


def test_the_shops_own_figure_stands_in_the_place_of_the_starting_one() -> None:
    """A school's own figure of one size comes before the part of the family's band, and no other size takes it."""
    figures = [own_figure("end_height_bass", 5.0, 5.3, 5.6, question="end_heights", school="soloist")]
    rules = make_rules("violin", figures=figures)
    assert aim(state_of(rules=rules, end_heights="soloist"), "end_height", 0) == pytest.approx(5.3)
    assert "confirmed by Ilse" in line(state_of(rules=rules, end_heights="soloist"), "end_height:0").source
    assert aim(state_of(size="1/2", rules=rules, end_heights="soloist"), "end_height", 0) == pytest.approx(4.45)


def test_a_target_read_somewhere_is_never_mixed_with_the_recipe() -> None:
    """All four heights as they were: each string keeps its own, and the crown is the arc nearest to them."""
    read = {("end_height", i): Taken(h, 0.02, "vertical", "as found") for i, h in enumerate((4.9, 4.55, 4.05, 3.2))}
    state = state_of(taken=read)
    heights = [target.end_height for target in planned(state).plan.strings]
    assert heights == pytest.approx([4.9, 4.55, 4.05, 3.2])
    wanted = state.wanted(("end_height", 1))
    assert wanted is not None
    assert (wanted.band.low, wanted.band.high) == pytest.approx((4.53, 4.57))
    assert line(state, "end_height:1").source == "as found"


def test_a_target_without_its_reading_is_missing_not_taken_from_the_recipe() -> None:
    read = {("nut_spread", None): Taken(None, 0.0, "vertical", "as found: not read there")}
    state = state_of(taken=read)
    assert state.wanted(("nut_spread", None)) is None
    assert line(state, "nut_spread").source == NO_FIGURE


def test_changes_say_what_moves_and_what_goes() -> None:
    before, after = target_lines(state_of()), target_lines(state_of(end_heights="soloist", afterlength="to_saddle"))
    found = {change.key: (change.before, change.after) for change in changes(before, after)}
    assert found["end_height:0"] == pytest.approx((5.0, 5.25))
    assert found["afterlength"] == (pytest.approx(328 / 6), None)
    assert "nut_spread" not in found
    assert changes(before, before) == []


def test_computed_targets_carry_what_they_are_known_to() -> None:
    """Nothing was measured: board ±5 mm and ±1.5°, string ±5.5 mm make a mark known to about 0.1."""
    found = line(state_of(), "mark:0")
    rise = 4.5
    slope = (0.5 + rise * 328 / 270) * (1 / math.cos(math.radians(9.5)) - SLOPE)
    by_hand = ((rise / 270 * 5.5) ** 2 + (rise * (328 / 270 - 328 / 275)) ** 2 + slope**2) ** 0.5
    # The nut is planned at its aim, so that its own leeway plays no part.
    assert found.plus_minus == pytest.approx(by_hand, rel=0.02)
