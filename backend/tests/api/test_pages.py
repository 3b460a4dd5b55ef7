"""The pages of an instrument: what the demo's come to, worked by hand; what is tried, and what is refused."""

from __future__ import annotations

import math
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from ..scenario import SLOPE
from .test_bench import Bench


def page(client: TestClient, ticket: str, name: str, status: int = 200, **handles: float | str) -> dict[str, Any]:
    answer = client.post(f"/api/instruments/{ticket}/pages/{name}", json={"handles": handles})
    assert answer.status_code == status, answer.text
    return dict(answer.json())


def then(view: dict[str, Any], key: str) -> float:
    return float(next(one["then"] for one in view["consequences"] if one["key"] == key))


def now(view: dict[str, Any], key: str) -> float:
    return float(next(one["now"] for one in view["consequences"] if one["key"] == key))


def way(view: dict[str, Any], outcome: str) -> dict[str, Any]:
    return dict(next(one for one in view["ways"] if one["outcome"] == outcome))


def advised(view: dict[str, Any]) -> list[str]:
    return [one["outcome"] for one in view["ways"] if one["recommended"]]


def test_the_violas_wave_is_planed_out_and_everything_over_the_board_follows(client: TestClient) -> None:
    """
    RW-104. Bass: wanted 0.75, 1.00, 0.75 under 0.80, 0.60, 0.95: three quarters along lies 0.20 too deep, so 0.20 comes
    off everywhere and 1.00 - 0.60 + 0.20 = 0.60 in the middle. Treble: nothing everywhere. The middle sinks by 0.10.
    """
    view = page(client, "RW-104", "board")
    assert any("Bass side" in line and "a wave" in line for line in view["finding"])
    assert any("Treble side" in line and "As wanted" in line for line in view["finding"])
    off = next(row for row in view["tables"][0]["rows"] if row[0] == "off, bass")
    assert off[1:] == ["0.20", "0.15", "0.60", "0.00", "0.20"]
    assert then(view, "projection") == pytest.approx(32.6 - 0.10)
    assert then(view, "end_height0") == pytest.approx(6.4 + 0.20)
    assert then(view, "end_height3") == pytest.approx(4.6)
    assert then(view, "thickness_bass") == pytest.approx(5.0)
    assert advised(view) == ["dress"]
    assert "projection" in view["stale_after"]
    assert view["retake"] == []
    shallower = page(client, "RW-104", "board", relief_bass=0.8)
    assert then(shallower, "end_height0") == pytest.approx(6.4 + 0.35)


def test_the_cellos_sunken_neck_waits_and_then_takes_a_wedge(client: TestClient) -> None:
    """RW-106. 3.2 short of 80: 3.2 * 280 / 690 at the heel, 3.2 * 578 / 690 at the board's end; damp comes first."""
    view = page(client, "RW-106", "neck")
    assert "is below its band of 78.5 to 81.5: 3.2 mm short of the aim" in view["finding"][0]
    assert advised(view) == ["wait"]
    assert way(view, "wedge")["takes"][0].startswith("1.30 thick over the body's edge")
    assert way(view, "wedge")["takes"][1] == "2.68 under the board's end"
    assert (
        way(view, "reset")["takes"][0]
        == f"the neck turns by {math.degrees(math.atan(3.2 / 410)):.2f}° at the body's edge"
    )
    tried = page(client, "RW-106", "neck", wedge=1.3)
    assert then(tried, "projection") == pytest.approx(76.8 + 1.3 * 690 / 280)
    assert then(tried, "end_height0") == pytest.approx(8.9 - 1.3 * 578 / 280)
    assert next(one["side"] for one in tried["consequences"] if one["key"] == "projection") == "in_band"
    moved = page(client, "RW-106", "neck", bridge_shift=-2)
    assert (then(moved, "string_length"), then(moved, "neck_to_stop")) == (688, pytest.approx(280 / 396))
    assert (
        "the bridge would stand at 400.0 from the edge, 2.0 mm toward the tailpiece of where it is"
        in view["finding"][1]
    )


def test_the_cellos_bar_asks_for_a_narrower_bridge(client: TestClient) -> None:
    """RW-107. The bar's edge lies 42 - 4.3 = 37.7 from the middle: a blank of 80 has it 2.3 inside, wanted 2.7."""
    view = page(client, "RW-107", "bar")
    assert "1.6 too far inside. A bridge 3.2 narrower would have it right." in view["finding"][0]
    assert "Of the blanks on hand 80 comes nearest: the bar 2.30 inside." in view["finding"][1]
    assert advised(view) == ["other_width"]
    tried = page(client, "RW-107", "bar", foot_width=81)
    assert then(tried, "bar_inset") == pytest.approx(2.8)
    body = {"id": str(uuid4()), "values": ["80,8", "80", "86"]}
    listed = client.put("/api/shelf/cello/bridge_blanks", json=body).json()
    assert next(one for one in listed if one["name"] == "bridge_blanks")["values"] == [80, 80.8, 86]
    assert "80.8 comes nearest: the bar 2.70 inside" in page(client, "RW-107", "bar")["finding"][1]


def test_the_basss_wheels_for_a_millimetre_and_a_half_on_the_low_side(client: TestClient) -> None:
    """RW-108. 1.5 at the board's end is 1.5 * 1052 / 866 / cos 12.5° at the bridge; the crown tilts over the other."""
    view = page(client, "RW-108", "wheels", bass=-1.5, treble=0)
    down = 1.5 * 1052 / 866 / math.cos(math.radians(12.5))
    slope = down / 83
    assert then(view, "bass_leg") == pytest.approx(-down - slope * (52 - 41.5))
    assert then(view, "treble_leg") == pytest.approx(slope * (52 - 41.5))
    assert then(view, "bass_turns") == pytest.approx(-1.3685 / math.cos(math.radians(12.5)), abs=1e-3)
    assert then(view, "end_height0") == pytest.approx(6.9)
    page(client, "RW-101", "wheels", status=404)


def test_the_dyed_boards_flat_spot_is_dressed_with_a_warning(client: TestClient) -> None:
    """RW-110. The treble side's 0.18 of 0.45: 0.27 off in the middle, 4.2 - 0.27 left; the owner is warned first."""
    view = page(client, "RW-110", "board")
    assert any("Treble side" in line and "too little scoop" in line for line in view["finding"])
    assert advised(view) == ["dress_warned"]
    assert "Dyed wood" in view["caution"]
    assert then(view, "thickness_treble") == pytest.approx(4.2 - 0.27)
    assert "up to 0.27 mm off" in way(view, "dress_warned")["takes"]


def test_both_schools_of_the_afterlength_and_what_can_be_reached(client: TestClient) -> None:
    """RW-102. 327 / 6 = 54.5 of 53: 1.5 toward the saddle, but of 2.4 there 1 stays free: 54.4 at most."""
    view = page(client, "RW-102", "tail")
    length = now(view, "share") * 53
    sixth = length / 6
    assert f"{sixth - 53:.1f} short of a sixth, {sixth:.1f}" in view["finding"][0]
    assert [one["label"] for one in view["ways"]] == ["A sixth of the string length", "All the way to the saddle"]
    assert view["ways"][1]["takes"][0] == "an afterlength of 54.4, the tailpiece 1.4 toward the saddle"
    assert then(page(client, "RW-102", "tail", tailpiece=1), "saddle_gap") == pytest.approx(1.4)
    page(client, "RW-102", "tail", status=422, tailpiece=5)


def test_tension_and_load_are_two_figures_and_another_set_changes_both(client: TestClient) -> None:
    """RW-102's angles from its heights; each string's pull from its density: 2.601 g/m at 196 Hz on its own length."""
    view = page(client, "RW-102", "load")
    bench = Bench(client, "RW-102")
    length = bench.cell("string_length")["value"]
    pulls = [
        density / 1000 * (2 * length / 1000 * pitch) ** 2
        for density, pitch in ((2.601, 196.0), (1.186, 293.66), (0.648, 440.0), (0.412, 659.26))
    ]
    assert now(view, "tension") == pytest.approx(sum(pulls), rel=1e-6)
    assert now(view, "tension_kgf") == pytest.approx(sum(pulls) / 9.80665, rel=1e-6)
    over = now(view, "break")
    assert now(view, "bass_foot") + now(view, "treble_foot") == pytest.approx(now(view, "down"))
    assert 150 < over < 165
    assert "often called the weight on the top" in view["finding"][0]
    sets = next(handle for handle in view["handles"] if handle["name"] == "set")["choices"]
    light = next(choice["key"] for choice in sets if choice["label"] == "Harbour light")
    tried = page(client, "RW-102", "load", set=light)
    assert then(tried, "tension") < now(tried, "tension") == pytest.approx(sum(pulls))
    lower = page(client, "RW-102", "load", projection=26)
    assert then(lower, "down") < now(lower, "down")


def test_lower_strings_rattle_sooner_and_press_less(client: TestClient) -> None:
    view = page(client, "RW-106", "playing", end_height_bass=-1, end_height_treble=-1, hard="hard", manner="plucked")
    for i, name in enumerate("CGDA"):
        assert then(view, f"margin{i}") < now(view, f"margin{i}")
        assert then(view, f"press{name}12") < now(view, f"press{name}12")
    table = view["tables"][0]
    assert [row[0] for row in table["rows"]] == list("CGDA")
    for row, column in table["marked"]:
        assert "−" in table["rows"][row][column]
    deeper = page(client, "RW-106", "playing", relief_bass=2.5, relief_treble=2.0)
    assert then(deeper, "pressC12") > now(deeper, "pressC12")


@pytest.mark.parametrize(
    ("ticket", "name", "handles", "field"),
    [
        ("RW-106", "neck", {"wedge": 9}, "wedge"),
        ("RW-106", "neck", {"polish": 1}, "polish"),
        ("RW-106", "neck", {"wedge": "thick"}, "wedge"),
        ("RW-102", "load", {"set": "gold"}, "set"),
        ("RW-106", "playing", {"hard": "very"}, "hard"),
    ],
)
def test_a_handle_pulled_too_far_or_unknown_is_named(
    client: TestClient, ticket: str, name: str, handles: dict[str, float | str], field: str
) -> None:
    told = page(client, ticket, name, status=422, **handles)
    assert told["detail"][0]["loc"] == ["body", field]


def test_a_wish_out_of_its_band_says_the_nearest(client: TestClient) -> None:
    view = page(client, "RW-106", "neck", projection=84)
    assert view["impossible"]["handle"] == "projection"
    assert view["impossible"]["nearest"] == 81.5
    assert way(view, "wedge")["takes"][0].startswith(f"{(81.5 - 76.8) * 280 / 690:.2f} thick")


def test_nothing_is_planed_on_what_does_not_hold(client: TestClient) -> None:
    """After the board was dressed its scoop is stale: no plan, but what to read again and why."""
    bench = Bench(client, "RW-104")
    for question, outcome in (("board", "dress"), ("approval", "agreed")):
        bench.post("decisions", question=question, outcome=outcome, reason="as found", id=str(uuid4()))
    bench.post("works", id=str(uuid4()), work="board_dressed")
    view = page(client, "RW-104", "board")
    assert view["tables"] == []
    assert view["consequences"] == []
    stale = next(one for one in view["retake"] if one["name"] == "scoop, bass, in the middle")
    assert stale["why"] == "it is stale: the board was dressed"
    assert page(client, "RW-115", "playing")["finding"] == [
        "No strings named. How far they swing follows from the set."
    ]


@pytest.mark.parametrize("values", [["4"], ["wide"], ["400"], ["80"] * 100])
def test_a_list_of_the_shelf_takes_sizes_that_can_be(client: TestClient, values: list[str]) -> None:
    answer = client.put("/api/shelf/cello/bridge_blanks", json={"id": str(uuid4()), "values": values})
    assert answer.status_code == 422
    assert answer.json()["detail"][0]["loc"] == ["body", "values"]
    assert client.put("/api/shelf/cello/gold", json={"id": str(uuid4()), "values": []}).status_code == 404


def test_a_scoop_that_would_leave_too_thin_an_edge_says_the_nearest(client: TestClient) -> None:
    """
    RW-104: the bass edge is 5.6, never under 4.4: at most 1.2 may come off. In the middle a scoop r takes r - 0.60 + b,
    where b = 0.95 - 0.75 r three quarters along, or zero from r = 1.267 on: then r - 0.60, and 1.80 is the most.
    """
    view = page(client, "RW-104", "board", relief_bass=2.0)
    assert view["impossible"]["handle"] == "relief_bass"
    assert view["impossible"]["nearest"] == pytest.approx(1.80)
    assert "would leave 4.2 at the edge, never under 4.4" in view["impossible"]["sentence"]
    assert page(client, "RW-104", "board", relief_bass=1.8)["impossible"] is None


def test_handles_that_contradict_each_other_say_so(client: TestClient) -> None:
    view = page(client, "RW-106", "neck", projection=80, wedge=0.5)
    assert view["impossible"]["sentence"].startswith("A wedge of 0.50 brings 78.0, and 80 is wanted")
    assert view["impossible"]["nearest"] == pytest.approx(1.30)
    assert page(client, "RW-106", "neck", projection=80, wedge=1.3)["impossible"] is None


def test_strings_without_figures_are_named(client: TestClient) -> None:
    bench = Bench(client)
    own = {"name": "From the drawer", "material": "steel", "diameters": ["0.8", "0.8", "0.7", "0.3"]}
    bench.post("strings", id=str(uuid4()), own=own)
    view = page(client, "RW-101", "load")
    assert "The set has no figures for G, D, A, E: enter its density or tension." in view["finding"]
    assert view["consequences"] == []


def test_a_thin_board_is_replaced_when_its_faults_cannot_be_planed_out(client: TestClient) -> None:
    """RW-104's wave takes 0.60: an edge of 4.9 would be left at 4.3, under 4.4."""
    Bench(client, "RW-104").take("fingerboard_thickness", 0, "4.9")
    view = page(client, "RW-104", "board")
    assert advised(view) == ["replace"]
    assert "4.3 left at the thinner edge: too thin, never under 4.4" in way(view, "dress")["takes"]


def test_an_afterlength_that_is_no_sixth_asks_which_school(client: TestClient) -> None:
    """RW-102: 50 is 4.7 short, more than 0.008 of the string; decided, it keeps its reason until the reading moves."""
    bench = Bench(client, "RW-102")
    assert "afterlength" not in [one["question"] for one in bench.sheet["questions"]]
    bench.take("afterlength", None, "50")
    view = page(client, "RW-102", "tail")
    assert [one["outcome"] for one in view["ways"]] == ["sixth", "to_saddle", "leave"]
    bench.post("decisions", question="afterlength", outcome="to_saddle", reason="She likes it.", id=str(uuid4()))
    asked = next(one for one in bench.sheet["questions"] if one["question"] == "afterlength")
    assert (asked["decided"]["label"], asked["decided"]["reason"]) == ("All the way to the saddle", "She likes it.")
    bench.take("afterlength", None, "51.4")
    assert next(one for one in bench.sheet["questions"] if one["question"] == "afterlength")["decided"] is None


def test_the_bridge_page_cuts_as_the_sheet_does_and_tries_other_wishes(client: TestClient) -> None:
    """RW-101: at rest the sheet's own cut; a G wanted 0.5 lower takes 0.5 * 327 / 270 more, by the slope."""
    bench = Bench(client)
    bench.name_strings()
    bench.take_all()
    view = page(client, "RW-101", "bridge")
    wood = bench.wood()
    for i in range(4):
        assert now(view, f"wood{i}") == then(view, f"wood{i}") == pytest.approx(wood[i])
    rows = {row[0]: row for row in view["tables"][0]["rows"]}
    assert (rows["G"][2], rows["G"][6]) == ("5.00", "0.0")
    assert (rows["E"][2], rows["E"][6]) == ("3.20", "33.6")
    lower = page(client, "RW-101", "bridge", end_height_bass=4.5)
    assert then(lower, "wood0") == pytest.approx(float(wood[0] or 0) + SLOPE * 0.5 * 327 / 270, abs=1e-6)
    assert then(lower, "wood3") == pytest.approx(float(wood[3] or 0))
    higher = page(client, "RW-101", "bridge", projection=28)
    assert then(higher, "wood1") == pytest.approx(float(wood[1] or 0), abs=0.01)
    flatter = page(client, "RW-101", "bridge", crown_radius=50)
    assert then(flatter, "wood1") > float(wood[1] or 0)
    assert then(flatter, "crown_radius") == pytest.approx(50)
    told = page(client, "RW-101", "bridge", crown_radius=15)["impossible"]
    assert (told["handle"], told["nearest"]) == ("crown_radius", pytest.approx(16.9, abs=0.11))
    assert "The nearest crown radius that can be had is" in told["sentence"]
    assert page(client, "RW-101", "bridge", crown_radius=told["nearest"])["impossible"] is None
    assert bench.wood() == wood, "nothing that is tried is kept"


def test_the_second_pass_goes_by_what_the_first_did(client: TestClient) -> None:
    """What was to come off at G is kept with the cut; the share of it that did says what to set out to take next."""
    bench = Bench(client)
    bench.name_strings()
    bench.take_all()
    bench.post("works", id=str(uuid4()), work="nut_filed")
    for position, typed in enumerate(("0.5", "0.47", "0.42", "0.35")):
        bench.take("nut_height", position, typed)
    for position, typed in enumerate(("6.05", "5.7", "5.15", "4.25")):
        bench.take("end_height", position, typed)
    first, asked = float(bench.wood()[0] or 0), bench.sheet["cut"]["strings"][0]
    bench.post("works", id=str(uuid4()), work="crown_cut")
    bench.take("end_height", 0, "5.3")
    bench.take("slot_depth", 0, "0.27")
    left = float(bench.wood()[0] or 0)
    told = bench.sheet["cut"]["strings"][0]
    assert told["set_out"] == pytest.approx(asked["next_pass"])
    assert told["left_before"] == pytest.approx(first)
    assert 0 < told["next_pass"] < left
    assert told["slot_by"] > 0


def test_the_nut_page_never_files_below_what_is_wanted(client: TestClient) -> None:
    """RW-101's G: 0.85 to 0.50; 0.35 at the nut is 0.35 * (1 - 270 / 327) at the board's end."""
    bench = Bench(client)
    bench.name_strings()
    bench.take_all()
    view = page(client, "RW-101", "nut")
    assert then(view, "nut0") == pytest.approx(0.5)
    assert then(view, "end0") == pytest.approx(6.10 - 0.35 * (1 - 270 / 327))
    lower = page(client, "RW-101", "nut", nut_bass=1.0)
    assert then(lower, "nut0") == pytest.approx(0.85)
    slots = {row[0]: row for row in view["tables"][0]["rows"]}
    assert slots["G"][4] == "0.95"
    bench.take("nut_thickness", None, "5.5")
    for measure, typed in (("peg_run", "40"), ("peg_drop", "9"), ("peg_side", "-4")):
        bench.take(measure, 0, typed)
    turned = {row[0]: row for row in page(client, "RW-101", "nut")["tables"][0]["rows"]}["G"][-1]
    assert turned.endswith(f"{math.degrees(math.atan(4 / 40)):.1f}° to the bass")


def test_a_post_whose_bottom_goes_to_the_bass(client: TestClient) -> None:
    """RW-102 (violin): 0.5 mm toward the bass side of where an upright one stands."""
    upright = page(client, "RW-102", "post", post_stance="upright")
    aside = page(client, "RW-102", "post", post_stance="bottom_to_bass")
    handles = [{h["name"]: h["rests_at"] for h in view["handles"]} for view in (upright, aside)]
    assert handles[1]["bottom_across"] == pytest.approx(handles[0]["bottom_across"] - 0.5)
    assert handles[1]["top_across"] == handles[0]["top_across"]
