"""Where the bridge goes, each case worked out by hand."""

from __future__ import annotations

import pytest
from fidicula.core.errors import CoreError
from fidicula.core.fitting.bridge_place import aside, cents_of_turn, moved_by, shift_to_nicks, shift_to_ratio


def test_the_nicks_halve_the_foot_or_lie_a_third_into_it() -> None:
    """Nicks at 195, the middle of a 4.5 mm foot at 193: halved it moves 2; with 1.5 behind the line only 1.25."""
    read = {"nick_line": 195.0, "stop_length": 193.0, "foot_thickness": 4.5}
    assert shift_to_nicks("nicks", **read) == pytest.approx(2.0)
    assert shift_to_nicks("third", **read) == pytest.approx(1.25)


def test_a_stop_follows_its_neck() -> None:
    """130 to 195 is 2 to 3: from 193 it is 2 mm toward the tailpiece."""
    assert shift_to_ratio(neck_length=130, stop_length=193, neck_to_stop=2 / 3) == pytest.approx(2.0)


def test_what_five_millimetres_bring() -> None:
    """325 to 330: the octave by 2.5, the pull by (330/325)² - 1 = 3.1 %, the post 5 nearer behind its foot."""
    moved = moved_by(shift=5, string_length=325)
    assert (moved.string_length, moved.octave, moved.setback) == (5, 2.5, -5)
    assert moved.pull == pytest.approx(0.0310, abs=1e-4)


def test_a_turned_bridge_costs_about_five_cents_a_millimetre_over_the_spread() -> None:
    """1 mm over a 34 mm spread on 328 is 5.3 cents; over feet of 41 the same turn is 34/41 of it."""
    at_strings = cents_of_turn(turn=1, foot_width=34, spread=34, string_length=328)
    assert at_strings == pytest.approx(5.27, abs=0.01)
    assert cents_of_turn(turn=-1, foot_width=41, spread=34, string_length=328) == pytest.approx(
        at_strings * 34 / 41, abs=0.01
    )


def test_off_the_middle_is_half_the_difference() -> None:
    assert aside(bass_gap=5, treble_gap=3) == 1
    assert aside(bass_gap=3, treble_gap=5) == -1


def test_what_cannot_be_is_named() -> None:
    with pytest.raises(CoreError, match="foot"):
        shift_to_nicks("nicks", nick_line=195, stop_length=193, foot_thickness=0)
    with pytest.raises(CoreError, match="ratio"):
        shift_to_ratio(neck_length=130, stop_length=193, neck_to_stop=0)
    with pytest.raises(CoreError, match="shorter"):
        moved_by(shift=-400, string_length=325)
    for width in (0, -41):
        with pytest.raises(CoreError, match="width over the feet"):
            cents_of_turn(turn=1, foot_width=width, spread=34, string_length=328)
    assert cents_of_turn(turn=0.01, foot_width=0.5, spread=34, string_length=328) > 0
