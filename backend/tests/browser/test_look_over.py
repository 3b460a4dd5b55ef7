"""An instrument looked over by keyboard, with photographs; and what was seen asks its question."""

from __future__ import annotations

import re
from io import BytesIO
from pathlib import Path

from PIL import Image
from playwright.sync_api import Page, expect

from .hands import choose, command, held, open_ticket


def photograph(colour: str) -> bytes:
    out = BytesIO()
    Image.new("RGB", (900, 600), colour).save(out, "JPEG")
    return out.getvalue()


def item(page: Page, name: str) -> None:
    expect(page.get_by_role("heading", name=name, level=2)).to_be_visible()


def test_a_violin_is_looked_over_by_keyboard_and_a_thin_board_asks(page: Page) -> None:
    """Space says fine, Enter keeps and goes on; a finding brings its verdict; what was left out needs a reason."""
    open_ticket(page, "RW-114")
    command(page, "i", own=True)
    expect(page.get_by_label("Why it came, in the owner's words")).to_be_focused()
    choose(page, "What for", "look-over and estimate")
    page.get_by_role("button", name="Save", exact=True).press("Enter")
    expect(page.get_by_label("What to do now")).to_contain_text("Inspect the instrument")
    command(page, "i")
    item(page, "Structure and seams")
    expect(page.get_by_role("radio", name="fine")).to_be_focused()
    page.keyboard.press("Space")
    page.keyboard.press("Enter")
    item(page, "Old repairs")
    page.keyboard.press("Enter")
    item(page, "F-holes")
    page.keyboard.press("PageUp")
    item(page, "Old repairs")
    page.keyboard.press("ArrowUp")
    expect(page.get_by_role("radio", name="not inspected")).to_be_checked()
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Say why it was not looked at")
    page.get_by_label("Reason it was not inspected").fill("no mirror at hand")
    page.keyboard.press("Enter")
    item(page, "F-holes")
    for name in ("Chin rest", "Neck", "Board"):
        page.keyboard.press("PageDown")
        item(page, name)
    page.get_by_role("checkbox", name="too thin to dress").press("Space")
    page.reload()
    page.get_by_role("navigation", name="Items in working order").get_by_role("button", name="board").press("Enter")
    expect(page.get_by_role("checkbox", name="too thin to dress")).to_be_checked()
    page.get_by_role("checkbox", name="too thin to dress").press("Enter")
    item(page, "Pegs")
    board = page.get_by_role("button", name="board work needed")
    expect(board).to_be_visible()
    expect(page.get_by_role("status").first).to_contain_text("14 items left")
    page.keyboard.press("Escape")
    command(page, "e")
    expect(page.get_by_role("form", name="The board")).to_contain_text("Recommended: A new board")
    command(page, "i")
    expect(board).to_be_visible()
    page.keyboard.press("Escape")
    command(page, "u")
    expect(page.get_by_role("button", name="board blank")).to_be_visible()


def test_whoever_is_faster_than_the_server_says_each_item_once(page: Page) -> None:
    """Digits and Enter, item by item, while the first is on its way; what is refused is in hand again."""
    open_ticket(page, "RW-106")
    command(page, "i")
    names = page.get_by_role("navigation", name="Items in working order")
    expect(page.get_by_role("radio", name="fine")).to_be_focused()
    with held(page, "seen"):
        for verdict in "12141":
            page.keyboard.press(verdict)
            page.keyboard.press("Enter")
        expect(names.locator(".waits")).to_have_count(5)
        page.keyboard.press("Escape")
        command(page, "u")
        expect(names.locator(".waits")).to_have_count(4)
    expect(page.get_by_role("alert")).to_contain_text("Say why it was not looked at")
    expect(page.get_by_role("radio", name="not inspected")).to_be_checked()
    expect(names.locator(".waits")).to_have_count(0)
    page.reload()
    expect(page.get_by_role("radio", name="not inspected")).to_be_checked()
    said = [name.split()[-1] for name in names.get_by_role("button").all_inner_texts()]
    assert said[:4] == ["fine", "watch", "fine", "blank"]


def test_photographs_by_file_and_by_the_inspection_camera(page: Page, tmp_path: Path) -> None:
    """Forty at once, one of them no picture: the others are kept, it is named; how far it is stands there."""
    for i in range(39):
        (tmp_path / f"crack-{i}.jpg").write_bytes(photograph("peru"))
    (tmp_path / "notes.jpg").write_text("the seam at the lower rib")
    open_ticket(page, "RW-109")
    command(page, "i")
    item(page, "Old repairs")
    page.get_by_label("files or camera").set_input_files(sorted(tmp_path.iterdir()))
    expect(page.get_by_text(re.compile(r"\d+ of 40 kept"))).to_be_visible()
    larger = page.get_by_role("button", name="old repairs, by Ilse Varnholt: larger")
    expect(larger).to_have_count(39)
    expect(page.get_by_role("alert")).to_contain_text("notes.jpg: This is no picture that can be read")
    larger.first.press("Enter")
    expect(page.get_by_role("dialog").get_by_role("img")).to_be_visible()
    page.get_by_role("button", name="Undo this entry").press("Enter")
    expect(larger).to_have_count(38)
    page.get_by_role("button", name="sound post").press("Enter")
    page.get_by_role("button", name="the post's upper end").press("Enter")
    expect(page.get_by_role("button", name="again: the post's upper end")).to_be_visible()
    expect(page.get_by_role("region", name="Photographs").get_by_role("listitem")).to_have_count(1)


def test_the_desk_reads_what_was_seen_and_changes_nothing(page: Page) -> None:
    open_ticket(page, "RW-110")
    command(page, "b")
    expect(page.get_by_role("radio", name="Ilse Varnholt, owner")).to_be_focused()
    page.get_by_role("radio", name="Noor Halvorsen, desk").press("Space")
    page.keyboard.press("Enter")
    page.keyboard.type("490428")
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)
    command(page, "i")
    expect(page.get_by_text("Noor Halvorsen reads here")).to_be_visible()
    expect(page.get_by_role("radio", name="fine")).to_be_disabled()
