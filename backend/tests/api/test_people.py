"""Signing in, who may do what, and who is at the bench, over HTTP on real PostgreSQL."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import uuid4

import httpx2
import pytest
from fastapi.testclient import TestClient
from fidicula.db.unit_of_work import UnitOfWork
from fidicula.hosting.serving import serving
from fidicula.services.people.people import People
from sqlalchemy import Engine, text
from sqlalchemy.exc import DBAPIError

from ..conftest import signed_in
from .people import (
    ALL,
    BRAM,
    EVERYONE,
    FIGURE,
    ILSE,
    NOOR,
    NOT_ALL,
    OPEN,
    PASSWORDS,
    PINS,
    TEO,
    ask,
    id_of,
    person,
    reading,
    routes,
    session,
    sign_in,
    signed,
)

IN_ONE_PICTURE = {"/api/instruments/{ticket}/dossier"}
"""Read in a transaction, so that nothing changes while it is read."""


def test_every_route_without_a_session(app: Any, door: TestClient) -> None:
    """Only signing in, health and the stateless computations answer."""
    assert len(routes(app)) > 30
    for method, path in routes(app):
        refused = ask(door, method, path) == 401
        assert refused != ((method, path) in OPEN or path.startswith("/api/compute/")), (method, path)


@pytest.mark.parametrize("role", sorted(ALL))
def test_every_route_with_every_role(app: Any, role: str) -> None:
    """A role that may not is refused with 403, one that may gets past that."""
    with TestClient(app, base_url="http://127.0.0.1", headers=signed_in(app, EVERYONE[role])) as client:
        for method, path in routes(app):
            if path in ("/api/session", "/api/session/first", "/api/session/out", "/api/session/out-everywhere"):
                continue
            allowed = role in NOT_ALL.get((method, path), ALL)
            status = ask(client, method, path)
            assert status != 401, (method, path)
            assert (status != 403) == allowed, (method, path, status)


def test_what_is_only_asked_for_takes_no_transaction(
    app: Any, client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    begin, only_reads = UnitOfWork.__init__, []

    def noted(self: UnitOfWork, engine: Engine, **how: bool) -> None:
        only_reads.append(how.get("only_reads", False))
        begin(self, engine, **how)

    monkeypatch.setattr(UnitOfWork, "__init__", noted)
    found = set()
    for method, path in routes(app):
        if method == "get":
            only_reads.clear()
            ask(client, method, path)
            found |= set() if all(only_reads) else {path}
    assert found == IN_ONE_PICTURE


def test_a_change_from_another_site_is_refused(app: Any) -> None:
    """The cookie alone is not enough for a change: the page's own token has to come along."""
    headers = {**signed_in(app, TEO), "X-Fidicula-Form": "guessed"}
    with TestClient(app, base_url="http://127.0.0.1", headers=headers) as client:
        assert client.get("/api/rail").status_code == 200
        assert client.post("/api/instruments/RW-102/readings", json=reading()).status_code == 403


def test_the_cookie_is_kept_from_scripts_and_other_sites_and_over_tls_from_plain_wires(app: Any) -> None:
    for scheme, secure in (("http", False), ("https", True)):
        with TestClient(app, base_url=f"{scheme}://127.0.0.1") as client:
            cookie = sign_in(client, ILSE).headers["set-cookie"].lower()
            assert "httponly" in cookie
            assert "samesite=strict" in cookie
            assert ("; secure" in cookie) == secure


def test_passwords_are_kept_as_argon2_and_tokens_as_hashes(app: Any, door: TestClient) -> None:
    sign_in(door, ILSE)
    with app.state.engine.connect() as connection:
        kept = connection.execute(text("SELECT password_hash, pin_hash FROM person")).all()
        tokens = connection.execute(text("SELECT token_hash FROM sign_in")).scalars().all()
    assert all(value.startswith("$argon2id$") for row in kept for value in row)
    assert all(door.cookies["fidicula"].encode() not in bytes(token) for token in tokens)


def test_signing_in_and_out(door: TestClient) -> None:
    """Capitals and spaces around the name do not matter; after signing out the old cookie is worth nothing."""
    sign_in(door, f" {TEO.upper()} ", PASSWORDS[TEO])
    assert session(door)["person"]["name"] == TEO
    assert session(door)["may"] == ["arrive", "bill", "look", "measure", "recipes", "sign_off"]
    cookie = door.cookies["fidicula"]
    assert door.post("/api/session/out").status_code == 204
    door.cookies.set("fidicula", cookie)
    assert door.get("/api/rail").status_code == 401


def test_a_session_left_alone_ends(app: Any, door: TestClient) -> None:
    sign_in(door, TEO)
    with app.state.engine.begin() as connection:
        connection.execute(text("UPDATE sign_in SET last_seen_at = now() - interval '13 h'"))
    # A moment ago it was still known: a server that has just started has nothing in mind.
    app.state.services = replace(app.state.services, people=People(app.state.engine))
    assert door.get("/api/rail").status_code == 401


def test_whoever_signs_in_hears_of_wrong_guesses_and_an_owner_of_everyones(app: Any) -> None:
    """Since the sign-in before: what was said at one is not said at the next."""

    def heard(name: str, password: str) -> list[tuple[str, str, int]]:
        with TestClient(app, base_url="http://127.0.0.1") as browser:
            assert browser.post("/api/session", json={"name": name, "password": password}).status_code == 204
            told = browser.get("/api/session").json()["signed_in"]["guesses"]
        return [(one["name"], one["what"], one["count"]) for one in told]

    assert heard(ILSE, PASSWORDS[ILSE]) == []
    with TestClient(app, base_url="http://127.0.0.1") as stranger:
        for name in (TEO, ILSE, ILSE):
            assert stranger.post("/api/session", json={"name": name, "password": "guessed"}).status_code == 401
    assert heard(TEO, PASSWORDS[TEO]) == [(TEO, "password", 1)]
    assert heard(ILSE, PASSWORDS[ILSE]) == [(ILSE, "password", 2), (TEO, "password", 1)]
    assert heard(ILSE, PASSWORDS[ILSE]) == []


def test_someone_else_takes_the_bench_by_pin_and_each_reading_has_its_taker(door: TestClient) -> None:
    """The desk signed in; Bram gives his PIN and measures; what Teo took may not be sent before Teo gave his."""
    sign_in(door, NOOR)
    assert door.post("/api/instruments/RW-103/readings", json=reading(typed="23")).status_code == 403
    wrong = door.post("/api/session/bench", json={"person": id_of(door, BRAM), "pin": "0000"})
    assert wrong.status_code == 422
    assert door.post("/api/session/bench", json={"person": id_of(door, BRAM), "pin": PINS[BRAM]}).status_code == 200
    assert door.post("/api/instruments/RW-103/readings", json=reading(typed="23")).status_code == 200
    teo = {"X-Fidicula-Person": id_of(door, TEO)}
    assert door.post("/api/instruments/RW-103/readings", json=reading(typed="23.1"), headers=teo).status_code == 403
    to_bench(door, TEO, PINS[TEO])
    to_bench(door, BRAM)
    assert session(door)["at_bench"]["name"] == BRAM
    assert door.post("/api/instruments/RW-103/readings", json=reading(typed="23.1"), headers=teo).status_code == 200
    lines = door.get("/api/instruments/RW-103/log").json()
    assert [(line["value"], line["by"]) for line in lines[:2]] == [("23.1", TEO), ("23", BRAM)]


def to_bench(client: TestClient, name: str, pin: str = "") -> int:
    return client.post("/api/session/bench", json={"person": id_of(client, name), "pin": pin}).status_code


def test_the_desk_does_not_make_itself_owner(door: TestClient) -> None:
    """Ilse gave her PIN at the desk's browser once and left: her name alone opens nothing of hers any more."""
    sign_in(door, NOOR)
    assert to_bench(door, ILSE, PINS[ILSE]) == 200
    ilse = {"X-Fidicula-Person": id_of(door, ILSE)}
    assert to_bench(door, NOOR) == 200
    assert door.post("/api/people", json=person(), headers=ilse).status_code == 403
    assert door.put("/api/people/" + id_of(door, NOOR), json=person(role="owner"), headers=ilse).status_code == 403
    assert door.post("/api/instruments/RW-102/hand-over", headers=ilse).status_code == 403
    assert to_bench(door, ILSE) == 422
    assert to_bench(door, ILSE, PINS[ILSE]) == 200
    refused = door.post("/api/people", json=person())
    assert (refused.status_code, refused.json()["detail"][0]["type"]) == (403, "password_again")


def test_going_down_is_free_and_going_up_takes_a_pin(door: TestClient) -> None:
    sign_in(door, TEO)
    assert to_bench(door, BRAM, PINS[BRAM]) == 200
    assert to_bench(door, TEO) == 422
    assert to_bench(door, TEO, PINS[TEO]) == 200
    assert to_bench(door, BRAM) == 200


def test_what_changes_the_shop_wants_the_password_again(app: Any) -> None:
    """People, figures and devices; a wrong one changes nothing, a right one serves for ten minutes."""
    acts = [
        ("POST", "/api/people", person()),
        ("PUT", "/api/figures", FIGURE),
        ("POST", f"/api/browsers/{uuid4()}/revoke", None),
    ]
    headers = signed_in(app, ILSE, confirmed=False)
    with TestClient(app, base_url="http://127.0.0.1", headers=headers) as client:
        for method, path, body in acts:
            assert client.request(method, path, json=body).status_code == 403, path
        assert client.post("/api/session/confirm", json={"password": "guessed wrong"}).status_code == 422
        assert client.request(*acts[0][:2], json=acts[0][2]).status_code == 403
        assert client.post("/api/session/confirm", json={"password": PASSWORDS[ILSE]}).status_code == 204
        assert [client.request(method, path, json=body).status_code for method, path, body in acts] == [201, 200, 404]
        with app.state.engine.begin() as connection:
            connection.execute(text("UPDATE sign_in SET confirmed_at = confirmed_at - interval '11 min'"))
        app.state.services.people.forget()
        assert client.request("PUT", "/api/figures", json=FIGURE).status_code == 403


def test_another_pin_or_password_signs_out_where_it_was_used(client: TestClient, app: Any, door: TestClient) -> None:
    """A PIN where it unlocked the bench, a password everywhere; who changed it stays."""
    sign_in(door, NOOR)
    to_bench(door, TEO, PINS[TEO])
    teo = id_of(door, TEO)
    body = {"name": TEO, "role": "luthier", "password": "", "pin": "909090"}
    assert client.put(f"/api/people/{teo}", json=body).status_code == 200
    assert session(door)["at_bench"]["name"] == NOOR
    reads = door.post("/api/instruments/RW-103/readings", json=reading(), headers={"X-Fidicula-Person": teo})
    assert reads.status_code == 403
    with TestClient(app, base_url="http://127.0.0.1") as elsewhere:
        sign_in(elsewhere, TEO)
        assert client.put(f"/api/people/{teo}", json={**body, "password": "another weir"}).status_code == 200
        assert elsewhere.get("/api/rail").status_code == 401
        sign_in(elsewhere, TEO, status=401)
        sign_in(elsewhere, TEO, "another weir")


def test_signing_out_everywhere_and_sending_one_browser_away(app: Any, client: TestClient, door: TestClient) -> None:
    """Browsers are listed by name; one is revoked, all of one's own are ended at once."""
    door.headers["user-agent"] = "Mozilla/5.0 (Linux; Android 14) Chrome/156.0"
    sign_in(door, TEO)
    listed = {browser["name"]: browser for browser in client.get("/api/browsers").json()}
    assert listed["Chromium on Android"]["signed_in"] == [TEO]
    assert listed["a test's browser"]["is_this"]
    gone = client.post(f"/api/browsers/{listed['Chromium on Android']['id']}/revoke")
    assert [browser["name"] for browser in gone.json()] == ["a test's browser"]
    assert door.get("/api/rail").status_code == 401
    sign_in(door, TEO)
    with TestClient(app, base_url="http://127.0.0.1") as elsewhere:
        sign_in(elsewhere, TEO)
        assert elsewhere.post("/api/session/out-everywhere").status_code == 204
    assert door.get("/api/rail").status_code == 401
    assert client.get("/api/rail").status_code == 200


def test_a_luthiers_mark_is_not_an_apprentices_to_undo(app: Any) -> None:
    def marks(by: str) -> str:
        id = str(uuid4())
        with TestClient(app, base_url="http://127.0.0.1", headers=signed_in(app, by)) as other:
            until = (datetime.now(UTC) + timedelta(days=2)).isoformat()
            body = {"id": id, "reason": "the owner thinks it over", "until": until}
            assert other.post("/api/instruments/RW-106/steps/measure/wait", json=body).status_code == 200
        return id

    def undone(id: str, by: str) -> int:
        with TestClient(app, base_url="http://127.0.0.1", headers=signed_in(app, by)) as other:
            return other.post(f"/api/instruments/RW-106/marks/{id}/take-back").status_code

    assert undone(marks(BRAM), BRAM) == 200
    assert undone(marks(BRAM), TEO) == 200
    of_teo = marks(TEO)
    assert undone(of_teo, BRAM) == 403
    assert undone(of_teo, ILSE) == 200


def test_two_of_the_same_new_person_at_once(app: Any) -> None:
    with serving(app) as address, ThreadPoolExecutor(6) as pool:
        headers = signed_in(app, ILSE)
        asked = [pool.submit(httpx2.post, f"{address}/api/people", json=person(), headers=headers) for _ in range(6)]
        assert sorted(one.result().status_code for one in asked) == [201, 422, 422, 422, 422, 422]


def test_who_changed_what_is_on_record_and_stays_so(app: Any, client: TestClient) -> None:
    """People, figures and visits, with the request and without a secret; nobody rewrites it."""
    client.post("/api/people", json=person())
    assert client.put("/api/figures", json=FIGURE).status_code == 200
    client.post("/api/instruments/RW-102/hand-over", json=signed())
    lines = client.get("/api/audit").json()
    acts = [(line["act"], line["by"]) for line in lines[:3]]
    assert acts == [("instrument.handed_over", ILSE), ("figure.entered", ILSE), ("person.added", ILSE)]
    assert lines[0]["ticket"] == "RW-102"
    assert lines[1]["detail"]["now"][1] == 27.6
    assert all(line["request_id"] and line["browser"] == "a test's browser" for line in lines[:3])
    assert "argon2" not in str(lines)
    assert person()["pin"] not in str(lines[:3])
    older = client.get("/api/audit", params={"before": lines[1]["number"]}).json()
    assert older[0] == lines[2]
    client.post("/api/instruments/RW-103/readings", json=reading())
    mine = client.get("/api/instruments/RW-103/audit").json()
    assert (mine[0]["act"], mine[0]["subject"], mine[0]["by"]) == ("reading", "projection", ILSE)
    assert "instrument.arrived" in [line["act"] for line in mine]
    for change in ("UPDATE audit_entry SET by = 'nobody'", "DELETE FROM audit_entry", "TRUNCATE audit_entry"):
        with pytest.raises(DBAPIError, match="stays as it was written"), app.state.engine.begin() as connection:
            connection.execute(text(change))
