"""./fidicula compute: JSON in and out, and the exit status."""

from __future__ import annotations

import json
import subprocess
import sys
from typing import Any

EXAMPLE = {"spread": 10, "diameters": [1, 2, 1]}


def compute(text: str, *arguments: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run(
        [sys.executable, "-m", "fidicula.cli", "compute", *arguments],
        input=text,
        capture_output=True,
        text=True,
        check=False,
    )


def refusal(done: subprocess.CompletedProcess[str]) -> list[Any]:
    assert done.returncode == 2
    assert done.stdout == ""
    return [item["loc"] for item in json.loads(done.stderr)["detail"]]


def test_one_object_and_a_list_in_the_same_order() -> None:
    one = compute(json.dumps(EXAMPLE), "spacing")
    assert one.returncode == 0
    assert json.loads(one.stdout)["offsets"] == [-5, 0, 5]
    many = compute(json.dumps([EXAMPLE, {**EXAMPLE, "centre": 1}]), "spacing")
    assert [answer["offsets"][0] for answer in json.loads(many.stdout)] == [-5, -4]


def test_an_empty_list_answers_an_empty_list() -> None:
    done = compute("[]", "bridge")
    assert (done.returncode, json.loads(done.stdout)) == (0, [])


def test_one_bad_object_refuses_the_list_with_its_index() -> None:
    done = compute(json.dumps([EXAMPLE, {**EXAMPLE, "spread": 2}]), "spacing")
    assert refusal(done) == [["body", 1, "spread"]]


def test_malformed_json_and_an_unknown_kind_are_refused_at_the_body() -> None:
    assert refusal(compute("{", "spacing")) == [["body"]]
    assert refusal(compute("{}", "horoscope")) == [["body"]]
    assert refusal(compute("{}")) == [["body"]]


def test_it_needs_neither_database_nor_web() -> None:
    """Computing imports no SQLAlchemy, no FastAPI and no server."""
    code = (
        "import sys; from fidicula.cli import compute; "
        "print([m for m in ('sqlalchemy', 'fastapi', 'uvicorn', 'psycopg') if m in sys.modules])"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[]"
