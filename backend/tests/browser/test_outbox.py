"""Nothing goes to the wrong instrument, and nothing that was entered is lost: stalled, reloaded, in two tabs."""

from __future__ import annotations

import io
import shutil
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from typing import Any

import pytest
from fidicula.settings import Settings
from PIL import Image
from playwright.sync_api import Browser, BrowserContext, Page, expect
from sqlalchemy import Engine, text

from ..conftest import signed_in
from .conftest import PATIENCE_MS, opened_page
from .hands import choose, command, held, name_strings, open_ticket, reading, type_readings
from .test_away import Server, nothing_waits, waiting

MANY = 24
"""Readings that wait: enough for two tabs to get in each other's way."""


@pytest.fixture
def server(demo: Engine) -> Iterator[Server]:
    own = Server(demo.url.render_as_string(hide_password=False))
    own.start()
    yield own
    own.kill()


def written(engine: Engine, statement: str) -> list[Any]:
    with engine.connect() as connection:
        return [tuple(row) for row in connection.execute(text(statement))]


WORKS = (
    "SELECT i.ticket, w.work FROM work_done w JOIN visit v ON v.id = w.visit_id "
    "JOIN instrument i ON i.id = v.instrument_id"
)


def test_a_work_goes_to_the_instrument_that_it_was_entered_at(page: Page, demo: Engine) -> None:
    """A reading is still on its way; "pegs fitted", and at once a tap on another tag: the work stays where it was."""
    before = written(demo, WORKS)
    open_ticket(page, "RW-105")
    with held(page, "RW-105/readings"):
        page.keyboard.type("6.2")
        page.keyboard.press("Enter")
        command(page, "k")
        dialog = page.get_by_role("dialog")
        dialog.get_by_role("radio", name="Pegs fitted").check()
        page.keyboard.press("Enter")
        expect(dialog).to_have_count(0)
        page.get_by_role("link", name="RW-102").click()
        expect(page.get_by_text("Pia Sandoval-Reuter · ")).to_be_visible()
    nothing_waits(page)
    assert sorted(set(written(demo, WORKS)) - set(before)) == [("RW-105", "pegs_fitted")]


@contextmanager
def two_tabs(browser: Browser, server: Server, app: Any) -> Iterator[tuple[BrowserContext, Page, Page]]:
    cookie = signed_in(app, "Ilse Varnholt")["cookie"]
    with opened_page(browser, server.address, cookie=cookie) as first:
        second = first.context.new_page()
        second.set_default_timeout(PATIENCE_MS)
        yield first.context, first, second


def test_two_tabs_send_each_entry_once_and_in_its_order(
    browser: Browser, server: Server, demo: Engine, app: Any
) -> None:
    with two_tabs(browser, server, app) as (_, first, second):
        for page, ticket in ((first, "RW-115"), (second, "RW-114")):
            page.goto(f"{server.address}/bench/{ticket}/measure")
            expect(page.get_by_label("neck length: ")).to_be_visible()
        server.kill()
        for page in (first, second):
            # A page in the background is slow to draw what is typed.
            page.bring_to_front()
            for i in range(MANY // 2):
                page.get_by_label("neck length: ").press("Enter")
                type_readings(page, f"{130 + i / 100:.2f}")
        expect(first.get_by_text(f"{MANY} entries wait here and will be sent")).to_be_visible()
        come_back(server, first)
        for ticket in ("RW-115", "RW-114"):
            typed = written(
                demo,
                "SELECT r.typed FROM reading r JOIN visit v ON v.id = r.visit_id "
                f"JOIN instrument i ON i.id = v.instrument_id WHERE i.ticket = '{ticket}' "
                "AND r.measure = 'neck_length' ORDER BY r.number",
            )
            assert [one for (one,) in typed][-MANY // 2 :] == [f"{130 + i / 100:.2f}" for i in range(MANY // 2)]


def come_back(server: Server, page: Page) -> None:
    """The server is there again and the browser hears of a network, which is sooner than its next try by itself."""
    server.start()
    page.evaluate("window.dispatchEvent(new Event('online'))")
    nothing_waits(page)


def picture() -> bytes:
    data = io.BytesIO()
    Image.new("RGB", (80, 60), "saddlebrown").save(data, "JPEG")
    return data.getvalue()


IS_KEPT = "address => caches.match(address, { ignoreSearch: true }).then((kept) => !!kept)"


def until_kept(page: Page, *addresses: str) -> None:
    """An answer is kept a moment after it came."""
    for address in addresses:
        for _ in range(800):
            if page.evaluate(IS_KEPT, address):
                break
            page.wait_for_timeout(50)
        else:
            raise AssertionError(f"{address} is not kept")


def test_a_work_a_photograph_and_a_recording_outlive_a_reload_without_a_server(
    browser: Browser, server: Server, demo: Engine, app: Any
) -> None:
    """The server is killed; a work, a photograph and a recording are entered, and the page is loaded again."""
    cookie = signed_in(app, "Ilse Varnholt")["cookie"]
    with opened_page(browser, server.address, cookie=cookie, worker=True) as page:
        page.evaluate("navigator.serviceWorker.ready.then(() => null)")
        for place, answers in (("", ("sheet", "card")), ("/look", ("look",)), ("/sound", ("sound",))):
            page.goto(f"{server.address}/bench/RW-102{place}")
            expect(page.locator("main, section").first).to_be_visible()
            until_kept(page, *(f"/api/instruments/RW-102/{name}" for name in answers))
        page.goto(f"{server.address}/bench/RW-102")
        expect(page.get_by_role("main", name="Bench sheet")).to_be_visible()
        server.kill()

        command(page, "k")
        page.get_by_role("dialog").get_by_role("radio", name="Pegs fitted").check()
        page.keyboard.press("Enter")
        expect(page.get_by_text("1 entry waits here and will be sent")).to_be_visible()
        page.goto(f"{server.address}/bench/RW-102/look")
        page.locator("input[type=file]").first.set_input_files(
            {"name": "scroll.jpg", "mimeType": "image/jpeg", "buffer": picture()}
        )
        expect(page.get_by_text("2 entries wait here")).to_be_visible()
        page.goto(f"{server.address}/bench/RW-102/sound")
        expect(page.get_by_role("main", name="Sound")).to_be_visible()
        command(page, "m")
        page.locator("input[type=file]").first.set_input_files(
            {"name": "a.wav", "mimeType": "audio/wav", "buffer": b"RIFF\x24\0\0\0WAVEfmt " + bytes(64)}
        )
        expect(page.get_by_text("3 entries wait here")).to_be_visible()
        page.reload()
        expect(page.get_by_text("3 entries wait here")).to_be_visible()
        assert [words.split(":")[0] for words in waiting(page)][:2] == ["Pegs fitted", "scroll.jpg"]

        come_back(server, page)
    assert written(demo, "SELECT count(*) FROM work_done WHERE work = 'pegs_fitted'") == [(1,)]
    assert written(demo, "SELECT count(*) FROM photo") == [(1,)]
    assert written(demo, "SELECT count(*) FROM recording WHERE recorded_at > now() - interval '5 minutes'")[0][0] >= 1


def test_a_sign_in_that_ends_leaves_what_is_half_filled_in(page: Page, demo: Engine) -> None:
    """It comes over the page and says why; the form behind it is as it was, and what was entered goes out."""
    open_ticket(page, "RW-102")
    command(page, "n")
    owner = page.get_by_role("dialog").get_by_label("Owner or fleet")
    owner.fill("Half an owner")
    choose(page, "What for", "recheck")
    with demo.begin() as connection:
        connection.execute(text("DELETE FROM sign_in"))
    page.evaluate("fetch('/api/rail')")
    page.get_by_role("dialog").get_by_role("button", name="Add instrument").click()
    over = page.get_by_role("main", name="Sign in")
    expect(over.get_by_text("The sign-in has ended")).to_be_visible()
    over.get_by_label("Name").fill("Ilse Varnholt")
    over.get_by_label("Password").fill("ferry-rope-lantern")
    over.get_by_label("Password").press("Enter")
    expect(over).to_have_count(0)
    nothing_waits(page)
    assert written(demo, "SELECT count(*) FROM instrument WHERE owner = 'Half an owner'") == [(1,)]


def test_what_somebody_else_left_waiting_is_held_until_their_pin(page: Page, demo: Engine) -> None:
    """Signed out before it was sent: the next person sees that it is there, and it is never kept as theirs."""
    open_ticket(page, "RW-105")
    page.route("**/readings", lambda route: route.abort())
    page.get_by_label("G at the board's end: ").first.click()
    page.keyboard.type("5.95")
    page.keyboard.press("Enter")
    expect(page.get_by_text("1 entry waits here")).to_be_visible()
    page.get_by_role("button", name="Ilse Varnholt").click()
    page.get_by_role("button", name="Sign out").click()
    door = page.get_by_role("main", name="Sign in")
    # Until she has left it would still be sent as hers.
    expect(door).to_be_visible()
    page.unroute("**/readings")
    door.get_by_label("Name").fill("Bram Oyelade")
    door.get_by_label("Password").fill("boathouse-varnish")
    door.get_by_label("Password").press("Enter")
    expect(page.get_by_text("1 entry of Ilse Varnholt waits for a PIN.")).to_be_visible()
    assert written(demo, "SELECT count(*) FROM reading WHERE value = 5.95") == [(0,)]


def test_what_was_not_accepted_is_put_right_or_dropped(page: Page) -> None:
    """A reading that the server would not have while something else was typed at its place stays, with its words."""
    open_ticket(page, "RW-101")
    name_strings(page, 1)
    with held(page, "RW-101/readings"):
        type_readings(page, "6.x")
        page.get_by_label("G at the board's end: ").click()
        page.keyboard.type("6.1")
    expect(page.get_by_text("1 entry was not accepted")).to_be_visible()
    expect(page.locator("input[data-reading]")).to_have_value("6.1")
    page.get_by_role("button", name="show").press("Enter")
    row = page.get_by_role("dialog").get_by_role("listitem")
    row.get_by_label("typed").fill("6.4")
    row.get_by_role("button", name="Send again").press("Enter")
    expect(page.get_by_text("Everything was sent.")).to_be_visible()
    nothing_waits(page)
    expect(page.get_by_text("was not accepted")).to_have_count(0)


def test_undo_says_what_it_undid_and_has_a_redo(page: Page) -> None:
    open_ticket(page, "RW-101")
    name_strings(page, 1)
    type_readings(page, "6.1")
    g = reading(page, "G at the board's end")
    expect(g).to_have_accessible_name("G at the board's end: 6.10, above")
    command(page, "u")
    expect(page.get_by_text("Undone: G at the board's end 6.1.")).to_be_visible()
    expect(g).to_have_accessible_name("G at the board's end: ·, not measured")
    command(page, "/")
    expect(page.get_by_text("Redone: G at the board's end 6.1.")).to_be_visible()
    expect(g).to_have_accessible_name("G at the board's end: 6.10, above")


def test_a_newer_version_waits_until_somebody_says_so(browser: Browser, demo: Engine, app: Any, tmp_path: Path) -> None:
    """The build is replaced under an open tab, which goes on as it is; what is half typed outlives the reload."""
    build = tmp_path / "frontend" / "dist"
    shutil.copytree(Settings().front_end, build)
    own = Server(demo.url.render_as_string(hide_password=False), root=tmp_path)
    own.start()
    try:
        cookie = signed_in(app, "Ilse Varnholt")["cookie"]
        with opened_page(browser, own.address, cookie=cookie, worker=True) as page:
            page.evaluate("navigator.serviceWorker.ready.then(() => null)")
            page.goto(f"{own.address}/bench/RW-105")
            page.locator("input[data-reading]").focus()
            page.keyboard.type("6.")
            with (build / "worker.js").open("a") as worker:
                worker.write("\n// a newer build\n")
            page.evaluate("navigator.serviceWorker.getRegistration().then((one) => one.update()).then(() => null)")
            expect(page.get_by_text("A newer version is here.")).to_be_visible()
            expect(page.locator("input[data-reading]")).to_have_value("6.")
            page.get_by_role("button", name="reload").click()
            expect(page.get_by_text("A newer version is here.")).to_have_count(0)
            expect(page.locator("input[data-reading]")).to_have_value("6.")
    finally:
        own.kill()
