"""What only a full measuring takes: places by name, humps, angles, and what one reading tells of another."""

from __future__ import annotations

import math
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import Engine, text

from ..scenario import CARRY, SLOPE
from .test_bench import Bench


def test_chord_and_rise_stand_for_the_gauge_until_it_is_read(client: TestClient) -> None:
    """The radius that they tell is a measured one: nothing is assumed of it any more. 30²/(8·2.7) + 2.7/2 = 43.02."""
    bench = Bench(client, "RW-115")
    assert bench.cell("fingerboard_radius")["assumed"] == 42
    bench.take("board_chord", None, "30")
    assert bench.cell("fingerboard_radius")["told"] is None
    bench.take("board_rise", None, "2.7")
    cell = bench.cell("fingerboard_radius")
    assert cell["told"] == pytest.approx(43.0167, abs=1e-4)
    assert (cell["assumed"], cell["told_by"]) == (None, "chord and rise")
    assert not any("radius" in line for line in bench.sheet["cut"]["assumed"])
    bench.take("fingerboard_radius", None, "42")
    assert (bench.cell("fingerboard_radius")["told"], bench.cell("fingerboard_radius")["value"]) == (None, 42)


def test_a_stop_tells_the_other_places_of_the_foot_by_its_thickness(client: TestClient) -> None:
    bench = Bench(client, "RW-115")
    bench.take("stop_length", 1, "197")
    assert bench.cell("stop_length", 0)["told"] is None
    bench.take("bridge_foot_thickness", None, "4.5")
    assert bench.cell("stop_length", 0)["told"] == pytest.approx(194.75)
    assert bench.cell("stop_length", 2)["told"] == pytest.approx(195.5)
    assert bench.cell("stop_length", 0)["band"]["side"] == "in_band"
    bench.post("works", id="00000000-0000-4000-8000-000000000001", work="bridge_moved")
    assert bench.cell("stop_length", 1)["state"] == "stale"
    assert bench.cell("stop_length", 0)["told"] is None


def test_repeats_give_the_median_and_say_when_they_lie_too_far_apart(client: TestClient) -> None:
    bench = Bench(client, "RW-115")
    for typed in ("27.0", "27.1", "28.4"):
        bench.take("projection", None, typed, repeats=typed != "27.0")
    # The third is further from the others than the tool explains: it is asked about before it counts.
    doubted = bench.cell("projection")
    assert (doubted["state"], doubted["value"], doubted["count"]) == ("doubted", pytest.approx(27.05), 2)
    bench.post(f"readings/{doubted['reading_id']}/confirm")
    cell = bench.cell("projection")
    assert (cell["value"], cell["count"], cell["spread_is_wide"]) == (27.1, 3, True)
    assert any(
        "more than chance" in line for line in bench.client.get(f"{bench.at}/whys").json()["projection"]["lines"]
    )


@pytest.mark.parametrize(
    ("measure", "position", "typed", "value"),
    [
        ("relief", 1, "-0,25", -0.25),
        ("bar_inset", None, "−.5mm", -0.5),
        ("break_angle", None, "158°", 158.0),
        ("break_angle", None, "157,5", 157.5),
        ("afterlength", None, "2in", 50.8),
    ],
)
def test_humps_angles_and_inches_are_read_as_they_are_meant(
    client: TestClient, measure: str, position: int | None, typed: str, value: float
) -> None:
    bench = Bench(client, "RW-115")
    bench.take(measure, position, typed)
    assert bench.cell(measure, position)["value"] == pytest.approx(value)
    assert bench.cell(measure, position)["typed"] == typed


@pytest.mark.parametrize(
    ("measure", "position", "typed", "loc", "says"),
    [
        ("bridge_waist", None, "-16", "typed", "cannot be negative"),
        ("break_angle", None, "158 mm", "typed", "is no angle"),
        ("relief", None, "0.5", "position", "say which place"),
        ("fingerboard_width", 2, "24", "position", "say which place"),
        ("end_height", 4, "5", "position", "say which string"),
        ("polish", None, "1", "measure", "nothing that is measured on a violin"),
    ],
)
def test_what_cannot_be_read_names_its_field(
    client: TestClient, measure: str, position: int | None, typed: str, loc: str, says: str
) -> None:
    told: dict[str, Any] = Bench(client, "RW-115").take(measure, position, typed, status=422)
    assert told["detail"][0]["loc"] == ["body", loc]
    assert says in told["detail"][0]["msg"]


def test_the_card_is_full_without_what_only_a_full_measuring_takes(client: TestClient) -> None:
    bench = Bench(client)
    bench.name_strings()
    bench.take_all()
    assert sum(place["on_card"] for place in bench.card) == 20
    stop = next(stop for stop in bench.sheet["course"] if stop["key"] == "measure")
    assert stop["state"] == "done"


def test_a_five_string_bass_is_measured_at_every_string(client: TestClient) -> None:
    body = {"family": "bass", "size": "3/4", "string_names": ["B", "E", "A", "D", "G"]}
    ticket = client.post("/api/instruments", json={"id": str(uuid4()), **body}).json()["ticket"]
    names = [cell["name"] for cell in Bench(client, ticket).card if cell["measure"] == "end_height"]
    assert names == [f"{string} at the board's end" for string in "BEADG"]


def test_the_drawings_lie_where_the_readings_say(client: TestClient) -> None:
    """Worked by hand: G at the bridge 0.5 + (5.0 - 0.5)*328/270 = 5.967, by the slope; the post 2.5 + 6.5/2 behind."""
    bench = Bench(client, "RW-115")
    before = client.get("/api/instruments/RW-115/views").json()
    assert before["side"]["strings"][0]["at_end"] is None
    assert before["side"]["string_length"] == {"value": 328, "assumed": True}
    assert before["plan"]["post"] == []
    for measure, position, typed in (
        ("nut_height", 0, "0.5"),
        ("end_height", 0, "5"),
        ("relief", 0, "0.4"),
        ("relief", 1, "0.7"),
        ("bridge_foot_width", None, "41"),
        ("bar_inset", None, "1"),
        ("post_setback", 0, "2.5"),
        ("post_inset", 0, "1.5"),
        ("neck_to_nick", 0, "30"),
        ("neck_to_nick", 1, "31"),
    ):
        bench.take(measure, position, typed)
    views = client.get("/api/instruments/RW-115/views").json()
    low = views["side"]["strings"][0]
    assert low["at_bridge"] == pytest.approx(SLOPE * 0.5 + 4.5 * CARRY)
    fall = 328 / 6 * math.tan(math.radians(180 - views["side"]["break_angle"]["value"]))
    assert low["at_tail"] == pytest.approx(low["at_bridge"] - fall)
    bass, treble = views["side"]["surfaces"]
    assert (bass["assumed"], treble["assumed"]) == (False, True)
    assert {round(x, 3): gap for x, gap in bass["points"]}[135.0] == pytest.approx(0.7)
    assert bass["points"][0] == [0, 0]
    plan, diameter = views["plan"], views["plan"]["post_diameter"]
    assert plan["bar_edge"] == {"value": -(41 / 2 - 1), "assumed": False}
    assert plan["post"] == [
        {"end": "top", "behind": pytest.approx(2.5 + diameter / 2), "across": pytest.approx(20.5 - 1.5 - diameter / 2)}
    ]
    assert plan["neck_off_middle"] == pytest.approx(0.5)


def test_marks_tell_the_spread_and_what_is_uneven(client: TestClient) -> None:
    """Marks at 3.8, 8.9, 14.6 and 20 on a nut of 24: 16.2 apart, the group 0.1 to the bass side of its middle."""
    bench = Bench(client)
    bench.name_strings()
    for position, typed in enumerate(("3.8", "8.9", "14.6", "20")):
        bench.take("string_mark_nut", position, typed)
    cell = bench.cell("nut_spread")
    assert (cell["told"], cell["told_by"]) == (pytest.approx(16.2), "the strings' marks")
    found = next(found["says"] for found in bench.sheet["findings"] if found["of"] == "spacing_nut")
    diameters = [string["diameter"] for string in bench.sheet["strings"]["strings"]]
    gaps = [
        step - (one + other) / 2 for step, one, other in zip((5.1, 5.7, 5.4), diameters, diameters[1:], strict=False)
    ]
    assert f"{gaps[0]:.1f}, {gaps[1]:.1f}, {gaps[2]:.1f}, uneven by {max(gaps) - min(gaps):.1f}" in found
    assert "The group stands 0.1 to the bass side" in found
    plan = client.get("/api/instruments/RW-101/views").json()["plan"]
    assert [string["at_nut"] for string in plan["strings"]] == pytest.approx([-8.2, -3.1, 2.6, 8.0])


def test_a_board_that_leans_moves_the_crown(client: TestClient) -> None:
    """0.8 mm up on the treble side over 45.8: the mark of E lies 16.8 * 0.8 / 45.8 = 0.29 higher, longer by the slope,
    and a little more, for the round turns about its crest; G's as much lower."""
    bench = Bench(client)
    bench.name_strings()
    bench.take_all()
    before = [string["board_line"] for string in bench.sheet["drawing"]["strings"]]
    bench.take("edge_projection", 0, "26.6")
    bench.take("edge_projection", 1, "27.4")
    after = [string["board_line"] for string in bench.sheet["drawing"]["strings"]]
    slope = SLOPE * 0.8 / (24 + (42 - 24) * 327 / 270)
    assert after[3] - before[3] == pytest.approx(33.6 / 2 * slope, rel=0.1)
    assert after[0] - before[0] == pytest.approx(-33.6 / 2 * slope, rel=0.12)
    assert any("leans up on the treble side: 0.8 mm" in found["says"] for found in bench.sheet["findings"])


def test_a_card_written_before_a_cut_does_not_speak_for_after_it(client: TestClient, demo: Engine) -> None:
    """It stands where its time puts it; what is newer is not overwritten, and an hour that is to come is refused."""
    bench = Bench(client)
    bench.name_strings()
    bench.take_all()
    with demo.begin() as connection:
        connection.execute(text("UPDATE work_done SET done_at = '2026-11-20T08:00Z'"))
    bench.post("works", id="00000000-0000-4000-8000-000000000002", work="nut_filed")
    bench.take("nut_height", 0, "0.52", taken_at="2026-11-23T09:30:00Z")
    was = bench.sheet["last_work"]
    bench.take("nut_height", 0, "0.84", taken_at="2026-11-22T10:00:00Z", from_paper=True)
    assert bench.cell("nut_height", 0)["value"] == 0.52
    assert bench.cell("nut_height", 1)["state"] == "stale"
    bench.take("nut_height", 1, "0.79", taken_at="2026-11-22T10:00:00Z", from_paper=True)
    assert (bench.cell("nut_height", 1)["state"], bench.sheet["last_work"]) == ("stale", was)
    bench.take("projection", None, "26.9", taken_at="2026-11-22T10:00:00Z", from_paper=True)
    assert bench.cell("projection")["value"] == 27.1
    assert "26.9" in [line["value"] for line in bench.log() if line["state"] == "corrected"]
    told = bench.take("projection", None, "27", taken_at="2027-01-01T10:00:00Z", from_paper=True, status=422)
    assert told["detail"][0]["loc"] == ["body", "taken_at"]


def test_beside_stand_how_it_came_and_how_it_went_home(client: TestClient) -> None:
    bench = Bench(client, "RW-105")
    listed = client.get("/api/instruments/RW-105/beside").json()
    assert listed[0]["key"] == "came"
    bench.take("end_height", 0, "5.9", after_work=bench.sheet["last_work"])
    bench.post("works", id="00000000-0000-4000-8000-000000000003", work="nut_filed")
    bench.take("end_height", 0, "6.0")
    came = client.get("/api/instruments/RW-105/beside").json()[0]["values"]
    assert {"measure": "end_height", "position": 0, "value": 5.9} in came


def test_a_reading_wants_a_tool_that_reads_it(client: TestClient) -> None:
    told = Bench(client, "RW-115").take("break_angle", None, "158", tool="caliper", status=422)
    assert told["detail"][0]["loc"] == ["body", "tool"]
    assert "is read with angle gauge; in the hand was: caliper" in told["detail"][0]["msg"]


def test_other_air_than_last_time_asks(client: TestClient, demo: Engine) -> None:
    bench = Bench(client, "RW-102")
    earlier = client.get("/api/instruments/RW-102/beside").json()[1:]
    assert earlier, "it was here before"
    with demo.begin() as connection:
        connection.execute(
            text(
                "INSERT INTO reading (id, visit_id, measure, typed, value, tool, taken_by, taken_at) VALUES "
                "(gen_random_uuid(), :visit, 'humidity', '45', 45, 'hygrometer', 'Ilse Varnholt', '2025-10-01')"
            ),
            {"visit": earlier[0]["key"]},
        )
    bench.take("humidity", None, "59 %")
    assert not any("The air" in one["says"] for one in bench.sheet["notices"])
    bench.take("humidity", None, "60 %")
    assert any("The air is at 60 %, last time it was 45 %" in one["says"] for one in bench.sheet["notices"])


@pytest.mark.parametrize(
    ("measure", "tool", "unit"),
    [("pitch", "tuner", "Hz"), ("humidity", "hygrometer", "%"), ("temperature", "thermometer", "°C")],
)
def test_each_place_is_sent_by_its_own_device(client: TestClient, measure: str, tool: str, unit: str) -> None:
    bench = Bench(client, "RW-115")
    body: dict[str, Any] = {"measure": measure, "position": None, "manner": []}
    sent = client.post("/api/instruments/RW-115/device", json=body).json()
    assert (sent["tool"], sent["typed"].split()[1]) == (tool, unit)
    bench.take(measure, None, sent["typed"], tool=sent["tool"])
    assert bench.cell(measure)["tool"] == tool
    body["manner"] = ["offline"]
    assert client.post("/api/instruments/RW-115/device", json=body).status_code == 409


def test_a_pencils_line_is_off_by_half_the_pencil(client: TestClient) -> None:
    """What was typed stays as it was read; what counts is the board's own line, 3.5 mm lower."""
    bench = Bench(client)
    bench.take("projection", None, "31,0", tool="pencil")
    cell = bench.cell("projection")
    assert (cell["typed"], cell["value"]) == ("31,0", pytest.approx(27.5))


def test_two_cards_tell_a_height_and_one_alone_does_not(client: TestClient) -> None:
    bench = Bench(client)
    bench.take("nut_passes", 0, "0.40", tool="feeler")
    assert bench.cell("nut_height", 0)["told"] is None
    bench.take("nut_stops", 0, "0,50", tool="feeler")
    assert bench.cell("nut_height", 0)["told"] == pytest.approx(0.45)
