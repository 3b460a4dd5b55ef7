"""Through the door by keyboard: a new violin for strings, and a cello that comes back for a full set-up."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from .hands import command, name_strings, open_ticket, reading, type_readings


def choose_kind(page: Page, label: str) -> None:
    """Open the list of kinds and go to one by its first letters."""
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("combobox", name="What for").focus()
    page.keyboard.press("Enter")
    option = page.get_by_role("option", name=label)
    expect(option).to_be_visible()
    option.press("Enter")
    expect(dialog.get_by_text(label, exact=True)).to_be_visible()


def test_a_new_violin_comes_for_strings(page: Page) -> None:
    """A string change asks for strings and heights, and for no crown."""
    command(page, "n")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_label("Has it been here?")).to_be_focused()
    page.keyboard.type("Wren")
    expect(dialog.get_by_role("list", name="Has been here")).to_contain_text(
        "RW-105 viola 380, Wren Kallio · hangs on the rail"
    )
    dialog.get_by_label("Has it been here?").fill("Øyvind")
    expect(dialog.get_by_text("Nothing here has been known by “Øyvind”: it is new.")).to_be_visible()
    choose_kind(page, "strings")
    dialog.get_by_label("Owner or fleet").fill("Øyvind Þór")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Øyvind Þór · strings")).to_be_visible()
    course = page.get_by_role("list", name="Course of this visit")
    expect(course).to_contain_text("Strings")
    expect(course).not_to_contain_text("Crown")
    name_strings(page, downs=0)
    expect(page.get_by_role("heading", name="Measure the heights first")).to_be_visible()


def test_a_cello_comes_back_with_last_times_figures_and_its_projection_bars_the_crown(page: Page) -> None:
    open_ticket(page, "RW-106")
    command(page, "y")
    expect(page.get_by_role("button", name="Hand it over")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="In the house")).to_be_visible()
    expect(page.get_by_role("link", name="RW-106")).to_have_count(0)

    command(page, "n")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_label("Has it been here?")).to_be_focused()
    page.keyboard.type("maren")
    dialog.get_by_role("button", name="RW-106 cello 4/4, Maren Osei").press("Enter")
    expect(dialog.get_by_text("It opens with last time's figures.")).to_be_visible()
    choose_kind(page, "full set-up")
    dialog.get_by_label("Why it came, in the owner's words").fill("Back from the tour.")
    page.keyboard.press("Enter")
    expect(page.get_by_text("“Back from the tour.”")).to_be_visible()
    expect(reading(page, "C at the board's end")).to_have_accessible_name(
        "C at the board's end: ·, not measured, was 8.90"
    )
    expect(page.get_by_text("last time 8.9")).to_be_visible()
    type_readings(page, "8.9 8.2 7.4 6.4")
    reading(page, "projection").click()
    type_readings(page, "76.9")
    expect(page.get_by_role("heading", name="Decide on the projection first")).to_be_visible()
    expect(page.get_by_role("button", name="Cut done")).to_have_count(0)
    command(page, "d")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    page.keyboard.type("plays it so")
    page.keyboard.press("Enter")
    expect(page.get_by_text("is accepted by Ilse Varnholt: plays it so")).to_be_visible()
    expect(page.get_by_role("button", name="Cut done")).to_be_visible()
