"""Readings that no instrument can have, figures that nobody knows, a visit that is over: nothing is made up of them."""

from __future__ import annotations

from dataclasses import dataclass, field, replace

import pytest
from fidicula.codes import FigureCode, MeasureCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.findings import spacing
from fidicula.judgement.assessment.held import ResolvedValue
from fidicula.judgement.assessment.leaning import tilt_of, width_at_bridge
from fidicula.judgement.instruction import amounts
from fidicula.judgement.instruction.instruct import instruct
from fidicula.judgement.instruction.placing import move_bridge
from fidicula.judgement.instruction.told import Told

from ...scenario import NOW, Bench, measured


def test_a_radius_that_no_chord_has_is_the_figures() -> None:
    held = Bench().read("board_chord", 30.0).read("board_rise", 0.0).assess().state.held("fingerboard_radius")
    assert held is not None
    assert (held.origin, held.assumed) == ("figure", True)


def test_marks_closer_than_the_strings_are_thick_are_no_spacing() -> None:
    assert spacing(measured().read("string_mark_bridge", 0.0, 0.1, 0.2, 0.3).assess().state, "bridge") is None


@dataclass
class Few:
    """Holds what it is given."""

    values: dict[MeasurementKey, float] = field(default_factory=dict)

    def held(self, measure: MeasureCode, position: int | None = None) -> ResolvedValue | None:
        value = self.values.get((measure, position))
        return None if value is None else ResolvedValue(value, False, 0.1, "read")

    def read_or_figure(
        self, measure: MeasureCode, position: int | None = None, *, figure: FigureCode | None = None
    ) -> ResolvedValue | None:
        del figure
        return self.held(measure, position)


BOARD: dict[MeasurementKey, float] = {
    ("fingerboard_width", 0): 24.0,
    ("fingerboard_width", 1): 42.0,
    ("fingerboard_length", None): 270.0,
    ("string_length", None): 330.0,
}
EDGES: dict[MeasurementKey, float] = {("edge_projection", 0): 26.0, ("edge_projection", 1): 27.0}


def test_a_board_is_drawn_out_to_the_bridge_from_four_readings_and_from_no_fewer() -> None:
    """18 mm wider over 270 is 22 over 330."""
    assert width_at_bridge(Few({**BOARD})) == pytest.approx(46.0)
    for missing in BOARD:
        assert width_at_bridge(Few({one: value for one, value in BOARD.items() if one != missing})) is None


def test_a_lean_is_told_by_both_edges_over_a_known_width() -> None:
    lean = tilt_of(Few({**BOARD, **EDGES}))
    assert lean is not None
    assert lean.value == pytest.approx(1.245, abs=0.01)
    for missing in (*BOARD, *EDGES):
        assert tilt_of(Few({one: value for one, value in {**BOARD, **EDGES}.items() if one != missing})) is None
    # A board that narrows to nothing before the bridge.
    assert tilt_of(Few({**BOARD, **EDGES, ("fingerboard_width", 1): 2.0})) is None


def test_a_projection_is_judged_on_a_string_longer_than_its_board() -> None:
    low = measured(singles={"projection": 24.0})
    assert low.assess().projection is not None
    short = measured(singles={"projection": 24.0, "string_length": 100.0}).assess()
    assert short.projection is None
    assert instruct(short).code == "check_shape"


def wheels(spread: float, thread: float) -> Assessment:
    bench = measured("bass", over=1.0).read("adjuster_spread", spread).read("thread_pitch", thread)
    return bench.found("bridge", "has_adjusters", verdict="fine").assess()


def test_wheels_without_a_thread_are_not_turned() -> None:
    assert amounts.turn_wheels(wheels(90.0, 1.25)).amounts
    assert amounts.turn_wheels(wheels(90.0, 0.0)) == Told()


def test_slots_are_placed_for_strings_that_are_named() -> None:
    assert amounts.recut_slots(measured(has_strings=False, strings=()).assess()) == Told()
    closer, *marks = amounts.recut_slots(measured(singles={"bridge_spread": 31.5}).assess()).amounts
    assert (closer.name, closer.value) == ("closer", pytest.approx(1.0))
    assert [one.position for one in marks] == [0, 1, 2, 3]


def test_a_bridge_goes_back_by_last_times_length_only_where_it_walked() -> None:
    walked = measured(singles={"string_length": 331.0}).last_visit("string_length", 328)
    assert [one.value for one in move_bridge(walked.assess()).amounts] == [pytest.approx(-3.0)]
    stayed = measured(singles={"string_length": 328.2}).last_visit("string_length", 328)
    assert move_bridge(stayed.assess()) == Told()


def test_a_visit_that_is_over_asks_for_nothing() -> None:
    loaded = measured(over=0.8).loaded()
    over = replace(loaded.visit, closed_at=NOW)
    assert instruct(loaded.assess()).records == "crown_cut"
    told = instruct(replace(loaded, visit=over).assess())
    assert (told.code, told.records, told.amounts) == ("handed_over", "", ())


def test_a_size_without_figures_asks_for_them_and_for_nothing_else() -> None:
    told = Bench("cello", size="1/10").told()
    assert told.code == "enter_figures"
    assert {"end height, bass", "end height, treble", "crown radius"} < {*told.missing}


@pytest.mark.parametrize(
    ("place", "usual"),
    [
        (("end_height", 0), 5.0),
        (("end_height", 1), 4.4),
        (("end_height", 3), 3.2),
        (("slot_depth", 1), 0.86 / 3),
        (("projection", None), 27.0),
    ],
)
def test_about_what_a_reading_is_goes_by_what_is_wanted(place: MeasurementKey, usual: float) -> None:
    found = measured().assess().state.usual(place)
    assert found is not None
    assert found == pytest.approx(usual)
    assert Bench("cello", size="1/10").assess().state.usual(("end_height", 0)) is None
