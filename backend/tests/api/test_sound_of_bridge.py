"""The bridge as a tone tool, openings, blind comparisons and recordings."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from uuid import uuid4

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


def test_blind_nobody_is_told_which_is_which_until_the_player_chose(session: Session) -> None:
    view = session.view()
    recordings = [one["id"] for line in view["lines"] for one in line["recordings"]]
    assert session.refused("blind", one=recordings[0], other=recordings[0])[0] == "other"
    assert session.refused("blind", one=recordings[0], other=str(uuid4()))[0] == "other"
    again = session.record(0.5)["lines"]
    same = [one["id"] for one in session.record(0.6)["lines"][-1]["recordings"]]
    assert len(again) == len(session.view()["lines"])
    assert session.refused("blind", one=same[0], other=same[1])[0] == "other"
    hidden = session.do("blind", one=recordings[0], other=recordings[1])["blind"][0]
    assert (hidden["chosen"], hidden["first"], hidden["second"]) == ("", "", "")
    sounds = [session.client.get(f"/api/blind/{hidden['id']}/{which}").content for which in ("first", "second")]
    known = [session.client.get(f"/api/recordings/{one}").content for one in recordings]
    assert sorted(sounds) == sorted(known)
    which = "first" if sounds[0] == known[1] else "second"
    answer = session.client.post(f"/api/instruments/RW-102/sound/blind/{hidden['id']}/chosen", json={"chosen": which})
    told = answer.json()
    assert told["blind"][0]["says"] == f"{PIA}: the {which}, place 4"
    assert told["blind_words"] == (
        "Place 4 was preferred 1 of 1 times over place 2: "
        "a guess prefers one of both so often in 100 % of cases: compare again."
    )
    other = "second" if which == "first" else "first"
    again = session.client.post(f"/api/instruments/RW-102/sound/blind/{hidden['id']}/chosen", json={"chosen": other})
    assert again.json()["blind"][0]["chosen"] == which


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
