"""Other screens and other light: a phone, a tablet, the lamp, and what a screen reader hears."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from .hands import command, go, open_ticket, reading

WIDTHS = [(390, 844), (800, 1180), (1280, 800)]


PAGES = ["/figures/bass", "/recipes/cello", "/bench/RW-105/recipe", "/bench/RW-105"]


def test_nothing_runs_off_the_side(page: Page) -> None:
    """Neither a page nor a cell of the card, five strings wide, whose cells a finger can hit."""
    for width, height in WIDTHS:
        page.set_viewport_size({"width": width, "height": height})
        for path in PAGES:
            go(page, path)
            assert page.evaluate("document.documentElement.scrollWidth") <= width, (path, width)
        cells = page.locator(".cell")
        expect(cells).to_have_count(23)
        boxes = cells.evaluate_all("all => all.map(one => one.getBoundingClientRect().toJSON())")
        for box in boxes:
            assert 0 <= box["left"] < box["right"] <= width
            assert min(box["width"], box["height"]) >= 44


def test_a_phone_takes_a_reading_by_touch(page: Page) -> None:
    """No Enter on a phone's number pad: a button takes what was typed."""
    page.set_viewport_size({"width": 390, "height": 844})
    open_ticket(page, "RW-114")
    reading(page, "projection").click()
    page.keyboard.type("27.2")
    page.get_by_role("button", name="Take 27.2").click()
    expect(reading(page, "projection")).to_have_accessible_name("projection: 27.2, in band")


def test_the_lamp_is_dark_and_stays_lit(page: Page) -> None:
    def lightness() -> float:
        colour = page.evaluate("getComputedStyle(document.querySelector('.v-application')).backgroundColor")
        return sum(float(part) for part in colour.strip("rgba()").split(",")[:3]) / 3

    open_ticket(page, "RW-102")
    assert lightness() > 200
    command(page, "l")
    expect(page.locator(".v-theme--lamp").first).to_be_visible()
    page.reload()
    expect(page.get_by_role("main", name="Bench sheet")).to_be_visible()
    assert lightness() < 60


def test_the_strip_tells_what_it_does_not_know_and_leaves(page: Page) -> None:
    page.keyboard.press("Space")
    strip = page.get_by_role("menu", name="Commands")
    expect(strip).to_be_focused()
    page.keyboard.press("j")
    expect(page.get_by_role("status")).to_contain_text("No command “j”.")
    page.keyboard.press("Escape")
    expect(strip).to_have_count(0)


def test_who_and_tool_go_with_the_reading(page: Page) -> None:
    """The log tells who took it and with what, after they were changed at the bench."""
    open_ticket(page, "RW-114")
    command(page, "b")
    expect(page.get_by_role("radio", name="Ilse Varnholt, owner")).to_be_focused()
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("radio", name="Bram Oyelade, apprentice")).to_be_checked()
    page.keyboard.press("Enter")
    page.keyboard.type("0000")
    page.keyboard.press("Enter")
    expect(page.get_by_text("That is not Bram Oyelade's PIN.")).to_be_visible()
    page.keyboard.type("380327")
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.keyboard.type("0.28")
    page.keyboard.press("Enter")
    expect(reading(page, "G slot depth")).to_have_accessible_name("G slot depth: 0.28")
    command(page, "o")
    first = page.get_by_role("dialog").get_by_role("row").nth(1)
    expect(first).to_contain_text("Bram Oyelade, caliper")
