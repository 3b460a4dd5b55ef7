"""Two people, or a double tap, at one instrument at the same moment: one entry stands, the other is told."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterator
from datetime import UTC, datetime
from threading import Barrier, Thread
from typing import Any
from uuid import uuid4

import httpx2
import pytest
from alembic import command
from fidicula.db.migrate import config_for, upgrade
from fidicula.hosting.serving import serving
from sqlalchemy import Engine, text

from ..conftest import signed_in
from .people import signed

pytestmark = pytest.mark.usefixtures("read_again")

TEO, BRAM, ILSE = "Teo Marchetti-Lund", "Bram Oyelade", "Ilse Varnholt"
Ask = Callable[..., httpx2.Response]


@pytest.fixture
def ask(app: Any) -> Iterator[Ask]:
    """Asks the served application as somebody."""
    with serving(app) as address:
        headers = {name: signed_in(app, name) for name in (TEO, BRAM, ILSE)}
        with httpx2.Client(base_url=f"{address}/api", timeout=30) as client:

            def ask(who: str, method: str, path: str, body: Any = None) -> httpx2.Response:
                return client.request(method, path, json=body, headers=headers[who])

            yield ask


def at_once(*acts: Callable[[], httpx2.Response]) -> list[httpx2.Response]:
    """Every act in a thread of its own, all let go at the same moment."""
    barrier = Barrier(len(acts))
    answers: list[httpx2.Response | None] = [None] * len(acts)

    def run(i: int) -> None:
        barrier.wait()
        answers[i] = acts[i]()

    threads = [Thread(target=run, args=(i,)) for i in range(len(acts))]
    for thread in threads:
        thread.start()
    for thread in threads:
        thread.join()
    return [answer for answer in answers if answer is not None]


def statuses(answers: list[httpx2.Response]) -> list[int]:
    return sorted(answer.status_code for answer in answers)


def test_taken_in_twice_at_once_is_one_visit(ask: Ask) -> None:
    """A double tap has one id and is the same visit; two people with an id each: 201 and 409. The rail goes on."""
    ask(ILSE, "POST", "/instruments/RW-102/hand-over", signed())
    once = {"id": str(uuid4()), "kind": "sound"}
    visits = "/instruments/RW-102/visits"
    assert statuses(at_once(*[lambda: ask(TEO, "POST", visits, once)] * 4)) == [201] * 4
    ask(ILSE, "POST", "/instruments/RW-102/hand-over", signed())
    others = [{"id": str(uuid4()), "kind": "sound"} for _ in range(4)]
    answers = at_once(*[lambda body=body: ask(TEO, "POST", visits, body) for body in others])
    assert statuses(answers) == [201, 409, 409, 409]
    refused = next(answer for answer in answers if answer.status_code == 409)
    assert refused.json()["detail"][0]["msg"] == "RW-102 is in the house already: open it from the list"
    tickets = Counter(tag["ticket"] for tag in ask(TEO, "GET", "/rail").json())
    assert tickets["RW-102"] == 1


def test_a_hand_over_is_not_undone_into_a_second_visit(ask: Ask) -> None:
    ask(ILSE, "POST", "/instruments/RW-102/hand-over", signed())
    body = {"id": str(uuid4()), "kind": "sound"}
    at_once(
        lambda: ask(TEO, "POST", "/instruments/RW-102/visits", body),
        lambda: ask(ILSE, "POST", "/instruments/RW-102/hand-over/take-back"),
    )
    tickets = Counter(tag["ticket"] for tag in ask(TEO, "GET", "/rail").json())
    assert tickets["RW-102"] == 1


def test_an_arrival_whose_answer_was_lost_makes_no_second_instrument(ask: Ask) -> None:
    """The same arrival again, also at the same moment, and a fleet again: the same tickets, and no more of them."""
    body = {"id": str(uuid4()), "family": "viola", "size": "406"}
    answers = at_once(*[lambda: ask(TEO, "POST", "/instruments", body)] * 5)
    assert {(answer.status_code, answer.json()["ticket"]) for answer in answers} == {(201, "RW-116")}
    fleet = {"id": str(uuid4()), "family": "violin", "size": "4/4", "instruments": [{}, {}]}
    first, second = (ask(TEO, "POST", "/fleets", fleet).json() for _ in range(2))
    assert first == second == {"tickets": ["RW-117", "RW-118"]}
    assert len(ask(TEO, "GET", "/rail").json()) == 18


def test_of_two_half_backs_one_is_done(ask: Ask) -> None:
    move = {"id": str(uuid4()), "end": "top", "direction": "bridge", "taps": "2"}
    place = ask(TEO, "POST", "/instruments/RW-102/sound/moves", move).json()["now"]
    answers = at_once(
        *[
            lambda who=who: ask(who, "POST", "/instruments/RW-102/sound/half-back", {"id": str(uuid4()), "now": place})
            for who in (TEO, ILSE)
        ]
    )
    assert statuses(answers) == [200, 409]


def test_the_same_work_by_two_is_recorded_once(ask: Ask) -> None:
    known = ask(TEO, "GET", "/instruments/RW-105/sheet").json()["last_work"]
    answers = at_once(
        *[
            lambda who=who: ask(
                who,
                "POST",
                "/instruments/RW-105/works",
                {"id": str(uuid4()), "work": "bridge_moved", "after_work": known},
            )
            for who in (TEO, ILSE)
        ]
    )
    assert statuses(answers) == [200, 409]
    refused = next(answer for answer in answers if answer.status_code == 409).json()["detail"][0]["msg"]
    assert "recorded “Bridge moved” at" in refused


def reading(typed: str, known: int, **changes: Any) -> dict[str, Any]:
    return {
        "id": str(uuid4()), "measure": "projection", "typed": typed, "tool": "caliper",
        "taken_at": datetime.now(UTC).isoformat(), "after_work": known, "shown": None, **changes,
    }  # fmt: skip


def test_what_does_not_say_what_its_page_showed_is_refused(ask: Ask) -> None:
    body = reading("23", 0)
    del body["shown"]
    for path, sent, field in (
        ("RW-103/readings", body, "shown"),
        ("RW-102/sound/half-back", {"id": str(uuid4())}, "now"),
        ("RW-102/sound/back", {"id": str(uuid4()), "place": 2}, "now"),
    ):
        answer = ask(TEO, "POST", f"/instruments/{path}", sent)
        assert (answer.status_code, answer.json()["detail"][0]["loc"]) == (422, ["body", field])


def test_of_two_readings_at_one_place_one_stands_and_the_other_is_told(ask: Ask) -> None:
    """Both are in the log; one corrects the other, and whoever came second is told what the first read."""
    known = ask(TEO, "GET", "/instruments/RW-103/sheet").json()["last_work"]
    answers = at_once(
        lambda: ask(TEO, "POST", "/instruments/RW-103/readings", reading("23", known)),
        lambda: ask(BRAM, "POST", "/instruments/RW-103/readings", reading("23.4", known)),
    )
    assert statuses(answers) == [200, 200]
    notices = sorted(answer.json()["notice"] for answer in answers)
    assert notices[0] == ""
    assert " read 23" in notices[1]
    lines = [line for line in ask(TEO, "GET", "/instruments/RW-103/log").json() if line["what"] == "projection"]
    assert sorted(line["value"] for line in lines[:2]) == ["23", "23.4"]
    sheet = ask(TEO, "GET", "/instruments/RW-103/sheet").json()
    (cell,) = (cell for cell in sheet["cells"] if cell["measure"] == "projection")
    assert cell["count"] == 1


def test_a_house_with_two_open_visits_is_mended(empty: Engine) -> None:
    """The one with readings stays open; the other is closed, and none can be opened beside it."""
    command.downgrade(config_for(empty), "0013")
    with empty.begin() as connection:
        one = "00000000-0000-0000-0000-000000000001"
        connection.execute(
            text(
                "INSERT INTO instrument (id, ticket, family, size, string_names) VALUES "
                f"('{one}', 'RW-1', 'violin', '4/4', '{{G,D,A,E}}'), "
                "('00000000-0000-0000-0000-000000000002', '..', 'violin', '4/4', '{G,D,A,E}')"
            )
        )
        for i, opened in ((1, "2026-11-20"), (2, "2026-11-21")):
            connection.execute(
                text(
                    "INSERT INTO visit (id, instrument_id, kind, opened_at) VALUES "
                    f"('{one[:-2]}1{i}', '{one}', 'sound', '{opened}')"
                )
            )
        connection.execute(
            text(
                "INSERT INTO reading (id, visit_id, measure, typed, value, tool, taken_by, taken_at) VALUES "
                f"(gen_random_uuid(), '{one[:-2]}11', 'projection', '27', 27, 'caliper', 'Teo', now())"
            )
        )
    upgrade(empty)
    with empty.begin() as connection:
        still_open = connection.execute(text("SELECT id::text FROM visit WHERE closed_at IS NULL")).scalars().all()
        assert [id[-2:] for id in still_open] == ["11"]
        assert connection.execute(text("SELECT ticket FROM instrument ORDER BY id")).scalars().all() == ["RW-1", "T.."]
