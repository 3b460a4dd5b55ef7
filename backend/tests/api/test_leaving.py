"""How a visit ends: the checklist with its evidence, the signature, the seal and what breaks it; over HTTP."""

from __future__ import annotations

from datetime import UTC, date, datetime, timedelta
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import Engine, text

from .people import BRAM, ILSE, PINS, id_of, signed
from .test_bench import Bench

pytestmark = pytest.mark.usefixtures("read_again")

RW = "/api/instruments/RW-102"


def checklist(client: TestClient, ticket: str = "RW-102") -> dict[str, Any]:
    answer = client.get(f"/api/instruments/{ticket}/checklist")
    assert answer.status_code == 200, answer.text
    return dict(answer.json())


def point(client: TestClient, key: str) -> dict[str, Any]:
    return next(one for one in checklist(client)["points"] if one["key"] == key)


def check(client: TestClient, *points: str, status: int = 200, **more: str) -> dict[str, Any]:
    body = {"id": str(uuid4()), "points": points, "verdict": "right", **more}
    answer = client.post(f"{RW}/checks", json=body)
    assert answer.status_code == status, answer.text
    return dict(answer.json())


def hand_over(client: TestClient, status: int = 200, **more: Any) -> dict[str, Any]:
    answer = client.post(f"{RW}/hand-over", json=signed(**more))
    assert answer.status_code == status, answer.text
    return dict(answer.json())


def test_a_part_stands_with_its_readings_their_bands_and_its_works(client: TestClient) -> None:
    bench = Bench(client, "RW-102")
    bench.take("end_height", 0, "5.9")
    bench.take("end_height", 3, "3.2")
    client.post(f"{RW}/works", json={"id": str(uuid4()), "work": "pegs_fitted"})
    bridge, pegs = point(client, "part:bridge"), point(client, "part:pegs")
    heights = next(one["says"] for one in bridge["evidence"] if "board's end" in one["says"])
    assert heights.startswith("Heights at the board's end: ")
    assert "5.9" in heights
    assert " above by 0." in heights
    assert bridge["is_open"]
    assert bridge["means"]
    assert any(one["kind"] == "work" and ILSE in one["says"] for one in pegs["evidence"])


def test_a_part_that_a_figure_stands_in_for_is_not_told_as_right(client: TestClient) -> None:
    """RW-104: two heights and the neck are read; nobody read its nut, its pegs or its bar."""
    points = client.get("/api/instruments/RW-104/checklist").json()["points"]
    states = {one["part"]: one["state"] for one in points if one["group"] == "part"}
    assert [states[part] for part in ("nut", "pegs", "strings", "neck", "bridge")] == [
        *("assumed", "not_read", "right", "right", "open")
    ]


def test_a_point_is_checked_and_a_later_work_opens_it_again(client: TestClient) -> None:
    assert point(client, "pitch:pegs_hold")["state"] == "unchecked"
    check(client, "pegs_hold", "cracks")
    assert (point(client, "pitch:pegs_hold")["state"], point(client, "pitch:cracks")["by"]) == ("right", ILSE)
    check(client, "cracks", verdict="not_right", words="a hair by the treble f-hole")
    seen = point(client, "pitch:cracks")
    assert (seen["state"], seen["words"], seen["is_open"]) == ("not_right", "a hair by the treble f-hole", True)
    assert client.post(f"{RW}/checks/take-back", json={"point": "cracks"}).status_code == 200
    assert point(client, "pitch:cracks")["state"] == "right"
    client.post(f"{RW}/works", json={"id": str(uuid4()), "work": "bridge_straightened"})
    assert point(client, "pitch:cracks")["state"] == "unchecked"


@pytest.mark.parametrize(
    ("points", "more", "field"),
    [
        (["nonsense"], {}, "points"),
        (["endpin"], {}, "points"),
        (["cracks"], {"verdict": "not_right"}, "words"),
        (["cracks"], {"verdict": "maybe"}, "verdict"),
        ([], {}, "points"),
    ],
)
def test_what_cannot_be_checked_names_its_field(
    client: TestClient, points: list[str], more: dict[str, str], field: str
) -> None:
    """An endpin is not looked at on a violin."""
    assert check(client, *points, status=422, **more)["detail"][0]["loc"][-1] == field


def test_it_leaves_with_a_signature_and_a_reason_for_all_that_is_open(client: TestClient) -> None:
    refused = hand_over(client, 422, left_open={})
    assert refused["detail"][0]["loc"][-1] == "left_open"
    assert "Pegs turn evenly" in refused["detail"][0]["msg"]
    assert hand_over(client, 422, pin="0000")["detail"][0]["loc"][-1] == "pin"
    assert hand_over(client, 422, pin="")["detail"][0]["loc"][-1] == "pin"
    yesterday = (datetime.now(UTC) - timedelta(days=2)).date()
    assert hand_over(client, 422, next_check=yesterday.isoformat())["detail"][0]["loc"][-1] == "next_check"
    assert checklist(client)["may_sign"]
    reasons = {"": "it goes as it is", "pitch:cracks": "lamp is away"}
    told = hand_over(client, left_open=reasons, received_by="Pia Sandoval-Reuter")
    assert told["seal"]["verdict"] == "intact"
    assert told["seal"]["signed_by"] == ILSE
    by_key = {one["key"]: one for one in told["points"]}
    assert by_key["pitch:cracks"]["reason"] == "lamp is away"
    assert by_key["pitch:pegs_hold"]["reason"] == "it goes as it is"
    assert not any(one["reason"] for one in told["points"] if not one["is_open"])
    hand_over(client, 409)


def test_the_same_signature_twice_is_one_seal(client: TestClient) -> None:
    body = signed()
    for _ in range(2):
        assert client.post(f"{RW}/hand-over", json=body).status_code == 200
    assert (
        len([one for one in client.get(f"{RW}/seals").json() if one["hash"] == checklist(client)["seal"]["hash"]]) == 1
    )


CHANGES = [
    ("readings", "UPDATE reading SET value = value - 0.3 WHERE number = (SELECT max(number) FROM reading)"),
    ("works", "DELETE FROM work_done WHERE work = 'pegs_fitted'"),
    ("the check at pitch", "UPDATE point_check SET verdict = 'right', words = ''"),
    ("the visit's kind and dates", "UPDATE visit SET complaint = 'nothing at all' WHERE closed_at IS NOT NULL"),
    ("what was signed", "UPDATE seal SET points = '[]'"),
    ("what was signed", 'UPDATE seal SET hashes = hashes || \'{"posts": ""}\''),
    ("photographs", "UPDATE photo SET jpeg = 'other'::bytea"),
]


@pytest.mark.parametrize(("where", "change"), CHANGES)
def test_a_sealed_visit_that_was_changed_in_the_database_is_found_out(
    client: TestClient, demo: Engine, where: str, change: str
) -> None:
    Bench(client, "RW-102").take("end_height", 0, "5.9")
    client.post(f"{RW}/works", json={"id": str(uuid4()), "work": "pegs_fitted"})
    check(client, "cracks", verdict="not_right", words="a hair")
    if where == "photographs":
        with demo.begin() as connection:
            connection.execute(
                text(
                    "INSERT INTO photo (id, visit_id, item, width, height, jpeg, small, taken_by) "
                    "SELECT gen_random_uuid(), visit.id, 'bridge', 1, 1, 'one', 'one', 'Ilse Varnholt' FROM visit "
                    "JOIN instrument ON instrument.id = instrument_id WHERE ticket = 'RW-102' AND closed_at IS NULL"
                )
            )
    visit = hand_over(client)["visit_id"]
    with demo.begin() as connection:
        connection.execute(text(change))
    seal = next(one for one in client.get(f"{RW}/seals").json() if one["visit_id"] == visit)
    assert seal["verdict"] == "changed"
    assert where in seal["changed"]
    assert "was changed after it was sealed" in seal["says"]


def test_a_reading_that_waited_elsewhere_comes_beside_the_seal(client: TestClient) -> None:
    """It was taken before the hand-over and came after it; it does not break the seal, and is counted."""
    bench = Bench(client, "RW-102")
    bench.take("end_height", 0, "5.9")
    visit = bench.sheet["instrument"]["visit_id"]
    before = datetime.now(UTC).isoformat()
    hand_over(client)
    bench.take("end_height", 0, "5.8", taken_at=before, visit=visit)
    seal = client.get(f"{RW}/seals").json()[0]
    assert (seal["verdict"], seal["late"]) == ("intact", 1)
    assert "1 reading came later" in seal["says"]


def test_what_comes_to_mind_later_is_added_and_changes_nothing(client: TestClient) -> None:
    body = {"id": str(uuid4()), "words": "she rang: the E whistles"}
    visit = checklist(client)["visit_id"]
    assert client.post(f"{RW}/additions", json={**body, "visit_id": visit}).status_code == 409
    hand_over(client)
    assert client.post(f"{RW}/works", json={"id": str(uuid4()), "work": "pegs_fitted"}).status_code == 409
    check(client, "cracks", status=409)
    added = client.post(f"{RW}/additions", json={**body, "visit_id": visit})
    assert [(one["words"], one["by"]) for one in added.json()] == [("she rang: the E whistles", ILSE)]
    told = checklist(client)
    assert told["seal"]["verdict"] == "intact"
    assert len(told["additions"]) == 1
    blank = client.post(f"{RW}/additions", json={"id": str(uuid4()), "visit_id": visit, "words": " "})
    assert blank.json()["detail"][0]["loc"][-1] == "words"
    other = {"id": str(uuid4()), "visit_id": str(uuid4()), "words": "x"}
    assert client.post(f"{RW}/additions", json=other).status_code == 404


def test_a_hand_over_that_was_taken_back_leaves_its_broken_seal_on_record(client: TestClient) -> None:
    hand_over(client)
    told = client.post(f"{RW}/hand-over/take-back").json()
    assert told["may_sign"]
    assert told["seal"] is None
    hand_over(client)
    verdicts = [(one["verdict"], one["says"].startswith(ILSE)) for one in client.get(f"{RW}/seals").json()]
    assert verdicts[:2] == [("intact", False), ("opened_again", True)]


def test_the_next_check_comes_due_in_the_house(client: TestClient) -> None:
    today = datetime.now(UTC).astimezone().date()
    due = {one["ticket"]: one for one in client.get("/api/checks-due").json()}
    assert due["RW-087"]["says"] == "due in 1 day"
    proposed = date.fromisoformat(checklist(client)["proposed_check"])
    assert timedelta(weeks=2) <= proposed - today <= timedelta(weeks=26)
    hand_over(client, next_check=(today + timedelta(days=9)).isoformat(), next_check_why="the post has settled")
    found = {one["ticket"]: one for one in client.get("/api/checks-due").json()}["RW-102"]
    assert (found["says"], found["why"]) == ("due in 9 days", "the post has settled")
    assert "RW-102" not in {one["ticket"] for one in client.get("/api/checks-due?days=8").json()}
    client.post(f"{RW}/visits", json={"id": str(uuid4()), "kind": "recheck"})
    assert "RW-102" not in {one["ticket"] for one in client.get("/api/checks-due").json()}, "it is here"


def test_an_apprentice_checks_and_does_not_sign(client: TestClient) -> None:
    """Whoever is at the bench signs, with their own PIN."""
    assert client.post("/api/session/bench", json={"person": id_of(client, BRAM), "pin": PINS[BRAM]}).is_success
    check(client, "cracks")
    assert point(client, "pitch:cracks")["by"] == BRAM
    assert client.post(f"{RW}/hand-over", json=signed(BRAM)).status_code == 403


def test_what_an_apprentice_did_of_a_luthiers_work_a_luthier_checks(client: TestClient, demo: Engine) -> None:
    """It is on record from before ranks were asked for, or came in an archive."""
    client.post(f"{RW}/works", json={"id": str(uuid4()), "work": "crack_repaired"})
    client.post(f"{RW}/works", json={"id": str(uuid4()), "work": "cleaned"})
    with demo.begin() as connection:
        connection.execute(
            text("UPDATE work_done SET done_by = :bram WHERE work IN ('crack_repaired', 'cleaned')"), {"bram": BRAM}
        )
    asked = [one["key"] for one in checklist(client)["points"] if "by_apprentice" in one["key"]]
    assert asked == ["pitch:by_apprentice_crack_repaired"]
    assert point(client, asked[0])["label"] == f"Crack repaired, by {BRAM}: a luthier checks it"
    client.post("/api/session/bench", json={"person": id_of(client, BRAM), "pin": PINS[BRAM]})
    assert "luthier" in check(client, "by_apprentice_crack_repaired", status=403)["detail"][0]["msg"]
    check(client, "pegs_hold")
    client.post("/api/session/bench", json={"person": id_of(client, ILSE), "pin": PINS[ILSE]})
    check(client, "by_apprentice_crack_repaired")
    assert not point(client, asked[0])["is_open"]


def test_the_shop_words_its_own_list(client: TestClient) -> None:
    """A point of its own, one worded otherwise, one left out; each family is asked what it has."""

    def put(name: str, status: int = 200, **body: Any) -> Any:
        answer = client.put(f"/api/closing-points/{name}", json={"id": str(uuid4()), **body})
        assert answer.status_code == status, answer.text
        return answer.json()

    put("case_closes", label="Case latches close", families=["violin"])
    put("cleaned", label="Cleaned and wiped with the soft cloth")
    assert client.post("/api/closing-points/played/leave-out", json={"id": str(uuid4())}).status_code == 200
    keys = {one["key"]: one["label"] for one in checklist(client)["points"]}
    assert keys["pitch:case_closes"] == "Case latches close"
    assert keys["pitch:cleaned"] == "Cleaned and wiped with the soft cloth"
    assert "pitch:played" not in keys
    cello = {one["key"] for one in checklist(client, "RW-106")["points"]}
    assert "pitch:case_closes" not in cello
    assert "pitch:endpin" in cello
    assert "pitch:chin_rest" not in cello
    assert put("case_closes", 422, label=" ")["detail"][0]["loc"][-1] == "label"
    assert put("case_closes", 422, label="x", families=["lute"])["detail"][0]["loc"][-2] == "families"
    assert client.post("/api/closing-points/none/leave-out", json={"id": str(uuid4())}).status_code == 404
    shop = {one["point"]: one for one in client.get("/api/closing-points").json()}
    assert not shop["played"]["is_asked"]
    assert shop["cleaned"]["is_changed"]
    assert not shop["case_closes"]["comes_along"]
