"""Coming, going and coming back: the visit's kind, the hand-over, and last time's figures; over HTTP."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID, uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.domain.work_details import StringsFitted
from fidicula.domain.works import NewWork
from fidicula.services.loading.records import load_bench
from sqlalchemy import Engine

from .people import signed
from .test_bench import Bench


def rail(client: TestClient) -> list[str]:
    return [tag["ticket"] for tag in client.get("/api/rail").json()]


def post(client: TestClient, path: str, status: int, **body: Any) -> dict[str, Any]:
    needs_id = {"id": str(uuid4())} if path.endswith("/visits") else {}
    answer = client.post(f"/api/instruments/{path}", json={**needs_id, **body})
    assert answer.status_code == status, answer.text
    return dict(answer.json())


def test_last_times_figures_stand_where_nothing_was_measured_yet(client: TestClient) -> None:
    """RW-102 was here before; handed over and back, its card shows what each place was read as last."""
    post(client, "RW-102/hand-over", 200, **signed())
    assert "RW-102" not in rail(client)
    post(client, "RW-102/visits", 201, kind="strings", complaint="An E string has gone.")
    pia = Bench(client, "RW-102")
    g = pia.cell("end_height", 0)
    assert (g["state"], g["last_time"]) == ("missing", 5.3)
    assert pia.cell("projection")["last_time"] == 27.2
    tag = next(tag for tag in client.get("/api/rail").json() if tag["ticket"] == "RW-102")
    assert tag["step"] == "baseline"
    assert pia.sheet["instrument"]["complaint"] == "An E string has gone."
    assert Bench(client, "RW-103").cell("projection")["last_time"] is None


def test_a_course_is_as_long_as_its_kind(client: TestClient) -> None:
    """A string change is four stops long and asks for no crown; a full set-up has what its state asks for."""
    post(client, "RW-102/hand-over", 200, **signed())
    post(client, "RW-102/visits", 201, kind="strings")
    assert [stop["key"] for stop in Bench(client, "RW-102").sheet["course"]] == ["baseline", "change", "again", "rest"]
    full = [stop["key"] for stop in Bench(client, "RW-106").sheet["course"]]
    assert " ".join(full) == "look strings acclimatise measure projection nut post crown again settled rest"


def test_it_is_found_by_what_one_remembers(client: TestClient) -> None:
    """By ticket, owner or words, in the house or gone; without words, nothing."""
    post(client, "RW-105/hand-over", 200, **signed())

    def found(words: str) -> list[tuple[str, bool]]:
        answer = client.get("/api/known", params={"words": words}).json()
        return [(entry["ticket"], entry["in_house"]) for entry in answer]

    assert found("wren") == [("RW-105", False)]
    assert found("pia left") == [("RW-102", True)]
    assert len(found("rw-1")) == 8
    assert found("nobody of that name") == found("  ") == []
    assert found("100%") == found("R_-105") == []
    client.post(
        "/api/instruments", json={"id": str(uuid4()), "family": "violin", "size": "4/4", "owner": "Øyvind Þórsson"}
    )
    assert found("øYVIND þÓR") == [("RW-116", True)]


def test_what_was_handed_over_takes_nothing_on_but_what_was_taken_before(client: TestClient) -> None:
    pia = Bench(client, "RW-102")
    post(client, "RW-102/hand-over", 200, **signed())
    later = (datetime.now(UTC) + timedelta(minutes=1)).isoformat()
    refused = pia.take("end_height", 0, "5.2", status=409, taken_at=later)
    assert "take it in again" in refused["detail"][0]["msg"]
    pia.take("end_height", 0, "5.1", taken_at="2026-11-01T09:00:00Z")
    assert pia.cell("end_height", 0)["value"] == 5.1
    assert pia.sheet["instrument"]["handed_over_by"] == "Ilse Varnholt"


def test_a_reading_that_waited_stands_at_the_visit_that_it_was_taken_at(client: TestClient) -> None:
    """Away while the instrument was handed over and came back: last time's figure it is, and not one of now."""
    pia = Bench(client, "RW-102")
    was, taken_at = pia.sheet["instrument"]["visit_id"], datetime.now(UTC).isoformat()
    post(client, "RW-102/hand-over", 200, **signed())
    post(client, "RW-102/visits", 201, kind="strings")
    now = pia.take("projection", None, "27.9", taken_at=taken_at, visit=was)
    assert "at the visit that it was taken at" in now["notice"]
    assert now["instrument"]["visit_id"] != was
    stands = pia.cell("projection")
    assert (stands["state"], stands["last_time"]) == ("missing", 27.9)
    later = (datetime.now(UTC) + timedelta(minutes=1)).isoformat()
    pia.take("projection", None, "28.1", status=409, taken_at=later, visit=was)
    foreign = Bench(client, "RW-103").sheet["instrument"]["visit_id"]
    refused = pia.take("projection", None, "28.1", status=422, visit=foreign)
    assert refused["detail"][0]["loc"][-1] == "visit"


def test_a_hand_over_is_taken_back_and_the_same_visit_goes_on(client: TestClient) -> None:
    before = Bench(client, "RW-102").sheet
    post(client, "RW-102/hand-over", 200, **signed())
    post(client, "RW-102/hand-over/take-back", 200)
    assert Bench(client, "RW-102").sheet == before


@pytest.mark.parametrize(
    ("path", "body", "status"),
    [
        ("RW-102/visits", {}, 409),
        ("RW-102/visits", {"kind": "polish"}, 422),
        ("RW-102/hand-over/take-back", {}, 409),
        ("RW-999/hand-over", signed(), 404),
        ("RW-999/visits", {}, 404),
    ],
)
def test_what_cannot_come_or_go_is_refused(client: TestClient, path: str, body: dict[str, str], status: int) -> None:
    post(client, path, status, **body)
    assert "RW-102" in rail(client)


def test_a_new_arrival_has_its_kind(client: TestClient) -> None:
    body = {"family": "cello", "size": "4/4", "kind": "recheck"}
    ticket = client.post("/api/instruments", json={"id": str(uuid4()), **body}).json()["ticket"]
    assert Bench(client, ticket).sheet["instrument"]["visit_label"] == "recheck"
    assert client.post("/api/instruments", json={"id": str(uuid4()), **body, "kind": "polish"}).status_code == 422


def in_days(days: int) -> str:
    return (datetime.now(UTC).astimezone().date() + timedelta(days=days)).isoformat()


def spoken(days: int) -> str:
    day = datetime.now(UTC).astimezone().date() + timedelta(days=days)
    return f"{day.day} {day:%B}"


def test_what_is_said_at_the_door_stands_on_the_sheet(client: TestClient) -> None:
    """Needed in nine days with three to spare: no risky work from the sixth day on."""
    body = {
        "family": "viola", "size": "406", "kind": "buzz", "climate": "damp",
        "deadline": in_days(9), "promised": in_days(8),
        "left_as_found": "the old tailpiece: a gift", "believed": "island work",
    }  # fmt: skip
    ticket = client.post("/api/instruments", json={"id": str(uuid4()), **body}).json()["ticket"]
    told = Bench(client, ticket).sheet["instrument"]
    assert (told["no_risk_from"], told["promised"], told["climate"]) == (in_days(6), in_days(8), "damp")
    assert told["asked"]["left_as_found"] == "the old tailpiece: a gift"
    assert told["heed"][0].endswith(f"no risky work from {spoken(6)}.")
    assert told["heed"][-1] == "Left as found: the old tailpiece: a gift"
    post(client, f"{ticket}/hand-over", 200, **signed())
    post(client, f"{ticket}/visits", 201, kind="recheck", deadline=in_days(3))
    assert Bench(client, ticket).sheet["instrument"]["heed"][0].endswith("no risky work any more.")
    post(client, f"{ticket}/hand-over", 200, **signed())
    post(client, f"{ticket}/visits", 201, kind="recheck")
    again = Bench(client, ticket).sheet["instrument"]
    assert (again["deadline"], again["asked"]["believed"]) == (None, "island work")


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"deadline": in_days(-1)}, "deadline"),
        ({"promised": in_days(-400)}, "promised"),
        ({"deadline": in_days(2), "promised": in_days(3)}, "promised"),
        ({"deadline": "soon"}, "deadline"),
        ({"freeze_days": -1}, "freeze_days"),
        ({"climate": "arctic"}, "climate"),
        ({"complaint": "x" * 20_001}, "complaint"),
    ],
)
def test_days_and_words_that_cannot_be_name_their_field(
    client: TestClient, changes: dict[str, Any], field: str
) -> None:
    answer = client.post("/api/instruments", json={"id": str(uuid4()), "family": "violin", "size": "4/4", **changes})
    assert answer.status_code == 422
    assert answer.json()["detail"][0]["loc"] == ["body", field]


def test_a_hand_is_known_from_the_visits_that_were_handed_over(client: TestClient, demo: Engine) -> None:
    """Four readings of each string within hundredths: the next instrument's readings are known better by it.

    ReadingInput the hand-over back takes the lesson back.
    """
    other = Bench(client, "RW-106")

    def scatter() -> float:
        with UnitOfWork(demo, only_reads=True) as uow:
            states = load_bench(uow, "RW-106").state().reading_states
        return states[("end_height", 0)].scatter

    other.take("end_height", 0, "5.3")
    by_tool = scatter()
    mine = Bench(client, "RW-102")
    for position in range(4):
        for typed in ("5.10", "5.11", "5.10", "5.09"):
            mine.take("end_height", position, typed, repeats=True)
    assert scatter() == by_tool
    post(client, "RW-102/hand-over", 200, **signed())
    assert scatter() < 0.85 * by_tool
    post(client, "RW-102/hand-over/take-back", 200)
    assert scatter() == by_tool


def test_what_strings_came_down_by_is_remembered_of_their_instrument(client: TestClient, demo: Engine) -> None:
    """G, read just after new strings were on and again the next day: 0.2 lower at the board's end."""

    def learnt(ticket: str) -> tuple[float, ...]:
        with UnitOfWork(demo, only_reads=True) as uow:
            return load_bench(uow, ticket).learnt.settled

    mine = Bench(client, "RW-102")
    yesterday = datetime.now(UTC) - timedelta(hours=20)
    with UnitOfWork(demo) as uow:
        visit = UUID(mine.sheet["instrument"]["visit_id"])
        uow.log.add_work(NewWork(uuid4(), visit, "strings_changed", "Ilse", StringsFitted(), done_at=yesterday))
        uow.commit()
    mine = Bench(client, "RW-102")
    mine.take("end_height", 0, "5.30", taken_at=(yesterday + timedelta(minutes=20)).isoformat())
    mine.take("end_height", 0, "5.10", taken_at=datetime.now(UTC).isoformat())
    post(client, "RW-102/hand-over", 200, **signed())
    assert learnt("RW-102") == (), "of this visit, which is read itself"
    post(client, "RW-102/visits", 201, kind="strings")
    (fell,) = learnt("RW-102")
    assert fell == pytest.approx(0.24, abs=0.03)
    assert learnt("RW-106") == ()
