"""Every page in its frame: what has to be done stays in reach, also at 200 %, and few steps lead from door to door."""

from __future__ import annotations

import pytest
from playwright.sync_api import Page, expect

from .hands import command, open_ticket

PAGES = ["", "/page/board", "/page/nut", "/page/post", "/page/neck", "/measure", "/look", "/sound"]


@pytest.mark.parametrize("ticket", ["RW-105", "RW-107", "RW-108"])
def test_the_main_button_is_never_below_the_fold(page: Page, address: str, ticket: str) -> None:
    for name in PAGES:
        page.goto(f"{address}/bench/{ticket}{name}")
        expect(page.get_by_role("main").first).to_be_visible()
        expect(page.get_by_text("Calculating")).to_have_count(0)
        main = page.locator(".pinned .v-btn").or_(page.get_by_role("button", name="next item"))
        expect(main.first).to_be_visible()
        for button in main.all():
            box = button.bounding_box()
            assert box is not None, name
            assert box["y"] + box["height"] <= 800, name


def test_at_200_percent_nothing_is_cut_off(page: Page, address: str) -> None:
    """Twice the size is half the room."""
    page.set_viewport_size({"width": 640, "height": 400})
    for name in ["/", *(f"/bench/RW-105{name}" for name in PAGES), "/figures/violin", "/recipes/violin", "/people"]:
        page.goto(f"{address}{name}")
        expect(page.get_by_role("main").first).to_be_visible()
        expect(page.get_by_text("Calculating")).to_have_count(0)
        wide, room = page.evaluate("[document.documentElement.scrollWidth, window.innerWidth]")
        assert wide <= room, name


def test_a_sheet_opened_to_the_first_height_in_two_keys(page: Page) -> None:
    open_ticket(page, "RW-111")
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
