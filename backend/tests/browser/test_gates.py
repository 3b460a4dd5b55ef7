"""A crown that is barred: decided with a reason, or by a wedge that is fitted and measured; by keyboard."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from .hands import command, open_ticket, reading, type_readings


def let_it_settle(page: Page) -> None:
    """RW-106 came from a damp place: somebody says that it has taken up the shop's air."""
    open_ticket(page, "RW-106")
    expect(page.get_by_role("heading", name="Inspect the instrument")).to_be_visible()
    command(page, "d")
    expect(page.get_by_role("radio", name="Three days in the shop's air")).to_be_focused()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    page.keyboard.type("a week on the rail")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Acclimatised to the shop? It has settled")).to_be_visible()
    page.keyboard.press("Escape")


def test_the_projection_is_decided_with_a_reason_and_the_crown_goes_on(page: Page) -> None:
    let_it_settle(page)
    expect(page.get_by_role("button", name="Record: crown cut")).to_have_count(0)
    command(page, "d")
    expect(page.get_by_role("radio", name="A wedge under the board")).to_be_focused()
    page.keyboard.press("ArrowDown")
    expect(page.get_by_role("radio", name="Accept it with a reason")).to_be_checked()
    page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Say why")
    page.keyboard.type("leaves on tour tomorrow")
    page.keyboard.press("Enter")
    expect(
        page.get_by_text("Projection: accept it with a reason, Ilse Varnholt: leaves on tour tomorrow")
    ).to_be_visible()
    page.keyboard.press("Escape")
    # Every string is in band: no button asks for a cut, but one that was made can be recorded.
    expect(page.get_by_role("button", name=re.compile("^Crown, (ahead|done)"))).to_be_visible()
    expect(page.get_by_role("button", name="Record: crown cut")).to_have_count(0)
    command(page, "k")
    page.get_by_role("dialog").get_by_role("radio", name="Crown cut").press("Space")
    page.keyboard.press("Enter")
    expect(reading(page, "C at the board's end")).to_have_accessible_name("C at the board's end: 8.90, stale")


def test_a_wedge_is_fitted_and_the_projection_is_measured_next(page: Page) -> None:
    """Decided, done, and its glue is waited for; what it turned is measured meanwhile."""
    let_it_settle(page)
    command(page, "d")
    expect(page.get_by_role("radio", name="A wedge under the board")).to_be_focused()
    page.keyboard.press("Enter")
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Fit a wedge under the board")).to_be_visible()
    page.keyboard.press("Escape")
    command(page, "k")
    expect(page.get_by_role("dialog").get_by_role("radio").first).to_be_focused()
    page.get_by_role("radio", name="Wedge fitted").press("Space")
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(reading(page, "projection")).to_have_accessible_name("projection: 76.8, stale")
    expect(page.get_by_role("form", name="Projection")).to_have_count(0)
    type_readings(page, "8.9 8.2 7.4 6.4")
    expect(reading(page, "A at the board's end")).to_have_accessible_name("A at the board's end: 6.40, in band")
    expect(page.get_by_role("button", name="Crown until")).to_be_visible()


def test_an_apprentice_does_not_decide(page: Page) -> None:
    open_ticket(page, "RW-106")
    command(page, "b")
    expect(page.get_by_role("radio", name="Ilse Varnholt, owner")).to_be_focused()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("radio", name="Bram Oyelade, apprentice")).to_be_checked()
    page.keyboard.press("Enter")
    page.keyboard.type("380327")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Acclimatised to the shop?").press("Enter")
    expect(page.get_by_text("A luthier decides this.")).to_be_visible()
    expect(page.get_by_role("button", name="Save decision", exact=True)).to_have_count(0)
