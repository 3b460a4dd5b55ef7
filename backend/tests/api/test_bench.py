"""One instrument at the bench, over HTTP on real PostgreSQL: the main job from readings to a cut that closes."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import Engine, text

from ..scenario import CARRY, SLOPE

pytestmark = pytest.mark.usefixtures("read_again")

FIRST = {
    "end_height": [6.10, 5.75, 5.20, 4.30],
    "nut_height": [0.85, 0.80, 0.70, 0.60],
    "slot_depth": [0.1, 0.2, 0.25, 0.2],
}
SINGLES = {
    "projection": 27.1,
    "string_length": 327,
    "fingerboard_length": 270,
    "fingerboard_radius": 42,
    "nut_spread": 16.4,
    "bridge_spread": 33.6,
}


EMPTY = dict.fromkeys(("value", "assumed", "told", "band", "doubt", "stale_because", "last_time", "tool"), None)
"""What a cell does not send where it says nothing."""


class Bench:
    """RW-101 at the bench."""

    def __init__(self, client: TestClient, ticket: str = "RW-101") -> None:
        self.client, self.at = client, f"/api/instruments/{ticket}"
        self.sheet: dict[str, Any] = client.get(f"{self.at}/sheet").json()
        self.card: list[dict[str, Any]] = client.get(f"{self.at}/card").json()

    def post(self, path: str, status: int = 200, **body: Any) -> dict[str, Any]:
        answer = self.client.post(f"{self.at}/{path}", json=body)
        assert answer.status_code == status, answer.text
        if status == 200:
            self.sheet = answer.json()
        return dict(answer.json())

    def name_strings(self, name: str = "Harbour medium", **more: Any) -> None:
        sets = self.client.get(f"{self.at}/string-sets").json()
        set_id = next(s["id"] for s in sets if s["name"] == name)
        self.post("strings", id=str(uuid4()), set_id=set_id, **more)

    def take(self, measure: str, position: int | None, typed: str, status: int = 200, **more: Any) -> dict[str, Any]:
        body = {
            "id": str(uuid4()),
            "measure": measure,
            "position": position,
            "typed": typed,
            "tool": self.tool_for(measure),
            "taken_at": "2026-11-23T09:00:00Z",
            "after_work": self.sheet["last_work"],
            "shown": self.shown(measure, position),
            **more,
        }
        return self.post("readings", status, **body)

    def shown(self, measure: str, position: int | None) -> str | None:
        """The reading that the page shows at a place."""
        place = (measure, position)
        here = (cell for cell in self.sheet.get("cells", []) if (cell["measure"], cell.get("position")) == place)
        return next((cell.get("reading_id") for cell in here), None)

    def tool_for(self, measure: str) -> str:
        """What is in the hand, unless this is read with something else."""
        tools = next((place["tools"] for place in self.card if place["measure"] == measure), ["caliper"])
        return "caliper" if "caliper" in tools else str(tools[0])

    def take_all(self) -> None:
        for measure, values in FIRST.items():
            for position, value in enumerate(values):
                self.take(measure, position, str(value))
        for measure, value in SINGLES.items():
            self.take(measure, None, str(value))

    def cell(self, measure: str, position: int | None = None) -> dict[str, Any]:
        assert any((p["measure"], p["position"]) == (measure, position) for p in self.card), "a place of its card"
        sent = (c for c in self.sheet["cells"] if (c["measure"], c.get("position")) == (measure, position))
        return {**EMPTY, "state": "missing", **next(sent, {})}

    def log(self) -> list[dict[str, Any]]:
        return list(self.client.get(f"{self.at}/log").json())

    def wood(self) -> list[float | None]:
        return [s["wood"] for s in self.sheet["cut"]["strings"]]


@pytest.fixture
def bench(client: TestClient) -> Bench:
    return Bench(client)


def test_a_violin_without_strings_asks_for_them(bench: Bench) -> None:
    assert bench.sheet["strings"] is None
    assert bench.sheet["instruction"]["title"] == "Choose the strings"
    assert bench.sheet["cut"]["state"] == "none"


def test_two_heights_give_a_provisional_cut_and_say_what_it_assumes(bench: Bench) -> None:
    bench.name_strings()
    bench.take("end_height", 0, "6.10")
    bench.take("end_height", 1, "5,75")
    cut = bench.sheet["cut"]
    assert [s["state"] for s in cut["strings"]] == ["provisional", "provisional", "none", "none"]
    # By hand for G from the figures: (6.10 - 5.00)·328/270, nut and slot as wanted.
    assert bench.wood()[0] == pytest.approx(1.10 * CARRY)
    assert "string length 328" in cut["assumed"]
    assert "at the nut: G 0.50, D 0.45" in cut["assumed"]


def test_all_readings_firm_the_cut_by_hand(bench: Bench) -> None:
    """G: 1.10·327/270 less 0.35·(57/270) that the nut gives, by the slope, plus slot 0.10 less 0.8/3."""
    bench.name_strings()
    bench.take_all()
    cut = bench.sheet["cut"]
    assert (cut["state"], cut["assumed"]) == ("firm", [])
    assert bench.wood()[0] == pytest.approx(SLOPE * (1.10 * 327 - 0.35 * 57) / 270 + 0.10 - 0.8 / 3)
    assert bench.wood()[3] == pytest.approx(SLOPE * (1.10 * 327 - 0.25 * 57) / 270 + 0.20 - 0.27 / 3)
    why = bench.client.get(f"{bench.at}/whys").json()["wood:0"]
    assert why["title"] == "Why 1.10 of wood at G"
    assert "workshop starting value, unsourced" in why["follows"]


def test_cut_done_makes_heights_stale_and_measuring_again_shows_what_is_left(bench: Bench) -> None:
    bench.name_strings()
    bench.take_all()
    before = bench.wood()[0]
    bench.post("works", id=str(uuid4()), work="crown_cut")
    stale = {(c["measure"], c.get("position")) for c in bench.sheet["cells"] if c["state"] == "stale"}
    assert stale == {(m, i) for m in ("end_height", "slot_depth") for i in range(4)} | {("bridge_spread", None)}
    assert bench.wood() == [None] * 4
    refused = bench.post("works", 409, id=str(uuid4()), work="crown_cut")["detail"][0]["msg"]
    assert refused.startswith("these readings do not hold any more: measure again G at the board's end")
    bench.take("end_height", 0, "5.40")
    left = bench.wood()[0]
    assert left is not None
    assert 0 < left < (before or 0)
    assert bench.sheet["cut"]["strings"][0]["left_before"] == pytest.approx(before)
    assert "bridge_spread" not in bench.sheet["cut"]["assumed"]
    assert any("spread at the bridge 33.5 (the reading is stale)" in line for line in bench.sheet["cut"]["assumed"])


def test_undo_takes_back_the_newest_reading_or_work_and_the_log_keeps_it(bench: Bench, demo: Engine) -> None:
    bench.name_strings()
    bench.take("end_height", 0, "6.10")
    bench.take("end_height", 0, "6.20")
    undoable = bench.sheet["undoable"]
    assert undoable["words"] == "G at the board's end 6.20"
    bench.post(f"readings/{undoable['id']}/take-back")
    assert bench.cell("end_height", 0)["value"] == 6.1
    with demo.connect() as connection:
        rows = connection.execute(
            text(
                "SELECT typed, taken_back_by, corrected_by IS NOT NULL FROM reading WHERE measure = 'end_height' "
                "AND visit_id = (SELECT v.id FROM visit v JOIN instrument i ON i.id = v.instrument_id "
                "WHERE i.ticket = 'RW-101') ORDER BY number"
            )
        ).all()
    assert [tuple(row) for row in rows] == [("6.10", None, False), ("6.20", "Ilse Varnholt", False)]


def test_the_log_tells_what_became_of_every_line(bench: Bench) -> None:
    """Corrected, doubted and taken back readings stay in the log, newest first, with who and with what."""
    bench.name_strings()
    for typed in ("6.10", "6.20", "55"):
        bench.take("end_height", 0, typed, tool="rule")
    bench.take("end_height", 1, "5.7")
    bench.post(f"readings/{bench.sheet['undoable']['id']}/take-back")
    lines = [(line["what"], line["value"], line["state"], line["tool"]) for line in bench.log()]
    assert lines == [
        ("D at the board's end", "5.7", "taken back", "caliper"),
        ("G at the board's end", "55", "doubted", "upright rule"),
        ("G at the board's end", "6.20", "corrected", "upright rule"),
        ("G at the board's end", "6.10", "corrected", "upright rule"),
        ("the strings that are on it were named", "Harbour medium", "work", ""),
        (
            "acclimatised to the shop? decided",
            "It has settled: Five days on the rail, and the projection read the same on two mornings.",
            "work",
            "",
        ),
    ]


def test_nothing_measured_is_nothing_to_cut(bench: Bench) -> None:
    refused = bench.post("works", 409, id=str(uuid4()), work="crown_cut")["detail"][0]["msg"]
    assert refused.startswith("there is no cut to have done yet")


def test_undoing_a_cut_makes_the_heights_hold_again(bench: Bench) -> None:
    bench.name_strings()
    bench.take_all()
    wood = bench.wood()
    bench.post("works", id=str(uuid4()), work="crown_cut")
    bench.post(f"works/{bench.sheet['undoable']['id']}/take-back")
    assert bench.wood() == wood


def test_a_doubted_reading_is_kept_and_counts_only_when_confirmed(bench: Bench) -> None:
    bench.name_strings()
    bench.take("end_height", 0, "12.6")
    cell = bench.cell("end_height", 0)
    assert (cell["state"], cell["value"], bench.wood()[0]) == ("doubted", 12.6, None)
    bench.post(f"readings/{cell['reading_id']}/confirm")
    assert bench.cell("end_height", 0)["state"] == "current"
    assert (bench.wood()[0] or 0) > 5


def test_slips_are_doubted_with_what_was_meant(bench: Bench) -> None:
    bench.name_strings()
    bench.take("end_height", 0, "55")
    bench.take("bridge_spread", None, "3.35")
    assert bench.cell("end_height", 0)["doubt"]["suggested"] == 5.5
    assert bench.cell("bridge_spread")["doubt"]["suggested"] == 33.5
    assert bench.cell("bridge_spread")["assumed"] == 33.5


def test_what_cannot_be_is_kept_doubted_and_cannot_be_confirmed(bench: Bench) -> None:
    bench.name_strings()
    bench.take("end_height", 0, "610")
    cell = bench.cell("end_height", 0)
    assert cell["doubt"] == {
        "code": "large",
        "value": 610,
        "sentence": "610 mm is very large for G at the board's end, usually about 5. Did you mean 6.1 mm?",
        "suggested": 6.1,
        "may_be_kept": False,
    }
    bench.post(f"readings/{cell['reading_id']}/confirm", 409)


@pytest.mark.parametrize("typed", ["", "abc", "-5", "5..2"])
def test_what_is_no_measurement_is_refused_at_the_typed_words(bench: Bench, typed: str) -> None:
    [item] = bench.take("end_height", 0, typed, status=422)["detail"]
    assert item["loc"] == ["body", "typed"]
    assert item["msg"].startswith("G at the board's end")


@pytest.mark.parametrize(
    ("measure", "position", "field"),
    [
        ("end_height", None, "position"),
        ("end_height", 4, "position"),
        ("projection", 0, "position"),
        ("age", 0, "measure"),
    ],
)
def test_a_reading_needs_a_place_that_there_is(bench: Bench, measure: str, position: int | None, field: str) -> None:
    [item] = bench.take(measure, position, "5", status=422)["detail"]
    assert item["loc"] == ["body", field]


def test_the_same_reading_sent_twice_is_kept_once(bench: Bench) -> None:
    bench.name_strings()
    again = str(uuid4())
    bench.take("end_height", 0, "6.1", id=again, shown=None)
    bench.take("end_height", 0, "6.1", id=again, shown=None)
    assert [line["value"] for line in bench.log() if line["state"] != "work"] == ["6.1"]


def test_two_people_at_one_instrument_lose_nothing(client: TestClient) -> None:
    """Each works from a sheet of their own; both readings stand, and a cut that one of them wrote down makes the
    other's earlier reading stale although it arrives later."""
    ilse = Bench(client)
    ilse.name_strings()
    teo = Bench(client)
    ilse.take("end_height", 0, "6.1")
    teo.take("end_height", 3, "4.3")
    assert [s["state"] for s in teo.sheet["cut"]["strings"]] == ["provisional", "none", "none", "provisional"]
    before = teo.sheet["last_work"]
    ilse.post("works", id=str(uuid4()), work="crown_cut")
    teo.take("end_height", 1, "5.7", after_work=before)
    assert teo.cell("end_height", 1)["state"] == "stale"
    ilse.sheet = teo.sheet
    ilse.take("end_height", 1, "4.9")
    assert ilse.cell("end_height", 1)["state"] == "current"


def test_repeats_are_meant(bench: Bench) -> None:
    bench.name_strings()
    bench.take("end_height", 0, "6.0")
    bench.take("end_height", 0, "6.2", repeats=True)
    cell = bench.cell("end_height", 0)
    assert (cell["value"], cell["count"]) == (pytest.approx(6.1), 2)
    assert cell["repeat_spread"] == pytest.approx(0.2)


def test_a_reading_taken_with_a_wedge_is_the_shortest_way(bench: Bench) -> None:
    """4.80 upright is about 4.50 with a wedge at the G: the same string, the same cut."""
    bench.name_strings()
    bench.take("end_height", 0, "6.00")
    upright = bench.wood()[0]
    bench.take("end_height", 0, "5.62", tool="wedge")
    assert bench.cell("end_height", 0)["direction"] == "shortest"
    assert bench.wood()[0] == pytest.approx(upright, abs=0.06)


def test_gut_strings_raise_what_is_wanted(bench: Bench) -> None:
    bench.name_strings("Weir gut", put_on_now=True)
    assert bench.cell("end_height", 0)["band"]["aim"] == pytest.approx(5.5)
    assert "+0.5 for gut strings" in bench.cell("end_height", 0)["band"]["source"]


def test_a_shape_that_cannot_be_names_the_reading(bench: Bench) -> None:
    bench.name_strings()
    bench.take("end_height", 0, "6.0")
    bench.take("fingerboard_length", None, "330")
    assert bench.sheet["problem"]["measure"] == "fingerboard_length"
    assert "330 mm, measured" in bench.sheet["problem"]["sentence"]
    bench.take("fingerboard_length", None, "270")
    assert bench.sheet["problem"] is None


def test_an_own_set_of_strings_from_typed_diameters(bench: Bench) -> None:
    own = {"name": "Found on it", "material": "steel", "diameters": ["0,8", "0.84", "0.68mm", "0.26"]}
    bench.post("strings", id=str(uuid4()), own=own)
    assert [s["diameter"] for s in bench.sheet["strings"]["strings"]] == [0.8, 0.84, 0.68, 0.26]
    [item] = bench.post("strings", 422, id=str(uuid4()), own=own)["detail"]
    assert item["loc"] == ["body", "name"]


def test_left_handed_instruments_have_the_same_numbers(client: TestClient) -> None:
    sheet = Bench(client, "RW-102").sheet
    assert sheet["instrument"]["left_handed"]
    assert [s["name"] for s in sheet["drawing"]["strings"]] == ["G", "D", "A", "E"]
    assert sheet["drawing"]["strings"][0]["offset"] < 0


def test_five_strings_have_five_of_everything(client: TestClient) -> None:
    sheet = Bench(client, "RW-105").sheet
    assert [s["name"] for s in sheet["cut"]["strings"]] == ["C", "G", "D", "A", "E"]
    assert sheet["cut"]["state"] == "firm"


@pytest.mark.parametrize("ticket", ["%00", "a b", "x" * 21, "..%2F.."])
def test_what_is_no_ticket_is_never_a_failure(client: TestClient, ticket: str) -> None:
    assert client.get(f"/api/instruments/{ticket}/sheet").status_code in (404, 422)


def test_a_broken_clock_is_refused(bench: Bench) -> None:
    [item] = bench.take("end_height", 0, "5", status=422, taken_at="0001-01-01T00:00:00+14:00")["detail"]
    assert item["loc"] == ["body", "taken_at"]


def test_an_unknown_ticket_is_said(client: TestClient) -> None:
    answer = client.get("/api/instruments/RW-999/sheet")
    assert answer.status_code == 404
    assert "RW-999" in answer.json()["detail"][0]["msg"]


def test_what_was_filed_at_the_nut_is_what_somebody_said(client: TestClient) -> None:
    """G by 0,2 and E by .05, with either mark; nothing at the others; what is no amount is refused by its string."""
    bench = Bench(client, "RW-101")
    refused = bench.post("works", 422, id=str(uuid4()), work="nut_filed", filed=["0.2", "a bit", "", ""])
    assert refused["detail"][0]["loc"][-2:] == ["filed", 1]
    assert refused["detail"][0]["msg"].startswith("D: “a bit” is not what was filed")
    assert bench.post("works", 422, id=str(uuid4()), work="nut_filed", filed=["0.2"])["detail"]
    bench.post("works", id=str(uuid4()), work="nut_filed", filed=["0,2", "", "", ".05"])
    assert "G by 0.20, E by 0.05 mm" in str(bench.log()[0])
    other = Bench(client, "RW-105")
    other.post("works", id=str(uuid4()), work="nut_filed")
    assert " by 0" not in str(other.log()[0])
