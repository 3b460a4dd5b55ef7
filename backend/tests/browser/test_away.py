"""The server is killed in the middle of a measuring: nothing that was typed is lost, and nothing arrives twice."""

from __future__ import annotations

import multiprocessing
import time
import urllib.request
from collections.abc import Iterator
from contextlib import suppress
from multiprocessing.process import BaseProcess
from pathlib import Path
from typing import Any

import pytest
from fidicula.hosting.cluster import free_port
from playwright.sync_api import APIResponse, Browser, Page, Route, expect
from sqlalchemy import Engine, text

from ..conftest import signed_in
from .conftest import opened_page
from .hands import intercept, type_readings

SERVE = """
import os, uvicorn
os.environ.update(environment)
from fidicula.main import create_app
from fidicula.settings import Settings
uvicorn.run(create_app(Settings()), host="127.0.0.1", port=port, log_level="warning", lifespan="off")
"""
PROCESSES = multiprocessing.get_context("forkserver")
"""Each server comes from a process that has read the application's modules already: reading them takes seconds."""
PROCESSES.set_forkserver_preload(["fidicula.main"])


class Server:
    """The application in a process of its own, to be killed and started again on the same port."""

    def __init__(self, database_url: str, *, root: Path | None = None) -> None:
        self.port = free_port()
        self._environment = {"FIDICULA_DATABASE_URL": database_url}
        if root is not None:
            self._environment["FIDICULA_ROOT"] = str(root)
        self._process: BaseProcess | None = None

    @property
    def address(self) -> str:
        return f"http://127.0.0.1:{self.port}"

    def start(self) -> None:
        given = {"port": self.port, "environment": self._environment}
        self._process = PROCESSES.Process(target=exec, args=(SERVE, given))
        self._process.start()
        while True:
            with suppress(OSError):
                urllib.request.urlopen(f"{self.address}/api/health").close()
                return
            assert self._process.is_alive(), "the server did not start"
            time.sleep(0.05)

    def kill(self) -> None:
        if self._process is not None:
            self._process.kill()
            self._process.join()
            self._process = None


@pytest.fixture
def server(demo: Engine) -> Iterator[Server]:
    own = Server(demo.url.render_as_string(hide_password=False))
    own.start()
    yield own
    own.kill()


def kept_readings(engine: Engine) -> list[str]:
    with engine.connect() as connection:
        return list(
            connection.execute(
                text(
                    "SELECT r.typed FROM reading r JOIN visit v ON v.id = r.visit_id "
                    "JOIN instrument i ON i.id = v.instrument_id WHERE i.ticket = 'RW-115' ORDER BY r.number"
                )
            ).scalars()
        )


WAITING = """() => new Promise((resolve) => {
  const asked = indexedDB.open('fidicula')
  asked.onsuccess = () => {
    const found = asked.result.transaction('rows').objectStore('rows').getAll()
    found.onsuccess = () => { asked.result.close(); resolve(found.result.map((row) => row.words)) }
  }
})"""


def waiting(page: Page) -> list[str]:
    """What waits in the browser, in its order."""
    return list(page.evaluate(WAITING))


def nothing_waits(page: Page) -> None:
    for _ in range(600):
        if not waiting(page):
            return
        page.wait_for_timeout(50)
    assert waiting(page) == []


def kept_here(page: Page) -> int:
    """How many readings stand on the sheet that the browser keeps for a day without a server; −1 without one."""
    return int(
        page.evaluate(
            "() => caches.match('/api/instruments/RW-115/sheet').then((kept) => kept?.json())"
            ".then((sheet) => sheet?.cells.filter((cell) => cell.state === 'current').length ?? -1)"
        )
    )


def until_kept(page: Page, count: int) -> None:
    """An answer is kept a moment after it came; a promise is waited for here, which `wait_for_function` does not do."""
    for _ in range(800):
        if kept_here(page) == count:
            return
        page.wait_for_timeout(50)
    assert kept_here(page) == count


def test_a_server_killed_in_the_middle_of_a_measuring_loses_nothing(
    browser: Browser, server: Server, demo: Engine, app: Any
) -> None:
    """Killed, typed on, loaded again while it is away, typed on, back: each reading is kept once, in its order."""
    cookie = signed_in(app, "Ilse Varnholt")["cookie"]
    with opened_page(browser, server.address, cookie=cookie, worker=True) as page:
        page.evaluate("navigator.serviceWorker.ready.then(() => null)")
        page.goto(f"{server.address}/bench/RW-115/measure")
        page.get_by_label("neck length: ·, not measured").click()
        type_readings(page, "130 195 197")
        expect(page.get_by_role("status").first).to_have_text("3 of 57")
        nothing_waits(page)
        until_kept(page, 3)

        server.kill()
        type_readings(page, "195.5 328")
        expect(page.get_by_text("2 entries wait here and will be sent")).to_be_visible()
        page.reload()
        expect(page.get_by_label("neck length: 130")).to_be_visible()
        expect(page.get_by_label("stop, to a third of its foot: ")).to_have_accessible_name(
            "stop, to a third of its foot: 195.5, waits"
        )
        page.get_by_label("projection: ").click()
        type_readings(page, "27.1")
        expect(page.get_by_text("3 entries wait here and will be sent")).to_be_visible()
        assert kept_readings(demo) == ["130", "195", "197"]

        server.start()
        nothing_waits(page)
        expect(page.get_by_role("status").first).to_have_text("6 of 57")
        expect(page.get_by_label("projection: 27.1")).to_be_visible()
        assert kept_readings(demo) == ["130", "195", "197", "195.5", "328", "27.1"]


def test_whoever_signs_out_leaves_nothing_of_the_house_behind(browser: Browser, server: Server, app: Any) -> None:
    cookie = signed_in(app, "Ilse Varnholt")["cookie"]
    with opened_page(browser, server.address, cookie=cookie, worker=True) as page:
        page.evaluate("navigator.serviceWorker.ready.then(() => null)")
        page.goto(f"{server.address}/bench/RW-115")
        expect(page.get_by_role("main", name="Bench sheet")).to_be_visible()
        while not page.evaluate(
            "() => caches.match('/api/instruments/RW-115/sheet').then((kept) => kept !== undefined)"
        ):
            page.wait_for_timeout(50)
        other = page.context.new_page()
        other.goto(f"{server.address}/bench/RW-102")
        expect(other.get_by_role("main", name="Bench sheet")).to_be_visible()
        page.get_by_role("button", name="Ilse Varnholt").press("Enter")
        expect(page.get_by_role("radio", name="Ilse Varnholt, owner")).to_be_focused()
        # An answer that is on its way as she leaves is not kept after that.
        page.evaluate("() => void fetch('/api/instruments/RW-104/look')")
        page.get_by_role("button", name="Sign out").press("Enter")
        expect(page.get_by_label("Sign in")).to_be_visible()
        # Every window of this browser is shut, though nothing was asked for in it.
        expect(other.get_by_label("Sign in")).to_be_visible()
        page.wait_for_timeout(1000)
        assert page.evaluate("caches.has('fidicula-kept')") is False
        only = "{ cache: 'only-if-cached', mode: 'same-origin' }"
        assert page.evaluate(f"fetch('/api/rail', {only}).then((kept) => kept.status, () => 504)") in (401, 504)


def test_an_answer_that_comes_late_is_not_kept_over_a_newer_one(page: Page, address: str) -> None:
    """A sheet of after the first reading is on its way until the second is there: the browser keeps the second."""
    held: list[tuple[Route, APIResponse]] = []

    def hold(route: Route) -> None:
        if held:
            route.continue_()
        else:
            held.append((route, route.fetch()))

    page.goto(f"{address}/bench/RW-115/measure")
    page.get_by_label("neck length: ·, not measured").click()
    intercept(page, "RW-115/sheet", hold)
    type_readings(page, "130")
    while not held:
        page.wait_for_timeout(50)
    type_readings(page, "195")
    expect(page.get_by_role("status").first).to_have_text("2 of 57")
    until_kept(page, 2)
    # What the second reading leads to is through before the first one's answer comes.
    page.wait_for_timeout(800)
    late, older = held[0]
    late.fulfill(response=older)
    page.wait_for_timeout(700)
    assert kept_here(page) == 2
    expect(page.get_by_role("status").first).to_have_text("2 of 57")


def test_what_is_written_at_another_bench_is_seen_at_once(browser: Browser, server: Server, app: Any) -> None:
    """By another process of the application, too: PostgreSQL tells it."""
    cookie = signed_in(app, "Ilse Varnholt")["cookie"]
    other = Server(app.state.engine.url.render_as_string(hide_password=False))
    other.start()
    try:
        with (
            opened_page(browser, server.address, cookie=cookie) as here,
            opened_page(browser, other.address, cookie=cookie) as there,
        ):
            for page, at in ((here, server), (there, other)):
                page.goto(f"{at.address}/bench/RW-115/measure")
                page.get_by_label("neck length: ·, not measured").click()
            type_readings(here, "130 195")
            expect(there.get_by_role("status").first).to_have_text("2 of 57")
            expect(there.get_by_label("neck length: 130")).to_be_visible()
            type_readings(there, "131")
            expect(here.get_by_label("neck length: 131")).to_be_visible()
    finally:
        other.kill()
