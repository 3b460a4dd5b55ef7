"""The application as it is, and a page of it in Chromium with the demo's owner signed in."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager

import uvicorn
from fidicula.cli.demo import demo_sign_ins
from fidicula.hosting.serving import CHROMIUM, CHROMIUM_ARGUMENTS
from fidicula.main import create_app
from fidicula.settings import Settings
from playwright.sync_api import Page, sync_playwright

from bench.served import until_it_listens


def serve(port: int) -> None:
    """In a process of its own."""
    uvicorn.run(create_app(Settings()), host="127.0.0.1", port=port, log_level="error", lifespan="off")


@contextmanager
def page_of(port: int) -> Iterator[Page]:
    with sync_playwright() as playwright:
        browser = playwright.chromium.launch(executable_path=CHROMIUM, args=CHROMIUM_ARGUMENTS)
        context = browser.new_context(viewport={"width": 1280, "height": 800}, service_workers="block")
        name, _, password, _ = demo_sign_ins()[0]
        until_it_listens(port)
        context.request.post(f"http://127.0.0.1:{port}/api/session", data={"name": name, "password": password})
        yield context.new_page()
        browser.close()
