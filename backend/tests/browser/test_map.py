"""The instrument as the map: its parts by keyboard, their states, and the main button that is always in sight."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from .hands import command, open_ticket


def test_arrows_and_letters_go_over_the_parts_and_enter_opens_one(page: Page) -> None:
    open_ticket(page, "RW-105")
    parts = page.get_by_role("navigation", name="Parts of the instrument")
    bridge = parts.get_by_role("link", name="Bridge")
    expect(bridge).to_have_attribute("aria-current", "page")
    expect(bridge).to_have_accessible_name("Bridge cut 0.3–1.0, above: what makes the strings high")
    command(page, ",")
    expect(bridge).to_be_focused()
    page.keyboard.press("n")
    expect(parts.get_by_role("link", name="Nut, in order")).to_be_focused()
    page.keyboard.press("n")
    expect(parts.get_by_role("link", name="Neck, in order")).to_be_focused()
    page.keyboard.press("ArrowUp")
    page.keyboard.press("ArrowUp")
    expect(parts.get_by_role("link", name="Nut, in order")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="The nut's slots")).to_be_visible()
    expect(parts.get_by_role("link", name="Nut")).to_have_attribute("aria-current", "page")


def test_a_work_shows_on_its_part_at_once(page: Page) -> None:
    open_ticket(page, "RW-105")
    parts = page.get_by_role("navigation", name="Parts of the instrument")
    command(page, "k")
    page.get_by_role("dialog").get_by_role("radio", name="Pegs fitted").check()
    page.keyboard.press("Enter")
    expect(parts.get_by_role("link", name="Pegs")).to_have_accessible_name("Pegs, not read; the pegs were fitted")
