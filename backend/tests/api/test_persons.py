"""Who works in the shop: taken on, changed, let go; an owner is always left."""

from __future__ import annotations

import pytest
from fastapi.testclient import TestClient
from fidicula.main import create_app
from fidicula.settings import Settings
from sqlalchemy import Engine

from .people import ILSE, person, session, sign_in


def test_the_owner_takes_someone_on_and_lets_them_go(client: TestClient, door: TestClient) -> None:
    """A name in any script; who left is signed out at once and cannot come back in."""
    assert client.post("/api/people", json=person()).status_code == 201
    sign_in(door, person()["name"], "a new workbench")
    new = next(p for p in client.get("/api/session").json()["signed_in"]["people"] if p["name"] == person()["name"])
    assert client.post("/api/people", json=person(name=new["name"].upper())).status_code == 422
    gone = client.put(f"/api/people/{new['id']}", json=person(active=False, password="", pin=""))
    assert gone.status_code == 200
    assert door.get("/api/rail").status_code == 401
    sign_in(door, new["name"], "a new workbench", status=401)


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"name": "  "}, "name"),
        ({"password": "short"}, "password"),
        ({"pin": "12ab"}, "pin"),
        ({"role": "king"}, "role"),
    ],
)
def test_what_no_person_can_be_is_refused_naming_the_field(
    client: TestClient, changes: dict[str, str], field: str
) -> None:
    answer = client.post("/api/people", json=person(**changes))
    assert answer.status_code == 422
    assert answer.json()["detail"][0]["loc"] == ["body", field]


def test_an_owner_is_always_left(client: TestClient) -> None:
    ilse = client.get("/api/session").json()["signed_in"]["person"]
    for changes in ({"role": "luthier"}, {"role": "owner", "active": False}):
        body = person(name=ILSE, password="", pin="", **changes)
        assert client.put(f"/api/people/{ilse['id']}", json=body).status_code == 409


def test_the_first_to_come_owns_an_empty_shop_and_only_the_first(empty: Engine) -> None:
    application = create_app(Settings(database_url=empty.url.render_as_string(hide_password=False)))
    with TestClient(application, base_url="http://127.0.0.1") as client:
        assert client.get("/api/session").json() == {"first": True, "signed_in": None}
        body = {"name": "Wren Kallio", "password": "reeds in the wind", "pin": "121212"}
        assert client.post("/api/session/first", json={**body, "password": ""}).status_code == 422
        assert client.post("/api/session/first", json=body).status_code == 204
        assert session(client)["person"]["role"] == "owner"
        assert client.post("/api/session/first", json=body).status_code == 409
    application.state.engine.dispose()


def test_nobody_listens_in_without_a_session(door: TestClient) -> None:
    """It is no part of the client's file, because it never ends; the door is the same."""
    assert door.get("/api/changes").status_code == 401
