"""Particulars that are changed after an instrument came in, by one person or by two at once."""

from __future__ import annotations

from typing import Any

import pytest
from fastapi.testclient import TestClient

from .test_bench import Bench

pytestmark = pytest.mark.usefixtures("read_again")

AT = "/api/instruments/RW-102/particulars"


def change(client: TestClient, status: int, *changes: tuple[str, str, str]) -> dict[str, Any]:
    body = {"changes": [{"field": field, "was": was, "now": now} for field, was, now in changes]}
    answer = client.patch(AT, json=body)
    assert answer.status_code == status, answer.text
    return dict(answer.json())


def test_what_was_changed_stands_and_what_stood_before_is_in_the_log(client: TestClient) -> None:
    told = change(
        client,
        200,
        ("owner", "Pia Sandoval-Reuter", "Pia Sandoval-Reuter, and her teacher"),
        ("climate", "", "dry"),
        ("is_fleet", "no", "yes"),
    )["instrument"]
    assert (told["owner"], told["climate"], told["is_fleet"]) == ("Pia Sandoval-Reuter, and her teacher", "dry", True)
    lines = [(line["what"], line["value"]) for line in Bench(client, "RW-102").log()]
    assert ("owner", "Pia Sandoval-Reuter, and her teacher; before: Pia Sandoval-Reuter") in lines
    assert client.get("/api/rail").json()[1]["owner"] == "Pia Sandoval-Reuter, and her teacher"


def test_strung_for_the_other_hand_the_post_stands_under_the_low_strings(client: TestClient) -> None:
    """RW-102 is played left-handed; on a right-handed build bar and post stay where they were built."""
    sheet = change(client, 200, ("opposite_build", "no", "yes"))
    assert (sheet["instrument"]["left_handed"], sheet["drawing"]["opposite_build"]) == (True, True)
    said = client.post("/api/instruments/RW-102/pages/load", json={"handles": {}}).json()["finding"]
    assert any("on the treble foot, over the bar" in line for line in said)
    post = client.post("/api/instruments/RW-102/pages/post", json={"handles": {}}).json()["finding"]
    assert "the post stands under the low strings" in post[0]
    lines = [(line["what"], line["value"]) for line in Bench(client, "RW-102").log()]
    assert ("opposite build", "yes; before: no") in lines


def test_two_people_at_once_lose_no_word_and_the_second_sees_both(client: TestClient) -> None:
    """Both opened it before either wrote. The second is told what stands there now, and keeps the two together."""
    was = Bench(client, "RW-102").sheet["instrument"]["complaint"]
    change(client, 200, ("complaint", was, "Closed, and the A whistles."))
    refused = change(client, 409, ("complaint", was, "Closed; needed for the spring tour."), ("climate", "", "dry"))
    [item] = refused["detail"]
    assert item["loc"] == ["body", "complaint"]
    assert "Ilse Varnholt wrote here meanwhile: “Closed, and the A whistles.”" in item["msg"]
    told = Bench(client, "RW-102").sheet["instrument"]
    assert (told["complaint"], told["climate"]) == ("Closed, and the A whistles.", "")
    both = "Closed, and the A whistles. Needed for the spring tour."
    change(client, 200, ("complaint", "Closed, and the A whistles.", both))
    assert Bench(client, "RW-102").sheet["instrument"]["complaint"] == both


def test_two_people_at_different_places_are_not_in_each_others_way(client: TestClient) -> None:
    change(client, 200, ("worth", "", "6000 euros"))
    change(client, 200, ("believed", "", "made inland"))
    asked = Bench(client, "RW-102").sheet["instrument"]["asked"]
    assert (asked["worth"], asked["believed"]) == ("6000 euros", "made inland")


@pytest.mark.parametrize(
    ("field", "now", "loc"),
    [
        ("deadline", "2020-01-01", "deadline"),
        ("deadline", "soon", "deadline"),
        ("freeze_days", "61", "freeze_days"),
        ("climate", "arctic", "climate"),
        ("kind", "polish", "kind"),
        ("is_new", "perhaps", "is_new"),
        ("ticket", "RW-1", "changes"),
    ],
)
def test_what_cannot_be_names_its_field_and_changes_nothing(client: TestClient, field: str, now: str, loc: str) -> None:
    before = Bench(client, "RW-102").sheet["instrument"]
    was = {"freeze_days": "3", "kind": "sound", "is_new": "no"}.get(field, "")
    refused = change(client, 422, ("worth", "", "1"), (field, was, now))
    assert refused["detail"][0]["loc"] == ["body", loc]
    assert Bench(client, "RW-102").sheet["instrument"] == before
