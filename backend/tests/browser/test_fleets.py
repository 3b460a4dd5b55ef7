"""A fleet of five is taken in by keyboard, and each has its tag."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from .hands import choose, command, go, held, open_ticket

HAND_OVER = """async () => {
    const token = (await (await fetch('/api/session')).json()).signed_in.form_token
    const body = { id: crypto.randomUUID(), pin: '140125', left_open: { '': 'the owner wants it back today' } }
    const headers = { 'X-Fidicula-Form': token, 'content-type': 'application/json' }
    await fetch('/api/instruments/RW-105/hand-over', { method: 'POST', headers, body: JSON.stringify(body) })
}"""


def test_a_fleet_of_five_is_taken_in_by_keyboard(page: Page) -> None:
    """What is common once, a line for each; a size that is none is named, and what was typed is still there."""
    command(page, "v")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_label("Owner or fleet")).to_be_focused()
    page.keyboard.type("Lantern Regatta school")
    choose(page, "What for", "look-over and estimate")
    choose(page, "Recipe that all of them follow", "Boathouse hire")
    dialog.get_by_label("Why it came, in the owner's words").fill("Which of these need a luthier?")
    dialog.get_by_label("Ticket of line 1").focus()
    for i in range(1, 5):
        page.keyboard.press("Enter")
        expect(dialog.get_by_label(f"Ticket of line {i + 1}")).to_be_focused()
    dialog.get_by_label("Size of line 2").fill("9/8")
    dialog.get_by_label("What differs in line 3").fill("a crack by the button")
    dialog.get_by_role("button", name="Add 5 instruments").press("Enter")
    expect(dialog.get_by_role("alert")).to_contain_text("no figures for a violin of size “9/8”")
    expect(dialog.get_by_label("What differs in line 3")).to_have_value("a crack by the button")
    dialog.get_by_label("Size of line 2").fill("3/4")
    dialog.get_by_role("button", name="Add 5 instruments").press("Enter")
    expect(dialog).to_have_count(0)
    command(page, "f")
    page.keyboard.type("lantern fleet")
    expect(page.get_by_role("link", name="Lantern Regatta school").filter(has_text="inspection")).to_have_count(5)
    page.keyboard.press("Escape")
    open_ticket(page, "RW-117")
    expect(page.get_by_text("violin 3/4 · Lantern Regatta school")).to_be_visible()
    expect(page.get_by_role("button", name="Boathouse hire")).to_be_visible()


def test_the_tags_hang_in_another_order(page: Page) -> None:
    """By ticket, then by the day each is due: the viola with its recording comes first."""
    open_ticket(page, "RW-105")
    tags = page.get_by_role("navigation", name="Instruments in the house").get_by_role("link")
    expect(tags.first).to_contain_text("RW-101")
    command(page, "q")
    expect(tags.first).to_contain_text("RW-104")
    page.reload()
    expect(tags.first).to_contain_text("RW-104")


def test_the_house_asks_for_the_next_hand_and_finds_what_was_handed_over(page: Page) -> None:
    """Those that are ready come first, by the day they are due; another order stays; arrows go from row to row."""
    house = page.get_by_role("main", name="In the house")
    ready = house.get_by_role("region", name="Ready").get_by_role("link")
    expect(ready.first).to_contain_text("RW-104")
    expect(house.get_by_role("region", name="Waiting").get_by_role("link").first).to_contain_text("RW-112")
    ready.first.focus()
    page.keyboard.press("ArrowDown")
    expect(ready.nth(1)).to_be_focused()
    house.get_by_label("sorted by").select_option("owner")
    page.reload()
    expect(house.get_by_role("link").first).to_contain_text("Boathouse Band")
    page.evaluate(HAND_OVER)
    command(page, "f")
    page.keyboard.type("kallio")
    gone = house.get_by_role("region", name="Handed over").get_by_role("link", name="RW-105")
    expect(gone).to_be_visible()
    gone.press("Enter")
    expect(page.get_by_text("Handed over just now by Ilse Varnholt")).to_be_visible()


def test_whoever_goes_on_after_a_fleet_came_in_is_not_called_back(page: Page) -> None:
    """The list of tags is long on its way; meanwhile somebody is at another page already."""
    command(page, "v")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_label("Owner or fleet")).to_be_focused()
    page.keyboard.type("Lantern Regatta school")
    choose(page, "What for", "look-over and estimate")
    with held(page, "api/rail"):
        dialog.get_by_role("button", name="Add instrument").press("Enter")
        expect(dialog).to_have_count(0)
        go(page, "/drawers")
    expect(page.get_by_text("RW-116")).to_have_count(1)
    assert page.url.endswith("/drawers")
