"""A session with a player, by keyboard: the trail followed, continued, and taken back to its best place."""

from __future__ import annotations

import re
from typing import Any

from fidicula.hosting.serving import CHROMIUM, CHROMIUM_ARGUMENTS
from playwright.sync_api import Browser, Locator, Page, Route, expect

from ..conftest import signed_in
from .hands import command, intercept, open_ticket, type_readings


def trail(page: Page) -> Locator:
    return page.get_by_role("list", name="The trail, newest first")


def newest(page: Page) -> Locator:
    return trail(page).get_by_role("listitem").first


def to_sound(page: Page, ticket: str = "RW-102") -> Locator:
    open_ticket(page, ticket)
    command(page, "0")
    main = page.get_by_role("main", name="Sound")
    expect(main).to_be_visible()
    return main


def test_the_trail_is_followed_continued_and_taken_back(page: Page) -> None:
    """RW-102: too much at place 5; gauged there, the way back to place 4 is 0.4 toward the bridge at the bottom."""
    main = to_sound(page)
    expect(main).to_contain_text("Best so far: place 4, 3.8.")
    expect(newest(page)).to_contain_text("bottom, 2 taps toward the tailpiece")
    expect(newest(page)).to_contain_text("warmth of the E −2")
    main.get_by_role("button", name="place 3, top").press("Enter")
    heard = page.get_by_role("region", name="Place 3")
    expect(heard).to_contain_text("“opening”")
    expect(heard).to_contain_text("gauge both ends when there is time")
    command(page, "x")
    expect(page.get_by_label("course", exact=True)).to_have_value("post")
    type_readings(page, "2.3 2,2 3.1 2.1")
    expect(page.get_by_label(re.compile("^post inside the foot, bottom: 2.1$"))).to_be_visible()
    command(page, "0")
    expect(main).to_be_visible()
    command(page, "k")
    asked = page.get_by_role("form", name="Back to a place")
    expect(asked.get_by_role("textbox")).to_be_focused()
    expect(asked.get_by_role("textbox")).to_have_value("4")
    page.keyboard.press("Enter")
    expect(newest(page)).to_contain_text("back to place 4: top stays, bottom 0.4 mm toward the bridge")

    page.keyboard.press("Escape")
    command(page, "s")
    expect(page.get_by_label("even, the whole")).to_be_focused()
    page.keyboard.type("4444")
    page.keyboard.type("4444")
    expect(page.get_by_label("clarity of the E")).to_be_focused()
    page.keyboard.press("9")
    expect(page.get_by_role("alert")).to_contain_text("clarity of the E goes from 1 to 5; 9 was not taken.")
    hidden = page.get_by_role("checkbox", name="hide earlier results")
    hidden.check()
    expect(trail(page)).to_have_count(0)
    expect(main).to_contain_text("is hidden until the player has said")
    page.get_by_role("button", name="open", exact=True).press("Enter")
    page.get_by_label("another word").fill("like the river")
    page.get_by_label("another word").press("Enter")
    page.reload()
    expect(main).to_be_visible()
    command(page, "s")
    expect(page.get_by_label("loud, the whole")).to_have_value("4")
    page.get_by_role("button", name="Save rating").press("Enter")
    expect(newest(page)).to_contain_text("4.0 of 5")
    expect(newest(page)).to_contain_text("“open”, “like the river”")
    expect(main).to_contain_text("It is the best so far.")
    command(page, "u")
    expect(main.get_by_role("status")).to_contain_text("The last rating is undone.")
    command(page, "u")
    expect(newest(page)).to_contain_text("bottom, 2 taps toward the tailpiece")


def test_a_move_without_a_direction_keeps_what_was_typed(page: Page) -> None:
    """From the sheet's works too: a move of the post is not written down without its end and its way."""
    open_ticket(page, "RW-102")
    command(page, "k")
    expect(page.get_by_role("dialog").get_by_role("radio").first).to_be_focused()
    page.get_by_role("dialog").get_by_role("radio", name="Post moved").check()
    page.get_by_role("button", name="Save").press("Enter")
    main = page.get_by_role("main", name="Sound")
    form = page.get_by_role("form", name="Move the post")
    expect(form.get_by_role("radio", name="top", exact=True)).to_be_focused()
    page.keyboard.press("Space")
    form.get_by_label("taps").fill("½")
    form.get_by_label("taps").press("Enter")
    expect(form.get_by_role("alert").filter(visible=True)).to_contain_text("Say which way it went")
    expect(form.get_by_role("radio", name="toward the bridge")).to_be_focused()
    expect(form.get_by_label("taps")).to_have_value("½")
    page.keyboard.press("ArrowDown")
    page.keyboard.press("Enter")
    expect(newest(page)).to_contain_text("top, half a tap toward the tailpiece")
    expect(newest(page)).to_contain_text("not heard yet")
    page.keyboard.press("Escape")
    command(page, "h")
    expect(newest(page)).to_contain_text("half back: top, 0.25 taps toward the bridge")
    expect(main.get_by_role("status")).to_contain_text("Half back recorded. Listen.")


def test_what_is_begun_at_one_instrument_stays_there(page: Page) -> None:
    """The form closes with its instrument, and what the player said so far waits where it was said."""
    to_sound(page)
    command(page, "s")
    expect(page.get_by_label("even, the whole")).to_be_focused()
    page.keyboard.type("45")
    page.keyboard.press("Escape")
    command(page, "f")
    page.keyboard.type("RW-105")
    page.keyboard.press("Enter")
    expect(page.get_by_role("main", name="Bench sheet")).to_be_visible()
    command(page, "0")
    main = page.get_by_role("main", name="Sound")
    expect(main).to_contain_text("Sound, with Wren Kallio")
    command(page, "s")
    expect(page.get_by_label("even, the whole")).to_be_focused()
    expect(page.get_by_label("even, the whole")).to_have_value("")
    page.goto(page.url.replace("RW-105", "RW-102"))
    expect(main).to_contain_text("Sound")
    command(page, "s")
    expect(page.get_by_label("focused, the whole")).to_have_value("5")


def test_an_answer_that_is_lost_does_not_write_a_move_twice(page: Page) -> None:
    """The server has it, the page never hears: it waits here, and sent again it is still one move."""
    to_sound(page)
    expect(trail(page).get_by_role("listitem")).to_have_count(5)
    command(page, "a")
    form = page.get_by_role("form", name="Move the post")
    form.get_by_role("radio", name="top", exact=True).check()
    form.get_by_role("radio", name="toward the bass side").check()

    def kept_but_not_answered(route: Route) -> None:
        route.fetch()
        route.abort()

    server_is_back = intercept(page, "sound/moves", kept_but_not_answered)
    form.get_by_label("taps").fill("1")
    form.get_by_label("taps").press("Enter")
    expect(page.get_by_text("1 entry waits here and will be sent")).to_be_visible()
    server_is_back()
    expect(newest(page)).to_contain_text("top, 1 tap toward the bass side")
    expect(trail(page).get_by_role("listitem")).to_have_count(6)


def spots(page: Page, end: str) -> list[tuple[float, float]]:
    """Where the places of one end are drawn, in their order."""
    drawn = page.get_by_role("group", name=f"The post's {end} from above").locator("circle.spot")
    return [(float(one.get_attribute("cx") or 0), float(one.get_attribute("cy") or 0)) for one in drawn.all()]


def test_the_plan_is_true_in_both_hands(page: Page) -> None:
    """The tailpiece lies to the right in both; further to the treble is down on a left-handed one, up on the other."""
    to_sound(page)
    two, three, four = spots(page, "top")[1:4]
    assert three[1] > two[1]
    assert four[0] < three[0]
    command(page, "e")
    open_ticket(page, "RW-101")
    command(page, "0")
    main = page.get_by_role("main", name="Sound")
    expect(main).to_contain_text("Not gauged where it stands now: top and bottom.")
    command(page, "x")
    expect(page.get_by_label("course", exact=True)).to_have_value("post")
    type_readings(page, "2.9 2.6 2.7 2.1")
    expect(page.get_by_label(re.compile("^post inside the foot, bottom: 2.1$"))).to_be_visible()
    command(page, "0")
    expect(main).to_be_visible()
    command(page, "a")
    form = page.get_by_role("form", name="Move the post")
    form.get_by_role("radio", name="top", exact=True).check()
    form.get_by_role("radio", name="toward the treble side").check()
    form.get_by_label("or mm").fill("0,4")
    form.get_by_label("or mm").press("Enter")
    expect(newest(page)).to_contain_text("top, 0.4 mm toward the treble side")
    before, after = spots(page, "top")
    assert after[1] < before[1]
    assert abs(after[0] - before[0]) < 1


def test_the_posts_page_shows_the_school_and_describes_the_post(page: Page) -> None:
    open_ticket(page, "RW-102")
    command(page, "9")
    main = page.get_by_role("main", name="The sound post")
    expect(main).to_contain_text("top 0.7 mm toward the tailpiece and 1.0 mm toward the treble side")
    expect(main.get_by_role("region", name="The post itself")).to_contain_text("spruce, coarser")
    page.get_by_label("behind the foot", exact=True).select_option(label="near the foot")
    expect(main).to_contain_text("top 1.3 mm toward the bridge")
    page.get_by_role("button", name="Edit post").press("Enter")
    form = page.get_by_role("form", name="Describe the post")
    expect(form.get_by_label("length, mm")).to_be_focused()
    form.get_by_label("length, mm").fill("long")
    form.get_by_label("length, mm").press("Enter")
    expect(form.get_by_role("alert")).to_contain_text("is not a measurement")
    form.get_by_label("length, mm").fill("53,3")
    form.get_by_label("length, mm").press("Enter")
    expect(main.get_by_role("region", name="The post itself")).to_contain_text("53.3")
    page.keyboard.press("Escape")
    page.keyboard.press("PageDown")
    expect(page.get_by_role("main", name="Sound")).to_be_visible()
    page.keyboard.press("PageUp")
    expect(main).to_be_visible()


def test_advice_leads_to_the_move_and_two_recordings_are_compared_blind(page: Page) -> None:
    main = to_sound(page)
    command(page, "d")
    advice = page.get_by_role("region", name="Advice")
    advice.get_by_role("combobox").select_option(label="more bass is wanted")
    expect(advice).to_contain_text("Earlier here: top toward the treble side, 3 taps: open +2")
    advice.get_by_role("listitem").filter(has_text="The top inward").get_by_role("button").press("Enter")
    form = page.get_by_role("form", name="Move the post")
    expect(form.get_by_role("radio", name="toward the bass side")).to_be_checked()
    page.keyboard.press("Escape")
    command(page, "c")
    blind = page.get_by_role("region", name="Compare blind")
    blind.get_by_role("combobox").first.select_option(index=1)
    blind.get_by_role("combobox").last.select_option(index=2)
    blind.get_by_role("radio", name="6 comparisons: 6 must").check()
    blind.get_by_role("button", name="Begin, order hidden").press("Enter")
    expect(blind).to_contain_text("Pia Sandoval-Reuter listens to both")
    expect(blind).not_to_contain_text("place")
    for n in range(6):
        expect(blind).to_contain_text(f"{n + 1} of 6.")
        # As long as a listener takes at the least; what comes sooner is the second click of a double click.
        page.wait_for_timeout(800)
        blind.get_by_role("button", name="The first").dblclick()
    expect(blind).to_contain_text("was preferred 3 of 6 times")
    command(page, "w")
    bridge = page.get_by_role("form", name="Adjust the bridge")
    bridge.get_by_role("combobox").first.select_option(label="a soft wedge")
    bridge.get_by_role("combobox").last.select_option(label="in the heart")
    bridge.get_by_role("button", name="Record: put on").press("Enter")
    expect(main).to_contain_text("On the bridge: a soft wedge in the heart.")


def test_strings_are_tried_put_on_and_looked_after(page: Page) -> None:
    """RW-102: what gut would change is said before; then one string alone goes on, and settles."""
    open_ticket(page, "RW-102")
    command(page, "-")
    main = page.get_by_role("main", name="Strings")
    expect(main).to_contain_text("The present crown serves Harbour medium once it comes down")
    page.get_by_label("strings", exact=True).select_option(label="Weir gut")
    expect(main).to_contain_text("The present crown is too low for Weir gut at G 0.3")
    expect(main.get_by_role("row").filter(has_text="total tension")).to_contain_text("203")
    page.get_by_role("button", name="Change strings").press("Enter")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_role("radio", name="Harbour medium")).to_be_focused()
    dialog.get_by_role("radio", name="Weir gut").check()
    dialog.get_by_role("checkbox", name="they were put on just now").check()
    expect(dialog.get_by_role("list", name="While they go on")).to_contain_text("Eyes away from the string")
    dialog.get_by_role("checkbox", name="E", exact=True).check()
    dialog.get_by_role("button", name="These strings").press("Enter")
    expect(dialog).to_have_count(0)
    record = page.get_by_role("region", name="The strings on it")
    expect(record.get_by_role("row").filter(has=page.get_by_role("rowheader", name="E", exact=True))).to_contain_text(
        "Weir gut"
    )
    expect(record.get_by_role("row").filter(has=page.get_by_role("rowheader", name="G D A"))).to_contain_text("Harbour")
    expect(record).to_contain_text("after two hours: from")
    record.get_by_role("button", name="Tuned again").press("Enter")
    form = page.get_by_role("form", name="Tuned again")
    form.get_by_label("E", exact=True).fill("-14 cents")
    form.get_by_label("E", exact=True).press("Enter")
    expect(record).to_contain_text("tuned again, 1 times")


def test_it_is_recorded_by_a_microphone(browser: Browser, address: str, app: Any) -> None:
    """Chromium's own made-up microphone: what it hears is kept with the act before it."""
    heard = ["--use-fake-device-for-media-stream", "--use-fake-ui-for-media-stream"]
    listening = browser.browser_type.launch(executable_path=CHROMIUM, args=[*CHROMIUM_ARGUMENTS, *heard])
    context = listening.new_context(viewport={"width": 1280, "height": 800}, service_workers="block")
    name, value = signed_in(app, "Ilse Varnholt")["cookie"].split("=")
    context.add_cookies([{"name": name, "value": value, "domain": "127.0.0.1", "path": "/api"}])
    page = context.new_page()
    page.goto(f"{address}/bench/RW-102/sound")
    expect(page.get_by_role("main", name="Sound")).to_be_visible()
    command(page, "m")
    panel = page.get_by_role("region", name="Record audio")
    panel.get_by_label("what is played").fill("open strings, slowly")
    panel.get_by_role("button", name="Record").press("Enter")
    expect(panel.get_by_role("status")).to_contain_text("Recording, 1 s")
    panel.get_by_role("button", name="Stop and save").press("Enter")
    expect(newest(page)).to_contain_text("open strings, slowly")
    size = page.evaluate(
        "async () => (await (await fetch(document.querySelector('audio').src)).arrayBuffer()).byteLength"
    )
    assert size > 1000
    listening.close()
