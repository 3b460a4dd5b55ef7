"""What is said on every screen of the demo's house: no raw figure, no code, no plural that does not agree."""

from __future__ import annotations

import re
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from fastapi.testclient import TestClient
from fidicula.services.visits.pages import PAGES

from ..looked_over import check, undated

RAW: dict[str, re.Pattern[str]] = {
    "more than three places": re.compile(r"\d\.\d{4,}"),
    "a code": re.compile(r"\b[a-z]+_[a-z_]+\b"),
    "a power of ten": re.compile(r"\d[eE][+-]?\d"),
    "no number": re.compile(r"\b(nan|inf|None|null|undefined|True|False)\b"),
    "a hyphen for a minus": re.compile(r"(?<![\w.,\])’”–-])-\d"),
    "one of several": re.compile(
        r"(?<![\d.,½¼¾/])\b1 (taps|turns|strings|items|readings|days|hours|passes|notes|beats)\b"
    ),
    "a set of a program": re.compile(r"[{}\[\]<>]|frozenset|\bdict\b"),
    "a sentence twice ended": re.compile(r"(?<!\.)\.\.(?!\.)|\.,|,\.|  "),
    "a colon twice": re.compile(r"\?:|::"),
}

HERE = Path(__file__).parent / "looked_over"
KEPT = ("log", "strings", "sound")
"""What is said there is kept word for word; sheets and pages are elsewhere."""
CODES = ("id", "key", "kind", "code", "at", "stamp", "url", "question", "name", "outcome", "path", "measure")
"""Fields that hold what a program reads; what a person reads has other names."""


def said(value: Any, field: str = "") -> Iterator[tuple[str, str]]:
    """Every sentence of an answer with the field that it stands in: a string with a blank in it."""
    if isinstance(value, dict):
        for key, inner in value.items():
            yield from said(inner, key)
    elif isinstance(value, list):
        for inner in value:
            yield from said(inner, field)
    elif isinstance(value, str) and " " in value and field not in CODES:
        yield field, value


def wrong(answer: Any, where: str) -> list[str]:
    return [
        f"{where} {field}: {what}: {sentence}"
        for field, sentence in said(answer)
        for what, pattern in RAW.items()
        if pattern.search(sentence)
    ]


def tickets(client: TestClient) -> list[str]:
    return [tag["ticket"] for tag in client.get("/api/rail").json()]


@pytest.mark.parametrize("part", ["sheet", "whys", "log", "beside", "strings", "look", "sound"])
def test_what_an_instrument_says_is_fit_to_be_read(client: TestClient, part: str) -> None:
    found: list[str] = []
    sentences: dict[str, str] = {}
    for ticket in tickets(client):
        answer = client.get(f"/api/instruments/{ticket}/{part}")
        assert answer.status_code == 200, answer.text
        for field, sentence in said(answer.json()):
            sentences.setdefault(f"{field}: {undated(sentence)}", ticket)
        found += wrong(answer.json(), f"{ticket} {part}")
    assert sentences
    assert found == []
    if part in KEPT:
        check(HERE / f"{part}.txt", "".join(f"{first} {line}\n" for line, first in sentences.items()))


@pytest.mark.parametrize("name", sorted(PAGES))
def test_what_a_page_says_is_fit_to_be_read(client: TestClient, name: str) -> None:
    """Untouched, and with every handle once at an end of its way, the low and the high in turn."""
    found: list[str] = []
    seen = 0
    for ticket in tickets(client):
        rest = client.post(f"/api/instruments/{ticket}/pages/{name}", json={"handles": {}})
        if rest.status_code == 404:
            continue
        seen += 1
        found += wrong(rest.json(), f"{ticket} {name}")
        for at, handle in enumerate(rest.json()["handles"], start=seen):
            end = handle["low"] if at % 2 else handle["high"]
            tried = client.post(f"/api/instruments/{ticket}/pages/{name}", json={"handles": {handle["name"]: end}})
            found += wrong(tried.json(), f"{ticket} {name} {handle['name']} {end}")
    assert seen
    assert sorted(set(found)) == []


@pytest.mark.parametrize("path", ["audit", "choices", "recipes/violin", "screening?ticket=RW-110"])
def test_what_the_house_says_is_fit_to_be_read(client: TestClient, path: str) -> None:
    answer = client.get(f"/api/{path}")
    assert answer.status_code == 200, answer.text
    assert wrong(answer.json(), path) == []
