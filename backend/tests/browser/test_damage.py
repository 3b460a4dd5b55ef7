"""The damage map by mouse and keyboard, and an instrument that comes in pieces, in one tab that never reloads."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from .hands import choose, command, go, name_strings


def field(page: Page, name: str) -> None:
    page.locator(f"#damage [name={name}]").focus()


def test_a_crack_is_marked_measured_again_signed_for_and_bars_the_cut(page: Page) -> None:
    go(page, "/bench/RW-101/damage")
    expect(page.get_by_text("Nothing is marked yet.")).to_be_visible()
    page.get_by_label("What it is").select_option("crack")
    drawn = page.get_by_role("group", name="The instrument from all sides, with what is marked")
    box = drawn.bounding_box()
    assert box is not None
    page.mouse.click(box["x"] + box["width"] * 0.2, box["y"] + box["height"] * 0.7)
    expect(page.locator("[name=face]")).to_have_value("front")
    page.mouse.click(box["x"] + box["width"] * 0.21, box["y"] + box["height"] * 0.8)
    expect(page.locator("[name=length]")).to_be_focused()
    page.keyboard.type("41,5 pf")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Say how it is")
    page.get_by_role("radio", name="open or moving").check()
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("the unit “pf” is not known here")
    expect(page.locator("[name=length]")).to_be_focused()
    page.locator("[name=length]").fill("41,5")
    page.keyboard.press("Enter")
    mark = page.get_by_role("listitem").filter(has_text="1 crack")
    expect(mark).to_contain_text("open or moving; 41.5 mm")
    expect(page.get_by_label("What it is")).to_have_value("")

    # Another page and back: what was typed and not entered is there.
    page.get_by_role("button", name="Look again at 1: crack").click()
    page.keyboard.type("43")
    go(page, "/bench/RW-101")
    expect(page.get_by_role("region", name="A crack").or_(page.get_by_text("A crack").first)).to_be_visible()
    go(page, "/bench/RW-101/damage")
    expect(page.locator("[name=length]")).to_have_value("43")
    page.get_by_role("checkbox", name="seen under tension").check()
    page.get_by_role("button", name="Write this look down").dblclick()
    expect(mark).to_contain_text("1.5 mm longer than at first")
    expect(mark.get_by_text("Looks, 2")).to_be_visible()

    page.get_by_label("Who signs").fill("Wren Kallio")
    page.get_by_role("button", name="Sign for what is marked").click()
    expect(page.get_by_text("Wren Kallio has seen 1 mark and signed")).to_be_visible()
    command(page, "a", own=True)
    page.get_by_label("What it is").select_option("dent")
    field(page, "face")
    page.locator("[name=face]").select_option("scroll")
    page.locator("[name=along]").fill("40")
    page.get_by_role("radio", name="does not move").check()
    page.keyboard.press("Enter")
    expect(page.get_by_text("More was marked, or changed, since.")).to_be_visible()
    page.get_by_role("button", name="Undo the signature of Wren Kallio").click()
    expect(page.get_by_text("Nobody has signed for what is marked.")).to_be_visible()


def test_an_instrument_in_pieces_is_put_together_in_its_order(page: Page) -> None:
    command(page, "n")
    dialog = page.get_by_role("dialog")
    choose(page, "What for", "bridge")
    dialog.get_by_role("combobox", name="In pieces, if it comes so").focus()
    page.keyboard.press("Enter")
    for name in ("strings off", "bridge down", "post inside, fallen"):
        page.get_by_role("option", name=name).click()
    page.keyboard.press("Escape")
    dialog.get_by_role("button", name="Add instrument").click()
    expect(page.get_by_role("heading", name="Set the sound post")).to_be_visible()
    foot = page.locator("footer.foot")
    expect(foot).to_contain_text("The strings are off: nothing is read under tension.")
    expect(page.locator("[data-reading]")).to_have_count(0)
    page.get_by_role("button", name="Record: post set").click()
    dialog.get_by_role("radio", name="all strings slack").check()
    page.keyboard.press("Enter")
    expect(page.get_by_role("heading", name="Choose the strings")).to_be_visible()
    name_strings(page, downs=1)
    expect(page.get_by_role("heading", name="Set up the bridge")).to_be_visible()
    page.get_by_role("button", name="Record: bridge set up").click()
    expect(page.get_by_role("heading", name="Put the strings on")).to_be_visible()
    page.get_by_role("button", name="Record: strings back on").click()
    expect(page.get_by_role("heading", name="Measure heights at the board's end")).to_be_visible()
    expect(foot).not_to_contain_text("nothing is read under tension")
    expect(page.locator("[data-reading]")).to_have_count(1)
