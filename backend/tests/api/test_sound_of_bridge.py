"""The bridge as a tone tool, openings, blind comparisons and recordings."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID, uuid4, uuid5

import pytest
from fastapi.testclient import TestClient
from fidicula.cli.demo_sound import simulated_recording

from .sounding import MOVE, PIA, Session, place
from .test_bench import Bench


def test_the_bridge_is_tried_before_wood_is_taken(session: Session) -> None:
    """Not under 13 at a full-size violin's waist, but for a reason; wood does not come back."""
    session.bench.take("bridge_waist", None, "14.2")
    assert session.refused("trial", what="weight")[0] == "place"
    on = session.do("trial", what="weight", place="crown")
    assert [one["says"] for one in on["trials_on"]] == ["a small weight at the crown"]
    assert on["now"] == 5
    off = session.do("trial-off")
    assert (off["trials_on"], off["lines"][-1]["says"]) == ([], "a small weight at the crown taken off")
    assert session.do("trial-off", 409)["detail"][0]["msg"] == "nothing is being tried on the bridge"
    assert session.refused("wood", place="waist", off="")[0] == "off"
    field, said = session.refused("wood", place="waist", off="1,4", left="12.8")
    assert field == "reason"
    assert "not taken under 13 mm; 12.8 would be left" in said
    wood = session.do("wood", place="waist", off="0.3", left="13.9")
    last = wood["lines"][-1]
    assert (last["says"], last["irreversible"]) == ("0.3 mm of wood taken at the waist, 13.9 left", True)
    assert wood["next_shaving"] is not None
    assert Bench(session.client, "RW-102").cell("bridge_waist")["state"] == "stale"
    meant = session.do("wood", place="waist", off="1.4", left="12.8", reason="She asked for it.")
    assert "She asked for it." in meant["lines"][-1]["says"]


def test_no_wood_is_taken_in_the_last_days_before_it_is_needed(session: Session) -> None:
    soon = (datetime.now(UTC) + timedelta(days=2)).date().isoformat()
    changes = [{"field": "deadline", "was": "", "now": soon}]
    answer = session.client.patch("/api/instruments/RW-102/particulars", json={"changes": changes})
    assert answer.status_code == 200, answer.text
    said = session.do("wood", 409, place="crown", off="0.1")["detail"][0]["msg"]
    assert "no risky work is begun in the last days" in said
    assert "no risky work" in session.do("moves", 409, **MOVE)["detail"][0]["msg"]
    tried = session.do("trial", what="wedge", place="heart")["trials_on"]
    assert [one["says"] for one in tried] == ["a soft wedge in the heart"]


def test_an_opening_grows_as_wood_is_taken(session: Session) -> None:
    view = session.do("wood", place="heart", off="0,2", left="7.4", words="a shaving")
    assert view["lines"][-1]["says"] == "0.2 mm of wood taken in the heart, now 7.4 wide (a shaving)"
    assert place(view, 4)["incomparable"] == ["wood was taken off the bridge"]


def choose(session: Session, view: dict[str, Any], chosen: str) -> dict[str, Any]:
    trial = view["blind"][0]["trial"]
    at = f"/api/instruments/RW-102/sound/blind/{trial}/chosen"
    answer = session.client.post(at, json={"chosen": chosen})
    assert answer.status_code == 200, answer.text
    return dict(answer.json())


def test_blind_nobody_is_told_which_is_which_until_the_last_was_chosen(session: Session) -> None:
    """Eight were agreed on: six times the same one, once the other, once no difference; either was first four times."""
    view = session.view()
    recordings = [one["id"] for line in view["lines"] for one in line["recordings"]]
    assert session.refused("blind", trials=8, one=recordings[0], other=recordings[0])[0] == "other"
    assert session.refused("blind", trials=8, one=recordings[0], other=str(uuid4()))[0] == "other"
    assert session.refused("blind", trials=0, one=recordings[0], other=recordings[1])[0] == "trials"
    assert session.refused("blind", trials=41, one=recordings[0], other=recordings[1])[0] == "trials"
    again = session.record(0.5)["lines"]
    same = [one["id"] for one in session.record(0.6)["lines"][-1]["recordings"]]
    assert len(again) == len(session.view()["lines"])
    assert session.refused("blind", trials=8, one=same[0], other=same[1])[0] == "other"
    assert "9 must agree" in str(view["blind_chances"])
    known = [session.client.get(f"/api/recordings/{one}").content for one in recordings]
    view = session.do("blind", trials=8, one=recordings[0], other=recordings[1])
    assert "not at its end" in str(session.do("blind", 409, trials=8, one=recordings[0], other=recordings[1]))
    first = view["blind"][0]["trial"]
    was_first = 0
    for n in range(8):
        hidden = view["blind"][0]
        assert (hidden["of"], hidden["done"], hidden["says"], hidden["each"]) == (8, n, "", [])
        sounds = [session.client.get(f"/api/blind/{hidden['trial']}/{which}").content for which in ("first", "second")]
        assert sorted(sounds) == sorted(known)
        liked, other = ("first", "second") if sounds[0] == known[1] else ("second", "first")
        was_first += liked == "first"
        view = choose(session, view, "neither" if n == 3 else other if n == 5 else liked)
    assert was_first == 4
    told = view["blind"][0]
    assert told["says"] == (
        f"{PIA}: Place 4 was preferred 6 of 8 times, place 2 1, no difference 1: "
        "guessing does as well 29 % of the time, so no difference is shown."
    )
    assert len(told["each"]) == 8
    late = session.client.post(f"/api/instruments/RW-102/sound/blind/{first}/chosen", json={"chosen": "neither"})
    assert late.json()["blind"][0] == told


def test_blind_a_series_that_is_given_up_says_nothing(session: Session) -> None:
    recordings = [one["id"] for line in session.view()["lines"] for one in line["recordings"]]
    view = session.do("blind", trials=6, one=recordings[0], other=recordings[1])
    view = choose(session, view, "first")
    series = view["blind"][0]["id"]
    fifth = f"/api/instruments/RW-102/sound/blind/{uuid5(UUID(series), '4')}/chosen"
    assert session.client.post(fifth, json={"chosen": "first"}).status_code == 409
    at = f"/api/instruments/RW-102/sound/blind/{series}/give-up"
    told = session.client.post(at, json={}).json()["blind"][0]
    assert (told["trial"], told["each"]) == ("", [])
    assert told["says"] == f"{PIA}: given up after 1 of 6; nothing follows from it"
    assert session.client.post(at.replace(series, str(uuid4())), json={}).status_code == 404
    assert session.do("blind", trials=6, one=recordings[0], other=recordings[1])["blind"][0]["done"] == 0


def test_a_recording_is_kept_with_the_act_that_it_followed(session: Session) -> None:
    view = session.record(0.4)
    assert [len(line["recordings"]) for line in view["lines"]] == [0, 1, 0, 1, 1]
    kept = session.client.get(f"/api/recordings/{view['lines'][-1]['recordings'][0]['id']}")
    assert kept.headers["content-type"] == "audio/wav"
    assert kept.content == simulated_recording(brightness=0.4)
    wrong = session.client.post(
        "/api/instruments/RW-102/sound/recordings",
        params={"id": str(uuid4())},
        content=b"%PDF",
        headers={"content-type": "application/pdf"},
    )
    assert wrong.json()["detail"][0]["loc"][-1] == "sound"


def test_what_was_on_is_part_of_what_was_heard(session: Session) -> None:
    """With a weight on, a place is no bare place; the best so far is sought among what was heard with the same on."""
    before = session.view()
    bare = next(one for one in before["places"] if one["is_now"])["mean"]
    assert session.refused("trial", what="weight", place="crown", mass="300")[0] == "mass"
    session.do("trial", what="weight", place="crown", mass="1,5")
    on = session.do("heard", rated={"open": 5, "even": 5}, words=["open"], remark="")
    assert on["trials_on"][0]["says"] == "a small weight of 1.5 g at the crown"
    assert next(one for one in on["places"] if one["is_now"])["mean"] == bare
    moved = session.do("moves", **MOVE)
    assert moved["lines"][-1]["on"] == ["a small weight of 1.5 g at the crown"]
    worse = session.do("heard", rated={"open": 4, "even": 4}, words=[], remark="")
    assert worse["best"] == on["now"]
    off = session.do("trial-off")
    assert off["best"] == before["best"]


def test_the_tops_own_thickness_decides_where_the_post_goes_by_it(client: TestClient) -> None:
    """The school's figure is 3.0; read was 3.6: the post is wanted so far behind the foot."""
    answer = client.put(
        "/api/instruments/RW-102/targets",
        json={"schools": {"post_setback": "top_thickness"}, "id": str(uuid4())},
    )
    assert answer.status_code == 200, answer.text
    by_figure = Session(client).view()["wanted"]
    bench = Bench(client, "RW-102")
    bench.take("top_thickness_post", None, "3.6", tool="caliper")
    by_reading = Session(client).view()["wanted"]
    assert by_reading["setback"] - by_figure["setback"] == pytest.approx(0.6, abs=0.01)
