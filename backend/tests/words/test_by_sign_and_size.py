"""Words that turn with a sign, or with what is too small to speak of."""

from __future__ import annotations

import pytest
from fidicula.judgement.assessment.parts import part_of
from fidicula.views.templates import crown
from fidicula.words.doubts import doubt_words
from fidicula.words.leaving import readings_of
from fidicula.words.pages import load
from fidicula.words.pages.placing import centred, lean, warp

from ..scenario import Bench, measured


@pytest.mark.parametrize(
    ("hollow", "says"),
    [
        (0.0, "Its tailpiece face is flat."),
        (0.05, "Its tailpiece face is flat."),
        (0.1, "Its tailpiece face is hollow by 0.1 mm."),
        (0.4, "Its tailpiece face is hollow by 0.4 mm."),
        (-0.35, "Its tailpiece face is bellied by 0.35 mm."),
    ],
)
def test_a_hollow_face_and_a_bellied_one(hollow: float, says: str) -> None:
    assert warp(hollow) == says


def test_a_lean_goes_toward_the_tailpiece_or_the_board_and_asks_to_be_pulled_up() -> None:
    assert lean(0.4, pull_up=False) == "Its tailpiece face stands square to the top."
    assert lean(2.0, pull_up=False) == "Its tailpiece face leans 2.0° toward the tailpiece."
    assert lean(-1.5, pull_up=True).startswith("Its tailpiece face leans 1.5° toward the board: pull it upright")


def test_a_bridge_stands_aside_by_so_much_to_one_side() -> None:
    assert centred(0.0) == "It stands in the middle between the f-holes."
    assert "0.5 mm to the treble" in centred(0.5)
    assert "0.5 mm to the bass" in centred(-0.5)


def test_the_load_is_told_in_both_units_with_the_share_of_the_treble_foot_and_a_foot_that_lifts() -> None:
    said = load.finding(tension=220.0, down=90.0, bass=50.0, treble=40.0, lean=0.0, over_treble="post")
    assert said[0].startswith("All strings pull with 220 N, 22.4 kg")
    assert said[1] == ("What presses on the top is less: 90 N, 9.2 kg, 44 % of it on the treble foot, over the post.")
    assert not any("lift" in one for one in said)
    for bass, treble, foot in ((-1.0, 91.0, "bass"), (91.0, -1.0, "treble")):
        lifted = load.finding(tension=220.0, down=90.0, bass=bass, treble=treble, lean=0.0, over_treble="post")
        assert any(one.startswith(f"The {foot} foot would lift") for one in lifted)


@pytest.mark.parametrize(
    ("doubt", "about", "says"),
    [
        ("impossible", None, "2.7 mm is more than projection can be."),
        ("leap", 27.0, "It was 27 mm before. Is this a slip?"),
        ("changed", None, "Was something done to it, or is this a slip?"),
        ("small", 27.0, "usually about 27"),
    ],
)
def test_a_doubt_says_what_stood_there_and_what_is_asked(doubt: str, about: float | None, says: str) -> None:
    bench = Bench().read("projection", 2.7, doubt=doubt, doubt_about=about)
    (reading,) = bench.readings
    assert says in doubt_words(reading, "projection", "mm")


def test_a_template_names_its_sides_where_they_lie() -> None:
    """Seen from the tailpiece the bass side lies to the left; on a left-handed instrument to the right."""
    for left_handed in (False, True):
        state = measured(over=0.5, instrument={"left_handed": left_handed}).assess().state
        places = {one.text: one.x for one in crown(state).words if one.text in ("bass", "treble")}
        assert (places["bass"] < 0 < places["treble"]) != left_handed
        assert places["bass"] == -places["treble"]


@pytest.mark.parametrize(
    ("value", "says"),
    [
        (27.0, "Projection: 27 mm; in band"),
        (27.9, "Projection: 27.9 mm; above by 0.40"),
        (26.2, "Projection: 26.2 mm; below by 0.30"),
    ],
)
def test_a_reading_stands_to_its_band_by_so_much(value: float, says: str) -> None:
    state = Bench().read("projection", value).assess().state
    part = part_of("projection")
    assert part is not None
    assert readings_of(state, part) == [says]
