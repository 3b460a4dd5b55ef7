"""Buzz clearance and finger force effort along the board."""

from __future__ import annotations

from typing import Any

import pytest
from fidicula.core.errors import DoesNotFitError
from fidicula.core.geometry.scoop import Station, gap_along
from fidicula.core.mechanics.stopped import (
    FIRST_LOOK,
    Bow,
    Pluck,
    clearances,
    press_efforts,
    stop_position,
    swing_along,
)

STRAIGHT = gap_along(fingerboard_length=270)


def test_the_octave_is_stopped_in_the_middle() -> None:
    assert stop_position(semitone=12, string_length=330) == pytest.approx(165)


def test_effort_by_hand() -> None:
    """Stopped at the octave of 300 mm, 3 mm off the board, at 50 N: 50·3·(1/150 + 1/150) = 2 N."""
    octave = press_efforts(
        string_length=300,
        fingerboard_length=200,
        nut_height=3,
        end_height=3,
        tension=50,
        gap=gap_along(fingerboard_length=200),
    )[11]
    assert octave.force == pytest.approx(2.0)


def test_a_still_string_clears_by_its_own_height() -> None:
    """With no amplitude the least clearance of the open string is where it is lowest: at the first look, 10 mm on."""
    [open_string, *_] = clearances(
        string_length=330, fingerboard_length=270, nut_height=0.5, end_height=5, pitch=196, gap=STRAIGHT,
        excitation=Bow(speed=0.0),
    )  # fmt: skip
    assert open_string.at == 10
    assert open_string.margin == pytest.approx(0.5 + 4.5 * 10 / 270)


def test_bow_amplitude_by_hand() -> None:
    """0.4 m/s at a tenth of the string and 200 Hz: 1000·0.4/(8·0.1·200) = 2.5 mm; an octave up, half."""
    stops = clearances(
        string_length=330,
        fingerboard_length=270,
        nut_height=0.5,
        end_height=5,
        pitch=200,
        gap=STRAIGHT,
        excitation=Bow(),
    )
    assert stops[0].amplitude == pytest.approx(2.5)
    assert stops[12].amplitude == pytest.approx(1.25)


@pytest.mark.parametrize("excitation", [Bow(), Pluck(displacement=2.0)])
def test_more_scoop_and_less_swing_make_more_room(excitation: Bow | Pluck) -> None:
    def least(relief: float, share: float) -> float:
        stops = clearances(
            string_length=330, fingerboard_length=270, nut_height=0.5, end_height=4, pitch=196,
            gap=gap_along(fingerboard_length=270, relief=relief), excitation=excitation, share=share,
        )  # fmt: skip
        return min(stop.margin for stop in stops)

    assert least(0.8, 0.6) > least(0.2, 0.6)
    assert least(0.5, 0.3) > least(0.5, 0.9)


def test_stations_give_straight_lines_between_them() -> None:
    gap = gap_along(fingerboard_length=200, stations=[Station(100, 0.6), Station(50, 0.2)])
    assert [gap(x) for x in (0, 25, 50, 75, 100, 150, 200)] == pytest.approx([0, 0.1, 0.2, 0.4, 0.6, 0.3, 0])


def test_a_board_under_10_mm_has_no_stop() -> None:
    with pytest.raises(DoesNotFitError) as refused:
        clearances(
            string_length=330, fingerboard_length=9, nut_height=0.5, end_height=4, pitch=196, gap=STRAIGHT,
            excitation=Bow(),
        )  # fmt: skip
    assert refused.value.path == ("fingerboard_length",)


def test_without_a_share_the_whole_swing_counts() -> None:
    """0.5 + 4.5 · x/270 under the open string, less its 2.5 at the middle and as a sine beside it."""
    asked = {
        "string_length": 330, "fingerboard_length": 270, "nut_height": 0.5, "end_height": 5, "pitch": 200,
        "gap": STRAIGHT, "excitation": Bow(),
    }  # fmt: skip
    whole, half = clearances(**asked), clearances(**asked, share=0.5)  # type: ignore[arg-type]
    assert [one.margin for one in clearances(**asked, share=1.0)] == [one.margin for one in whole]  # type: ignore[arg-type]
    assert whole[0].margin < half[0].margin


def test_a_note_drawn_is_the_note_that_is_judged() -> None:
    """The least room over the drawn board is the margin, but for what lies between its points."""
    gap = gap_along(fingerboard_length=270.0, relief=0.7)
    bow = Bow(speed=0.4)
    note: dict[str, Any] = {
        "string_length": 328.0,
        "fingerboard_length": 270.0,
        "nut_height": 0.5,
        "end_height": 5.0,
        "pitch": 196.0,
        "gap": gap,
        "excitation": bow,
        "share": 0.5,
    }
    for semitone in (0, 7):
        drawn = swing_along(**note, semitone=semitone, points=3281)
        judged = clearances(**note)[semitone]
        over = [one for one in drawn if one.board is not None and one.place >= judged.stop + FIRST_LOOK]
        assert min(one.lowest - (one.board or 0.0) for one in over) == pytest.approx(judged.margin, abs=1e-3)
        assert drawn[0].place == pytest.approx(judged.stop)
        assert drawn[-1].place == pytest.approx(328.0)
        assert drawn[-1].rest == pytest.approx(0.5 + 4.5 * 328 / 270)
        assert drawn[0].lowest == pytest.approx(drawn[0].rest)
        assert max(one.rest - one.lowest for one in drawn) == pytest.approx(0.5 * judged.amplitude, rel=1e-3)
    assert swing_along(**note)[-1].board is None


def test_a_plucked_string_swings_as_a_triangle_and_its_mirror() -> None:
    """Plucked 2 mm at a quarter and stopped at the octave: 1 mm there and at three quarters, 2/3 in the middle."""
    note: dict[str, Any] = {"string_length": 400.0, "fingerboard_length": 300.0, "nut_height": 0.5, "end_height": 5.0}
    gap = gap_along(fingerboard_length=300.0, relief=0.7)
    drawn = swing_along(
        **note, pitch=196.0, gap=gap, excitation=Pluck(displacement=2.0, point=0.25), semitone=12, points=9
    )
    aside = [one.rest - one.lowest for one in drawn]
    assert aside == pytest.approx([0, 0.5, 1, 5 / 6, 2 / 3, 5 / 6, 1, 0.5, 0])
    assert [one.place for one in drawn] == pytest.approx([200 + 25 * i for i in range(9)])
    assert [one.board is None for one in drawn] == [False] * 5 + [True] * 4


def test_an_open_string_is_drawn_finely_enough() -> None:
    gap = gap_along(fingerboard_length=270.0, relief=0.7)
    note: dict[str, Any] = {"string_length": 328.0, "fingerboard_length": 270.0, "nut_height": 0.5, "end_height": 5.0}
    drawn = swing_along(**note, pitch=196.0, gap=gap, excitation=Bow(speed=0.4))
    assert len(drawn) == 60
    assert drawn[0].place == 0
