"""The real interface, served with demo data, in headless Chromium."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

import pytest
from fidicula.hosting.serving import CHROMIUM, CHROMIUM_ARGUMENTS, serving
from fidicula.settings import Settings
from playwright.sync_api import Browser, Page, expect, sync_playwright

from ..conftest import signed_in

PATIENCE_MS = 40_000
"""A machine that is busy elsewhere may take its time; what never comes still fails."""

expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        launched = playwright.chromium.launch(executable_path=CHROMIUM, args=CHROMIUM_ARGUMENTS)
        yield launched
        launched.close()


@pytest.fixture
def address(app: Any) -> Iterator[str]:
    assert (Settings().front_end / "index.html").is_file(), "the front end is not built: run ./fidicula test"
    with serving(app) as served:
        yield served


@pytest.fixture
def page(browser: Browser, address: str, app: Any) -> Iterator[Page]:
    """A page of a fresh browser on the rail, Ilse signed in; an error in its scripts fails the test."""
    with opened_page(browser, address, cookie=signed_in(app, "Ilse Varnholt")["cookie"]) as opened:
        yield opened


@pytest.fixture
def door(browser: Browser, address: str) -> Iterator[Page]:
    """A page of a fresh browser in which nobody is signed in."""
    with opened_page(browser, address) as opened:
        yield opened


@contextmanager
def opened_page(browser: Browser, address: str, *, cookie: str = "", worker: bool = False) -> Iterator[Page]:
    """worker : with the service worker, which answers before what a test puts between page and server."""
    context = browser.new_context(
        viewport={"width": 1280, "height": 800}, service_workers="allow" if worker else "block"
    )
    if cookie:
        name, value = cookie.split("=")
        context.add_cookies([{"name": name, "value": value, "domain": "127.0.0.1", "path": "/api"}])
    context.set_default_timeout(PATIENCE_MS)
    opened = context.new_page()
    errors: list[str] = []
    opened.on("pageerror", lambda error: errors.append(str(error)))
    # What the page's own parts throw is written to the console; so is every answer that refuses, which is none.
    opened.on(
        "console", lambda said: errors.append(said.text) if said.type == "error" and "Error:" in said.text else None
    )
    opened.goto(address)
    expect(opened.get_by_label("Instruments in the house").or_(opened.get_by_label("Sign in"))).to_be_visible()
    yield opened
    context.close()
    assert errors == []
