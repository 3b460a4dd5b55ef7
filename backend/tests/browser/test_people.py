"""Signing in, taking the bench over, and what the desk and an ended session leave untouched; by keyboard."""

from __future__ import annotations

import re
from datetime import UTC, datetime
from typing import Any
from uuid import uuid4

from fastapi.testclient import TestClient
from fidicula.cli.demo import demo_sign_ins
from playwright.sync_api import Browser, Page, expect
from sqlalchemy import text

from ..conftest import signed_in
from .conftest import opened_page
from .hands import command, open_ticket, reading


def sign_in(door: Page, name: str, password: str) -> None:
    expect(door.get_by_label("Name", exact=True)).to_be_focused()
    door.keyboard.type(name)
    door.keyboard.press("Tab")
    door.keyboard.type(password)
    door.keyboard.press("Enter")


def wait_until_in(door: Page) -> None:
    expect(door.get_by_label("Instruments in the house")).to_be_visible()


def test_sign_in_by_keyboard_and_out_again(door: Page) -> None:
    sign_in(door, "Teo Marchetti-Lund", "guessed")
    expect(door.get_by_text("The name or the password is not right.")).to_be_visible()
    door.get_by_label("Password").fill("weir-gate-willow")
    door.keyboard.press("Enter")
    expect(door.get_by_role("heading", name="In the house")).to_be_visible()
    command(door, "b")
    door.get_by_role("button", name="Sign out").press("Enter")
    expect(door.get_by_label("Name", exact=True)).to_be_focused()
    expect(door.get_by_text("RW-101")).to_have_count(0)


def test_a_session_that_ends_loses_nothing_typed(page: Page, app: Any) -> None:
    """The session ends while a reading is typed: it waits, the page comes back where it was, and it is kept."""
    open_ticket(page, "RW-114")
    with app.state.engine.begin() as connection:
        connection.execute(text("DELETE FROM sign_in"))
    app.state.services.people.forget()
    page.keyboard.type("0.28")
    page.keyboard.press("Enter")
    sign_in(page, "Ilse Varnholt", "ferry-rope-lantern")
    wait_until_in(page)
    expect(reading(page, "G slot depth")).to_have_accessible_name("G slot depth: 0.28")


def test_the_desk_looks_and_does_not_measure(door: Page) -> None:
    sign_in(door, "Noor Halvorsen", "river-tag-ledger")
    wait_until_in(door)
    open_ticket(door, "RW-108")
    expect(door.get_by_role("heading", name="Turn the wheels")).to_be_visible()
    expect(door.get_by_role("button", name="Record: crown cut")).to_have_count(0)
    door.keyboard.type("9")
    door.keyboard.press("Enter")
    expect(door.get_by_role("alert")).to_contain_text("Noor Halvorsen does not measure")


def test_the_owner_takes_someone_on(page: Page) -> None:
    command(page, "p")
    expect(page.get_by_role("heading", name="People")).to_be_visible()
    command(page, "a")
    expect(page.get_by_label("Name", exact=True)).to_be_focused()
    page.keyboard.type("Wren Kallio")
    page.get_by_label("Password").fill("short")
    page.keyboard.press("Enter")
    expect(page.get_by_text("A password has 12 characters or more")).to_be_visible()
    page.get_by_label("Password").fill("long enough now")
    page.get_by_label("PIN for the bench").fill("600630")
    page.keyboard.press("Enter")
    expect(page.get_by_role("row", name="Wren Kallio")).to_contain_text("apprentice")
    expect(page.get_by_role("status").first).to_contain_text("Wren Kallio is saved.")


def test_what_changes_the_shop_asks_for_the_password_and_then_goes_on(browser: Browser, address: str, app: Any) -> None:
    """Cancelled, nothing typed is lost; a wrong one is told; a right one saves what was waiting, and counts a while."""
    with opened_page(browser, address, cookie=signed_in(app, "Ilse Varnholt", confirmed=False)["cookie"]) as page:
        command(page, "p")
        command(page, "a")
        page.keyboard.type("Wren Kallio")
        page.get_by_label("Password", exact=True).fill("long enough now")
        page.keyboard.press("Enter")
        dialog = page.get_by_role("dialog")
        expect(dialog.get_by_label("Ilse Varnholt's password")).to_be_focused()
        page.keyboard.press("Escape")
        expect(dialog).to_have_count(0)
        expect(page.get_by_label("Name", exact=True)).to_have_value("Wren Kallio")
        page.get_by_role("button", name="Save person").press("Enter")
        expect(dialog.get_by_label("Ilse Varnholt's password")).to_be_focused()
        page.keyboard.type("guessed wrong")
        page.keyboard.press("Enter")
        expect(dialog.get_by_text("That is not Ilse Varnholt's password.")).to_be_visible()
        page.keyboard.type(demo_sign_ins()[0][2])
        page.keyboard.press("Enter")
        expect(page.get_by_role("row", name="Wren Kallio")).to_contain_text("apprentice")
        command(page, "a")
        page.keyboard.type("Maren Osei")
        page.keyboard.press("Enter")
        expect(page.get_by_role("row", name="Maren Osei")).to_be_visible()


def test_a_device_is_revoked_by_name_and_the_audit_says_who_did(
    browser: Browser, address: str, app: Any, page: Page
) -> None:
    with opened_page(browser, address, cookie=signed_in(app, "Bram Oyelade")["cookie"]) as other:
        command(page, "p")
        row = page.get_by_role("row").filter(has_text="Bram Oyelade").filter(has_text="this computer")
        row.get_by_role("button", name="Revoke").press("Enter")
        expect(page.get_by_text("is revoked.")).to_be_visible()
        other.reload()
        expect(other.get_by_role("main", name="Sign in")).to_be_visible()
    command(page, ";")
    expect(page.get_by_role("row", name="Device revoked")).to_contain_text("Ilse Varnholt")
    page.get_by_label("Find", exact=True).fill("RW-106 arrival")
    expect(page.get_by_role("row", name="Arrival RW-106")).to_have_count(1)
    page.get_by_role("link", name="RW-106", exact=True).press("Enter")
    expect(page.get_by_role("heading", name="Audit · RW-106")).to_be_visible()
    expect(page.get_by_role("row", name="Reading projection").first).to_be_visible()


def test_many_tabs_share_one_stream_and_a_hidden_one_gives_it_away(address: str, app: Any, page: Page) -> None:
    """Eight tabs of one browser all answer and all hear what is written elsewhere; the stream follows who is seen."""
    asked: list[str] = []
    page.context.on("request", lambda request: asked.append(request.url))
    tabs = [page]
    for _ in range(7):
        tab = page.context.new_page()
        tab.goto(f"{address}/bench/RW-103")
        expect(tab.get_by_role("main", name="Bench sheet")).to_be_visible()
        tabs.append(tab)
    assert sum(url.endswith("/api/changes") for url in asked) <= 1
    hide = "Object.defineProperty(document, 'hidden', { value: true, configurable: true });"
    page.evaluate(hide + "document.dispatchEvent(new Event('visibilitychange'))")
    tabs[1].wait_for_timeout(300)
    with TestClient(app, base_url="http://127.0.0.1", headers=signed_in(app, "Teo Marchetti-Lund")) as teo:
        body = {
            "id": str(uuid4()), "measure": "projection", "typed": "23.4", "tool": "caliper",
            "taken_at": datetime.now(UTC).isoformat(),
            "shown": None,
        }  # fmt: skip
        assert teo.post("/api/instruments/RW-103/readings", json=body).status_code == 200
    for tab in tabs[1:]:
        expect(reading(tab, "projection")).to_have_attribute("aria-label", re.compile("23.4"))


def test_what_waits_for_a_pin_stands_in_nobody_elses_way(page: Page) -> None:
    """A reading of Teo's waits in this browser until Teo gives his PIN; Ilse measures on, and undo leaves it alone."""
    open_ticket(page, "RW-114")
    page.evaluate(
        """async () => {
            const { signed_in } = await (await fetch('/api/session')).json()
            const { last_work } = await (await fetch('/api/instruments/RW-114/sheet')).json()
            const body = {
                id: crypto.randomUUID(), measure: 'string_length', position: null, typed: '327', tool: 'caliper',
                taken_at: new Date().toISOString(), after_work: last_work, shown: null, repeats: false,
            }
            const person = signed_in.people.find((one) => one.name.startsWith('Teo')).id
            localStorage.setItem('fidicula.waiting', JSON.stringify([{ ticket: 'RW-114', person, body }]))
        }"""
    )
    page.reload()
    expect(page.get_by_text("1 entry of Teo Marchetti-Lund waits for a PIN.")).to_be_visible()
    expect(reading(page, "string length")).to_have_accessible_name("string length: 327, waits")
    page.keyboard.type("0.28")
    page.keyboard.press("Enter")
    expect(reading(page, "G slot depth")).to_have_accessible_name("G slot depth: 0.28")
    command(page, "u")
    expect(reading(page, "G slot depth")).to_have_accessible_name("G slot depth: 0.27, assumed")
    command(page, "b")
    expect(page.get_by_role("radio", name="Ilse Varnholt, owner")).to_be_focused()
    page.get_by_role("radio", name="Teo Marchetti-Lund, luthier").press("Space")
    page.keyboard.press("Enter")
    page.keyboard.type("270226")
    page.keyboard.press("Enter")
    expect(reading(page, "string length")).to_have_accessible_name("string length: 327, in band")
    expect(page.get_by_text("waits for a PIN")).to_have_count(0)
