"""A full measuring of one violin, caliper in hand: keys alone, digits and one Enter for each reading."""

from __future__ import annotations

import re

from playwright.sync_api import Page, expect

from .hands import command, open_ticket, type_readings

IN_FULL = (
    "130 195 197 195.5 328 27 27.4 26.6 30.2 30.6 "  # neck, stop to three places, string, projection, tilt, nicks
    "270 24 42 42 30 2,7 5 5.1 .4 .7 .5 .3 .5 .4 "  # board: length, widths, radius, chord, rise, edges, scoop
    ".50 .45 .40 .35 5.00 4.70 4.20 3.30 .10 .20 .25 .20 16.3 33.5 4 4 "  # nut, board's end, slots, spreads, margins
    "41 4.5 1.4 16 "  # bridge
    "1 2.5 2.6 -.5 1 "  # bar, post behind and inside, top and bottom
    "54 6mm 158°"  # tail
)


def test_a_violin_is_measured_in_full_with_no_key_more_than_digits_and_enter(page: Page) -> None:
    open_ticket(page, "RW-115")
    command(page, "a")
    expect(page.get_by_role("main", name="Measuring")).to_be_visible()
    expect(page.get_by_label("neck length: ·, not measured")).to_be_visible()
    expect(page.get_by_role("complementary", name="In hand")).to_contain_text("From the nut's front edge to the edge")
    type_readings(page, IN_FULL)
    expect(page.get_by_role("status").first).to_have_text("52 of 52")
    expect(page.get_by_label("post inside the foot, top: ")).to_have_accessible_name("post inside the foot, top: −0.5")
    page.reload()
    expect(page.get_by_role("status").first).to_have_text("52 of 52")
    command(page, "e")
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
    expect(page.get_by_role("status").first).to_have_text("51 of 52")


def test_a_course_is_as_long_as_it_is_asked_for_and_a_place_is_told_by_others(page: Page) -> None:
    """What the bridge needs, a recheck, in full; arrows go about; a stop to the back tells the one to the middle."""
    open_ticket(page, "RW-115")
    command(page, "a")
    expect(page.get_by_role("status").first).to_have_text("0 of 52")
    command(page, "a")
    expect(page.get_by_role("status").first).to_have_text("0 of 18")
    command(page, "j")
    expect(page.get_by_role("status").first).to_have_text("0 of 15")
    command(page, "x")
    page.get_by_label("stop, to the back of its foot: ").click()
    type_readings(page, "197")
    expect(page.get_by_role("textbox", name="stop, to a third of its foot")).to_be_focused()
    page.keyboard.press("ArrowDown")
    expect(page.get_by_role("textbox", name="string length")).to_be_focused()
    page.get_by_label("thickness at the feet: ").click()
    type_readings(page, "4.5")
    expect(page.get_by_label("stop, to the bridge's middle: ")).to_have_accessible_name(
        "stop, to the bridge's middle: 194.8, told by others, in band"
    )
    page.get_by_label("scoop, treble, in the middle: ").click()
    type_readings(page, "-.30")
    expect(page.get_by_label("scoop, treble, in the middle: ")).to_have_accessible_name(
        "scoop, treble, in the middle: −0.30, below"
    )
    page.get_by_label("width over the feet: ").click()
    type_readings(page, "-41")
    expect(page.get_by_label("width over the feet: ")).to_have_accessible_name("width over the feet: -41, not taken")
    page.get_by_label("width over the feet: ").click()
    expect(page.get_by_text("width over the feet cannot be negative; it was typed as -41")).to_be_visible()


def test_the_simulated_caliper_drives_a_whole_course(page: Page) -> None:
    """Chatty with its units, a press for each place; the one angle is typed. Offline it says so and nothing is lost."""
    open_ticket(page, "RW-115")
    command(page, "a")
    expect(page.get_by_role("status").first).to_have_text("0 of 52")
    page.get_by_text("Simulated caliper").press("Enter")
    page.get_by_label("chatty with units").press("Space")
    page.get_by_role("button", name="neck length: ").or_(page.get_by_role("textbox", name="neck length: ")).click()
    for i in range(51):
        page.get_by_role("button", name="It sends").press("Enter")
        expect(page.get_by_role("status").first).to_have_text(f"{i + 1} of 52")
    page.get_by_role("button", name="It sends").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("A caliper does not read string's angle over the bridge")
    page.keyboard.press("Escape")
    page.keyboard.type("158")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").first).to_have_text("52 of 52")
    page.get_by_role("button", name="neck length: ").click()
    page.get_by_label("offline").press("Space")
    page.get_by_role("button", name="It sends").press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("The caliper does not answer")
