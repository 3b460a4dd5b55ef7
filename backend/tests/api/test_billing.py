"""From an agreed plan to a paid invoice: what was agreed, done or issued never changes with today's figures."""

from __future__ import annotations

import json
from concurrent.futures import ThreadPoolExecutor
from datetime import UTC, datetime
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.db.billing import Billing
from fidicula.db.unit_of_work import UnitOfWork
from sqlalchemy import text
from sqlalchemy.exc import DBAPIError

from .people import ILSE, PINS
from .planning import Plan, refusal, settings

TODAY = datetime.now(UTC).astimezone().date().isoformat()
DEARER = {
    "rate_luthier": "99",
    "rate_apprentice": "77",
    "tax": "27",
    "deposit": "55",
    "rounding": "1",
    "rounding_half": "even",
    "graded_from": "0",
}
SHOP = {"shop_name": "The workshop on the quay", "shop_address": "Net Loft 3, the island", "tax_number": "12/345"}


class Billed(Plan):
    """One instrument's plan and its money."""

    @property
    def money(self) -> str:
        return f"/api/instruments/{self.ticket}/billing"

    def billing(self) -> dict[str, Any]:
        return dict(self.client.get(self.money).json())

    def send(self, path: str, status: int = 200, **body: Any) -> dict[str, Any]:
        answer = self.client.post(f"{self.money}/{path}", json={"id": str(uuid4()), **body})
        assert answer.status_code == status, answer.text
        return dict(answer.json())

    def invoice(self, status: int = 200, **more: Any) -> dict[str, Any]:
        return self.send("documents", status, **{"kind": "invoice", "total": self.billing()["total"], **more})

    def pay(self, amount: str, status: int = 200, **more: Any) -> dict[str, Any]:
        return self.send("payments", status, **{"amount": amount, "way": "card", "paid_on": TODAY, **more})

    def paper(self, document: dict[str, Any]) -> tuple[dict[str, Any], bytes]:
        at = f"{self.money}/documents/{document['id']}"
        return self.client.get(at).json(), self.client.get(f"{at}.pdf").content


@pytest.fixture
def billed(client: TestClient) -> Billed:
    """RW-105 with its crown cut in 50 minutes: 50.00, and 10.00 of tax. A seam is planned and not done."""
    plan = Billed(client, "RW-105")
    settings(client, **SHOP)
    plan.add("crown_cut", "seam_glued")
    plan.approve()
    plan.begin("crown_cut")
    plan.finish("crown_cut", "50")
    return plan


def test_an_invoice_agrees_with_a_worked_sheet(billed: Billed) -> None:
    view = billed.billing()
    assert (view["to_invoice"], view["total"], view["stopped"]) == ("€60.00", "60.00", "")
    assert view["stays_off"] == "Not done, and not on the invoice: Seam glued."
    after = billed.invoice()
    (document,) = after["documents"]
    year = TODAY[:4]
    assert (document["code"], document["total"], document["kind"]) == (f"I-{year}-0001", "€60.00", "invoice")
    assert after["balance"] == "€60.00 is open."
    assert after["stopped"] == "No work is done that is not on an invoice yet."
    paper, pdf = billed.paper(document)
    said = json.dumps(paper, ensure_ascii=False)
    for words in ("The workshop on the quay", "Net Loft 3", "Tax number 12/345", "50 min", "tax 20 % on €50.00"):
        assert words in said
    assert pdf.startswith(b"%PDF")


def test_every_figure_of_the_shop_changes_and_nothing_that_was_agreed_does(billed: Billed) -> None:
    billed.pay("20")
    billed.invoice()
    before, plan = billed.billing(), billed.view()
    papers = [billed.paper(one) for one in before["documents"]]
    settings(billed.client, **DEARER)
    assert billed.billing() == before
    after = billed.view()
    for name in ("total", "variants", "spent", "agreed", "tax"):
        assert after[name] == plan[name], name
    assert [line["amount"] for line in after["lines"]] == [line["amount"] for line in plan["lines"]]
    assert [billed.paper(one) for one in before["documents"]] == papers
    # What is added now is at today's figures, beside what was agreed.
    billed.add("new_nut")
    new = billed.line("new_nut")
    assert new["rate"] == "€99.00"
    assert billed.line("seam_glued")["rate"] == "€36.00"
    assert billed.view()["tax"] == "20 %, 27 %"


def test_what_was_agreed_before_prices_were_kept_follows_the_log_of_settings(app: Any, billed: Billed) -> None:
    before = billed.view()
    with app.state.engine.begin() as connection:
        connection.execute(text("UPDATE approval SET terms = '{}', prices = '{}'"))
        connection.execute(text("UPDATE plan_line SET terms = '{}'"))
    settings(billed.client, **DEARER)
    after = billed.view()
    assert (after["total"], after["tax"]) == (before["total"], before["tax"])


def test_a_deposit_counts_and_an_invoice_is_paid_in_parts(billed: Billed) -> None:
    assert billed.billing()["balance"] == "Nothing is billed yet."
    billed.pay("15,50", way="cash", remark="deposit")
    after = billed.invoice()
    assert after["balance"] == "€44.50 is open."
    (document,) = after["documents"]
    assert "paid before" in json.dumps(billed.paper(document)[0])
    field, said = refusal(billed.pay("44.51", 422))
    assert (field[-1], said) == ("amount", "no more than €44.50 is open")
    billed.pay("40")
    paid = billed.pay("4.50")
    assert paid["balance"] == "Everything is paid."
    assert [one["says"].split(" on ")[0] for one in paid["payments"]] == [
        *("€4.50 by card", "€40.00 by card", "€15.50 in cash"),
    ]
    back = billed.pay("-10")
    assert back["balance"] == "€10.00 is open."
    assert "only €50.00 was paid" in refusal(billed.pay("-50.01", 422))[1]


@pytest.mark.parametrize(
    ("more", "field"),
    [
        ({"amount": ""}, "amount"),
        ({"amount": "0"}, "amount"),
        ({"amount": "-"}, "amount"),
        ({"amount": "ten"}, "amount"),
        ({"amount": "1.005"}, "amount"),
        ({"amount": "5", "paid_on": "yesterday"}, "paid_on"),
        ({"amount": "5", "paid_on": "2097-01-01"}, "paid_on"),
        ({"amount": "5", "way": "goose"}, "way"),
    ],
)
def test_a_payment_that_cannot_be_names_its_field(billed: Billed, more: dict[str, str], field: str) -> None:
    assert refusal(billed.send("payments", 422, **{"way": "card", "paid_on": TODAY, **more}))[0][-1] == field
    assert billed.billing()["payments"] == []


def test_an_invoice_is_taken_back_by_a_credit_note_and_written_again(billed: Billed) -> None:
    first = billed.invoice()["documents"][0]
    assert refusal(billed.send(f"documents/{first['id']}/cancel", 422, reason=" "))[0][-1] == "reason"
    after = billed.send(f"documents/{first['id']}/cancel", reason="the wrong address")
    credit, invoice = after["documents"]
    assert (credit["code"], credit["total"]) == (f"C-{TODAY[:4]}-0001", "-€60.00")
    assert invoice["state"] == f"taken back by {credit['code']}"
    assert "the wrong address" in json.dumps(billed.paper(credit)[0])
    assert refusal(billed.send(f"documents/{first['id']}/cancel", 409, reason="again"))[1].endswith("already")
    assert billed.invoice()["documents"][0]["code"] == f"I-{TODAY[:4]}-0002"


def test_the_same_again_is_once_and_a_sum_that_changed_is_shown_first(billed: Billed) -> None:
    id = str(uuid4())
    for _ in range(2):
        assert len(billed.invoice(id=id, total="60.00")["documents"]) == 1
    other = Billed(billed.client, "RW-110")
    other.add("seam_glued")
    assert refusal(other.send("documents", 409, kind="estimate", total="1.00"))[0][-1] == "total"
    issued = other.send("documents", kind="estimate", total=other.billing()["estimate_total"])
    assert issued["documents"][0]["code"] == f"E-{TODAY[:4]}-0001"


def test_what_stands_before_an_invoice(client: TestClient) -> None:
    plan = Billed(client, "RW-105")
    settings(client, shop_address="")
    assert refusal(plan.invoice(409))[1] == "no work is done that is not on an invoice yet"
    plan.add("crown_cut")
    plan.approve()
    plan.begin("crown_cut")
    plan.finish("crown_cut", "50")
    assert "shop" in refusal(plan.invoice(422))[0]


def test_a_work_of_the_bench_that_nobody_priced_is_offered(billed: Billed) -> None:
    made = billed.client.post(
        f"/api/instruments/{billed.ticket}/works", json={"id": str(uuid4()), "work": "post_moved"}
    )
    assert made.status_code == 200, made.text
    (work,) = billed.billing()["works"]
    assert work["label"] == "Post moved"
    assert refusal(billed.send(f"works/{work['id']}", 422, minutes="-5"))[0][-1] == "minutes"
    after = billed.send(f"works/{work['id']}", minutes="20")
    assert after["works"] == []
    assert after["stopped"] == "The owner has not agreed to Post moved yet: record the approval first."
    billed.approve()
    assert billed.billing()["to_invoice"] == "€84.00"


def test_an_invoice_is_paid_at_the_next_visit_and_the_history_says_what_the_last_one_cost(billed: Billed) -> None:
    code = billed.invoice()["documents"][0]["code"]
    at, pin = f"/api/instruments/{billed.ticket}", PINS[ILSE]
    left = {"id": str(uuid4()), "pin": pin, "left_open": {"": "she plays tonight"}}
    assert billed.client.post(f"{at}/hand-over", json=left).status_code == 200
    again = {"id": str(uuid4()), "kind": "sound", "complaint": "the top string is weak"}
    assert billed.client.post(f"{at}/visits", json=again).status_code == 201
    assert billed.billing()["balance"] == "€60.00 is open."
    after = billed.pay("20")
    assert after["documents"][0]["state"].startswith("€40.00 open, due by ")
    assert billed.pay("40")["documents"][0]["state"] == "paid"
    now, before = billed.client.get(f"{at}/history").json()["visits"]
    assert now["cost"] == "€0.00 billed, €60.00 paid at this visit"
    assert before["cost"] == "€60.00 billed, €0.00 paid at this visit"
    (document,) = before["documents"]
    assert (document["says"], document["lines"]) == (f"Invoice {code}: €60.00", ["Crown cut, 50 min: €50.00"])
    assert {seal["verdict"] for seal in billed.client.get(f"{at}/seals").json()} == {"intact"}


def test_more_minutes_than_agreed_are_asked_about_before_they_are_billed(client: TestClient) -> None:
    """Agreed for the crown: 76.80 at most. It took 90 min: 90.00 and 18.00 of tax."""
    plan = Billed(client, "RW-105")
    plan.add("crown_cut")
    plan.approve()
    plan.begin("crown_cut")
    asked = plan.finish("crown_cut", "90")["unapproved"]
    assert asked == "What is done came to €108.00, and the owner agreed to €76.80: ask before it is billed."
    assert refusal(plan.invoice(409))[1] == "It would come to €108.00; the owner agreed to €76.80: ask again."
    assert plan.billing()["stopped"].startswith("It would come to €108.00")
    plan.approve()
    assert plan.invoice()["documents"][0]["total"] == "€108.00"


def test_an_issued_document_cannot_be_changed_in_the_database(app: Any, billed: Billed) -> None:
    billed.invoice()
    for statement in ("UPDATE document SET total = 1", "DELETE FROM document"):
        with pytest.raises(DBAPIError, match="stays as it is"), app.state.engine.begin() as connection:
            connection.execute(text(statement))


def test_two_hundred_numbers_for_eight_at_once_have_no_gap_and_no_double(app: Any) -> None:
    """Every tenth is given up before it is kept."""
    engine, today = app.state.engine, datetime.now(UTC).date()

    def issue(i: int) -> str | None:
        with UnitOfWork(engine) as uow:
            code = uow.billing.next_code("invoice", today)
            if i % 10 == 9:
                return None
            uow.commit()
            return code

    with ThreadPoolExecutor(8) as pool:
        codes = [code for code in pool.map(issue, range(222)) if code is not None]
    assert sorted(codes) == [f"I-{today.year}-{i:04d}" for i in range(1, 201)]


def test_a_clock_that_was_put_back_goes_on_in_the_newest_year(app: Any) -> None:
    with app.state.engine.begin() as connection:
        billing = Billing(connection)
        days = [datetime(year, 1, 2, tzinfo=UTC).date() for year in (2031, 2030, 2032)]
        assert [billing.next_code("invoice", day) for day in days] == ["I-2031-0001", "I-2031-0002", "I-2032-0001"]
