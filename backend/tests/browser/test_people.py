"""Signing in, taking the bench over, and what the desk and an ended session leave untouched; by keyboard."""

from __future__ import annotations

from typing import Any

from playwright.sync_api import Page, expect
from sqlalchemy import text

from .hands import command, open_ticket, reading


def sign_in(door: Page, name: str, password: str) -> None:
    expect(door.get_by_label("Name")).to_be_focused()
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
    expect(door.get_by_label("Name")).to_be_focused()
    expect(door.get_by_text("RW-101")).to_have_count(0)


def test_a_session_that_ends_loses_nothing_typed(page: Page, app: Any) -> None:
    """The session ends while a reading is typed: it waits, the page comes back where it was, and it is kept."""
    open_ticket(page, "RW-114")
    with app.state.engine.begin() as connection:
        connection.execute(text("DELETE FROM sign_in"))
    page.keyboard.type("0.28")
    page.keyboard.press("Enter")
    sign_in(page, "Ilse Varnholt", "ferry-rope-lantern")
    wait_until_in(page)
    expect(reading(page, "G slot depth")).to_have_accessible_name("G slot depth: 0.28")


def test_the_desk_looks_and_does_not_measure(door: Page) -> None:
    sign_in(door, "Noor Halvorsen", "river-tag-ledger")
    wait_until_in(door)
    open_ticket(door, "RW-108")
    expect(door.get_by_role("heading", name="Take the crown down")).to_be_visible()
    expect(door.get_by_role("button", name="Cut done")).to_have_count(0)
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
    expect(page.get_by_text("A password has 10 characters or more")).to_be_visible()
    page.get_by_label("Password").fill("long enough now")
    page.get_by_label("PIN for the bench").fill("6006")
    page.keyboard.press("Enter")
    expect(page.get_by_role("row", name="Wren Kallio")).to_contain_text("apprentice")
    expect(page.get_by_role("status")).to_contain_text("Wren Kallio is kept.")


def test_what_waits_for_a_pin_stands_in_nobody_elses_way(page: Page) -> None:
    """A reading of Teo's waits in this browser until Teo gives his PIN; Ilse measures on, and undo leaves it alone."""
    open_ticket(page, "RW-114")
    page.evaluate(
        """async () => {
            const { signed_in } = await (await fetch('/api/session')).json()
            const { last_work } = await (await fetch('/api/instruments/RW-114/sheet')).json()
            const body = {
                id: crypto.randomUUID(), measure: 'string_length', position: null, typed: '327', tool: 'caliper',
                taken_at: new Date().toISOString(), after_work: last_work, repeats: false,
            }
            const person = signed_in.people.find((one) => one.name.startsWith('Teo')).id
            localStorage.setItem('fidicula.waiting', JSON.stringify([{ ticket: 'RW-114', person, body }]))
        }"""
    )
    page.reload()
    expect(page.get_by_role("alert")).to_contain_text("give a PIN here before it is kept")
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
    page.keyboard.type("2702")
    page.keyboard.press("Enter")
    expect(reading(page, "string length")).to_have_accessible_name("string length: 327, in band")
    expect(page.get_by_role("alert")).to_have_count(0)
