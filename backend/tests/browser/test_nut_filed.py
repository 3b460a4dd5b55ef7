"""A nut that was filed: what went at each string is what somebody says, once, and at the instrument it was begun at."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from .hands import command


def test_what_was_filed_is_said_by_string(page: Page, address: str) -> None:
    """Refused, it stands there as it was typed; at another instrument it is empty; Escape keeps, Cancel empties."""
    page.goto(f"{address}/bench/RW-105")
    page.get_by_role("group", name="Bench card").wait_for()
    dialog = page.get_by_role("dialog")
    field = dialog.get_by_label("D", exact=True)
    command(page, "j")
    field.fill("a bit")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="D: “a bit” is not what was filed")).to_be_visible()
    command(page, "j")
    expect(field).to_have_value("a bit")
    field.fill("0,15")
    page.keyboard.press("Escape")
    expect(dialog).to_be_hidden()
    page.get_by_role("link", name="RW-106").click()
    page.get_by_role("heading", level=1).filter(has_text="RW-106").or_(
        page.get_by_text("RW-106 cello")
    ).first.wait_for()
    command(page, "j")
    expect(field).to_have_value("")
    dialog.get_by_role("button", name="Cancel").click()
    expect(dialog).to_be_hidden()
    page.go_back()
    page.get_by_text("RW-105 viola").first.wait_for()
    command(page, "j")
    expect(field).to_have_value("0,15")
    dialog.get_by_role("button", name="Save nut filed").dblclick()
    expect(dialog).to_be_hidden()
    command(page, "o")
    expect(dialog.get_by_text("D by 0.15 mm")).to_have_count(1)
