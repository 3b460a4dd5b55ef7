"""From an inspection to an estimate, an approval, growth, and work done, by keyboard."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from .hands import command, held


def test_an_estimate_is_made_approved_grown_stopped_and_approved_again(page: Page, address: str) -> None:
    """RW-109 of the island: its seam and its neck were found; cleaning is added underway."""
    page.goto(f"{address}/bench/RW-109/plan")
    todo = page.get_by_role("complementary", name="To do")
    page.get_by_role("button", name="Plan what was found").press("Enter")
    lines = page.get_by_role("list", name="Works in their order")
    expect(lines.get_by_role("listitem").first).to_contain_text("Seam glued")
    expect(lines).to_contain_text("found: the neck points to the bass side")
    least = todo.get_by_role("radio", name="the least that makes it playable")
    least.press("Space")
    expect(todo.get_by_text("€20.16").first).to_be_visible()
    todo.get_by_role("radio", name="all of it").press("Space")
    expect(todo.get_by_text("€512.16 is 57 % of the €900.00 that it is worth.")).to_be_visible()

    command(page, "a", own=True)
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_label("Who agreed")).to_have_value("Island family")
    dialog.get_by_label("Up to").fill("1,2,3")
    page.keyboard.press("Enter")
    expect(dialog.get_by_text("type an amount with one decimal mark")).to_be_visible()
    expect(dialog.get_by_label("Who agreed")).to_have_value("Island family")
    dialog.get_by_label("Up to").fill("")
    page.keyboard.press("Enter")
    expect(dialog).to_have_count(0)
    expect(todo.get_by_text("Spent so far €0.00 of €512.16")).to_be_visible()

    seam = lines.get_by_role("listitem").filter(has_text="Seam glued")
    # What is entered while another act is on its way waits its turn.
    with held(page, "begin"):
        command(page, "t", own=True)
        page.get_by_label("another work").select_option("Cleaned")
        page.get_by_label("found underway, because").fill("rosin under the board")
        page.keyboard.press("Enter")
    expect(seam.get_by_text("Ilse Varnholt is at it")).to_be_visible()
    expect(todo.get_by_text("Not approved yet: Cleaned")).to_be_visible()
    cleaned = lines.get_by_role("listitem").filter(has_text="found underway: rosin under the board")
    cleaned.get_by_role("button", name="Cleaned").press("Enter")
    expect(cleaned.get_by_text("It was added after the owner approved: ask again.")).to_be_visible()
    expect(cleaned.get_by_role("button", name="Begin")).to_be_disabled()

    page.reload()
    seam.get_by_role("button", name="Seam glued").press("Enter")
    seam.get_by_label("minutes that it took").fill("nine")
    page.keyboard.press("Enter")
    expect(seam.get_by_role("alert")).to_contain_text("Minutes: type an amount")
    expect(seam.get_by_label("minutes that it took")).to_have_value("nine")
    seam.get_by_label("minutes that it took").fill("25")
    page.keyboard.press("Enter")
    expect(seam.get_by_text("in 25 min")).to_be_visible()
    expect(todo.get_by_text("Spent so far €18.00 of €512.16")).to_be_visible()
    command(page, "a", own=True)
    expect(dialog.get_by_label("Who agreed")).to_be_focused()
    page.keyboard.press("Enter")
    expect(dialog).to_have_count(0)
    expect(todo.get_by_text("Not approved yet")).to_have_count(0)

    page.get_by_role("link", name="The estimate for the owner").press("Enter")
    paper = page.get_by_role("main", name="Estimate")
    expect(paper.get_by_role("heading", name="Estimate for RW-109")).to_be_visible()
    expect(paper).to_contain_text("Tap round and clean off")


def test_a_part_is_reserved_counted_and_priced(page: Page, address: str) -> None:
    """A new bridge takes a blank from the drawers, where it is counted in and its price is typed with a comma."""
    page.goto(f"{address}/drawers")
    expect(page.get_by_role("status").filter(has_text="to be reordered")).to_be_visible()
    command(page, "e", own=True)
    page.keyboard.type("violin fine")
    blank = page.get_by_role("button", name="violin blank 41, fine")
    blank.press("Enter")
    panel = page.get_by_role("region", name="violin blank 41, fine")
    expect(panel.get_by_text("3 here")).to_be_visible()
    panel.get_by_role("radio", name="went").press("Space")
    panel.get_by_label("how many").fill("4")
    page.keyboard.press("Enter")
    expect(panel.get_by_role("alert")).to_have_text("There are 3 of violin blank 41, fine: no more can go.")
    expect(panel.get_by_label("how many")).to_have_value("4")
    panel.get_by_role("radio", name="price from now on").press("Space")
    panel.get_by_label("price of one").fill("22,50")
    page.keyboard.press("Enter")
    expect(panel.get_by_text("€22.50")).to_be_visible()

    page.goto(f"{address}/bench/RW-109/plan")
    page.get_by_label("another work").select_option("New bridge")
    page.get_by_role("button", name="Add to the plan").press("Enter")
    lines = page.get_by_role("list", name="Works in their order")
    lines.get_by_role("button", name="New bridge").press("Enter")
    page.get_by_label("bridge blank").select_option(label="violin blank 41, fine, 41 mm, €22.50, 3 free")
    page.get_by_role("button", name="Reserve").first.press("Enter")
    expect(page.get_by_text("1 × violin blank 41, fine, €22.50")).to_be_visible()
    page.goto(f"{address}/drawers")
    expect(page.get_by_role("row").filter(has_text="violin blank 41, fine")).to_contain_text("of 3")
