"""Strings one by one: since when they are on, what new ones would change, how they settle, where old ones went."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.domain.sound import Retuning
from fidicula.domain.strings import SetString, StringSet
from fidicula.domain.work_details import StringsFitted
from fidicula.domain.works import WorkDone
from fidicula.views.adjustments.strings_on import OnIt, checks_of, drift_words, string_view
from sqlalchemy import Engine, text

from .test_bench import Bench
from .test_pages import now, page, then

RW_102 = "/api/instruments/RW-102"
TODAY = datetime.now(UTC).astimezone().date()


def on_it(client: TestClient, ticket: str = "RW-102") -> dict[str, Any]:
    answer = client.get(f"/api/instruments/{ticket}/strings")
    assert answer.status_code == 200, answer.text
    return dict(answer.json())


def put_on(client: TestClient, name: str = "Weir gut", status: int = 200, **more: object) -> dict[str, Any]:
    sets = client.get(f"{RW_102}/string-sets").json()
    chosen = next(one["id"] for one in sets if one["name"] == name)
    answer = client.post(f"{RW_102}/strings", json={"id": str(uuid4()), "set_id": chosen, **more})
    assert answer.status_code == status, answer.text
    return dict(answer.json())


def test_one_string_of_another_set_leaves_the_others_where_they_are(client: TestClient) -> None:
    """An E of Weir gut: the sheet computes with its 0.28, the others are still of the set of 240 days ago."""
    sheet = put_on(client, positions=[3], put_on_now=True, fate="spare", hours_a_week="9")
    assert sheet["strings"]["name"] == "Harbour medium, E of Weir gut"
    assert [one["diameter"] for one in sheet["strings"]["strings"]] == [0.8, 0.86, 0.68, 0.28]
    told = on_it(client)
    assert [one["set_name"] for one in told["strings"]] == ["Harbour medium"] * 3 + ["Weir gut"]
    assert told["strings"][3]["fitted_at"] > told["strings"][0]["fitted_at"]
    assert told["removed"] == [
        {**told["removed"][0], "name": "E", "set_name": "Harbour medium", "fate": "kept as a spare"}
    ]
    assert told["fitted"][0]["says"] == "E of Weir gut put on"
    listed = [one["name"] for one in client.get(f"{RW_102}/string-sets").json()]
    assert "Harbour medium, E of Weir gut" not in listed
    whole = put_on(client, positions=[0, 1, 2], put_on_now=True, fate="discarded")
    assert whole["strings"]["name"] == "Weir gut"
    back = client.post(f"{RW_102}/works/{told['fitted'][0]['work_id']}/take-back").json()
    assert back["strings"]["name"] == "Weir gut"


def test_what_is_refused_names_the_field(client: TestClient) -> None:
    tomorrow = (date.today() + timedelta(days=2)).isoformat()
    assert put_on(client, status=422, since=tomorrow)["detail"][0]["loc"][-1] == "since"
    assert put_on(client, status=422, hours_a_week="200")["detail"][0]["msg"] == "a week has 168 hours; it was 200"
    assert put_on(client, status=422, hours_a_week="many")["detail"][0]["loc"][-1] == "hours_a_week"
    assert put_on(client, status=422, positions=[4])["detail"][0]["loc"][-1] == "positions"
    own: dict[str, Any] = {
        "name": "Own",
        "material": "gut",
        "diameters": ["0.9", "0.9", "0.7", "0.3"],
        "tensions": ["", "40 N", "", ""],
    }
    for field, at, typed in (("tensions", 3, "9e"), ("diameters", 1, "x"), ("diameters", 0, "90")):
        right = own[field][at]
        own[field][at] = typed
        wrong = client.post(f"{RW_102}/strings", json={"id": str(uuid4()), "own": own})
        assert wrong.json()["detail"][0]["loc"] == ["body", field, at]
        own[field][at] = right
    bare = Bench(client, "RW-101")
    sets = client.get("/api/instruments/RW-101/string-sets").json()
    body = {"id": str(uuid4()), "set_id": sets[0]["id"], "positions": [0], "put_on_now": True}
    refused = bare.post("strings", 422, **body)["detail"][0]
    assert (refused["loc"][-1], "say first which strings are on it" in refused["msg"]) == ("positions", True)


def test_how_long_strings_still_serve(client: TestClient) -> None:
    """Synthetic, 240 days at 9 hours a week: 309 of 450 hours; by months there are 34 days left of nine."""
    strings = on_it(client)["strings"]
    assert all("about 309 of 450 hours: 34 days left" in one["served"] for one in strings)
    assert _unmet(client) == []
    since = (TODAY - timedelta(days=300)).isoformat()
    put_on(client, "Harbour medium", since=since)
    old = on_it(client)["strings"][0]
    assert old["served"].endswith("past its time")
    assert old["is_past"]
    assert _unmet(client) == ["the strings are past their time"]


def _unmet(client: TestClient) -> list[str]:
    rows = client.get(f"{RW_102}/sound", params={"complaint": "thin"}).json()["advice"]
    return list(next(row["unmet"] for row in rows if row["says"].startswith("Strings that are not")))


ON = OnIt(SetString("G", 0.8), uuid4(), "Harbour light", "gut", datetime(2026, 1, 1, tzinfo=UTC))


@pytest.mark.parametrize(
    ("days", "hours", "says", "is_past"),
    [
        (10, None, "since 1 January 2026: 4 months left", False),
        (100, None, "since 1 January 2026: 22 days left", False),
        (130, None, "since 1 January 2026: past its time", True),
        (70, 14.0, "since 1 January 2026, about 140 of 150 hours: 5 days left", False),
        (70, 20.0, "since 1 January 2026, about 200 of 150 hours: past its time", True),
    ],
)
def test_whichever_is_over_first_ends_a_strings_life(days: int, hours: float | None, says: str, is_past: bool) -> None:
    """Gut: four months of 30.44 days, or 150 hours."""
    view = string_view(ON, hours_a_week=hours, now=datetime(2026, 1, 1, tzinfo=UTC) + timedelta(days=days))
    assert (view.served, view.is_past) == (says, is_past)


def test_new_strings_say_what_they_would_change_before_they_are_on(client: TestClient) -> None:
    """
    Weir gut at 328 mm: 42.0 + 40.0 + 49.0 + 72.0 = 203.0 N of 218.1; gut wants 0.5 more at the board's end of the low
    string, which the present 5.3 of 4.9 to 5.5 and more still has.
    """
    sets = client.get(f"{RW_102}/string-sets").json()
    weir = next(one["id"] for one in sets if one["name"] == "Weir gut")
    view = page(client, "RW-102", "strings", set=weir)
    assert now(view, "tension") == pytest.approx(218.06, abs=0.05)
    assert then(view, "tension") == pytest.approx(203.0, abs=0.1)
    assert then(view, "end_height0") > now(view, "end_height0")
    assert view["finding"][0] == "Weir gut is tried, gut; nothing is put on yet."
    assert view["finding"][1].startswith("The present crown is too low for Weir gut at G 0.3")
    by_string = next(table for table in view["tables"] if table["title"] == "String by string")
    assert [row[-1] for row in by_string["rows"]] == ["wider slots", "wider slots", "wider slots", ""]
    rest = page(client, "RW-102", "strings")
    assert rest["finding"][0].startswith("The present crown serves Harbour medium once it comes down")
    assert on_it(client)["strings"][0]["set_name"] == "Harbour medium"


def test_a_string_that_is_better_a_little_sharp_wants_to_be_heavier(client: TestClient) -> None:
    """20 cents sharp: 43.0 * 2^(20 / 600) = 44.0; of 40.5, 43.0, 42.0 the 43.0 comes nearest. 60 flat: 40.1."""
    sharp = page(client, "RW-102", "strings", gauge_of="G", cents=20)
    table = sharp["tables"][-1]
    assert table["title"] == "Gauge of the G: 44.0 N wanted, 2.3 % heavier"
    assert table["rows"][table["marked"][0][0]][0] == "Harbour medium"
    flat = page(client, "RW-102", "strings", gauge_of="G", cents=-60)["tables"][-1]
    assert flat["title"] == "Gauge of the G: 40.1 N wanted, 6.7 % lighter"
    assert flat["rows"][flat["marked"][0][0]][0] == "Harbour light"


def test_new_strings_are_looked_at_after_two_hours_and_a_day(client: TestClient, demo: Engine) -> None:
    assert on_it(client)["checks"] == []
    put_on(client, put_on_now=True)
    fresh = on_it(client)["checks"]
    assert [(one["label"], one["done_at"], one["is_due"]) for one in fresh] == [
        ("after two hours", None, False),
        ("after a day", None, False),
    ]
    with demo.begin() as connection:
        connection.execute(
            text(
                "UPDATE work_done SET done_at = now() - interval '3 hours' WHERE work = 'strings_changed' AND visit_id "
                "IN (SELECT v.id FROM visit v JOIN instrument i ON i.id = v.instrument_id WHERE i.ticket = 'RW-102')"
            )
        )
    assert [one["is_due"] for one in on_it(client)["checks"]] == [True, False]
    tuned = client.post(f"{RW_102}/retunings", json={"id": str(uuid4()), "cents": ["-12", "-8 cents", "", "−5,5"]})
    assert tuned.status_code == 200, tuned.text
    told = tuned.json()
    assert [one["done_at"] is not None for one in told["checks"]] == [True, False]
    assert told["retunings"][0]["cents"] == [-12, -8, None, -5.5]
    again = client.post(f"{RW_102}/retunings", json={"id": str(uuid4()), "cents": ["-3", "-2", "", ""]}).json()
    assert again["drift"] == "Gone since the tuning before, in cents: G −12, −3; D −8, −2."
    empty = client.post(f"{RW_102}/retunings", json={"id": str(uuid4()), "cents": ["", "", "", ""]})
    assert "0 for one that held" in empty.json()["detail"][0]["msg"]
    far = client.post(f"{RW_102}/retunings", json={"id": str(uuid4()), "cents": ["", "-900", "", ""]})
    assert far.json()["detail"][0]["loc"][-1] == 1
    gone = client.post(f"{RW_102}/retunings/{again['retunings'][0]['id']}/take-back").json()
    assert len(gone["retunings"]) == 1


def test_a_day_counts_from_when_they_went_on() -> None:
    """Tuned after 23 hours and 40 minutes: that is the look after a day; the one after two hours was never taken."""
    at = datetime(2026, 11, 1, 9, tzinfo=UTC)
    string_set = uuid4()
    visit = uuid4()
    work = WorkDone(7, uuid4(), visit, "strings_changed", "Teo", at, StringsFitted(set="Weir gut"), string_set, False)
    early = Retuning(uuid4(), visit, 7, (-4.0,), "", "Teo", at + timedelta(hours=1))
    late = Retuning(uuid4(), visit, 7, (-2.0,), "", "Teo", at + timedelta(hours=23, minutes=40))
    two, day = checks_of([work], [early], at + timedelta(hours=3))
    assert (two.done_at, two.is_due, day.is_due) == (None, True, False)
    two, day = checks_of([work], [early, late], at + timedelta(hours=30))
    assert (two.done_at, day.done_at) == (late.tuned_at, late.tuned_at)
    assert drift_words([early, late], ["G"]) == "Gone since the tuning before, in cents: G −4, −2."
    assert StringSet(string_set, "Weir gut", "violin", "gut", ()).is_mixed is False


def test_which_set_was_on_when_it_sounded_best(client: TestClient) -> None:
    """410 days ago, with the old post and gut on it: 4.3; what is newer and better takes its place."""
    best = on_it(client)["best"]
    assert best.startswith("It sounded best to Pia Sandoval-Reuter on ")
    assert best.endswith("4.3 of 5, at place 1, with Weir gut on it.")
    rated = {"open": 5, "even": 5, "focused": 5, "loud": 5}
    client.post(f"{RW_102}/sound/heard", json={"id": str(uuid4()), "rated": rated})
    assert on_it(client)["best"].endswith("5.0 of 5, at place 5, with Harbour medium on it.")
