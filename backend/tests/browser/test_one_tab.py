"""A day in one tab: what was entered stands once, where it was entered, and the next form begins empty.

Hardly a test here loads the page again: what passes from one entry to the next is what is tried.
"""

from __future__ import annotations

import re
from typing import Any

from playwright.sync_api import Locator, Page, expect
from sqlalchemy import Engine, text

from .hands import ROUTER, choose, command, go, held, intercept, name_strings, open_ticket, reading, type_readings


def written(demo: Engine, query: str) -> list[tuple[Any, ...]]:
    with demo.connect() as connection:
        return [tuple(row) for row in connection.execute(text(query))]


def arrive(page: Page, owner: str, kind: str) -> None:
    command(page, "n")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_label("Owner or fleet")).to_have_value("")
    choose(page, "What for", kind)
    dialog.get_by_label("Owner or fleet").fill(owner)
    dialog.get_by_role("button", name="Add instrument").press("Enter")
    expect(dialog).to_have_count(0)


def test_three_arrivals_are_three_instruments_each_with_its_own_kind(page: Page, demo: Engine) -> None:
    for i, (owner, kind) in enumerate((("Pia", "strings"), ("Jonah", "buzz"), ("Maren", "recheck"))):
        arrive(page, owner, kind)
        expect(page).to_have_url(page.url.split("/bench")[0] + f"/bench/RW-{116 + i}")
    found = written(
        demo,
        "SELECT i.ticket, i.owner, v.kind FROM instrument i JOIN visit v ON v.instrument_id = i.id "
        "WHERE i.ticket > 'RW-115' ORDER BY i.ticket",
    )
    assert found == [("RW-116", "Pia", "strings"), ("RW-117", "Jonah", "buzz"), ("RW-118", "Maren", "recheck")]


def test_escape_keeps_what_was_typed_of_an_arrival_and_cancel_does_not(page: Page) -> None:
    command(page, "n")
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Owner or fleet").fill("Lotte")
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)
    command(page, "n")
    expect(dialog.get_by_label("Owner or fleet")).to_have_value("Lotte")
    dialog.get_by_role("button", name="Cancel").click()
    expect(dialog).to_have_count(0)
    command(page, "n")
    expect(dialog.get_by_label("Owner or fleet")).to_have_value("")


def rate(page: Page) -> Locator:
    page.get_by_role("button", name="Rate the sound").first.click()
    return page.get_by_role("form", name="Rate the sound")


def test_a_rating_begins_empty_also_where_the_page_was_left_before_its_answer(page: Page, demo: Engine) -> None:
    go(page, "/bench/RW-102/sound")
    before = written(demo, "SELECT count(*) FROM heard")[0][0]
    form = rate(page)
    form.get_by_label("Remark").or_(form.locator("textarea")).first.fill("too closed")
    form.get_by_role("button", name="open", exact=True).click()
    with held(page, "sound/heard"):
        form.get_by_role("button", name="Save rating").dblclick()
        go(page, "/bench/RW-103/sound")
        go(page, "/bench/RW-102/sound")
    expect(page.get_by_text("too closed").first).to_be_visible()
    form = rate(page)
    expect(form.locator("textarea")).to_have_value("")
    expect(form.get_by_role("button", name="open", exact=True)).to_have_attribute("aria-pressed", "false")
    assert written(demo, "SELECT count(*) FROM heard")[0][0] == before + 1


def belonging(page: Page, which: str) -> Locator:
    form = page.get_by_role("form", name="A thing")
    form.locator("select[name=kind]").select_option("chin_rest")
    form.locator("input[name=which]").fill(which)
    return form


def test_belongings_stay_at_their_instrument_through_back_and_late_answers(page: Page, demo: Engine) -> None:
    go(page, "/bench/RW-103/belongings")
    belonging(page, "of the fleet")
    go(page, "/bench/RW-104/belongings")
    expect(page.locator("input[name=which]")).to_have_value("")
    belonging(page, "Jonah's own")
    page.go_back()
    expect(page.locator("input[name=which]")).to_have_value("of the fleet")
    with held(page, "belongings"):
        page.get_by_role("button", name="Write it down").dblclick()
        go(page, "/bench/RW-104/belongings")
    expect(page.locator("input[name=which]")).to_have_value("Jonah's own")
    page.get_by_role("button", name="Write it down").click()
    expect(page.locator("input[name=which]")).to_have_value("")
    expect(page.get_by_role("listitem").filter(has_text="Jonah's own")).to_be_visible()
    go(page, "/bench/RW-103/belongings")
    expect(page.locator("input[name=which]")).to_have_value("")
    expect(page.get_by_role("listitem").filter(has_text="of the fleet")).to_be_visible()
    found = written(
        demo,
        "SELECT i.ticket, b.which FROM belonging b JOIN visit v ON v.id = b.visit_id "
        "JOIN instrument i ON i.id = v.instrument_id WHERE b.kind = 'chin_rest' AND i.ticket IN ('RW-103', 'RW-104') "
        "ORDER BY i.ticket",
    )
    assert found == [("RW-103", "of the fleet"), ("RW-104", "Jonah's own")]


def test_an_approval_begins_with_the_owner_of_this_instrument_and_nothing_of_the_last(page: Page) -> None:
    go(page, "/bench/RW-110/plan")
    page.get_by_role("button", name="Record approval").first.click()
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("In their words").fill("do it all")
    dialog.get_by_label("Up to").fill("400")
    dialog.get_by_role("button", name="Record approval").click()
    expect(dialog).to_have_count(0)
    command(page, "a", own=True)
    expect(dialog.get_by_label("In their words")).to_have_value("")
    expect(dialog.get_by_label("Up to")).to_have_value("")
    expect(dialog.get_by_label("Who agreed")).to_have_value("Lotte Brandvold")


def test_a_double_click_is_one_act(page: Page, demo: Engine) -> None:
    """A recipe applied, a post moved, a post half back and strings tuned: each is written once."""
    go(page, "/bench/RW-102/recipe")
    page.get_by_role("radio", name="Soloist").check()
    page.get_by_label("reason").fill("she asked")
    page.get_by_role("button", name="Apply").dblclick()
    expect(page.get_by_role("group", name="Bench card")).to_be_visible()
    assert written(demo, "SELECT count(*) FROM target_choice WHERE reason = 'she asked'") == [(1,)]
    go(page, "/bench/RW-102/sound")
    page.get_by_role("button", name="Move the post").first.click()
    form = page.get_by_role("form", name="Move the post")
    form.get_by_label("top", exact=True).check()
    form.get_by_label("toward the bridge").check()
    form.get_by_label("taps").fill("2")
    with held(page, "sound/moves"):
        form.get_by_label("taps").press("Enter")
        form.get_by_label("taps").press("Enter")
    expect(form).to_have_count(0)
    moved = written(demo, "SELECT count(*) FROM work_done WHERE work = 'post_moved'")[0][0]
    page.get_by_role("button", name="Move half back").dblclick()
    expect(page.get_by_text("Half back recorded").first).to_be_visible()
    page.wait_for_timeout(300)
    assert written(demo, "SELECT count(*) FROM work_done WHERE work = 'post_moved'")[0][0] == moved + 1


def test_back_to_the_best_shows_the_way_before_it_is_recorded(page: Page, demo: Engine) -> None:
    go(page, "/bench/RW-102/sound")
    before = written(demo, "SELECT count(*) FROM work_done WHERE work = 'post_moved'")
    command(page, "y", own=True)
    form = page.get_by_role("form", name="Back to a place")
    expect(form.get_by_text("The way back:")).to_be_visible()
    expect(form.get_by_text("±").first).to_be_visible()
    assert written(demo, "SELECT count(*) FROM work_done WHERE work = 'post_moved'") == before
    page.keyboard.press("Enter")
    expect(form).to_have_count(0)
    assert written(demo, "SELECT count(*) FROM work_done WHERE work = 'post_moved'")[0][0] == before[0][0] + 1


def test_what_a_caliper_sends_while_a_reading_waits_for_a_word_is_held_in_order(page: Page) -> None:
    open_ticket(page, "RW-101")
    name_strings(page, downs=0)
    reading(page, "G at the board's end").click()
    for typed in ("57.5", "5.75mm", "5,20 mm", "4.30"):
        page.keyboard.type(typed)
        page.keyboard.press("Enter")
    expect(page.get_by_text("Held for the next places: 5.75mm · 5,20 mm · 4.30")).to_be_visible()
    page.keyboard.press("Escape")
    page.keyboard.type("6.1")
    page.keyboard.press("Enter")
    for name, value in (("G", "6.1"), ("D", "5.75"), ("A", "5.2"), ("E", "4.3")):
        expect(reading(page, f"{name} at the board's end")).to_have_accessible_name(
            f"{name} at the board's end: {float(value):.2f}, above"
        )


def test_what_is_held_stands_there_after_a_reload_and_digits_do_not_run_on_from_it(page: Page) -> None:
    """RW-105 has five strings; the last was not yet entered as the page was loaded again."""
    open_ticket(page, "RW-105")
    reading(page, "G at the board's end").click()
    type_readings(page, "57.5 5.20mm 4.8")
    page.keyboard.type("4.")
    expect(page.get_by_text("Held for the next places: 5.20mm · 4.8 · 4.…")).to_be_visible()
    page.reload()
    expect(page.get_by_text("Held: 5.20mm · 4.8 · 4.", exact=True)).to_be_visible()
    reading(page, "D at the board's end").click()
    page.get_by_role("button", name="Enter from D at the board's end on").click()
    for name, value in (("D", "5.20"), ("A", "4.80")):
        expect(reading(page, f"{name} at the board's end")).to_have_accessible_name(
            re.compile(f"^{name} at the board's end: {value}")
        )


def test_strings_that_are_changed_went_on_just_now_and_named_ones_did_not(page: Page, demo: Engine) -> None:
    """The tick is that of the way by which the form was opened last; what else was typed stays."""
    go(page, "/bench/RW-102/page/strings")
    page.get_by_role("button", name="Change strings").click()
    dialog = page.get_by_role("dialog")
    just_now = dialog.get_by_role("checkbox", name="they were put on just now")
    expect(just_now).to_be_checked()
    dialog.get_by_role("radio", name="Weir gut").check()
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)
    go(page, "/bench/RW-102")
    command(page, "s")
    expect(dialog.get_by_role("radio", name="Weir gut")).to_be_checked()
    expect(just_now).not_to_be_checked()
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)
    go(page, "/bench/RW-102/page/strings")
    page.get_by_role("button", name="Change strings").click()
    expect(just_now).to_be_checked()
    dialog.get_by_role("button", name="These strings").dblclick()
    expect(dialog).to_have_count(0)
    changed = (
        "SELECT count(*) FROM work_done t JOIN visit v ON v.id = t.visit_id JOIN instrument i ON i.id = instrument_id "
        "WHERE i.ticket = 'RW-102' AND t.work = 'strings_changed' AND t.done_at > now() - interval '1 hour'"
    )
    assert written(demo, changed) == [(1,)]


def test_inches_do_not_stop_as_if_they_were_millimetres(page: Page) -> None:
    open_ticket(page, "RW-101")
    name_strings(page, downs=0)
    reading(page, "G at the board's end").click()
    type_readings(page, "0.2402in 0.2264in")
    expect(page.get_by_role("alert")).to_have_count(0)
    expect(reading(page, "D at the board's end")).to_have_accessible_name("D at the board's end: 5.75, above")


def test_another_customers_paper_never_shows(page: Page) -> None:
    """The first one's paper is late: by then the second one's is asked for, and stays."""
    late: list[Any] = []
    intercept(page, "RW-102/papers", lambda route: late.append(route))
    page.evaluate("() => null")
    go_soon(page, "/bench/RW-102/paper/owner")
    go_soon(page, "/bench/RW-106/paper/owner")
    expect(page.locator(".paper")).to_contain_text("Maren Osei")
    for route in late:
        route.continue_()
    page.wait_for_timeout(400)
    expect(page.locator(".paper")).to_contain_text("Maren Osei")
    expect(page.locator(".paper")).not_to_contain_text("Pia Sandoval")


def go_soon(page: Page, path: str) -> None:
    """On to a page whose answers are still on their way."""
    page.evaluate(f"path => {ROUTER}.push(path).then(() => null)", path)


def test_what_is_not_right_is_still_typed_where_the_server_was_away(page: Page, demo: Engine) -> None:
    """It stands at its own instrument, and is one entry once the server has it."""
    go(page, "/bench/RW-102/leave")
    cracks = page.locator("[data-point='pitch:cracks']")
    cracks.get_by_role("button", name="Not right").click()
    cracks.get_by_role("textbox").fill("a hair by the f-hole")
    stop = intercept(page, "RW-102/checks", lambda route: route.abort())
    page.keyboard.press("Enter")
    expect(cracks.get_by_role("alert")).to_be_visible()
    expect(cracks.get_by_role("textbox")).to_have_value("a hair by the f-hole")
    stop()
    go(page, "/bench/RW-106/leave")
    cracks.get_by_role("button", name="Not right").click()
    expect(cracks.get_by_role("textbox")).to_have_value("")
    page.go_back()
    cracks.get_by_role("button", name="Not right").click()
    expect(cracks.get_by_role("textbox")).to_have_value("a hair by the f-hole")
    cracks.get_by_role("button", name="Record").dblclick()
    expect(cracks.get_by_text("“a hair by the f-hole”")).to_be_visible()
    assert written(demo, "SELECT verdict FROM point_check WHERE words = 'a hair by the f-hole'") == [("not_right",)]


def test_escape_keeps_a_work_in_words_and_cancel_does_not(page: Page, demo: Engine) -> None:
    go(page, "/bench/RW-104")
    dialog = page.get_by_role("dialog")
    for way in ("Escape", "Cancel"):
        command(page, "k")
        dialog.get_by_role("radio", name="Other work").check()
        dialog.get_by_label("What was done").fill("button turned down")
        page.keyboard.press("Escape") if way == "Escape" else dialog.get_by_role("button", name="Cancel").click()
        expect(dialog).to_have_count(0)
        command(page, "k")
        expect(dialog.get_by_role("radio", name="Other work")).to_be_checked(checked=way == "Escape")
        page.keyboard.press("Escape")
        expect(dialog).to_have_count(0)
    go(page, "/bench/RW-104")
    command(page, "k")
    dialog.get_by_role("radio", name="Other work").check()
    dialog.get_by_label("What was done").fill("button turned down")
    dialog.get_by_role("button", name="Save").dblclick()
    expect(page.get_by_role("button", name="Undo: ")).to_contain_text("other work was done")
    assert written(demo, "SELECT count(*) FROM work_done WHERE detail->>'words' = 'button turned down'") == [(1,)]


def test_a_point_of_the_shop_and_a_kept_question_are_one_however_often_pressed(page: Page, demo: Engine) -> None:
    go(page, "/closing-points")
    page.get_by_role("button", name="Add a point").click()
    page.get_by_label("what is looked at").fill("the case closes")
    page.get_by_role("button", name="Save point").dblclick()
    expect(page.get_by_role("listitem").filter(has_text="the case closes")).to_have_count(1)
    page.get_by_role("button", name="Add a point").click()
    expect(page.get_by_label("what is looked at")).to_have_value("")
    go(page, "/ask?words=cellos")
    name = page.get_by_label("name to keep this question")
    for kept in ("the low ones", "the big ones"):
        name.fill(kept)
        page.get_by_role("button", name="Keep question").dblclick()
        expect(name).to_have_value("")
    name.fill("not yet")
    page.get_by_role("button", name="Take off “the low ones”").click()
    expect(page.get_by_role("button", name="Take off “the low ones”")).to_have_count(0)
    expect(name).to_have_value("not yet")
    for query in (
        "SELECT count(*) FROM point_entry WHERE label = 'the case closes'",
        "SELECT count(*) FROM question_entry WHERE name = 'the big ones'",
    ):
        assert written(demo, query) == [(1,)]
