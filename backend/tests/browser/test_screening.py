"""A fleet of five: taken in, screened, and one of them looked over with photographs, by keyboard alone."""

from __future__ import annotations

from playwright.sync_api import FilePayload, Locator, Page, Route, expect

from .hands import choose, command, intercept
from .test_look_over import photograph

FINE = "11111111"


def take_five_in(page: Page) -> None:
    command(page, "v")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_label("Owner or fleet")).to_be_focused()
    page.keyboard.type("Lantern Regatta school")
    choose(page, "What for", "look-over and estimate")
    dialog.get_by_label("Ticket of line 1").focus()
    for i in range(1, 5):
        page.keyboard.press("Enter")
        expect(dialog.get_by_label(f"Ticket of line {i + 1}")).to_be_focused()
    dialog.get_by_role("button", name="Add 5 instruments").press("Enter")
    expect(dialog).to_have_count(0)


def screen(page: Page, fleet: str) -> None:
    command(page, "z")
    page.get_by_label("Whose instruments").select_option(fleet)
    page.get_by_label("Whose instruments").press("Escape")


def at(page: Page, name: str) -> Locator:
    """A cell of the grid, by its ticket and column."""
    return page.get_by_role("grid").get_by_label(name)


def says(page: Page, ticket: str) -> Locator:
    return page.get_by_role("row", name=ticket).locator(".why")


def test_a_fleet_of_five_is_taken_in_and_screened_and_one_is_looked_over(page: Page) -> None:
    take_five_in(page)
    screen(page, "Lantern Regatta school")
    expect(page.get_by_role("status").first).to_have_text("0 of 5 need a luthier, 5 still open")
    at(page, "RW-116 seams: blank").focus()

    page.keyboard.type(FINE)
    expect(at(page, "RW-116 lowest string, G")).to_be_focused()
    page.keyboard.type("5,0mm")
    page.keyboard.press("Enter")
    page.keyboard.type("3.2")
    page.keyboard.press("Enter")
    expect(at(page, "RW-117 seams: blank")).to_be_focused()
    expect(at(page, "RW-116 lowest string, G")).to_have_accessible_name("RW-116 lowest string, G: 5, in band")
    expect(says(page, "RW-116")).to_have_text("nothing")

    page.keyboard.type("1111")
    page.keyboard.press("Enter")
    expect(page.get_by_role("form", name="RW-117 post").get_by_role("radio", name="fine")).to_be_focused()
    page.get_by_role("checkbox", name="its ends gape").press("Space")
    page.keyboard.press("Enter")
    expect(at(page, "RW-117 bridge: blank")).to_be_focused()
    page.keyboard.type("4")
    expect(page.get_by_label("Reason it was not inspected")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_have_text("Enter the reason why it was not inspected.")
    page.keyboard.type("under its cover")
    page.keyboard.press("Enter")
    expect(at(page, "RW-117 strings: blank")).to_be_focused()
    expect(says(page, "RW-117")).to_have_text("a luthierpost: its ends gape · bridge: not looked at; under its cover")

    page.keyboard.press("ArrowDown")
    page.keyboard.press("Home")
    expect(page.get_by_label("Tick RW-118")).to_be_focused()
    page.keyboard.press("End")
    page.keyboard.type("62")
    page.keyboard.press("Enter")
    expect(at(page, "RW-118 highest string, E")).to_have_accessible_name("RW-118 highest string, E: 62, doubted")
    page.keyboard.press("Escape")
    command(page, "u")
    expect(at(page, "RW-118 highest string, E")).to_have_accessible_name("RW-118 highest string, E: not measured")
    expect(page.get_by_role("status").first).to_have_text("1 of 5 needs a luthier, 1 nothing, 3 still open")

    page.keyboard.press("Escape")
    command(page, "m")
    expect(page.get_by_label("Tick RW-116")).to_be_checked()
    page.keyboard.press("Escape")
    command(page, "d")
    expect(page.get_by_label("What is said of them")).to_be_focused()
    page.get_by_label("What is said of them").select_option("need no looking over beyond this, because")
    page.get_by_label("Reason").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("Say why")
    page.get_by_label("Reason").fill("screened, nothing found")
    page.keyboard.press("Enter")
    expect(page.get_by_role("form", name="With those ticked")).to_contain_text("1 done.")
    page.get_by_label("What is said of them").select_option("are handed over")
    page.get_by_label("check at pitch done on each").check()
    page.get_by_label("why points stay open").fill("screened only")
    page.get_by_label("PIN").fill("140125")
    page.get_by_role("button", name="Apply to 1 selected").press("Enter")
    expect(page.get_by_role("row", name="RW-116")).to_have_count(0)
    page.get_by_role("button", name="Undo hand-over").press("Enter")
    expect(page.get_by_role("row", name="RW-116")).to_have_count(1)

    at(page, "RW-117 post: work needed").focus()
    command(page, "e")
    expect(page.get_by_role("main", name="Bench sheet")).to_be_visible()
    command(page, "i")
    expect(page.get_by_role("heading", name="Inspection")).to_be_visible()
    page.get_by_role("button", name="sound post work needed").press("Enter")
    expect(page.get_by_role("checkbox", name="its ends gape")).to_be_checked()
    page.set_input_files(
        'input[type="file"]', FilePayload(name="post.jpg", mimeType="image/jpeg", buffer=photograph("peru"))
    )
    page.get_by_role("button", name="the post's upper end").press("Enter")
    expect(page.get_by_role("region", name="Photographs").get_by_role("listitem")).to_have_count(2)


def test_what_is_said_while_the_server_is_away_waits_and_arrives(page: Page) -> None:
    """It outlives a reload, too."""
    screen(page, "Boathouse Band")
    expect(at(page, "RW-115 pegs: blank")).to_be_visible()
    server_is_back = intercept(page, "seen", Route.abort)
    at(page, "RW-115 pegs: blank").focus()
    page.keyboard.type("2")
    expect(page.get_by_text("1 entry waits here and will be sent")).to_be_visible()
    expect(at(page, "RW-115 pegs: watch")).to_be_visible()
    page.reload()
    expect(at(page, "RW-115 pegs: watch")).to_be_visible()
    server_is_back()
    expect(says(page, "RW-115")).to_contain_text("pegs: to watch")


def test_the_desk_reads_and_says_only_what_a_desk_may(page: Page) -> None:
    command(page, "b")
    expect(page.get_by_role("radio", name="Ilse Varnholt, owner")).to_be_focused()
    page.get_by_role("radio", name="Noor Halvorsen, desk").press("Space")
    page.keyboard.press("Enter")
    page.keyboard.type("490428")
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)
    screen(page, "Boathouse Band")
    at(page, "RW-115 pegs: blank").focus()
    page.keyboard.type("3")
    expect(at(page, "RW-115 pegs: blank")).to_be_focused()
    page.get_by_label("Tick RW-115").press("Space")
    expect(page.get_by_label("What is said of them").get_by_role("option")).to_have_text(
        ["are here for", "are promised for", "are needed for", "belong to"]
    )
