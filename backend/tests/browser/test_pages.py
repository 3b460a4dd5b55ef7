"""An instrument's pages by keyboard: what is tried moves every number, and what is decided keeps its reason."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from .hands import command, go, held, open_ticket


def figure(page: Page, label: str) -> str:
    """What a number would be."""
    row = page.get_by_role("row").filter(has=page.get_by_role("button", name=label, exact=True))
    found = re.match(r"[−\d.]+", row.get_by_role("cell").nth(1).inner_text())
    assert found is not None
    return found[0]


def test_a_wedge_is_tried_and_the_decision_keeps_its_reason(page: Page) -> None:
    """RW-106: 0.05 a key at the heel is 0.12 at the bridge; in 26 keys 76.8 comes to 80."""
    open_ticket(page, "RW-106")
    command(page, "2")
    main = page.get_by_role("main", name="Neck and projection")
    expect(main).to_contain_text("3.2 mm short of the aim")
    assert figure(page, "projection") == "76.8"
    wedge = page.get_by_role("slider", name="a wedge, thick at the heel")
    wedge.focus()
    for _ in range(26):
        page.keyboard.press("ArrowRight")
    row = main.get_by_role("row").filter(has=page.get_by_role("button", name="projection", exact=True))
    expect(row).to_contain_text("80.0")
    assert figure(page, "C at the board's end") == "6.22"
    page.get_by_role("button", name="projection", exact=True).press("Enter")
    expect(main).to_contain_text("1.3 × 690 ÷ 280 = 3.20 at the bridge: hinged at the nut.")
    typed = page.get_by_role("textbox", name="a wedge, thick at the heel, typed")
    typed.fill("0,5")
    typed.press("Enter")
    expect(row).to_contain_text("78.0")
    typed.fill("9")
    typed.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("goes from 0 to 2.5 mm; it was 9")
    expect(typed).to_have_value("9.00")
    page.get_by_role("button", name="Reset values").press("Enter")
    expect(row).to_contain_text("76.8")
    ways = page.get_by_role("region", name="Ways to go on")
    expect(ways.get_by_role("article").filter(has_text="A wedge under the board")).to_contain_text("1.30 thick")
    question = page.get_by_role("form", name="Projection 76.8, below 78.5 to 81.5")
    question.get_by_role("radio", name="Accept it with a reason").check()
    question.get_by_label("Reason (kept and printed)").fill("She likes it low.")
    question.get_by_label("Reason (kept and printed)").press("Enter")
    expect(ways.get_by_role("article").filter(has_text="Accept it")).to_contain_text("decided")
    page.keyboard.press("Escape")
    command(page, "e")
    expect(page.get_by_role("group", name="What the sheet says")).to_contain_text("She likes it low.")


def test_a_crown_is_tried_and_its_template_taken_home(page: Page) -> None:
    """RW-105's five strings: a flatter crown moves every number at once; the template comes as a file."""
    open_ticket(page, "RW-105")
    command(page, "4")
    main = page.get_by_role("main", name="The bridge's crown")
    expect(main.get_by_role("row").filter(has_text="string drop")).to_be_visible()
    before = figure(page, "D wood to take")
    radius = page.get_by_role("textbox", name="crown radius, typed")
    radius.fill("60")
    radius.press("Enter")
    expect(main.get_by_role("row").filter(has=page.get_by_role("button", name="crown radius"))).to_contain_text("60.0")
    assert figure(page, "D wood to take") != before
    with page.expect_download() as told:
        page.get_by_role("button", name="crown template, DXF").press("Enter")
    assert told.value.suggested_filename == "RW-105-crown.dxf"
    page.keyboard.press("Escape")
    command(page, "3")
    expect(page.get_by_role("main", name="The nut's slots")).to_contain_text("Spacing at the nut")


def test_pages_are_turned_by_key_and_say_what_they_lack(page: Page) -> None:
    """A blank that comes nearest, the shop's list changed at once, and a page that first wants its readings."""
    open_ticket(page, "RW-107")
    command(page, "5")
    main = page.get_by_role("main", name="Bass bar and bridge width")
    expect(main).to_contain_text("Of the blanks on hand 80 comes nearest")
    page.get_by_role("button", name="Change").press("Enter")
    field = page.get_by_role("textbox", name="bridge blanks, width over the feet")
    expect(field).to_be_focused()
    field.fill("78 wide")
    field.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("is not a measurement")
    field.fill("78 80,8 90")
    field.press("Enter")
    expect(main).to_contain_text("Of the blanks on hand 80.8 comes nearest: the bar 2.70 inside.")
    page.keyboard.press("Escape")
    for title in ("The bridge's crown", "The nut's slots"):
        page.keyboard.press("PageUp")
        expect(page.get_by_role("main", name=title)).to_be_visible()
    page.keyboard.press("PageUp")
    expect(page.get_by_role("main", name="Neck and projection")).to_contain_text("projection: it was not read yet")
    page.get_by_role("main").get_by_role("link", name="Measure", exact=True).press("Enter")
    expect(page.get_by_role("textbox", name="projection: ")).to_be_focused()
    page.keyboard.type("75.2")
    page.keyboard.press("Enter")
    command(page, "1")
    board = page.get_by_role("main", name="The board")
    expect(board).to_contain_text("scoop, bass, a quarter along: it was not read yet")
    page.keyboard.press("PageUp")
    expect(page.get_by_role("main", name="Where the bridge goes")).to_be_visible()
    for _ in range(7):
        page.keyboard.press("PageUp")
    expect(page.get_by_role("main", name="Afterlength, tailgut and saddle")).to_be_visible()


def test_whoever_goes_on_while_a_work_is_on_its_way_is_not_called_back(page: Page) -> None:
    go(page, "/bench/RW-104/page/board")
    with page.expect_response("**/works") as answered, held(page, "RW-104/works"):
        page.get_by_role("button", name="Record: board dressed").press("Enter")
        go(page, "/bench/RW-105")
    assert answered.value.ok
    expect(page.get_by_role("status").filter(has_text="waits")).to_have_count(0)
    page.wait_for_timeout(500)
    assert page.url.endswith("/bench/RW-105")
