"""What is taken for a figure where several readings could give it, and where none does."""

from __future__ import annotations

from dataclasses import replace
from datetime import timedelta

import pytest
from fidicula.core.mechanics.load import BridgeAngles
from fidicula.core.readings.settling import still_settles
from fidicula.domain.lessons import Learnt
from fidicula.judgement.assessment.columns import Column
from fidicula.judgement.assessment.computing import Computed, compute
from fidicula.judgement.assessment.findings import spacing
from fidicula.judgement.assessment.leaning import tilt_of
from fidicula.judgement.assessment.placing import LEANS, leans_forward
from fidicula.judgement.assessment.projection import accepted_of
from fidicula.judgement.assessment.settling import at_bridge, settles_by
from fidicula.judgement.assessment.stance import present_angles, present_or_wanted
from fidicula.judgement.assessment.thresholds import strings_in_band
from fidicula.judgement.instruction.amounts import file_nut
from fidicula.judgement.instruction.instruct import instruct

from ...scenario import NOW, Bench, measured


def test_a_lean_that_was_read_counts_before_what_both_edges_say() -> None:
    bench = measured().read("edge_projection", 26.0, 27.0).read("fingerboard_width", 23.5, 42.0)
    by_edges = tilt_of(bench.assess().state)
    assert by_edges is not None
    assert by_edges.value == pytest.approx(1.35, abs=0.2)
    read = tilt_of(bench.read("board_tilt", 0.3).assess().state)
    assert read is not None
    assert read.value == 0.3


@pytest.mark.parametrize(("is_new", "has"), [(True, True), (False, False)])
def test_only_a_new_instrument_may_project_more_than_its_band(is_new: bool, has: bool) -> None:
    state = Bench(instrument={"is_new": is_new}).assess().state
    assert "projection_accepted_high" in state.targets.others
    low, high = accepted_of(state)
    assert low is None
    assert (high is not None) is has


@pytest.mark.parametrize("said", [{"taken_back": True}, {"taken_back": True, "doubt": "leap"}, {"doubt": "leap"}])
def test_a_projection_that_was_taken_back_or_is_doubted_says_nothing_of_the_air(said: dict[str, object]) -> None:
    bench = Bench().read("projection", 27.0, taken_at=NOW - timedelta(days=4))
    first = [replace(one, **said) for one in bench.readings]  # type: ignore[arg-type]
    bench.read("projection", 27.0)
    bench.readings = first + bench.readings[-1:]
    assert "air_same" not in bench.assess().signs


@pytest.mark.parametrize(("bench", "present"), [(measured(over=0.5), True), (Bench().read("projection", 27), False)])
def test_what_presses_follows_from_the_crown_as_it_is_or_as_it_is_wanted(bench: Bench, present: bool) -> None:
    computed = compute(replace(bench.loaded().state(), now=NOW))
    assert isinstance(computed, Computed)
    crowns, marks, is_present = present_or_wanted(computed)
    assert is_present is present
    assert len(crowns) == len(marks) == 2


def test_an_angle_over_the_bridge_that_was_read_is_shared_by_both_sides_where_the_body_is_not_known() -> None:
    state = Bench().read("break_angle", 158).assess().state
    assert present_angles(state, None) == BridgeAngles.halved(158.0)
    assert present_angles(Bench().assess().state, None) is None


def test_a_height_stays_as_it_was_read_where_nothing_turns_it() -> None:
    state = Bench(has_strings=False).assess().state
    assert state.geometry is None
    assert Column("end_height", "vertical").value(state, 0, 5.5, "shortest") == (5.5, "shortest")


@pytest.mark.parametrize(
    ("bench", "stop"),
    [
        (Bench(), "measure"),
        (measured(over=0.0, nut_over=0.3), "nut"),
        (Bench("cello", has_strings=False), "strings"),
        (measured(over=0.6), "high_strings"),
    ],
)
def test_an_instruction_names_the_stop_where_the_work_stands(bench: Bench, stop: str) -> None:
    a = bench.assess()
    told = instruct(a)
    assert told.stop == stop
    assert told.question is not None or (a.here is not None and a.here.key == stop)


def computed(bench: Bench) -> Computed:
    found = bench.assess().computed
    assert found is not None
    return found


@pytest.mark.parametrize(
    ("lean", "forward"), [(-3.0, True), (-LEANS, False), (0.0, False), (3.0, False), (None, False)]
)
def test_a_bridge_leans_forward_by_more_than_it_may(lean: float | None, forward: bool) -> None:
    assert leans_forward(Bench().read("bridge_lean", lean).assess().state) is forward


def test_spacing_that_cannot_be_is_asked_of_what_else_was_read() -> None:
    """Marks that go back and forth; the air between the strings was read as well."""
    bench = measured().read("string_mark_bridge", 14.0, 2.0, 36.0, 24.0)
    assert spacing(bench.assess().state, "bridge") is None
    found = spacing(bench.read("string_gap_bridge", 10.2, 10.2, 10.6).assess().state, "bridge")
    assert found is not None
    assert found.offsets[-1] - found.offsets[0] == pytest.approx(31.0 + 0.4 + 0.86 + 0.68 + 0.135)


@pytest.mark.parametrize(("unread", "holds"), [(0, False), (1, True), (2, True), (3, False)])
def test_heights_are_in_band_where_both_outer_ones_are_read(unread: int, holds: bool) -> None:
    bench = measured()
    bench.readings = [one for one in bench.readings if (one.measure, one.position) != ("end_height", unread)]
    a = bench.assess()
    assert strings_in_band(a.state, a.cut) is holds


def test_the_bows_room_at_an_outer_string_is_told_by_the_waist() -> None:
    """By its width and its height; one of them says nothing."""

    def room(bench: Bench) -> float | None:
        return computed(bench).plan.strings[0].bow_separation

    assert room(measured().read("waist_width", 110.0)) is None
    assert room(measured().read("waist_width", 110.0).read("waist_height", 3.0)) is not None


def test_only_a_slot_that_is_high_enough_is_filed() -> None:
    """0.3 over, 0.02 over, and two that nobody read."""
    bench = measured(nut_over=0.3)
    heights = [one.value for one in bench.readings if one.measure == "nut_height"]
    bench = bench.without("nut_height").read("nut_height", heights[0], heights[1] - 0.28)
    told = file_nut(bench.assess()).amounts
    assert [(one.name, one.position) for one in told] == [("file_by", 0), ("file_first", 0), ("file_to", 0)]
    assert file_nut(Bench(has_strings=False).assess()).amounts == ()


def test_how_far_strings_still_settle_is_known_as_well_as_they_were_read() -> None:
    """Two readings, each as far off as a caliper's are, as the bridge has them."""
    found = computed(measured())
    state = replace(measured().assess().state, learnt=Learnt({}, (0.3, 0.25)))
    scatter = 2**0.5 * 0.05 * at_bridge(state, found, 0)
    assert settles_by(state, found) == pytest.approx(still_settles([0.3, 0.25], scatter=scatter))
