"""The course of a visit over HTTP: what is next, what waits, what is passed over, and the slips that are asked."""

from __future__ import annotations

from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from sqlalchemy import Engine, text

from .people import signed
from .test_bench import Bench


def states(bench: Bench) -> dict[str, str]:
    return {stop["key"]: stop["state"] for stop in bench.sheet["course"]}


def mark(bench: Bench, step: str, what: str, status: int = 200, **more: str) -> dict[str, object]:
    return bench.post(f"steps/{step}/{what}", status, id=str(uuid4()), **more)


def in_hours(hours: float) -> str:
    return (datetime.now(UTC) + timedelta(hours=hours)).isoformat()


def test_a_string_change_settles_and_goes_home(client: TestClient) -> None:
    """Strings put on, heights again, and two hours of settling that nobody can call done before."""
    bench = Bench(client, "RW-112")
    assert states(bench) == {"baseline": "passed", "change": "done", "again": "here", "rest": "waiting"}
    for position, typed in enumerate(("5", "4.4", "3.8", "3.2")):
        bench.take("end_height", position, typed)
    assert bench.sheet["instruction"]["title"].startswith("Strings changed: let it rest until ")
    assert bench.sheet["instruction"]["until"] is not None
    assert "drop" in str(mark(bench, "rest", "done", 409))
    mark(bench, "rest", "go-on", 422)
    mark(bench, "rest", "go-on", reason="steel, and tuned up twice")
    assert states(bench)["rest"] == "here"
    mark(bench, "rest", "done")
    assert bench.sheet["instruction"]["code"] == "hand_over"
    assert bench.sheet["undoable"]["words"] == "Settle done"
    bench.post(f"marks/{bench.sheet['undoable']['id']}/take-back")
    assert states(bench)["rest"] == "here"


def test_a_wait_is_over_by_itself(client: TestClient, demo: Engine) -> None:
    with demo.begin() as connection:
        connection.execute(
            text("UPDATE work_done SET done_at = done_at - interval '2 hours' WHERE work = 'strings_changed'")
        )
    assert states(Bench(client, "RW-112"))["rest"] == "ahead"


def test_glue_keeps_the_strings_down_until_somebody_says_that_it_holds(client: TestClient) -> None:
    """RW-111: a new nut was glued in. Nothing under tension is asked for until it is dry, and filing it is refused."""
    bench = Bench(client, "RW-111")
    assert (states(bench)["nut"], states(bench)["measure"]) == ("waiting", "waiting")
    refused = bench.post("works", 409, id=str(uuid4()), work="nut_filed")
    assert refused["detail"][0]["msg"].startswith("the glue under the nut is drying: no strings over it, until")
    mark(bench, "nut", "go-on", reason="set with superglue")
    assert states(bench)["measure"] == "here"
    bench.post("works", id=str(uuid4()), work="nut_filed")
    tag = next(t for t in client.get("/api/rail").json() if t["ticket"] == "RW-111")
    assert (tag["step"], tag["waits_for"]) == ("measure", "")


def before_its_post_was_moved(client: TestClient) -> Bench:
    """RW-102 with the moves of its post taken back, so that the step is open."""
    bench = Bench(client, "RW-102")
    for line in client.get("/api/instruments/RW-102/sound").json()["lines"]:
        if line["work"] == "post_moved":
            bench.post(f"works/{line['work_id']}/take-back")
    return bench


def test_a_step_is_passed_over_with_a_reason_and_taken_up_again(client: TestClient) -> None:
    bench = before_its_post_was_moved(client)
    assert mark(bench, "post", "pass-over", 422)["detail"]
    mark(bench, "post", "pass-over", reason="she wants to hear it for a week first")
    assert states(bench)["post"] == "passed"
    assert bench.sheet["instruction"]["stop"] == "rest"
    assert bench.log()[0]["value"] == "skipped: she wants to hear it for a week first"
    bench.post(f"marks/{bench.sheet['undoable']['id']}/take-back")
    assert states(bench)["post"] == "here"


def test_a_step_waits_for_what_was_ordered(client: TestClient) -> None:
    bench = before_its_post_was_moved(client)
    mark(bench, "post", "wait", 422, until=in_hours(-1), reason="post stock")
    mark(bench, "post", "wait", until=in_hours(48), reason="post stock from the mainland")
    assert states(bench) == {"strings": "done", "measure": "done", "post": "waiting", "rest": "here"}
    tag = next(t for t in client.get("/api/rail").json() if t["ticket"] == "RW-102")
    assert (tag["step"], tag["waits_for"]) == ("settle", "post")


def test_what_shows_by_itself_is_not_called_done(client: TestClient) -> None:
    bench = Bench(client, "RW-102")
    assert "by itself" in str(mark(bench, "measure", "done", 409))
    mark(bench, "crown", "done", 404)


def test_later_work_opens_a_step_again(client: TestClient) -> None:
    """Post set, then the bridge is moved: the post is told from the foot, so its step is open again."""
    bench = Bench(client, "RW-102")
    bench.post("works", id=str(uuid4()), work="post_moved")
    assert states(bench)["post"] == "done"
    bench.post("works", id=str(uuid4()), work="bridge_moved")
    post = next(stop for stop in bench.sheet["course"] if stop["key"] == "post")
    assert (post["state"], post["note"]) == ("ahead", "since the bridge was moved")


def test_the_shops_order_is_part_of_its_recipe(client: TestClient) -> None:
    """Bridge before nut is a habit, and moves; what physics asks for stays in its place."""
    before = [stop["key"] for stop in Bench(client, "RW-105").sheet["course"]]
    assert before.index("nut") < before.index("crown")
    body = {"id": str(uuid4()), "schools": {"nut_order": "bridge_first"}}
    assert client.put("/api/instruments/RW-105/targets", json=body).status_code == 200
    after = [stop["key"] for stop in Bench(client, "RW-105").sheet["course"]]
    assert after.index("nut") == after.index("crown") + 1


def test_no_risky_work_in_the_last_days_but_with_a_reason(client: TestClient) -> None:
    body = {"family": "violin", "size": "4/4", "deadline": in_hours(48)[:10]}
    bench = Bench(client, client.post("/api/instruments", json={"id": str(uuid4()), **body}).json()["ticket"])
    assert "last days" in str(bench.post("works", 409, id=str(uuid4()), work="bridge_moved"))
    decision: dict[str, Any] = {
        "id": str(uuid4()),
        "question": "deadline",
        "outcome": "go_on",
        "reason": "it fell over",
    }
    bench.post("decisions", **decision)
    bench.post("works", id=str(uuid4()), work="bridge_moved")


def test_the_nut_is_not_filed_on_a_reading_that_does_not_hold(client: TestClient) -> None:
    bench = Bench(client, "RW-105")
    bench.post("works", id=str(uuid4()), work="nut_filed")
    refused = bench.post("works", 409, id=str(uuid4()), work="nut_filed")
    assert refused["detail"][0]["msg"].startswith("these readings do not hold any more: measure again C at the nut")


def test_bass_and_treble_that_look_swapped_stop_the_cut_until_it_is_said(client: TestClient) -> None:
    bench = Bench(client, "RW-102")
    for position, typed in enumerate(("3.5", "4.4", "4.9", "5.3")):
        bench.take("end_height", position, typed)
    told = bench.sheet["instruction"]
    assert (told["code"], told["slip"]["act"], told["record"]) == ("check_readings", "swap", None)
    assert told["says"][0] == "E is higher than G at the board's end: 5.3 and 3.5. Were bass and treble swapped?"
    assert bench.cell("end_height", 0)["value"] == 3.5


def test_four_readings_for_the_wrong_instrument_are_asked(client: TestClient) -> None:
    """The half-size violin's figures typed for a full size that was here before."""
    bench = Bench(client, "RW-102")
    bench.take("string_length", None, "286")
    assert bench.cell("string_length")["doubt"]["code"] == "leap"
    bench.take("fingerboard_length", None, "232")
    told = bench.sheet["instruction"]
    assert told["slip"]["code"] == "wrong_instrument"
    assert told["says"][0].startswith("Is this RW-102? Not as before: string length 286, before 328")


def test_an_overdue_tool_is_asked_until_it_is_checked_and_set(client: TestClient, demo: Engine) -> None:
    """Of a block of 5 it reads 5.05, is set, and reads true; what was read with it is known better by then."""

    def check(tool: str = "caliper", **body: object) -> Any:
        return client.post(f"/api/tools/{tool}/checked", json={"id": str(uuid4()), **body})

    def notice() -> list[dict[str, str]]:
        notices: list[dict[str, str]] = Bench(client, "RW-102").sheet["notices"]
        return notices

    def known_to() -> float:
        known: float = Bench(client, "RW-102").sheet["cut"]["strings"][0]["drop_known_to"]
        return known

    with demo.begin() as connection:
        connection.execute(text("UPDATE tool_check SET checked_at = now() - interval '400 days'"))
    assert notice()[0]["says"].startswith("The caliper's check was due on")
    assert notice()[0]["check"] == "caliper"
    unchecked = known_to()
    off = check(known="5", read=["5,06", "5.04 mm", "5.06", "5.04", "5.05"]).json()
    assert off["to_set"]
    assert off["says"] == (
        "The caliper reads 0.05 mm too much. That is known to ±0.02 mm. Set it by as much, then check it again."
    )
    assert notice()[0]["says"] == "The caliper reads 0.05 mm too much. Set it, then check it again."
    assert known_to() > unchecked
    true = check(known="5", read=["5", "5.02", "5", "4.98", "5"]).json()
    assert (true["to_set"], true["says"]) == (False, "It reads true, to ±0.03 mm. What the hand adds comes on top.")
    assert notice() == []
    (caliper,) = [one for one in client.get("/api/tools").json() if one["tool"] == "caliper"]
    assert [one["to_set"] for one in caliper["checks"]] == [False, True, False]


@pytest.mark.parametrize(
    ("tool", "body", "field", "says"),
    [
        ("thumb", {}, "tool", "not a tool"),
        ("caliper", {}, "known", "nothing was typed"),
        ("caliper", {"known": "0", "read": ["5", "5", "5"]}, "known", "above 0 and at most 300 mm"),
        ("caliper", {"known": "5", "read": ["5", "5"]}, "read.2", "3 to 12 readings"),
        ("caliper", {"known": "5", "read": ["5", "6.4", "5"]}, "read.1", "6.4 is no reading of 5"),
        ("caliper", {"known": "5", "read": ["5", "five", "5"]}, "read.1", "is not a measurement"),
    ],
)
def test_a_check_that_cannot_be_names_its_field(
    client: TestClient, tool: str, body: dict[str, object], field: str, says: str
) -> None:
    refused = client.post(f"/api/tools/{tool}/checked", json={"id": str(uuid4()), **body})
    assert refused.status_code == 422
    (item,) = refused.json()["detail"]
    assert says in item["msg"]
    assert ".".join(str(one) for one in item["loc"][1:]) == field


@pytest.mark.parametrize(
    ("item", "body", "field"),
    [
        ("scroll", {}, "item"),
        ("post", {"findings": ["seam_open"]}, "findings"),
        ("post", {"verdict": "ugly"}, "verdict"),
        ("post", {"verdict": "not_looked_at"}, "words"),
    ],
)
def test_what_cannot_be_seen_names_its_field(
    client: TestClient, item: str, body: dict[str, object], field: str
) -> None:
    refused = Bench(client, "RW-102").post(f"items/{item}/seen", 422, id=str(uuid4()), **body)
    assert refused["detail"][0]["loc"] == ["body", field]


def look(bench: Bench) -> dict[str, dict[str, Any]]:
    return {item["item"]: item for item in bench.client.get(f"{bench.at}/look").json()}


def test_a_verdict_follows_the_hardest_finding(client: TestClient) -> None:
    bench = Bench(client, "RW-102")
    bench.post("items/neck/seen", id=str(uuid4()), findings=["neck_thick"])
    bench.post("items/board/seen", id=str(uuid4()), findings=["board_soft", "board_hump"])
    bench.post("items/bar/seen", id=str(uuid4()), findings=[])
    verdicts = {name: item["verdict"] for name, item in look(bench).items()}
    assert (verdicts["neck"], verdicts["board"], verdicts["bar"], verdicts["pegs"]) == ("watch", "work", "fine", "")


def test_a_family_is_looked_over_for_what_it_has(client: TestClient) -> None:
    """A cello has an endpin and a heel for the thumb, a violin a button; a string change asks for less."""
    cello, violin = look(Bench(client, "RW-106")), look(Bench(client, "RW-112"))
    assert "endpin" in cello and "button" not in cello  # noqa: PT018
    assert "button" in violin and "endpin" not in violin  # noqa: PT018
    assert any(row["finding"] == "heel_not_found" for row in cello["neck"]["findings"])
    assert all(item["is_asked"] for item in cello.values())
    assert [name for name, item in violin.items() if not item["is_asked"]][:2] == ["repairs", "f_holes"]


def test_a_full_visit_is_not_signed_off_with_anything_left_blank(client: TestClient) -> None:
    """Each item said, or said why not; or the whole step passed over with a reason."""
    bench = Bench(client, "RW-106")
    assert states(bench)["look"] == "here"
    blank = list(look(bench))
    refused = client.post(f"{bench.at}/hand-over", json=signed()).json()["detail"][0]["msg"]
    assert refused.startswith("nobody has said anything yet of structure and seams, old repairs")
    for item in blank[:-1]:
        bench.post(f"items/{item}/seen", id=str(uuid4()), verdict="fine")
    bench.post(f"items/{blank[-1]}/seen", id=str(uuid4()), verdict="not_looked_at", words="no time before the tour")
    assert states(bench)["look"] == "done"
    assert client.post(f"{bench.at}/hand-over", json=signed()).status_code == 200


def test_a_look_over_that_is_passed_over_does_not_hold_up_the_hand_over(client: TestClient) -> None:
    bench = Bench(client, "RW-107")
    mark(bench, "look", "pass-over", reason="looked over last week, nothing since")
    assert client.post(f"{bench.at}/hand-over", json=signed()).status_code == 200


def test_the_baseline_comes_before_the_strings_or_is_lost(client: TestClient) -> None:
    """Heights, projection and string length read first: done. New strings on without them: it cannot be got back."""
    for ticket, reads in (("RW-102", True), ("RW-105", False)):
        client.post(f"/api/instruments/{ticket}/hand-over", json=signed())
        client.post(f"/api/instruments/{ticket}/visits", json={"id": str(uuid4()), "kind": "strings"})
        bench = Bench(client, ticket)
        assert bench.sheet["instruction"]["stop"] == "baseline"
        assert "cannot be got back" in bench.sheet["instruction"]["says"][0]
        if reads:
            for position, typed in enumerate(("5", "4.4", "3.8", "3.2")):
                bench.take("end_height", position, typed)
            bench.take("projection", None, "27")
            assert states(bench)["baseline"] == "here"
            bench.take("string_length", None, "328")
            assert states(bench)["baseline"] == "done"
        bench.name_strings("Harbour medium" if reads else "Harbour five", put_on_now=True)
        stop = bench.sheet["course"][0]
        assert (stop["state"], stop["note"]) == (("done", "") if reads else ("passed", "not measured"))


def test_a_finding_proposes_until_its_work_is_done(client: TestClient) -> None:
    """A warped bridge leads to straightening it; straightened, it no longer does; the protector is still to come."""
    bench = Bench(client, "RW-103")
    first, second = bench.sheet["proposals"]
    assert first == "bridge, it is warped: how far, on the tailpiece face; straighten or new; plan: bridge straightened"
    assert second.startswith("bridge, the protector of the top string is gone: a protector under the top string")
    bench.post("works", id=str(uuid4()), work="bridge_straightened")
    assert bench.sheet["proposals"] == [second]
