"""Figures and recipes by keyboard: what changes is seen in numbers first, taken, undone, and at work at the bench."""

from __future__ import annotations

from playwright.sync_api import Locator, Page, expect

from .hands import command, open_ticket, reading, wood


def at_the_side(page: Page) -> Locator:
    return page.get_by_role("complementary")


def test_a_school_is_tried_in_numbers_taken_with_its_reason_and_undone(page: Page) -> None:
    open_ticket(page, "RW-102")
    expect(wood(page, "E")).to_contain_text("0.3")
    command(page, "h")
    expect(page.get_by_role("radio", name="orchestral heights")).to_be_focused()
    page.keyboard.press("ArrowDown")
    expect(at_the_side(page).get_by_role("row", name="E at the board's end 3.20 3.35 +0.15")).to_be_visible()
    page.keyboard.press("Enter")
    expect(page.get_by_label("reason")).to_be_focused()
    page.keyboard.type("Plays over an orchestra.")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Orchestral · soloist heights")).to_be_visible()
    expect(wood(page, "E")).to_contain_text("0.1")
    command(page, "u")
    expect(page.get_by_role("button", name="Orchestral", exact=True)).to_be_visible()
    expect(wood(page, "E")).to_contain_text("0.3")
    command(page, "o")
    expect(page.get_by_role("dialog").get_by_role("row").nth(1)).to_contain_text("Plays over an orchestra.")


def test_targets_come_from_an_earlier_visit(page: Page) -> None:
    """Her yearly look closed with 4.55 at D; the inner strings then have heights of their own."""
    open_ticket(page, "RW-102")
    command(page, "h")
    source = page.get_by_label("heights at the board's end")
    source.focus()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("ArrowDown")
    expect(at_the_side(page).get_by_role("row", name="D at the board's end")).to_contain_text("4.55")
    page.get_by_label("reason").focus()
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="D target end height: 4.55. Why?")).to_be_visible()


def test_what_cannot_be_had_says_so_and_is_not_taken(page: Page) -> None:
    """Nothing was read on RW-103: as found has nothing to go by."""
    open_ticket(page, "RW-103")
    command(page, "h")
    page.get_by_label("heights at the board's end").focus()
    page.keyboard.press("ArrowDown")
    expect(page.get_by_role("alert")).to_contain_text("measure it first")
    expect(page.get_by_role("button", name="Apply", exact=True)).to_be_disabled()


def test_a_figure_is_changed_confirmed_and_put_back(page: Page) -> None:
    """Both decimal marks; an unordered band is refused at its field and nothing typed is lost."""
    command(page, "g")
    expect(page.get_by_role("heading", name="Figures")).to_be_visible()
    command(page, "e")
    page.keyboard.type("bridge spread")
    row = page.get_by_role("region", name="Bridge").get_by_role("button", name="spread at the bridge")
    row.press("Enter")
    side = at_the_side(page)
    expect(side).to_contain_text("Workshop starting value, unsourced. Nobody has confirmed it yet.")
    for typed in ("33,2", "32,9", "34.2"):
        page.keyboard.press("ControlOrMeta+a")
        page.keyboard.type(typed)
        page.keyboard.press("Tab")
    page.get_by_label("Ilse Varnholt stands by it").press("Space")
    page.get_by_label("spread at the bridge, aim").press("Enter")
    expect(side.get_by_role("alert")).to_contain_text("the aim 32.9 has to lie between")
    expect(page.get_by_label("spread at the bridge, aim")).to_be_focused()
    expect(page.get_by_label("spread at the bridge, low")).to_have_value("33,2")
    page.get_by_label("spread at the bridge, aim").fill("33.8")
    page.keyboard.press("Enter")
    expect(row).to_have_accessible_name("spread at the bridge 33.2 – 33.8 – 34.2 , the shop's own")
    expect(row).to_be_focused()
    row.press("Enter")
    expect(side).to_contain_text("Ilse Varnholt stands by it.")
    expect(side.get_by_role("listitem")).to_have_count(2)
    page.keyboard.press("Escape")
    expect(row).to_be_focused()
    page.keyboard.press("Escape")
    open_ticket(page, "RW-101")
    reading(page, "spread at the bridge").click()
    expect(page.get_by_text("33.2 – 33.8 – 34.2")).to_be_visible()


def test_a_changed_figure_is_undone(page: Page) -> None:
    command(page, "g")
    row = page.get_by_role("region", name="Heights", exact=True).get_by_role("button", name="highest string")
    row.press("Enter")
    page.get_by_label("aim").fill("3.3")
    page.keyboard.press("Enter")
    expect(row).to_contain_text("2.9 – 3.3 – 3.5")
    page.get_by_role("complementary").get_by_role("button", name="Undo").press("Enter")
    expect(row).to_contain_text("2.9 – 3.2 – 3.5")


def test_a_place_without_a_figure_asks_for_the_shops_own(page: Page) -> None:
    """An odd value is kept only when it is said to be meant."""
    page.goto(f"{page.url.rstrip('/')}/figures/violin?size=1/2")
    group = page.get_by_role("region", name="Spread at the bridge", exact=True)
    group.get_by_role("button", name="close").press("Enter")
    expect(at_the_side(page)).to_contain_text("No figure: enter the shop’s own.")
    for part, typed in (("low", "28,5"), ("aim", "28,9"), ("high", "29,2")):
        page.get_by_label(f"spread at the bridge, {part}").fill(typed)
    page.keyboard.press("Enter")
    expect(group.get_by_role("button", name="close")).to_contain_text("28.5 – 28.9 – 29.2")
    group.get_by_role("button", name="close").press("Enter")
    for part, typed in (("low", "285"), ("aim", "289"), ("high", "292")):
        page.get_by_label(f"spread at the bridge, {part}").fill(typed)
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("far from the 28.9 so far")
    expect(page.get_by_label("it is meant")).to_be_visible()


def test_the_shop_makes_a_recipe_and_follows_it(page: Page) -> None:
    command(page, "r")
    expect(page.get_by_role("heading", name="Recipes")).to_be_visible()
    page.get_by_role("button", name="Soloist").press("Enter")
    page.get_by_role("radio", name="generous nut").press("Space")
    expect(at_the_side(page).get_by_role("row", name="G at the nut 0.50 0.90 +0.40")).to_be_visible()
    page.get_by_role("radio", name="generous nut").press("Enter")
    page.keyboard.press("ControlOrMeta+a")
    page.keyboard.type("Lantern")
    page.keyboard.press("Enter")
    expect(at_the_side(page).get_by_role("status")).to_contain_text("“Lantern” is kept.")
    page.keyboard.press("Escape")
    command(page, "t")
    expect(page.get_by_role("button", name="Lantern")).to_contain_text("the shop's")
    open_ticket(page, "RW-102")
    expect(page.get_by_role("button", name="Lantern", exact=True)).to_be_visible()
