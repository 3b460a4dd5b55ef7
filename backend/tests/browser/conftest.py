"""The real interface, served with demo data, in headless Chromium."""

from __future__ import annotations

import os
from collections.abc import Iterator
from contextlib import contextmanager
from typing import Any

import pytest
from fidicula.hosting.cluster import free_port
from fidicula.hosting.serving import CHROMIUM, CHROMIUM_ARGUMENTS, serving
from fidicula.settings import Settings
from playwright.sync_api import Browser, BrowserContext, ConsoleMessage, Page, expect, sync_playwright

from ..conftest import signed_in
from .late import late

PATIENCE_MS = int(os.environ.get("FIDICULA_PATIENCE_MS", "40000"))
"""A machine that is busy elsewhere may take its time; what never comes still fails."""

expect.set_options(timeout=PATIENCE_MS)


@pytest.fixture(scope="session")
def browser() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        launched = playwright.chromium.launch(executable_path=CHROMIUM, args=CHROMIUM_ARGUMENTS)
        yield launched
        launched.close()


@pytest.fixture(scope="session")
def port() -> int:
    """The same for every test: what the application is made of is read and compiled once, as in anybody's browser."""
    return free_port()


@pytest.fixture
def address(app: Any, port: int) -> Iterator[str]:
    assert (Settings().front_end / "index.html").is_file(), "the front end is not built: run ./fidicula test"
    with serving(late(app), port) as served:
        yield served


@pytest.fixture(scope="session")
def profile(browser: Browser) -> Iterator[BrowserContext]:
    """A browser that has been here before: it has the application's files, and nothing of any house.

    It is somebody's who asks for less motion, which takes less of a processor that draws.
    """
    context = _context(browser, reduced_motion="reduce")
    yield context
    context.close()


@pytest.fixture
def page(profile: BrowserContext, address: str, app: Any) -> Iterator[Page]:
    """A page on the rail, Ilse signed in; an error or a warning of its scripts fails the test."""
    fresh = profile.new_page()
    _leave_nothing_of(profile, fresh, address)
    _sign_in(profile, signed_in(app, "Ilse Varnholt")["cookie"])
    with _watched(fresh, address):
        yield fresh
        for one in profile.pages:
            one.close()


def _leave_nothing_of(context: BrowserContext, page: Page, address: str) -> None:
    """Take away what was kept here for this address, all but the application's own files."""
    context.clear_cookies()
    session = context.new_cdp_session(page)
    kept = "local_storage,indexeddb,cache_storage,service_workers"
    session.send("Storage.clearDataForOrigin", {"origin": address, "storageTypes": kept})
    session.detach()


@pytest.fixture
def door(browser: Browser, address: str) -> Iterator[Page]:
    """A page of a fresh browser in which nobody is signed in."""
    with opened_page(browser, address) as opened:
        yield opened


OF_OTHERS = ("by Playwright", "Invalid keyframe value")
"""Warnings of the driver, and of a dialog that opens from a button which is gone by then."""


def _is_ours(said: ConsoleMessage) -> bool:
    """What the page's own parts throw or warn of is written to the console; so is every answer that refuses, which is
    none of theirs."""
    if said.type == "warning":
        return not any(theirs in said.text for theirs in OF_OTHERS)
    return said.type == "error" and "Error:" in said.text


def _context(browser: Browser, **more: Any) -> BrowserContext:
    context = browser.new_context(**{"viewport": {"width": 1280, "height": 800}, "service_workers": "block", **more})
    context.set_default_timeout(PATIENCE_MS)
    return context


def _sign_in(context: BrowserContext, cookie: str) -> None:
    name, value = cookie.split("=")
    context.add_cookies([{"name": name, "value": value, "domain": "127.0.0.1", "path": "/api"}])


@contextmanager
def _watched(page: Page, address: str) -> Iterator[None]:
    """The application in a page; at the end, what its scripts complained of."""
    errors: list[str] = []
    page.on("pageerror", lambda error: errors.append(str(error)))
    page.on("console", lambda said: errors.append(said.text) if _is_ours(said) else None)
    page.goto(address)
    expect(page.get_by_label("Instruments in the house").or_(page.get_by_label("Sign in"))).to_be_visible()
    yield
    assert errors == []


@contextmanager
def opened_page(browser: Browser, address: str, *, cookie: str = "", worker: bool = False) -> Iterator[Page]:
    """A page of a browser that was never here.

    worker : with the service worker, which answers before what a test puts between page and server.
    """
    context = _context(browser, service_workers="allow" if worker else "block")
    if cookie:
        _sign_in(context, cookie)
    opened = context.new_page()
    with _watched(opened, address):
        yield opened
        context.close()
