"""A work is done, billed, partly paid, taken back and billed again, by keyboard in one tab."""

from __future__ import annotations

from playwright.sync_api import Page, expect

from .hands import command


def test_an_invoice_is_issued_paid_in_parts_taken_back_and_issued_again(page: Page, address: str) -> None:
    """RW-105's crown in 50 minutes: €60.00. Escape issues nothing, and what was typed is there again."""
    page.goto(f"{address}/bench/RW-105/plan")
    page.get_by_label("another work").select_option("Crown cut")
    page.get_by_role("button", name="Add to the plan").press("Enter")
    expect(page.get_by_role("list", name="Works in their order")).to_contain_text("Crown cut")
    command(page, "a", own=True)
    page.get_by_role("dialog").get_by_label("Who agreed").press("Enter")
    expect(page.get_by_role("dialog")).to_have_count(0)
    page.get_by_role("button", name="Begin: Crown cut").press("Enter")
    page.get_by_label("minutes that it took").fill("50")
    page.keyboard.press("Enter")
    expect(page.get_by_text("in 50 min")).to_be_visible()

    page.get_by_role("link", name="Invoice", exact=True).press("Enter")
    expect(page.get_by_role("status").get_by_text("Nothing is billed yet.")).to_be_visible()
    payment = page.get_by_role("form", name="Record payment")
    command(page, "t", own=True)
    expect(payment.get_by_label("amount")).to_be_focused()
    payment.get_by_label("amount").fill("1000")
    page.keyboard.press("Enter")
    expect(payment.get_by_text("can be paid ahead")).to_be_visible()
    expect(payment.get_by_label("amount")).to_have_value("1000")
    payment.get_by_label("amount").fill("15,50")
    page.keyboard.press("Enter")
    expect(page.get_by_text("€15.50 by card on")).to_be_visible()

    issue = page.get_by_role("button", name="Issue invoice: €60.00")
    issue.press("Enter")
    expect(page.get_by_role("dialog")).to_contain_text("€60.00")
    page.keyboard.press("Escape")
    expect(page.get_by_text("No estimate or invoice is issued yet.")).to_be_visible()
    issue.press("Enter")
    page.get_by_role("button", name="Issue", exact=True).press("Enter")
    expect(page.get_by_text("€44.50 is open.")).to_be_visible()

    page.get_by_role("link", name="Open I-").press("Enter")
    paper = page.get_by_role("main", name="Invoice")
    for said in ("Reedwater Workshop", "Wren Kallio", "Crown cut: 50 min", "tax 20 % on €50.00", "€44.50"):
        expect(paper.get_by_text(said).first).to_be_visible()
    command(page, "e", own=True)

    page.get_by_role("button", name="Take back I-").press("Enter")
    dialog = page.get_by_role("dialog")
    dialog.get_by_label("Reason").press("Enter")
    expect(dialog.get_by_text("Say why: the reason stands on the credit note.")).to_be_visible()
    dialog.get_by_label("Reason").fill("for her school, not for her")
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Take back I-").press("Enter")
    expect(dialog.get_by_label("Reason")).to_have_value("for her school, not for her")
    dialog.get_by_label("Reason").press("Enter")
    expect(page.get_by_text("taken back by C-")).to_be_visible()
    expect(page.get_by_text("Nothing is billed yet; €15.50 is paid.")).to_be_visible()
    issue.press("Enter")
    page.get_by_role("button", name="Issue", exact=True).press("Enter")
    expect(page.get_by_text("-0002", exact=False).first).to_be_visible()
    expect(page.get_by_text("€44.50 is open.")).to_be_visible()
