"""The drawers and the shop's rates: what is wrong names its field, and what there is not cannot go."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient

from .planning import Plan, refusal, settings


@pytest.mark.parametrize(
    ("body", "field", "says"),
    [
        ({"price": "1,2,3"}, "price", "one decimal mark"),
        ({"price": "1.200"}, "price", "is 1.200 meant as 1200?"),
        ({"price": "-3"}, "price", "one decimal mark"),
        ({"counted": "-1"}, "counted", "one decimal mark"),
        ({"figure": "410"}, "figure", "from 15 to 300 mm"),
        ({"kind": "varnish"}, "kind", "it is one of"),
        ({"label": "  "}, "label", "give it a name"),
    ],
)
def test_what_is_wrong_in_a_drawer_names_its_field(
    client: TestClient, body: dict[str, str], field: str, says: str
) -> None:
    item = {"id": str(uuid4()), "kind": "bridge_blank", "label": "blank", "figure": "41", "price": "7.50", **body}
    answer = client.post("/api/stock", json=item)
    assert answer.status_code == 422
    loc, said = refusal(answer.json())
    assert loc[-1] == field
    assert says in said or field == "label"


def test_no_more_goes_than_there_is(client: TestClient, blank: dict[str, Any]) -> None:
    entry = {"id": str(uuid4()), "what": "count", "value": "3", "comes": False, "reason": "split"}
    answer = client.post(f"/api/stock/{blank['id']}/entries", json=entry)
    assert refusal(answer.json()) == (["body", "value"], "there are 2 of blank 41, quiet grain: no more can go")
    for sent in (entry | {"value": "2"}, entry | {"value": "2"}):
        assert client.post(f"/api/stock/{blank['id']}/entries", json=sent).json()["on_hand"] == "0"
    client.post(f"/api/stock/{blank['id']}/entries", json={"id": str(uuid4()), "what": "price", "value": "8"})
    lines = client.get(f"/api/stock/{blank['id']}/entries").json()
    assert [(line["what"], line["value"]) for line in lines] == [
        ("price", "€8.00"), ("count", "−2"), ("price", "€7.50"), ("count", "+2"),
    ]  # fmt: skip


def test_settings_change_the_price_and_keep_their_history(client: TestClient, island: Plan) -> None:
    island.add("seam_glued")
    settings(client, rate_apprentice="60", tax="0", rounding="0,05", currency="gbp")
    assert island.variant("all")["usual"]["total"] == "£28.00"
    found = {one["setting"]: one for one in client.get("/api/settings").json()}
    assert [line["value"] for line in found["rate_apprentice"]["history"]] == ["60"]
    for name, value in {"tax": "101", "currency": "XXQ", "say_from": "60", "rounding_half": "down"}.items():
        answer = client.put(f"/api/settings/{name}", json={"id": str(uuid4()), "value": value})
        assert refusal(answer.json())[0] == ["body", "value"], name
