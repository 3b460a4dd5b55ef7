"""Every page of every instrument of the demo, opened one after the other in one tab: no answer that refuses or fails,
no error of a script, no broken picture."""

from __future__ import annotations

import os
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from playwright.sync_api import Page, Request, Response

from ..api.test_photos import photograph
from ..conftest import signed_in
from .hands import ROUTER

PARTS = ("board", "neck", "nut", "bridge", "bar", "tail", "load", "playing", "post", "strings", "place")
PAPERS = ("setup", "compared", "owner", "ticket", "label")
PAGES = (
    *(
        "",
        "/look",
        "/measure",
        "/sound",
        "/plan",
        "/billing",
        "/recipe",
        "/history",
        "/belongings",
        "/damage",
        "/leave",
        "/working-sheet",
    ),
    *(f"/page/{part}" for part in PARTS),
    *(f"/paper/{kind}" for kind in PAPERS),
    "/blank",
)
SETTLED = """async () => {
    const pictures = [...document.querySelectorAll('img')]
    for (const one of pictures) one.loading = 'eager'
    await Promise.all(pictures.map((one) => one.complete || new Promise((done) => (one.onload = one.onerror = done))))
    return pictures.map((one) => [one.getAttribute('src'), one.naturalWidth > 0])
}"""
"""Each picture of the page, and whether it shows."""
QUIET = 4
"""So many looks in a row at which nothing is on its way."""
OF_EACH_KIND = ("RW-087", "RW-102", "RW-105", "RW-107", "RW-108")
"""Handed over, left-handed, five strings, cello, bass; all of the demo's with FIDICULA_EVERY=1."""
EVERY = ("RW-087", *(f"RW-{number}" for number in range(101, 116)))


@pytest.fixture
def tickets(app: Any) -> tuple[str, ...]:
    """Each is photographed, where it is in the house."""
    tickets = EVERY if os.environ.get("FIDICULA_EVERY") else OF_EACH_KIND
    for ticket in tickets[1:]:
        app.state.services.photos.add(
            ticket, photo_id=uuid4(), item="seams", data=photograph(), words="", by="Ilse Varnholt"
        )
    return tickets


def test_every_page_of_an_instrument_answers_whole(page: Page, tickets: tuple[str, ...]) -> None:
    faults: list[str] = []
    pictured: set[str] = set()

    def look(answer: Response) -> None:
        if answer.status >= 400:
            faults.append(f"{page.url.partition('/bench/')[2]}: {answer.status} {answer.url.partition('/api/')[2]}")

    underway: set[Request] = set()
    page.on("response", look)
    page.on("request", lambda asked: None if asked.url.endswith("/changes") else underway.add(asked))
    page.on("requestfinished", lambda asked: underway.discard(asked))
    page.on("requestfailed", lambda asked: underway.discard(asked))

    def settle() -> None:
        quiet = 0
        while quiet < QUIET:
            page.wait_for_timeout(15)
            quiet = 0 if underway else quiet + 1

    for ticket in tickets:
        for path in PAGES:
            page.evaluate(f"path => {ROUTER}.push(path).then(() => null)", f"/bench/{ticket}{path}")
            settle()
            for source, shows in page.evaluate(SETTLED):
                pictured.add(path)
                if not shows:
                    faults.append(f"{ticket}{path}: the picture {source} is broken")
    assert faults == []
    assert pictured >= {"/look", "/history", "/leave"}


def test_every_answer_about_every_instrument_is_whole(app: Any) -> None:
    """The same for all of the demo's, without a browser: whatever is asked of an instrument is answered."""
    reads = [path for path, methods in app.openapi()["paths"].items() if "get" in methods and "{ticket}" in path]
    with TestClient(app, base_url="http://127.0.0.1", headers=signed_in(app, "Ilse Varnholt")) as client:
        for ticket in EVERY:
            for path in reads:
                if path.count("{") > 1:
                    continue
                answer = client.get(path.replace("{ticket}", ticket))
                nothing_planned = path.endswith(("/estimate", "/estimate/pdf", "/estimate.pdf"))
                assert answer.status_code == 200 or (nothing_planned and answer.status_code == 409), (ticket, path)
