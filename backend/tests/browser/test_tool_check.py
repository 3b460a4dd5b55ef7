"""Checking a caliper on a block, by keyboard, in one tab: it is off, it is set, and the sheet stops asking."""

from __future__ import annotations

from playwright.sync_api import Locator, Page, expect
from sqlalchemy import Engine, text

from .hands import command, open_ticket
from .test_people import sign_in, wait_until_in


def _type(page: Page, *readings: str) -> None:
    for one in readings:
        page.keyboard.type(one)
        page.keyboard.press("Enter")


def _dialog(page: Page) -> Locator:
    return page.get_by_role("dialog").filter(has_text="Check a tool")


def test_the_sheet_asks_for_a_check_until_the_caliper_reads_true(page: Page, demo: Engine) -> None:
    with demo.begin() as connection:
        connection.execute(text("DELETE FROM tool_check"))
    open_ticket(page, "RW-102")
    asks = page.get_by_role("note").filter(has_text="Nobody has checked the caliper")
    expect(asks).to_contain_text("may be off by 0.06 mm")
    asks.get_by_role("button", name="Check it now").press("Enter")
    dialog = _dialog(page)
    expect(dialog.get_by_label("Reading 1", exact=True)).to_be_focused()
    # A slip of the mark is refused at its field, and nothing that was typed is lost: not by Escape either.
    _type(page, "5,06", "5.04 mm", "50.5", "5.04", "5.05")
    expect(dialog.locator("p.fault")).to_contain_text("50.5 is no reading of 5; type what the caliper shows")
    expect(dialog.get_by_label("Reading 3", exact=True)).to_be_focused()
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)
    asks.get_by_role("button", name="Check it now").press("Enter")
    third = dialog.get_by_label("Reading 3", exact=True)
    expect(third).to_have_value("50.5")
    third.fill("5.06")
    third.press("Enter")
    expect(dialog.get_by_role("status")).to_contain_text("The caliper reads 0.05 mm too much.")
    # Set, and read again in the same dialog, which begins anew.
    first = dialog.get_by_label("Reading 1", exact=True)
    expect(first).to_be_focused()
    expect(first).to_have_value("")
    _type(page, "5", "5.02", "4.98", "5", "5")
    expect(dialog.get_by_role("status")).to_contain_text("It reads true, to ±0.03 mm.")
    expect(dialog.get_by_role("listitem")).to_have_count(2)
    dialog.get_by_role("button", name="Close").press("Enter")
    expect(dialog).to_have_count(0)
    expect(page.get_by_role("note").filter(has_text="caliper")).to_have_count(0)
    with demo.connect() as connection:
        assert connection.execute(text("SELECT cardinality(read) FROM tool_check")).scalars().all() == [5, 5]


def test_the_bench_dialog_leads_there_and_a_pitch_is_only_seen_to_be_true(page: Page, demo: Engine) -> None:
    command(page, "b")
    page.get_by_role("button", name="Check a tool").press("Enter")
    dialog = _dialog(page)
    expect(dialog.get_by_role("listitem")).to_contain_text("true to ±0.02")
    dialog.get_by_role("combobox", name="Tool").focus()
    page.keyboard.press("Enter")
    page.get_by_role("option", name="tuner", exact=True).press("Enter")
    expect(dialog.get_by_label("Known length")).to_have_count(0)
    dialog.get_by_role("button", name="Save check: reads true").press("Enter")
    expect(dialog.get_by_role("listitem")).to_contain_text("seen to read true")
    with demo.connect() as connection:
        tools = connection.execute(text("SELECT tool FROM tool_check ORDER BY number")).scalars().all()
    assert tools == ["caliper", "tuner"]


def test_the_desk_reads_of_it_and_checks_nothing(door: Page, demo: Engine) -> None:
    with demo.begin() as connection:
        connection.execute(text("DELETE FROM tool_check"))
    sign_in(door, "Noor Halvorsen", "river-tag-ledger")
    wait_until_in(door)
    open_ticket(door, "RW-102")
    asks = door.get_by_role("note").filter(has_text="Nobody has checked the caliper")
    expect(asks).to_be_visible()
    expect(asks.get_by_role("button")).to_have_count(0)
