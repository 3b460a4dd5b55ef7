"""Through the door by keyboard: a new violin for strings, and a cello that comes back for a full set-up."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from .hands import choose, command, open_ticket, reading, type_readings


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
    choose(page, "What for", "strings")
    dialog.get_by_label("Owner or fleet").fill("Øyvind Þór")
    page.keyboard.press("Enter")
    expect(page.get_by_text("Øyvind Þór · strings")).to_be_visible()
    course = page.get_by_role("list", name="Course of this visit")
    expect(course).to_contain_text("Change strings")
    expect(course).not_to_contain_text("Crown")
    expect(page.get_by_label("What to do now")).to_contain_text("Measure heights at the board's end")
    command(page, "s")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_role("radio").first).to_be_focused()
    dialog.get_by_label("they were put on just now").press("Space")
    page.keyboard.press("Enter")
    expect(dialog).to_have_count(0)
    expect(page.get_by_label("What to do now")).to_contain_text("Measure")
    expect(course.get_by_role("button", name="Settle until")).to_be_visible()
    type_readings(page, "5 4.4 3.8 3.2")
    expect(page.get_by_label("What to do now")).to_contain_text("Strings changed: let it rest until")
    command(page, "t")
    expect(page.get_by_role("radio", name="end the wait now")).to_be_focused()
    page.get_by_label("Why, kept and printed").fill("steel, tuned up twice")
    page.keyboard.press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)
    command(page, "t")
    expect(page.get_by_role("radio", name="it is done")).to_be_focused()
    page.keyboard.press("Enter")
    expect(page.get_by_label("What to do now")).to_contain_text("hand over")


def test_a_cello_comes_back_with_last_times_figures_and_its_projection_bars_the_crown(page: Page) -> None:
    """RW-087 went home in band. It comes back for a full set-up with a sunken projection."""
    command(page, "n")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_label("Has it been here?")).to_be_focused()
    page.keyboard.type("tarrow")
    dialog.get_by_role("button", name="RW-087 cello 4/4, Elin Tarrow").press("Enter")
    expect(dialog.get_by_text("It opens with last time's figures.")).to_be_visible()
    choose(page, "What for", "full set-up")
    dialog.get_by_label("Why it came, in the owner's words").fill("Back from the tour.")
    page.keyboard.press("Enter")
    expect(page.get_by_text("“Back from the tour.”")).to_be_visible()
    expect(page.get_by_label("What to do now")).to_contain_text("Inspect the instrument")
    expect(reading(page, "C at the board's end")).to_have_accessible_name(
        "C at the board's end: ·, not measured, was 7.40"
    )
    expect(page.get_by_text("last time 7.4")).to_be_visible()
    type_readings(page, "8.9 8.2 7.4 6.4 .9 .8 .7 .6 .5 .4 .35 .3 76.9")
    expect(page.get_by_role("heading", name="Inspect the instrument")).to_be_visible()
    expect(page.get_by_role("button", name="Record: crown cut")).to_have_count(0)
    crown = page.get_by_role("list", name="Course of this visit").get_by_role("button", name="Crown, not yet")
    expect(crown).to_be_visible()
    command(page, "d")
    expect(page.get_by_role("radio", name="A wedge under the board")).to_be_focused()
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    page.keyboard.type("plays it so")
    page.keyboard.press("Enter")
    expect(page.get_by_text("accept it with a reason, Ilse Varnholt: plays it so")).to_be_visible()
    expect(page.get_by_role("button", name="Record: crown cut")).to_be_visible()


def test_a_deadline_is_written_in_later_and_two_people_lose_no_word(page: Page) -> None:
    """The desk wrote meanwhile: whoever keeps second is shown both, and what was typed is still there."""
    open_ticket(page, "RW-114")
    command(page, "i", own=True)
    field = page.get_by_label("Why it came, in the owner's words")
    expect(field).to_be_focused()
    page.evaluate(
        """async () => {
            const { signed_in } = await (await fetch('/api/session')).json()
            const changes = [{ field: 'complaint', was: 'Bridge too high.', now: 'Bridge too high; a peg slips.' }]
            await fetch('/api/instruments/RW-114/particulars', {
                method: 'PATCH',
                headers: { 'Content-Type': 'application/json', 'X-Fidicula-Form': signed_in.form_token },
                body: JSON.stringify({ changes }),
            })
        }"""
    )
    field.fill("Bridge too high, and it hums.")
    page.get_by_role("button", name="Save", exact=True).press("Enter")
    expect(page.get_by_role("dialog").get_by_role("alert").first).to_contain_text("“Bridge too high; a peg slips.”")
    expect(field).to_have_value("Bridge too high, and it hums.")
    field.fill("Bridge too high, and it hums; a peg slips.")
    page.get_by_role("button", name="Save", exact=True).press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)
    expect(page.get_by_text("“Bridge too high, and it hums; a peg slips.”")).to_be_visible()
