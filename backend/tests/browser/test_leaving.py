"""The end of a visit and what comes after, by keyboard: signature and seal, papers, history, questions, archives."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path

from playwright.sync_api import Page, expect

from .hands import command, held


def test_a_visit_is_checked_signed_and_added_to(page: Page, address: str) -> None:
    """Digits answer, arrows go on; a wrong PIN and a reload keep what was written; the signed list stays as it was."""
    page.goto(f"{address}/bench/RW-102/leave")
    sign = page.get_by_role("button", name="Sign and hand over")
    expect(sign).to_be_disabled()
    expect(page.get_by_text("open points have no reason yet")).to_be_visible()
    command(page, "k", own=True)
    first = page.locator("[data-point='pitch:pegs_hold']")
    expect(first).to_be_focused()
    page.keyboard.press("1")
    expect(first.get_by_text("Ilse Varnholt")).to_be_visible()
    for _ in range(4):
        page.keyboard.press("ArrowDown")
    cracks = page.locator("[data-point='pitch:cracks']")
    expect(cracks).to_be_focused()
    page.keyboard.press("2")
    expect(cracks.get_by_role("textbox")).to_be_focused()
    page.keyboard.type("a hair by the f-hole")
    page.keyboard.press("Enter")
    expect(cracks.get_by_text("“a hair by the f-hole”")).to_be_visible()
    command(page, "a", own=True)
    expect(page.get_by_role("button", name="left are right")).to_have_count(0)
    page.get_by_label("why it leaves so, where nothing else is said").fill("the owner plays tonight")
    page.reload()
    expect(page.get_by_label("why it leaves so, where nothing else is said")).to_have_value("the owner plays tonight")
    expect(page.get_by_text("The PIN is missing.")).to_be_visible()
    page.get_by_label("PIN of Ilse Varnholt").fill("9999")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert")).to_contain_text("not Ilse Varnholt's PIN")
    page.get_by_label("PIN of Ilse Varnholt").fill("140125")
    page.keyboard.press("Enter")
    expect(page.get_by_role("status").filter(has_text="signed by Ilse Varnholt")).to_be_visible()
    expect(page.get_by_text("the record is as it was sealed")).to_be_visible()
    expect(cracks.get_by_text("left open: the owner plays tonight")).to_be_visible()
    page.get_by_label("what is to be added").fill("she rang: the E whistles")
    page.get_by_role("button", name="Add", exact=True).press("Enter")
    expect(page.get_by_text("she rang: the E whistles")).to_be_visible()
    page.get_by_role("button", name="Undo hand-over").press("Enter")
    expect(sign).to_be_visible()


def test_an_apprentice_checks_and_a_luthier_signs(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-105/leave")
    command(page, "b")
    dialog = page.get_by_role("dialog")
    dialog.get_by_role("radio", name="Bram Oyelade, apprentice").check()
    dialog.get_by_label("PIN").fill("380327")
    page.keyboard.press("Enter")
    expect(dialog).to_have_count(0)
    expect(page.get_by_text("A luthier signs: Bram Oyelade checks the points.")).to_be_visible()
    expect(page.get_by_role("button", name="Sign and hand over")).to_be_disabled()
    page.get_by_role("button", name="right: Cleaned", exact=True).press("Enter")
    expect(page.locator("[data-point='pitch:cleaned']").get_by_text("Bram Oyelade")).to_be_visible()


def test_papers_are_seen_before_they_are_printed(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-087/paper")
    main = page.get_by_role("main")
    expect(main.get_by_role("heading", name="Set-up sheet")).to_be_visible()
    expect(main.get_by_role("img", name="The bridge from the tailpiece")).to_be_visible()
    command(page, "x", own=True)
    expect(main.get_by_role("heading", name="Condition")).to_be_visible()
    command(page, "x", own=True)
    expect(main.get_by_role("heading", name="Before and after")).to_be_visible()
    command(page, "x", own=True)
    expect(main.get_by_role("heading", name="How to keep it well")).to_be_visible()
    link = page.get_by_role("link", name="Open as PDF").get_attribute("href") or ""
    assert page.request.get(f"{address}{link}").body()[:5] == b"%PDF-"


def test_the_history_goes_from_visit_to_visit(page: Page, address: str) -> None:
    page.goto(f"{address}/bench/RW-087/history")
    row = page.get_by_role("row").filter(has_text="Projection")
    expect(row).to_contain_text("+0.4")
    page.get_by_role("region", name="measures through the visits").focus()
    page.keyboard.press("ArrowLeft")
    card = page.get_by_role("article")
    expect(card).to_contain_text("Yearly look.")
    for _ in range(3):
        page.keyboard.press("ArrowLeft")
    expect(card).to_contain_text("A new bridge was fitted")
    command(page, "o")
    dialog = page.get_by_role("dialog")
    expect(dialog.get_by_text("· bridge")).to_be_visible()
    page.keyboard.press("Escape")
    expect(dialog).to_have_count(0)


def test_a_question_is_completed_said_back_and_kept(page: Page, address: str) -> None:
    command(page, "?")
    line = page.get_by_role("combobox", name="question about the house")
    expect(line).to_be_focused()
    page.keyboard.type("cel")
    expect(page.get_by_role("option", name="cellos")).to_be_visible()
    page.keyboard.press("Tab")
    expect(line).to_have_value("cellos ")
    page.keyboard.type("with projection under 78")
    expect(page.get_by_text("The last reading of projection is under 78 mm.")).to_be_visible()
    expect(page.get_by_role("main").get_by_role("link", name="RW-106")).to_contain_text("76.8 mm")
    page.get_by_label("name to keep this question by").fill("Sinking cellos")
    page.keyboard.press("Enter")
    expect(page.get_by_role("button", name="Sinking cellos cellos with")).to_be_visible()
    line.fill("celos")
    expect(page.get_by_role("alert")).to_contain_text("did you mean “cellos”")
    page.go_back()
    page.goto(f"{address}/ask?words=overdue")
    expect(page.get_by_text("Nothing in the house answers to this.")).to_be_visible()


def test_the_house_goes_out_and_a_table_of_readings_comes_in(page: Page, address: str, tmp_path: Path) -> None:
    page.goto(f"{address}/archives")
    # Enter counts while the page still asks what goes on.
    with held(page, "api/archives"):
        page.reload()
        page.get_by_role("button", name="Write an archive of the house").press("Enter")
        expect(page.get_by_role("region", name="Writing the archive")).to_be_visible()
    save = page.get_by_role("link", name="Save the archive")
    expect(save).to_be_visible(timeout=120_000)
    with page.expect_download() as saved:
        save.click()
    path = tmp_path / "house.zip"
    saved.value.save_as(path)
    assert "instruments.jsonl" in zipfile.ZipFile(io.BytesIO(path.read_bytes())).namelist()
    page.get_by_label("archive to take in").set_input_files(path)
    expect(page.get_by_role("heading", name="Tickets that are taken here")).to_be_visible(timeout=120_000)
    take = page.get_by_role("button", name="Take in", exact=True)
    expect(take).to_be_disabled()
    page.get_by_label("for all of them").select_option("leave it out")
    take.press("Enter")
    expect(page.get_by_text("16 were left out")).to_be_visible(timeout=120_000)
    page.get_by_role("button", name="Close").press("Enter")
    (tmp_path / "half.zip").write_bytes(path.read_bytes()[:5000])
    page.get_by_label("archive to take in").set_input_files(tmp_path / "half.zip")
    expect(page.get_by_role("alert")).to_contain_text("no whole archive", timeout=120_000)
    page.get_by_role("button", name="Close").press("Enter")

    table = tmp_path / "heights.csv"
    table.write_text("ticket;measure;string;value\nRW-101;end_height;G;5,9\nRW-101;weight;;3\n")
    page.get_by_label("table of readings").set_input_files(table)
    expect(page.get_by_text("1 of 2 lines can be taken in.")).to_be_visible()
    expect(page.get_by_role("row").filter(has_text="there is no measure “weight”")).to_be_visible()
    take = page.get_by_role("button", name="Take in 1 reading")
    expect(take).to_be_disabled()
    page.get_by_label("leave out the 1 line").check()
    take.press("Enter")
    expect(
        page.get_by_text("1 readings were taken in.").or_(page.get_by_text("1 reading was taken in."))
    ).to_be_visible()
