"""A post that is cut anew, and the same place stated to each of its sides."""

from __future__ import annotations

import pytest
from fidicula.core.errors import CoreError
from fidicula.core.fitting.post import POST_SIDES, inset_behind_middle, new_post, stated_to, to_near_side
from fidicula.core.readings.typed import to_a_side


def test_a_post_between_sloping_plates_has_a_long_and_a_short_side() -> None:
    """6 mm across at 4° falls 0.4196, at 2° it rises 0.2095: together 0.629, half of it on each side of 53.5."""
    cut = new_post(room=53.5, post_diameter=6, top_slope=4, back_slope=2)
    assert (cut.top_bevel, cut.bottom_bevel) == (pytest.approx(0.4196, abs=1e-4), pytest.approx(0.2095, abs=1e-4))
    assert (cut.long_side, cut.short_side) == (pytest.approx(53.8145, abs=1e-4), pytest.approx(53.1855, abs=1e-4))


def test_level_plates_want_square_ends() -> None:
    cut = new_post(room=53.5, post_diameter=6, top_slope=0, back_slope=0)
    assert cut.middle == cut.long_side == cut.short_side == 53.5


def test_one_place_has_three_statements_and_each_leads_back() -> None:
    """A cello's 11 mm post 2 behind the foot: its middle 7.5, its far side 13."""
    stated = [stated_to(near=2, side=side, post_diameter=11) for side in POST_SIDES]
    assert stated == [2, 7.5, 13]
    back = [to_near_side(distance=d, side=s, post_diameter=11) for d, s in zip(stated, POST_SIDES, strict=True)]
    assert back == [2, 2, 2]


def test_behind_the_middle_of_the_foot() -> None:
    """Feet of 41 with their middles 31 apart: each foot's middle lies 5 inside its edge, a 6 mm post starts at 2."""
    assert inset_behind_middle(foot_width=41, foot_spread=31, post_diameter=6) == 2


def test_what_cannot_be_is_named() -> None:
    with pytest.raises(CoreError, match="room is over 0"):
        new_post(room=0, post_diameter=6, top_slope=0, back_slope=0)
    with pytest.raises(CoreError, match="within their 41"):
        inset_behind_middle(foot_width=41, foot_spread=45, post_diameter=6)


@pytest.mark.parametrize(
    ("typed", "meant"),
    [
        ("5,2 far", ("5,2", "far")),
        ("5.2 mm mid", ("5.2 mm", "middle")),
        ("5.2near", ("5.2", "near")),
        ("5.2 Middle side", ("5.2", "middle")),
        ("5.2", ("5.2", None)),
        ("farther", ("farther", None)),
    ],
)
def test_a_side_behind_the_digits_is_understood(typed: str, meant: tuple[str, str | None]) -> None:
    assert to_a_side(typed) == meant
