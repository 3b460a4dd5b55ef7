"""Neck, projection, and the board's scoop."""

from __future__ import annotations

import pytest
from fidicula.core.bands import Band
from fidicula.core.errors import DoesNotFitError
from fidicula.core.geometry.neck import (
    Remedy,
    board_tilt,
    judge_projection,
    judge_stop,
    neck_off_middle,
    width_drawn_out,
)
from fidicula.core.geometry.scoop import Station, plan_dressing, radius_of_arc, with_ends
from hypothesis import given
from hypothesis import strategies as st


def test_stop_by_hand() -> None:
    """A neck of 130 at 2:3 wants a stop of 195; half the string is an octave over the open note."""
    judged = judge_stop(neck_length=130, stop_length=197, string_length=260)
    assert judged.ideal_stop == 195
    assert judged.bridge_shift == -2
    assert judged.string_length_after == 258
    assert judged.edge_interval == pytest.approx(12)
    assert judged.neck_to_stop == pytest.approx(130 / 197)
    assert judged.deviation is None
    nominal = judge_stop(neck_length=130, stop_length=197, string_length=326, nominal_string_length=328)
    assert nominal.deviation == -2


@pytest.mark.parametrize(
    ("measured", "accept_low", "accept_high", "remedy"),
    [
        (27.0, None, None, "none"),
        (26.5, None, None, "none"),
        (26.0, None, None, "wedge"),
        (26.0, 25.9, None, "accept_with_reason"),
        (26.0, None, 28.0, "wedge"),
        (22.0, None, None, "neck_reset"),
        (28.0, None, None, "neck_reset"),
        (28.0, None, 29.0, "accept_with_reason"),
        (28.0, 25.0, None, "neck_reset"),
    ],
)
def test_remedies(measured: float, accept_low: float | None, accept_high: float | None, remedy: Remedy) -> None:
    """Low: a wedge while it is thin enough; high, or lower than that: a reset; each side accepts for itself."""
    judged = judge_projection(
        measured=measured,
        band=Band(26.5, 27, 27.5),
        string_length=328,
        neck_length=130,
        fingerboard_length=270,
        accept_low=accept_low,
        accept_high=accept_high,
    )
    assert judged.remedy == remedy
    assert judged.change_at_bridge == (0 if remedy == "none" else 27 - measured)


def test_a_wedge_is_hinged_at_the_nut() -> None:
    """1 mm at the bridge of 300 is a third of that at a heel of 100."""
    judged = judge_projection(
        measured=26, band=Band(26.5, 27, 27.5), string_length=300, neck_length=100, fingerboard_length=240
    )
    assert (judged.change_at_heel, judged.change_at_board_end) == pytest.approx((1 / 3, 0.8))


@given(st.lists(st.tuples(st.floats(5, 265), st.floats(-0.5, 1.5)), max_size=8, unique_by=lambda s: round(s[0])))
def test_dressing_never_adds_wood_and_leaves_the_wanted_scoop(stations: list[tuple[float, float]]) -> None:
    """After planing, every gap is the wanted one under a board lowered by the base."""
    plan = plan_dressing(fingerboard_length=270, stations=[Station(*s) for s in stations], target_relief=0.7)
    assert min(s.removal for s in plan.stations) == pytest.approx(0, abs=1e-9)
    for s in plan.stations:
        assert s.gap + s.removal - plan.base_removal == pytest.approx(s.target_gap)


@pytest.mark.parametrize(
    ("gaps", "faults"),
    [
        ([0.4, 0.7, 0.4], ()),
        ([0.4, -0.1, 0.4], ("hump", "wave", "too_flat")),
        ([0.6, 0.4, 0.6], ("wave",)),
        ([0.1, 0.2, 0.1], ("too_flat",)),
        ([0.8, 1.2, 0.8], ("too_deep",)),
        ([0.5, 0.55, 0.5], ()),
        ([0.3, 0.55, 0.3], ()),  # 0.15 either way count in
        ([0.6, 0.85, 0.6], ()),
    ],
)
def test_faults_of_a_board(gaps: list[float], faults: tuple[str, ...]) -> None:
    stations = [Station(x, gap) for x, gap in zip((70, 135, 200), gaps, strict=True)]
    assert plan_dressing(fingerboard_length=270, stations=stations, target_relief=0.7).faults == faults


@pytest.mark.parametrize(
    ("gaps", "is_wave"),
    [
        ([0.5, 0.3, 0.7, 0.6, 0.4], True),
        ([0.4, 0.6, 0.7, 0.3, 0.5], True),
        ([0.4, 0.6, 0.7, 0.6, 0.4], False),
        ([0.4, 0.6, 0.58, 0.6, 0.4], False),
        ([0.4, 0.65, 0.6, 0.65, 0.4], False),
    ],
)
def test_a_wave_lies_between_two_higher_places(gaps: list[float], is_wave: bool) -> None:
    """Wherever it lies: also right beside the first or the last place that was read."""
    stations = [Station(x, gap) for x, gap in zip((40, 90, 135, 180, 230), gaps, strict=True)]
    faults = plan_dressing(fingerboard_length=270, stations=stations, target_relief=0.7).faults
    assert ("wave" in faults) is is_wave


def test_radius_by_hand() -> None:
    """A chord of 8 with a rise of 2 belongs to a radius of 5: 64/16 + 1."""
    assert radius_of_arc(chord=8, sagitta=2) == 5


def test_a_board_that_leans_and_a_neck_that_points_aside() -> None:
    """24 at the nut, 42 at 270: 45.87 at 328; 0.8 over that is a degree. Nicks at 30.2 and 32.6: 1.2 to the bass."""
    width = width_drawn_out(at_nut=24, at_end=42, fingerboard_length=270, string_length=328)
    assert width == pytest.approx(45.8667, abs=1e-4)
    assert board_tilt(bass_edge=27.4, treble_edge=26.6, width=width) == pytest.approx(-0.9993, abs=1e-4)
    assert neck_off_middle(bass_to_nick=30.2, treble_to_nick=32.6) == pytest.approx(1.2)
    assert board_tilt(bass_edge=0.0, treble_edge=0.5, width=0.5) == pytest.approx(45)
    for width in (0, -1):
        with pytest.raises(DoesNotFitError):
            board_tilt(bass_edge=27, treble_edge=27, width=width)


@pytest.mark.parametrize(
    ("x", "gap", "value"),
    [
        (-0.5, 0.0, -0.5),
        (270.5, 0.0, 270.5),
        (540.0, 0.1, 540.0),
        (0.0, 0.2, 0.2),
        (270.0, 0.3, 0.3),
        (270.0, -0.2, -0.2),
    ],
)
def test_a_station_beside_the_board_or_off_its_ends_is_refused(x: float, gap: float, value: float) -> None:
    with pytest.raises(DoesNotFitError) as refused:
        with_ends(stations=[Station(135.0, 0.6), Station(x, gap)], fingerboard_length=270.0)
    assert refused.value.value == value


def test_the_ends_are_stations_of_no_gap() -> None:
    found = with_ends(stations=[Station(200.0, 0.4), Station(135.0, 0.6)], fingerboard_length=270.0)
    assert [(one.x, one.gap) for one in found] == [(0, 0), (135, 0.6), (200, 0.4), (270, 0)]
    read = with_ends(stations=[Station(0.0, 0.0), Station(270.0, 0.0)], fingerboard_length=270.0)
    assert [one.x for one in read] == [0, 270]
