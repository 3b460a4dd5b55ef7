"""Every page in its frame: what has to be done stays in reach, also at 200 %, and few steps lead from door to door."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from .hands import command, open_ticket


def test_a_sheet_opened_to_the_first_height_in_two_keys(page: Page) -> None:
    open_ticket(page, "RW-113")
    page.keyboard.press("6")
    page.keyboard.press("Enter")
    expect(page.get_by_label("G at the board's end: 6")).to_be_visible()


def test_whoever_goes_to_another_page_by_keyboard_goes_on_there(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-105")
    expect(page.get_by_role("main", name="Bench sheet")).to_be_visible()
    command(page, ",")
    page.keyboard.press("Enter")
    expect(page).to_have_title("RW-105 · Fidicula")
    page.get_by_role("link", name="Board, ").press("Enter")
    expect(page).to_have_title("RW-105 · board · Fidicula")
    expect(page.locator("main:focus, nav :focus")).to_have_count(1)
