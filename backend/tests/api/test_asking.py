"""Questions about the whole house over HTTP, against what the demo holds and what is added."""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from .people import signed
from .test_bench import Bench


def ask(client: TestClient, words: str, status: int = 200) -> dict[str, Any]:
    answer = client.get("/api/ask", params={"words": words})
    assert answer.status_code == status, answer.text
    return dict(answer.json())


def tickets(client: TestClient, words: str) -> list[str]:
    return [row["ticket"] for row in ask(client, words)["rows"]]


@pytest.mark.parametrize(
    ("words", "found"),
    [
        ("cellos", ["RW-087", "RW-106", "RW-107"]),
        ("cellos with projection under 78", ["RW-106"]),
        ("cellos with projection between 76 and 81", ["RW-087", "RW-106"]),
        ("cellos with projection over 79,9 mm", ["RW-087"]),
        ("basses and cellos with projection", ["RW-087", "RW-106", "RW-108"]),
        ("violas 380", ["RW-105"]),
        ("family:bass", ["RW-108"]),
        ("size:3/4", ["RW-107", "RW-108", "RW-110"]),
        ("cellos not here", None),
        ('cellos "elin"', ["RW-087"]),
        ("owner:osei", ["RW-106"]),
        ("handed over", ["RW-087"]),
        ("due this month and next", None),
        ("due within 30 days", ["RW-087"]),
        ("overdue", []),
        ("strings changed this decade", None),
        ("cellos with strings changed in the last 2 years", ["RW-087"]),
        ("cellos with no strings changed in the last 2 years", ["RW-106", "RW-107"]),
        ("new bridge before 2020", []),
        ("violins with G at the board's end over 6", []),
        ("bass with heights at the board's end over 8", ["RW-108"]),
        ("recheck this year", ["RW-087"]),
        ("kind:recheck", ["RW-087"]),
    ],
)
def test_what_is_asked_is_found(client: TestClient, words: str, found: list[str] | None) -> None:
    """None: it is refused, naming the word that means nothing."""
    if found is None:
        assert ask(client, words, 422)["detail"][0]["loc"][-1] == "words"
    else:
        assert tickets(client, words) == found


def test_a_question_is_said_back_and_each_row_shows_why(client: TestClient) -> None:
    told = ask(client, "cellos with projection under 78")
    assert told["explained"] == ["Only cellos.", "The last reading of projection is under 78 mm."]
    assert told["counted"] == "1 instrument"
    (row,) = told["rows"]
    assert row["shows"][0].startswith("76.8 mm on ")
    assert ask(client, "")["explained"] == ["Every instrument that was ever here."]


def test_posts_that_were_moved_twice(client: TestClient) -> None:
    """The demo's RW-102 has its moves on record; what is taken back does not count."""
    year = datetime.now(UTC).year
    told = ask(client, "posts moved twice this year")
    assert told["explained"] == [f"The post was moved at least twice from 1 January {year} to 31 December {year}."]
    before = [row["ticket"] for row in told["rows"]]
    for _ in range(2):
        work = {"id": str(uuid4()), "end": "top", "direction": "bridge", "taps": "1"}
        assert client.post("/api/instruments/RW-106/sound/moves", json=work).status_code < 300
    assert tickets(client, "posts moved twice this year") == sorted([*before, "RW-106"])
    client.post(f"/api/instruments/RW-106/sound/post_moved/{work['id']}/take-back")
    client.post(f"/api/instruments/RW-106/works/{work['id']}/take-back")
    assert "RW-106" not in tickets(client, "post moved at least 2 times this year")


def test_the_last_reading_counts_and_what_is_taken_back_or_doubted_does_not(client: TestClient) -> None:
    bench = Bench(client, "RW-106")
    assert tickets(client, "cellos with projection under 78") == ["RW-106"]
    sheet = bench.take("projection", None, "80.2")
    assert tickets(client, "cellos with projection under 78") == []
    newest = sheet["undoable"]
    client.post(f"/api/instruments/RW-106/readings/{newest['id']}/take-back")
    assert tickets(client, "cellos with projection under 78") == ["RW-106"]
    Bench(client, "RW-106").take("projection", None, "802")
    assert tickets(client, "cellos with projection") == ["RW-087"], "a doubted reading waits for a word"


def test_strings_of_another_tension(client: TestClient) -> None:
    """From one set to another; the same set again changes nothing."""
    sets = {one["name"]: one["id"] for one in client.get("/api/string-sets/violin").json()}
    assert tickets(client, "tensions changed in the last 1 days") == []
    body = {"id": str(uuid4()), "set_id": sets["Harbour light"], "put_on_now": True}
    answer = client.post("/api/instruments/RW-102/strings", json=body)
    assert answer.status_code < 300, answer.text
    told = ask(client, "tensions changed this month")
    assert [row["ticket"] for row in told["rows"]] == ["RW-102"]
    assert " to " in told["rows"][0]["shows"][0]
    assert " N on " in told["rows"][0]["shows"][0]


def test_what_could_come_next_is_offered(client: TestClient) -> None:
    def offers(words: str) -> list[str]:
        return [one["line"] for one in client.get("/api/ask/complete", params={"words": words}).json()]

    assert "cellos " in offers("cel")
    assert "cellos with projection " in offers("cellos with proj")
    assert "cellos with projection under " in offers("cellos with projection ")
    assert "post moved " in offers("post mo")
    assert "post moved twice " in offers("post moved ")
    assert "due this month " in offers("due")
    assert offers("qqq") == []


def test_questions_are_kept_by_name(client: TestClient) -> None:
    def keep(name: str, words: str, status: int = 200) -> Any:
        body = {"id": str(uuid4()), "name": name, "words": words}
        answer = client.put("/api/questions", json=body)
        assert answer.status_code == status, answer.text
        return answer.json()

    for one in client.get("/api/questions").json():
        assert ask(client, one["words"])["explained"], one["name"]
    names = [one["name"] for one in keep("Cellos that sink", "cellos with projection under 79")]
    assert names[0] == "Cellos that sink"
    assert keep(" ", "cellos", 422)["detail"][0]["loc"][-1] == "name"
    assert keep("nonsense", "cellos with chocolate", 422)["detail"][0]["loc"][-1] == "words"
    gone = client.post("/api/questions/forget", json={"id": str(uuid4()), "name": "Due this month"}).json()
    assert "Due this month" not in [one["name"] for one in gone]
    assert client.post("/api/questions/forget", json={"id": str(uuid4()), "name": "none"}).status_code == 404


@pytest.mark.parametrize(
    ("words", "says"),
    [
        ("celos", "did you mean “cellos”"),
        ("cellos with projection under", "comes a value"),
        ("cellos with projection under low", "comes a value"),
        ("cellos with projection between 76", "between"),
        ("colour:red", "“colour” is nothing"),
        ("family:lute", "“lute” is nothing"),
    ],
)
def test_a_word_that_means_nothing_is_named(client: TestClient, words: str, says: str) -> None:
    assert says in ask(client, words, 422)["detail"][0]["msg"]


def test_a_long_or_hostile_line_is_refused_or_found_nothing(client: TestClient) -> None:
    assert client.get("/api/ask", params={"words": "x" * 400}).status_code == 422
    assert tickets(client, '"%"') == []
    assert tickets(client, '"\'; DROP TABLE reading"') == []


def test_handed_over_comes_due(client: TestClient) -> None:
    today = datetime.now(UTC).astimezone().date().isoformat()
    body = signed(next_check=today)
    assert client.post("/api/instruments/RW-102/hand-over", json=body).status_code == 200
    assert "RW-102" in tickets(client, "violins due this week")
    assert tickets(client, "violins overdue") == ["RW-102"]
