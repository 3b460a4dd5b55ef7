"""Where the bridge goes, what belongs to an instrument, how a sound was listened to: by keyboard."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from .hands import command, open_ticket


def test_the_bridges_place_by_each_school_and_moved(page: Page) -> None:
    """RW-106: nicks at 401 and 400.4, the foot's middle at 398: it stands 2.7 too near the board."""
    open_ticket(page, "RW-106")
    command(page, "*")
    main = page.get_by_role("main", name="Where the bridge goes")
    expect(main).to_contain_text("the nicks halve the foot, it stands 2.7 mm too near the board")
    expect(main).to_contain_text("1.0 mm to the bass of the middle between the f-holes")
    schools = main.get_by_role("row").filter(has_text="neck to stop")
    expect(schools).to_contain_text("+2.0")
    typed = page.get_by_role("textbox", name="bridge moved, + toward the tailpiece, typed")
    typed.fill("2,5")
    typed.press("Enter")
    row = main.get_by_role("row").filter(has=page.get_by_role("button", name="string length", exact=True))
    expect(row).to_contain_text("692.5")
    typed.fill("40")
    typed.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("goes from −15 to 15 mm; it was 40")


def test_what_belongs_to_it_is_kept_typed_wrong_or_right_and_asked_as_it_leaves(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-102/belongings")
    kind = page.get_by_label("What it is")
    kind.select_option("bridge")
    page.get_by_label("Which one, in words").fill("hard blank, rings clear")
    page.get_by_label("Mass, g").fill("two")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("type grams")
    expect(page.get_by_label("Mass, g")).to_be_focused()
    page.reload()
    expect(page.get_by_label("Which one, in words")).to_have_value("hard blank, rings clear")
    page.get_by_label("Mass, g").fill("2,1")
    page.keyboard.press("Enter")
    fittings = page.get_by_role("region", name="Fittings")
    expect(fittings).to_contain_text("bridge: hard blank, rings clear, 2.1 g")
    expect(kind).to_be_focused()
    kind.select_option("chin_rest")
    page.get_by_role("radio", name="off it now").check()
    page.get_by_label("Where it lies").fill("top drawer")
    page.keyboard.press("Enter")
    expect(fittings).to_contain_text("off it now: top drawer")
    page.goto(f"{address}/bench/RW-102/leave")
    off = page.locator("[data-point='things:off']")
    expect(off).to_contain_text("chin rest: off it now: top drawer")
    page.goto(f"{address}/bench/RW-102/belongings")
    page.get_by_role("button", name="Back on it").press("Enter")
    expect(fittings).not_to_contain_text("off it now")
    page.get_by_role("region", name="Fittings").get_by_role("button", name="Undo").last.press("Enter")
    expect(fittings).to_contain_text("off it now")
