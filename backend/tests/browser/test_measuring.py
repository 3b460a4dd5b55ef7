"""A full measuring of one violin, caliper in hand: keys alone, digits and one Enter for each reading."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from .hands import command, name_strings, open_ticket, reading, type_readings

IN_FULL = (
    "48% 20,5 441Hz "  # the day
    "130 195 197 195.5 328 27 27.4 26.6 30.2 30.6 "  # neck, stop to three places, string, projection, tilt, nicks
    "270 24 42 42 41 -1 30 2,7 5 5.1 .4 .7 .5 .3 .5 .4 "  # board: length, widths, radii, lean, chord, rise, edge, scoop
    ".50 .45 .40 .35 5.00 4.70 4.20 3.30 .10 .20 .25 .20 16.3 33.5 4 4 "  # nut, board's end, slots, spreads, margins
    "41 4.5 1.4 16 "  # bridge
    "1 2.5 2.6 -.5 1 "  # bar, post behind and inside, top and bottom
    "54 6mm 158°"  # tail
)


def test_a_violin_is_measured_in_full_with_no_key_more_than_digits_and_enter(page: Page) -> None:
    open_ticket(page, "RW-115")
    command(page, "a")
    expect(page.get_by_role("main", name="Measuring")).to_be_visible()
    expect(page.get_by_label("humidity of the air: ·, not measured")).to_be_visible()
    expect(page.get_by_role("group", name="In hand")).to_contain_text("The hygrometer beside the bench")
    type_readings(page, IN_FULL)
    expect(page.get_by_role("status").first).to_have_text("57 of 57")
    expect(page.get_by_label("post inside the foot, top: ")).to_have_accessible_name("post inside the foot, top: −0.5")
    page.reload()
    expect(page.get_by_role("status").first).to_have_text("57 of 57")
    command(page, "e")
    expect(page.get_by_role("main", name="Bench sheet")).to_be_visible()
    command(page, "x")
    side = page.get_by_role("img", name="The instrument from its side")
    expect(side).to_have_accessible_name(
        "The instrument from its side. string length 328, projection 27, G 0.50 at the nut, E 0.35 at the nut, "
        "G 5.00 at the board's end, E 3.30 at the board's end, scoop 0.70 on the bass side, "
        "scoop 0.50 on the treble side, 158° over the bridge."
    )
    command(page, "x")
    expect(page.get_by_role("img", name="The instrument from above")).to_have_accessible_name(
        re.compile(
            "board 24 wide at the nut, 42 at its end.*the bar's outer edge 19.5 from the middle.*"
            "the neck points 0.2 to the bass side"
        )
    )
    command(page, "a")
    command(page, "u")
    expect(page.get_by_role("status").first).to_have_text("56 of 57")


def test_a_course_is_as_long_as_it_is_asked_for_and_a_place_is_told_by_others(page: Page) -> None:
    """What the bridge needs, a recheck, in full; arrows go about; a stop to the back tells the one to the middle."""
    open_ticket(page, "RW-115")
    command(page, "a")
    expect(page.get_by_role("status").first).to_have_text("0 of 57")
    command(page, "a")
    expect(page.get_by_role("status").first).to_have_text("0 of 20")
    command(page, "j")
    expect(page.get_by_role("status").first).to_have_text("0 of 18")
    command(page, "x")
    page.get_by_label("stop, to the back of its foot: ").click()
    type_readings(page, "197")
    expect(page.get_by_role("textbox", name="stop, to a third of its foot")).to_be_focused()
    page.keyboard.press("ArrowDown")
    expect(page.get_by_role("textbox", name="string length")).to_be_focused()
    page.get_by_label("thickness at the feet: ").click()
    type_readings(page, "4.5")
    expect(page.get_by_label("stop, to the bridge's middle: ")).to_have_accessible_name(
        "stop, to the bridge's middle: 194.8, derived, in band"
    )
    page.get_by_label("scoop, treble, in the middle: ").click()
    type_readings(page, "-.30")
    expect(page.get_by_label("scoop, treble, in the middle: ")).to_have_accessible_name(
        "scoop, treble, in the middle: −0.30, below"
    )
    page.get_by_label("width over the feet: ").click()
    type_readings(page, "-41")
    expect(page.get_by_label("width over the feet: ")).to_have_accessible_name("width over the feet: -41, not saved")
    page.get_by_label("width over the feet: ").click()
    expect(page.get_by_text("width over the feet cannot be negative; it was typed as -41")).to_be_visible()


def test_the_simulated_caliper_drives_a_whole_course(page: Page) -> None:
    """Chatty with its units, a press for each place; what none reads is typed. Offline it says so, nothing is lost."""
    by_hand = {
        "board radius": "42",
        "radius at the nut": "41",
        "board's lean": "0",
        "string's angle over the bridge": "158",
    }
    open_ticket(page, "RW-115")
    command(page, "a")
    expect(page.get_by_role("status").first).to_have_text("0 of 57")
    panel = page.get_by_role("group", name="In hand")
    panel.get_by_text("Simulated devices").press("Enter")
    panel.get_by_label("chatty with units").press("Space")
    page.get_by_role("textbox", name="humidity of the air: ").click()
    for i in range(57):
        place = panel.get_by_role("heading").inner_text().lower()
        panel.get_by_role("button", name="Send reading").press("Enter")
        if place in by_hand:
            expect(page.get_by_role("alert")).to_contain_text(f"No device here reads {place}")
            page.keyboard.press("Escape")
            type_readings(page, by_hand[place])
        expect(page.get_by_role("status").first).to_have_text(f"{i + 1} of 57")
    expect(page.get_by_label("pitch of its A: ")).to_have_accessible_name(re.compile(r": 44\d"))
    page.get_by_role("button", name="neck length: ").click()
    page.get_by_label("offline").press("Space")
    page.get_by_role("button", name="Send reading").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("The caliper does not answer")


def test_spacing_is_read_as_somebody_is_used_to_and_told_in_words(page: Page) -> None:
    """Marks from the edge instead of the spreads; what is uneven is said beside the place in hand, and drawn."""
    open_ticket(page, "RW-101")
    name_strings(page, 1)
    command(page, "a")
    page.get_by_label("spacing as").select_option("gaps")
    expect(page.get_by_role("status").first).to_have_text("0 of 61")
    page.get_by_label("spacing as").select_option("marks from the edge")
    page.get_by_label("G mark at the nut: ").click()
    type_readings(page, "3.8 8.9 14.6 20")
    page.get_by_label("E mark at the nut: ").click()
    panel = page.get_by_role("group", name="In hand")
    expect(panel).to_contain_text("The group stands 0.1 to the bass side")
    command(page, "e")
    expect(reading(page, "spread at the nut")).to_have_accessible_name("spread at the nut: 16.2, derived, in band")


def test_a_card_written_by_hand_goes_to_its_own_day_and_earlier_figures_stand_beside(page: Page) -> None:
    """The blank card is there to print; what was on it goes in with its date, and does not overwrite what is newer."""
    open_ticket(page, "RW-102")
    command(page, "a")
    page.get_by_label("compare with").select_option("what is wanted")
    page.keyboard.press("Escape")
    command(page, "d")
    card = page.get_by_role("main", name="Blank card")
    expect(card).to_contain_text("from the board's line to the nick")
    expect(card.get_by_text("want 130", exact=True)).to_be_visible()
    command(page, "e")
    page.get_by_label("neck length: ").click()
    type_readings(page, "130.5")
    command(page, "c")
    written = page.get_by_label("Written on")
    expect(written).to_be_focused()
    written.fill("2026-11-20T09:30")
    page.keyboard.press("Enter")
    expect(page.get_by_text("as written on a card on 20 November")).to_be_visible()
    page.get_by_label("neck length: ").click()
    type_readings(page, "129.5")
    page.get_by_label("waist: ").click()
    type_readings(page, "16.5")
    page.get_by_role("button", name="Finish measuring").click()
    expect(page.get_by_label("waist: ")).to_have_accessible_name(re.compile("waist: 16.5"))
    expect(page.get_by_label("neck length: ")).to_have_accessible_name(re.compile("neck length: 130.5"))
    expect(page.get_by_label("neck length: ")).to_have_accessible_name(re.compile("in band, want 130"))
    command(page, "i")
    page.get_by_label("waist: ").click()
    expect(page.get_by_text("about 21/32 in")).to_be_visible()
    command(page, "o")
    paper = page.get_by_role("main", name="Sheet on paper")
    row = paper.get_by_role("row").filter(has_text="waist")
    expect(row).to_contain_text("16.5 mm (21/32 in)")
    expect(row).to_contain_text("20 Nov")
