"""The real interface, served with demo data, in headless Chromium."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from fidicula.hosting.serving import CHROMIUM, CHROMIUM_ARGUMENTS, serving
from fidicula.settings import Settings
from playwright.sync_api import Browser, Page, expect, sync_playwright

expect.set_options(timeout=10_000)


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
def page(browser: Browser, address: str) -> Iterator[Page]:
    """A page of a fresh browser on the rail; an error in its scripts fails the test."""
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    opened = context.new_page()
    errors: list[str] = []
    opened.on("pageerror", lambda error: errors.append(str(error)))
    opened.goto(address)
    yield opened
    context.close()
    assert errors == []
