"""Slips, refusals and a server that goes away: nothing typed is lost, nothing stands in the way."""

from __future__ import annotations

import re
from collections.abc import Callable

import pytest
from playwright.sync_api import Page, Route, expect

from .hands import READINGS, command, held, intercept, name_strings, open_ticket, reading, type_readings, wood


@pytest.fixture
def bench(page: Page) -> Page:
    open_ticket(page, "RW-101")
    name_strings(page, downs=1)
    return page


def test_a_reading_that_leaps_stops_where_it_was_typed_until_one_key_says_what_it_is(bench: Page) -> None:
    """What is typed on is held for the next places; m takes what was meant, r what is held, k keeps it, Esc anew."""
    type_readings(bench, "55")
    stop = bench.get_by_role("group", name="Bench card").get_by_role("alert")
    expect(stop).to_contain_text("55 mm is very large for G at the board's end, usually about 5. Did you mean 5.5 mm?")
    type_readings(bench, "5.75")
    g, d = reading(bench, "G at the board's end"), reading(bench, "D at the board's end")
    expect(stop).to_contain_text("Held for the next places: 5.75")
    expect(g).to_be_focused()
    expect(g).to_have_value("")
    expect(d).to_have_accessible_name("D at the board's end: ·, not measured")
    bench.keyboard.press("m")
    expect(g).to_have_accessible_name("G at the board's end: 5.50, in band")
    expect(d).to_have_accessible_name("D at the board's end: 5.75, above")
    type_readings(bench, "52")
    expect(stop).to_contain_text("52 mm is very large for A")
    type_readings(bench, "5.2")
    bench.keyboard.press("r")
    expect(reading(bench, "A at the board's end")).to_have_accessible_name("A at the board's end: 5.20, above")
    type_readings(bench, "43")
    expect(stop).to_contain_text("43 mm is very large for E")
    bench.keyboard.press("k")
    expect(reading(bench, "E at the board's end")).to_have_accessible_name("E at the board's end: 43.00, above")


def test_a_leap_stops_without_a_server_too(bench: Page) -> None:
    server_is_back = intercept(bench, "readings", Route.abort)
    type_readings(bench, "12.6")
    stop = bench.get_by_role("group", name="Bench card").get_by_role("alert")
    expect(stop).to_contain_text("12.6 is far from what is usual here, 2 to 12.5: was it read so?")
    bench.keyboard.press("k")
    type_readings(bench, "5.75")
    expect(bench.get_by_text("3 entries wait here")).to_be_visible()
    server_is_back()
    expect(reading(bench, "G at the board's end")).to_have_accessible_name("G at the board's end: 12.60, above")


def test_enter_on_a_doubted_reading_keeps_it_as_typed(bench: Page) -> None:
    """Left as it was, and looked at again later."""
    type_readings(bench, "12.6")
    bench.keyboard.press("ArrowRight")
    bench.keyboard.press("ArrowLeft")
    expect(bench.get_by_role("button", name="Enter keeps 12.6")).to_be_visible()
    bench.keyboard.press("Enter")
    expect(reading(bench, "G at the board's end")).to_have_accessible_name("G at the board's end: 12.60, above")


def test_space_and_digits_belong_to_what_has_the_focus(bench: Page) -> None:
    """A button that was clicked is not pressed again by Space; a field's digits stay in it; both can be turned off."""
    bench.get_by_role("button", name="Side", exact=True).click()
    bench.keyboard.press("Space")
    expect(bench.get_by_role("menu", name="Commands")).to_be_focused()
    bench.keyboard.press("b")
    dialog = bench.get_by_role("dialog")
    dialog.get_by_label("Digits typed anywhere start a reading").uncheck()
    dialog.get_by_role("button", name="Done").click()
    expect(dialog).to_have_count(0)
    bench.get_by_role("button", name="Plan", exact=True).click()
    bench.keyboard.type("6")
    expect(bench.locator("input[data-reading]")).to_have_value("")
    bench.locator("input[data-reading]").press("Space")
    expect(bench.get_by_role("menu", name="Commands")).to_have_count(0)


def test_an_open_strip_keeps_the_keys_until_it_is_left(bench: Page) -> None:
    """What a late answer puts the focus on has it once the strip closes; a press elsewhere closes it."""
    strip = bench.get_by_role("menu", name="Commands")
    field = bench.locator("input[data-reading]")
    bench.get_by_role("button", name="Side", exact=True).focus()
    bench.keyboard.press("Escape")
    bench.keyboard.press("Space")
    expect(strip).to_be_focused()
    field.focus()
    expect(strip).to_be_focused()
    bench.keyboard.press("Escape")
    expect(field).to_be_focused()
    bench.keyboard.press("Space")
    expect(strip).to_be_focused()
    bench.get_by_role("button", name="Plan", exact=True).click()
    expect(strip).to_have_count(0)


def test_a_soft_keyboard_that_sends_words_and_no_keys_reads_too(bench: Page) -> None:
    bench.locator("input[data-reading]").focus()
    for typed in ("6,10", "5.75"):
        bench.keyboard.insert_text(typed)
        bench.keyboard.press("Enter")
    expect(reading(bench, "G at the board's end")).to_have_accessible_name("G at the board's end: 6.10, above")
    open_ticket(bench, "RW-102")
    bench.get_by_role("link", name="Sound", exact=True).click()
    expect(bench.get_by_role("main", name="Sound")).to_be_visible()
    command(bench, "s")
    grid = bench.locator("input[data-key]")
    first = grid.first
    first.focus()
    bench.keyboard.insert_text("4")
    expect(first).to_have_value("4")
    expect(grid.nth(1)).to_be_focused()


def test_the_tool_in_hand_shows_changes_by_a_key_and_is_put_back(bench: Page) -> None:
    """A wedge for the heights is a wedge for these heights alone, not for the next measure or instrument."""
    foot = bench.locator("#in-hand")
    expect(foot.get_by_role("button", name="Read with: t caliper, straight up")).to_be_visible()
    bench.keyboard.press("t")
    expect(foot.get_by_role("button", name="Read with: t wedge or card, the shortest way")).to_be_visible()
    type_readings(bench, "5.6")
    expect(foot.get_by_role("button", name="Read with: t wedge or card, the shortest way")).to_be_visible()
    reading(bench, "G at the nut").click()
    type_readings(bench, ".5")
    reading(bench, "D at the board's end").click()
    expect(foot.get_by_role("button", name="Read with: t caliper, straight up")).to_be_visible()
    bench.keyboard.press("t")
    open_ticket(bench, "RW-105")
    bench.get_by_role("link", name="RW-101").click()
    expect(foot.get_by_role("button", name="Read with: t caliper, straight up")).to_be_visible()


def test_what_is_no_measurement_stays_where_it_was_typed(bench: Page) -> None:
    type_readings(bench, "5.x 5.75")
    expect(bench.get_by_role("alert")).to_contain_text("G at the board's end: the unit “x” is not known here")
    expect(reading(bench, "G at the board's end")).to_have_accessible_name("G at the board's end: 5.x, not saved")
    expect(reading(bench, "D at the board's end")).to_have_accessible_name("D at the board's end: 5.75, above")
    bench.keyboard.press("ArrowLeft")
    bench.keyboard.press("ArrowLeft")
    expect(bench.locator("input[data-reading]")).to_have_value("5.x")
    bench.keyboard.press("Backspace")
    type_readings(bench, "5")
    expect(reading(bench, "G at the board's end")).to_have_accessible_name("G at the board's end: 5.50, in band")


def test_readings_wait_while_the_server_is_away_and_outlive_a_reload(bench: Page) -> None:
    server_is_back = intercept(bench, "readings", Route.abort)
    type_readings(bench, "6.10 5.75")
    expect(bench.get_by_text("2 entries wait here and will be sent")).to_be_visible()
    expect(reading(bench, "G at the board's end")).to_have_accessible_name("G at the board's end: 6.10, waits")
    bench.reload()
    expect(reading(bench, "G at the board's end")).to_have_accessible_name("G at the board's end: 6.10, waits")
    server_is_back()
    expect(reading(bench, "G at the board's end")).to_have_accessible_name(
        "G at the board's end: 6.10, above", timeout=15_000
    )
    expect(wood(bench, "D")).to_contain_text("1.7")


def test_undo_takes_back_the_newest_reading_even_while_it_is_on_its_way(bench: Page) -> None:
    with held(bench, "readings"):
        type_readings(bench, "6.10 5.75")
        command(bench, "u")
    expect(reading(bench, "D at the board's end")).to_have_accessible_name("D at the board's end: ·, not measured")
    expect(reading(bench, "G at the board's end")).to_have_accessible_name("G at the board's end: 6.10, above")


def sent_one_by_one(page: Page, first: str, rest: str) -> Callable[[], None]:
    """Type with the network held, then let each pass but the last; what is given back lets that pass too."""
    kept: list[Route] = []
    let_through = intercept(page, "readings", kept.append)

    def arrived() -> Route:
        while not kept:
            page.wait_for_timeout(20)
        return kept.pop()

    type_readings(page, first)
    held = arrived()
    type_readings(page, rest)
    for _ in rest.split():
        held.continue_()
        held = arrived()

    def last() -> None:
        let_through()
        held.continue_()

    return last


def test_a_reading_that_arrived_stays_in_sight_until_a_sheet_tells_of_it(bench: Page) -> None:
    """Of many on their way only the last is answered with the sheet: Enter goes on from what was typed meanwhile."""
    last = sent_one_by_one(bench, "6.10", "5.75 5.20 4.30 .85")
    type_readings(bench, ".80 .70")
    d = reading(bench, "D at the board's end")
    expect(reading(bench, "E at the nut")).to_be_focused()
    expect(d).to_have_accessible_name("D at the board's end: 5.75, waits")
    last()
    expect(d).to_have_accessible_name("D at the board's end: 5.75, above")
    expect(reading(bench, "A at the nut")).to_have_accessible_name("A at the nut: 0.70, above")


def test_a_reading_that_arrived_shows_though_the_one_behind_it_is_refused(bench: Page) -> None:
    last = sent_one_by_one(bench, "6.10", "5.75 5.2.0")
    last()
    expect(bench.get_by_role("alert").filter(has_text="5.2.0")).to_be_visible()
    expect(reading(bench, "D at the board's end")).to_have_accessible_name("D at the board's end: 5.75, above")


def test_undo_of_a_reading_that_could_not_be_sent_drops_it_here(bench: Page) -> None:
    intercept(bench, "readings", Route.abort)
    type_readings(bench, "6.10 5.75")
    expect(bench.get_by_text("2 entries wait here")).to_be_visible()
    command(bench, "u")
    expect(bench.get_by_text("1 entry waits here")).to_be_visible()


def test_a_reading_typed_while_the_work_is_still_on_its_way_counts_as_after_it(bench: Page) -> None:
    type_readings(bench, READINGS)
    expect(wood(bench, "G")).to_have_accessible_name("G, file the nut: 0.29 ±0.11 mm. Why?")
    with held(bench, "works"):
        command(bench, "j")
        bench.get_by_role("dialog").get_by_label("G", exact=True).press("Enter")
        bench.get_by_role("dialog").wait_for(state="hidden")
        type_readings(bench, ".5")
    expect(reading(bench, "A at the nut")).to_have_accessible_name("A at the nut: 0.70, stale")
    expect(reading(bench, "G at the nut")).to_have_accessible_name("G at the nut: 0.50, in band")


def test_half_typed_figures_outlive_leaving_the_sheet(bench: Page) -> None:
    bench.keyboard.type("6.1")
    open_ticket_from_input(bench, "RW-102")
    open_ticket(bench, "RW-101")
    expect(bench.locator("input[data-reading]")).to_have_value(re.compile(r"6\.1\s?"))


def open_ticket_from_input(page: Page, ticket: str) -> None:
    """Space opens the strip also while a reading is in hand, the second one: the first may stand before a unit."""
    page.keyboard.press("Space")
    command(page, "f")
    page.keyboard.type(ticket)
    page.keyboard.press("Enter")
    expect(page.get_by_role("navigation").get_by_role("link", name=ticket)).to_have_attribute("aria-current", "page")


def test_letters_alone_do_nothing(bench: Page) -> None:
    """A bare letter, outside of the strip, runs no command and starts no reading."""
    bench.locator("body").click(position={"x": 5, "y": 400})
    for letter in "ncuhsw":
        bench.keyboard.press(letter)
    bench.locator("input[data-reading]").focus()
    bench.keyboard.type("ncu")
    expect(bench.get_by_role("dialog")).to_have_count(0)
    expect(bench.locator("input[data-reading]")).to_have_value("")


def test_a_shape_that_cannot_be_says_which_reading_makes_it_so(bench: Page) -> None:
    type_readings(bench, "6.1")
    for _ in range(4):
        bench.keyboard.press("ArrowRight")
    expect(reading(bench, "projection")).to_be_focused()
    bench.keyboard.press("ArrowDown")
    bench.keyboard.press("ArrowDown")
    type_readings(bench, "330")
    expect(bench.get_by_role("heading", name="This shape cannot be")).to_be_visible()
    word = bench.get_by_role("group", name="What the sheet says")
    expect(word.get_by_text("Check the board length: 330 mm, measured.")).to_be_visible()


def test_repeats_with_shift_enter_are_meant(bench: Page) -> None:
    bench.keyboard.type("6.0")
    bench.keyboard.press("Shift+Enter")
    bench.keyboard.type("6.2")
    bench.keyboard.press("Enter")
    g = reading(bench, "G at the board's end")
    expect(g).to_have_accessible_name("G at the board's end: 6.10, above")
    expect(g).to_contain_text("×2, 0.20 apart")


def test_a_slip_where_the_same_is_asked_once_more_stops_as_well_and_shows_what_was_read(bench: Page) -> None:
    """The E stands at the card's edge: what is asked of it stands inside; what counted before is not what is kept."""
    e = reading(bench, "E at the board's end")
    e.click()
    bench.keyboard.type("4.3")
    bench.keyboard.press("Shift+Enter")
    bench.keyboard.type("43")
    bench.keyboard.press("Enter")
    stop = bench.get_by_role("group", name="Bench card").get_by_role("alert")
    expect(stop).to_contain_text("43 mm is very large for E")
    asked, panel = stop.bounding_box(), bench.get_by_role("main").bounding_box()
    assert asked is not None
    assert panel is not None
    assert asked["x"] + asked["width"] <= panel["x"] + panel["width"]
    bench.keyboard.press("ArrowLeft")
    expect(e).to_have_accessible_name("E at the board's end: 43, doubted")
    bench.keyboard.press("ArrowRight")
    expect(bench.get_by_role("button", name="Enter keeps 43")).to_be_visible()


def test_after_a_reload_digits_go_where_the_main_button_says(bench: Page) -> None:
    """Slots are stale after the cut as well; the heights are what is asked for."""
    type_readings(bench, READINGS)
    command(bench, "k")
    dialog = bench.get_by_role("dialog")
    dialog.get_by_role("radio", name="crown cut").check()
    dialog.get_by_role("button", name="Save").press("Enter")
    expect(bench.get_by_role("button", name="Measure: G at the board's end")).to_be_visible()
    expect(bench.locator("#in-hand")).to_contain_text("G at the board's end")
    bench.reload()
    expect(bench.get_by_role("button", name="Measure: G at the board's end")).to_be_visible()
    bench.keyboard.type("5.6")
    expect(reading(bench, "G at the board's end")).to_have_value("5.6")


def test_an_unknown_ticket_leads_back_to_the_rail(page: Page) -> None:
    page.goto(page.url.rstrip("/") + "/bench/RW-999")
    expect(page.get_by_role("alert")).to_contain_text("There is no instrument with the ticket RW-999")
    page.get_by_role("link", name="Back to the house").click()
    expect(page.get_by_role("heading", name="In the house")).to_be_visible()


def test_a_figure_typed_over_what_was_refused_begins_anew(page: Page) -> None:
    """A caliper knows nothing of a refusal: its next figure is not put behind the words that were none."""
    open_ticket(page, "RW-114")
    page.keyboard.type("5x")
    page.keyboard.press("Enter")
    expect(page.get_by_text("G slot depth: the unit “x” is not known here")).to_be_visible()
    page.keyboard.type("0,28 mm")
    page.keyboard.press("Enter")
    expect(reading(page, "G slot depth")).to_have_accessible_name("G slot depth: 0.28")
