"""An id is one entry's: sent again it changes nothing, with another body it is refused, wherever one is taken."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any
from uuid import uuid4

from fastapi.testclient import TestClient
from fidicula.cli.demo_sound import simulated_recording
from fidicula.db.schema import metadata
from sqlalchemy import func, select

from .people import FIGURE, ILSE, PINS, reading
from .planning import Plan
from .sounding import MOVE, Session
from .test_photos import photograph
from .test_workflow import in_hours

Made = tuple[str, dict[str, Any], dict[str, Any]]
"""The address, a body without its id, and what another entry has in its place."""


class House:
    """The demo's house, and what a route needs to be there before it takes an entry."""

    def __init__(self, client: TestClient) -> None:
        self.client = client
        self.of = "/api/instruments"

    def get(self, path: str, **params: Any) -> Any:
        return self.client.get(path, params=params).json()

    def plan(self) -> str:
        plan = Plan(self.client, "RW-109")
        plan.add("seam_glued")
        plan.approve()
        return f"{plan.at}/lines/{plan.line('seam_glued')['id']}"

    def work(self, ticket: str, work: str) -> str:
        id = str(uuid4())
        answer = self.client.post(f"{self.of}/{ticket}/works", json={"id": id, "work": work})
        assert answer.status_code == 200, answer.text
        return id

    def invoice(self, ticket: str) -> str:
        Plan(self.client, ticket).approve()
        id, at = str(uuid4()), f"{self.of}/{ticket}/billing"
        total = self.get(at)["total"]
        answer = self.client.post(f"{at}/documents", json={"id": id, "kind": "invoice", "total": total})
        assert answer.status_code == 200, answer.text
        return id

    def item(self) -> str:
        body = {
            "id": str(uuid4()),
            "kind": "bridge_blank",
            "label": "blank 41",
            "figure": "41",
            "counted": "9",
            "price": "7",
        }
        return str(self.client.post("/api/stock", json=body).json()["id"])

    def heard(self) -> str:
        view = Session(self.client).do("heard", rated={"open": 3})
        return str(view["lines"][-1]["heard"][-1]["id"])

    def recordings(self) -> dict[str, str]:
        """Two, with a tap at the post between them."""
        session = Session(self.client)
        session.record(0.2)
        session.do("moves", **MOVE)
        found = [one["id"] for line in session.record(0.8)["lines"] for one in line["recordings"]]
        return {"one": found[-2], "other": found[-1]}

    def post_at(self) -> int:
        """The place where the post of RW-102 stands."""
        return int(self.get(f"{self.of}/RW-102/sound")["now"])

    def schools(self) -> dict[str, str]:
        """One for each question, as a recipe of the shop has them."""
        found = self.get("/api/recipes/violin")["recipes"]
        return dict(next(one["schools"] for one in found if one["name"] == "Soloist"))

    def read(self) -> list[str]:
        """Readings of two strings, which can be swapped."""
        found = []
        for position, typed in ((0, "5.1"), (3, "4.2")):
            body = reading(measure="end_height", position=position, typed=typed)
            self.client.post(f"{self.of}/RW-112/readings", json=body)
            found.append(body["id"])
        return found


def strings(house: House) -> dict[str, Any]:
    sets = house.get(f"{house.of}/RW-103/string-sets")
    return {"set_id": sets[0]["id"]}


KEY = ("family", "size", "measure", "question", "school", "page_size")
ROUTES: dict[tuple[str, str], Callable[[House], Made]] = {
    ("post", "/api/instruments"): lambda h: (
        h.of, {"family": "violin", "size": "4/4", "owner": "Pia"}, {"owner": "Jonah"}
    ),
    ("post", "/api/fleets"): lambda _: (
        "/api/fleets", {"family": "violin", "size": "4/4", "owner": "the band", "instruments": [{}, {}]},
        {"instruments": [{}]},
    ),
    ("post", "/api/instruments/{ticket}/additions"): lambda h: (
        f"{h.of}/RW-087/additions",
        {"visit_id": h.get(f"{h.of}/RW-087/sheet")["instrument"]["visit_id"], "words": "a card was found"},
        {"words": "two cards were found"},
    ),
    ("post", "/api/instruments/{ticket}/visits"): lambda h: (
        f"{h.of}/RW-087/visits", {"complaint": "recheck", "kind": "recheck"}, {"complaint": "it buzzes"}
    ),
    ("post", "/api/instruments/{ticket}/readings"): lambda h: (f"{h.of}/RW-103/readings", reading(), {"typed": "28"}),
    ("post", "/api/instruments/{ticket}/readings/put-right"): lambda h: (
        f"{h.of}/RW-112/readings/put-right", {"act": "undo", "readings": h.read()}, {"act": "swap"}
    ),
    ("post", "/api/instruments/{ticket}/works"): lambda h: (
        f"{h.of}/RW-103/works", {"work": "pegs_fitted"}, {"work": "cleaned"}
    ),
    ("post", "/api/instruments/{ticket}/strings"): lambda h: (
        f"{h.of}/RW-103/strings", strings(h), {"put_on_now": True}
    ),
    ("post", "/api/instruments/{ticket}/retunings"): lambda h: (
        f"{h.of}/RW-115/retunings", {"cents": ["-20", "", "-12", "-8"]}, {"remark": "a warm day"}
    ),
    ("post", "/api/instruments/{ticket}/decisions"): lambda h: (
        f"{h.of}/RW-106/decisions", {"question": "projection", "outcome": "accept", "reason": "a new cello"},
        {"reason": "arched high"},
    ),
    ("post", "/api/instruments/{ticket}/steps/{step}/done"): lambda h: (f"{h.of}/RW-104/steps/find/done", {}, {}),
    ("post", "/api/instruments/{ticket}/steps/{step}/pass-over"): lambda h: (
        f"{h.of}/RW-111/steps/nut/pass-over", {"reason": "done last week"}, {"reason": "not wanted"}
    ),
    ("post", "/api/instruments/{ticket}/steps/{step}/wait"): lambda h: (
        f"{h.of}/RW-111/steps/nut/wait", {"until": in_hours(48), "reason": "glue"}, {"reason": "damp"}
    ),
    ("post", "/api/instruments/{ticket}/steps/{step}/go-on"): lambda h: (
        f"{h.of}/RW-111/steps/nut/go-on", {"reason": "dry already"}, {"reason": "clamped"}
    ),
    ("post", "/api/instruments/{ticket}/items/{item}/seen"): lambda h: (
        f"{h.of}/RW-103/items/pegs/seen", {"verdict": "fine"}, {"verdict": "not_fine", "words": "they slip"}
    ),
    ("post", "/api/tools/{tool}/checked"): lambda _: (
        "/api/tools/caliper/checked", {"known": "5", "read": ["5.00", "5.02", "5.00"]}, {"known": "5.1"}
    ),
    ("post", "/api/instruments/{ticket}/photos/inspect"): lambda h: (
        f"{h.of}/RW-103/photos/inspect", {"shot": "post_whole"}, {"shot": "post_top"}
    ),
    ("post", "/api/instruments/{ticket}/sound/session"): lambda h: (
        f"{h.of}/RW-102/sound/session", {"player": "Pia"}, {"player": "Jonah"}
    ),
    ("post", "/api/instruments/{ticket}/sound/heard"): lambda h: (
        f"{h.of}/RW-102/sound/heard", {"rated": {"open": 4}}, {"rated": {"open": 2}}
    ),
    ("post", "/api/instruments/{ticket}/sound/heard/{heard_id}/played-by"): lambda h: (
        f"{h.of}/RW-102/sound/heard/{h.heard()}/played-by", {"player": "Pia"}, {"player": "Jonah"}
    ),
    ("post", "/api/instruments/{ticket}/sound/moves"): lambda h: (
        f"{h.of}/RW-102/sound/moves", {"end": "top", "direction": "bass", "taps": "1"}, {"taps": "2"}
    ),
    ("post", "/api/instruments/{ticket}/sound/half-back"): lambda h: (
        f"{h.of}/RW-102/sound/half-back", {"now": h.post_at()}, {"now": 1}
    ),
    ("post", "/api/instruments/{ticket}/sound/back"): lambda h: (
        f"{h.of}/RW-102/sound/back", {"place": 2, "now": h.post_at()}, {"place": 1}
    ),
    ("post", "/api/instruments/{ticket}/sound/trial"): lambda h: (
        f"{h.of}/RW-102/sound/trial", {"what": "weight", "place": "crown"}, {"words": "heavier"}
    ),
    ("post", "/api/instruments/{ticket}/sound/trial-off"): lambda h: (f"{h.of}/RW-102/sound/trial-off", {}, {}),
    ("post", "/api/instruments/{ticket}/sound/wood"): lambda h: (
        f"{h.of}/RW-102/sound/wood", {"place": "heart", "off": "0.2", "left": "7.4"}, {"off": "0.3"}
    ),
    ("post", "/api/instruments/{ticket}/sound/post"): lambda h: (
        f"{h.of}/RW-102/sound/post", {"length": "52"}, {"length": "53"}
    ),
    ("post", "/api/instruments/{ticket}/sound/blind"): lambda h: (
        f"{h.of}/RW-102/sound/blind", {**h.recordings(), "trials": 6}, {"player": "Jonah"}
    ),
    ("put", "/api/shelf/{family}/{name}"): lambda _: (
        "/api/shelf/violin/bridge_blanks", {"values": ["41"]}, {"values": ["42"]}
    ),
    ("post", "/api/instruments/{ticket}/plan/lines"): lambda h: (
        f"{h.of}/RW-103/plan/lines", {"works": ["pegs_fitted"]}, {"works": ["cleaned"]}
    ),
    ("post", "/api/instruments/{ticket}/plan/lines/{line_id}/parts"): lambda h: (
        f"{h.plan()}/parts", {"item": h.item(), "count": "1"}, {"count": "2"}
    ),
    ("post", "/api/instruments/{ticket}/plan/lines/{line_id}/begin"): lambda h: (f"{h.plan()}/begin", {}, {}),
    ("post", "/api/instruments/{ticket}/plan/lines/{line_id}/finish"): lambda h: (
        f"{h.plan()}/finish", {"minutes": "20"}, {"minutes": "30"}
    ),
    ("post", "/api/instruments/{ticket}/plan/discount"): lambda h: (
        f"{h.of}/RW-109/plan/discount", {"percent": "5", "reason": "a friend"}, {"percent": "6"}
    ),
    ("post", "/api/instruments/{ticket}/plan/approvals"): lambda h: (
        f"{h.of}/RW-109/plan/approvals",
        {"who": "the owner", "how": "phone", "total": h.get(f"{h.of}/RW-109/plan")["total"]},
        {"who": "her brother"},
    ),
    ("post", "/api/instruments/{ticket}/billing/works/{work_id}"): lambda h: (
        f"{h.of}/RW-109/billing/works/{h.work('RW-109', 'cleaned')}", {"minutes": "30"}, {"minutes": "40"}
    ),
    ("post", "/api/instruments/{ticket}/billing/payments"): lambda h: (
        f"{h.of}/RW-109/billing/payments", {"amount": "5", "way": "cash", "paid_on": "2026-11-23"}, {"amount": "6"}
    ),
    ("post", "/api/instruments/{ticket}/billing/documents"): lambda h: (
        f"{h.of}/RW-109/billing/documents",
        {"kind": "estimate", "total": h.get(f"{h.of}/RW-109/billing")["estimate_total"]},
        {"kind": "invoice"},
    ),
    ("post", "/api/instruments/{ticket}/billing/documents/{document_id}/cancel"): lambda h: (
        f"{h.of}/RW-109/billing/documents/{h.invoice('RW-109')}/cancel", {"reason": "a slip"}, {"reason": "another"}
    ),
    ("post", "/api/stock"): lambda _: (
        "/api/stock", {"kind": "bridge_blank", "label": "blank 42", "figure": "42"}, {"label": "blank 43"}
    ),
    ("post", "/api/stock/{item_id}/entries"): lambda h: (
        f"/api/stock/{h.item()}/entries", {"what": "count", "value": "1", "reason": "found"}, {"value": "2"}
    ),
    ("put", "/api/settings/{setting}"): lambda _: ("/api/settings/rate_luthier", {"value": "60"}, {"value": "61"}),
    ("post", "/api/instruments/{ticket}/damage"): lambda h: (
        f"{h.of}/RW-103/damage",
        {"thing": str(uuid4()), "kind": "crack", "face": "front", "along": "300", "across": "-40", "state": "open"},
        {"words": "it runs to the edge"},
    ),
    ("post", "/api/instruments/{ticket}/damage/signed"): lambda h: (
        f"{h.of}/RW-103/damage/signed", {"who": "Wren Kallio"}, {"who": "Ada Lindqvist"}
    ),
    ("post", "/api/instruments/{ticket}/belongings"): lambda h: (
        f"{h.of}/RW-103/belongings", {"thing": str(uuid4()), "kind": "chin_rest"}, {"which": "of the fleet"}
    ),
    ("post", "/api/instruments/{ticket}/checks"): lambda h: (
        f"{h.of}/RW-103/checks", {"points": ["pegs_hold"], "verdict": "right"}, {"verdict": "not_right", "words": "C"}
    ),
    ("post", "/api/instruments/{ticket}/hand-over"): lambda h: (
        f"{h.of}/RW-114/hand-over", {"pin": PINS[ILSE], "left_open": {"": "it is wanted today"}}, {"received_by": "Pia"}
    ),
    ("put", "/api/closing-points/{point}"): lambda _: (
        "/api/closing-points/own_case", {"label": "the case is wiped"}, {"label": "the case is aired"}
    ),
    ("post", "/api/closing-points/{point}/leave-out"): lambda _: ("/api/closing-points/played/leave-out", {}, {}),
    ("put", "/api/questions"): lambda _: (
        "/api/questions", {"name": "the band's", "words": "cellos with projection under 79"}, {"words": "cellos"}
    ),
    ("post", "/api/questions/forget"): lambda _: ("/api/questions/forget", {"name": "the band's"}, {"name": "mine"}),
    ("put", "/api/figures"): lambda _: ("/api/figures", {**FIGURE}, {"source": "somebody else's"}),
    ("post", "/api/figures/withdraw"): lambda _: (
        "/api/figures/withdraw", {n: FIGURE[n] for n in KEY}, {"page_size": "3/4"}
    ),
    ("post", "/api/figures/undo"): lambda _: (
        "/api/figures/undo", {n: FIGURE[n] for n in KEY}, {"page_size": "3/4"}
    ),
    ("put", "/api/instruments/{ticket}/targets"): lambda h: (
        f"{h.of}/RW-102/targets", {"recipe": "Soloist", "reason": "she asked"}, {"recipe": None}
    ),
    ("put", "/api/recipes/{family}/{name}"): lambda h: (
        "/api/recipes/violin/Island", {"schools": h.schools()}, {"schools": {**h.schools(), "crown": "flatter"}}
    ),
    ("post", "/api/recipes/{family}/{name}/follow"): lambda _: ("/api/recipes/violin/Island/follow", {}, {}),
    ("post", "/api/recipes/{family}/{name}/retire"): lambda _: ("/api/recipes/violin/Soloist/retire", {}, {}),
}  # fmt: skip
"""In an order in which each finds what it needs. Where no other body can be, another address takes its place."""

FILES = {
    ("post", "/api/instruments/{ticket}/photos"): ("/api/instruments/RW-103/photos", {"item": "seams"}, "image/jpeg"),
    ("post", "/api/instruments/{ticket}/sound/recordings"): (
        "/api/instruments/RW-102/sound/recordings", {"words": "open strings"}, "audio/wav",
    ),
}  # fmt: skip


def with_ids(app: Any) -> set[tuple[str, str]]:
    """Every route that takes the id of a new entry, by the API's own description."""
    document = app.openapi()
    schemas = document["components"]["schemas"]
    found = set()
    for path, methods in document["paths"].items():
        for method, operation in methods.items():
            content = operation.get("requestBody", {}).get("content", {}).get("application/json", {})
            name = content.get("schema", {}).get("$ref", "").rpartition("/")[2]
            asked = {one["name"] for one in operation.get("parameters", []) if one["in"] == "query"}
            if "id" in asked | set(schemas.get(name, {}).get("properties", {})):
                found.add((method, path))
    return found


def lines_of(client: TestClient) -> dict[str, int]:
    """How many rows each table has."""
    with client.app.state.engine.connect() as connection:  # type: ignore[attr-defined]
        return {
            table.name: connection.execute(select(func.count()).select_from(table)).scalar_one()
            for table in metadata.sorted_tables
            if table.name not in ("guess", "sign_in", "browser")
        }


def test_every_route_that_takes_an_id_is_walked(app: Any) -> None:
    assert with_ids(app) == set(ROUTES) | set(FILES)


def faults_of(client: TestClient, method: str, address: str, sent: dict[str, Any], other: dict[str, Any]) -> list[str]:
    """What is wrong with one route: the same entry once more, another body, and the same id at another address."""
    first = client.request(method, address, json=sent)
    if not first.is_success:
        return [f"not taken: {first.text[:300]}"]
    there = lines_of(client)
    again = client.request(method, address, json=sent)
    changed = client.request(method, address, json={**sent, **other})
    elsewhere = client.post("/api/instruments/RW-104/works", json={"id": sent["id"], "work": "cleaned"})
    used = elsewhere.status_code == 409 and "already used" in elsewhere.text
    return [
        said
        for said, is_so in {
            f"the same again is answered {again.status_code}: {again.text[:200]}": again.status_code
            != first.status_code,
            f"another body is answered {changed.status_code}: {changed.text[:200]}": other
            and (changed.status_code != 409 or "already used" not in changed.text),
            f"at another address it is answered {elsewhere.status_code}: {elsewhere.text[:200]}": not used,
            f"it was written again: {lines_of(client).items() - there.items()}": lines_of(client) != there,
        }.items()
        if is_so
    ]


def test_an_id_is_one_entry_on_every_route(client: TestClient) -> None:
    house = House(client)
    faults = {}
    for (method, path), made in ROUTES.items():
        address, body, other = made(house)
        faults[method, path] = faults_of(client, method, address, {**body, "id": str(uuid4())}, other)
    assert {route: found for route, found in faults.items() if found} == {}


def test_a_photograph_and_a_recording_are_one_entry_each(client: TestClient) -> None:
    for (_, path), (address, params, media_type) in FILES.items():
        sounds = [simulated_recording(brightness=one) for one in (0.2, 0.8)]
        first, other = sounds if media_type == "audio/wav" else [photograph(width) for width in (400, 500)]
        sent = {**params, "id": str(uuid4())}
        headers = {"content-type": media_type}
        assert client.post(address, params=sent, content=first, headers=headers).status_code == 200, path
        there = lines_of(client)
        assert client.post(address, params=sent, content=first, headers=headers).status_code == 200, path
        refused = client.post(address, params=sent, content=other, headers=headers)
        assert refused.status_code == 409, refused.text
        assert lines_of(client) == there, path


def test_a_second_arrival_under_the_first_ones_id_names_the_first(client: TestClient) -> None:
    """A page that kept the id of the first arrival: the second is refused, and is not given the first one's ticket."""
    first = {"id": str(uuid4()), "family": "violin", "size": "4/4", "owner": "Pia Sandoval-Reuter"}
    ticket = client.post("/api/instruments", json=first).json()["ticket"]
    refused = client.post("/api/instruments", json={**first, "owner": "Jonah Atterbury", "kind": "sound"})
    assert refused.status_code == 409
    assert refused.json()["detail"][0]["msg"].startswith(f"this entry was already used for {ticket}")


def test_a_corrected_entry_keeps_its_id_after_a_refusal(client: TestClient) -> None:
    """What was refused was not written: put right, it goes in under the id that it has."""
    sent = reading(typed="a hand's width")
    assert client.post("/api/instruments/RW-103/readings", json=sent).status_code == 422
    assert client.post("/api/instruments/RW-103/readings", json={**sent, "typed": "27"}).status_code == 200
