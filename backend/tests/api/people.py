"""Who signs in at the demo shop, and what a test asks in somebody's name."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from fastapi.testclient import TestClient
from fidicula.cli.demo import demo_sign_ins

PASSWORDS = {name: password for name, _, password, _ in demo_sign_ins()}
PINS = {name: pin for name, _, _, pin in demo_sign_ins()}
ILSE, TEO, BRAM, NOOR = PASSWORDS
EVERYONE = {"owner": ILSE, "luthier": TEO, "apprentice": BRAM, "desk": NOOR}
ALL = set(EVERYONE)

OPEN = {
    ("get", "/api/session"),
    ("post", "/api/session"),
    ("post", "/api/session/first"),
    ("get", "/api/health"),
    ("get", "/api/ready"),
    ("get", "/api/metrics"),
}
"""These and the stateless computations answer without a session; nothing else does."""

NOT_ALL = {
    ("post", "/api/instruments/{ticket}/readings"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/readings/{reading_id}/confirm"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/readings/put-right"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/readings/{reading_id}/take-back"): ALL - {"desk"},
    ("post", "/api/many/works"): ALL - {"desk"},
    ("post", "/api/many/strings"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/works"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/works/{work_id}/take-back"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/redo"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/checks"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/checks/take-back"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/additions"): ALL - {"desk"},
    ("post", "/api/archives/export"): {"owner"},
    ("post", "/api/archives/upload"): {"owner"},
    ("get", "/api/archives/{job_id}/file"): {"owner"},
    ("post", "/api/archives/{job_id}/import"): {"owner"},
    ("post", "/api/archives/{job_id}/stop"): {"owner"},
    ("delete", "/api/archives/{job_id}"): {"owner"},
    ("post", "/api/readings-table"): ALL - {"desk"},
    ("put", "/api/closing-points/{point}"): {"owner", "luthier"},
    ("post", "/api/closing-points/{point}/leave-out"): {"owner", "luthier"},
    ("post", "/api/instruments/{ticket}/hand-over"): {"owner", "luthier"},
    ("post", "/api/instruments/{ticket}/hand-over/take-back"): {"owner", "luthier"},
    ("post", "/api/instruments/{ticket}/decisions"): {"owner", "luthier"},
    ("post", "/api/instruments/{ticket}/decisions/{decision_id}/take-back"): {"owner", "luthier"},
    ("post", "/api/instruments/{ticket}/steps/{step}/done"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/steps/{step}/wait"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/steps/{step}/pass-over"): {"owner", "luthier"},
    ("post", "/api/instruments/{ticket}/steps/{step}/go-on"): {"owner", "luthier"},
    ("post", "/api/instruments/{ticket}/marks/{mark_id}/take-back"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/items/{item}/seen"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/seen/{seen_id}/take-back"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/damage"): ALL,
    ("post", "/api/instruments/{ticket}/damage/signed"): ALL,
    ("post", "/api/instruments/{ticket}/damage/{entry_id}/take-back"): ALL,
    ("post", "/api/tools/{tool}/checked"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/photos/inspect"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/strings"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/device"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/session"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/heard"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/heard/{heard_id}/played-by"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/{kind}/{line_id}/take-back"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/moves"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/half-back"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/back"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/trial"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/trial-off"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/wood"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/post"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/recordings"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/blind"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/blind/{trial_id}/chosen"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/sound/blind/{series_id}/give-up"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/retunings"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/retunings/{retuning_id}/take-back"): ALL - {"desk"},
    ("put", "/api/instruments/{ticket}/targets"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/targets/{choice_id}/take-back"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/plan/lines"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/plan/lines/{line_id}/drop"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/plan/lines/{line_id}/move"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/plan/lines/{line_id}/parts"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/plan/parts/{part_id}/put-back"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/plan/lines/{line_id}/begin"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/plan/lines/{line_id}/pause"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/plan/lines/{line_id}/finish"): ALL - {"desk"},
    ("put", "/api/instruments/{ticket}/plan/lines/{line_id}/grade"): ALL - {"desk"},
    ("post", "/api/instruments/{ticket}/plan/discount"): {"owner", "luthier"},
    ("post", "/api/instruments/{ticket}/billing/documents"): ALL - {"apprentice"},
    ("post", "/api/instruments/{ticket}/billing/documents/{document_id}/cancel"): ALL - {"apprentice"},
    ("post", "/api/instruments/{ticket}/billing/payments"): ALL - {"apprentice"},
    ("post", "/api/instruments/{ticket}/billing/payments/{payment_id}/take-back"): ALL - {"apprentice"},
    ("post", "/api/instruments/{ticket}/billing/works/{work_id}"): ALL - {"apprentice"},
    ("post", "/api/stock"): {"owner", "luthier"},
    ("post", "/api/stock/{item_id}/entries"): ALL - {"desk"},
    ("put", "/api/settings/{setting}"): {"owner"},
    ("put", "/api/recipes/{family}/{name}"): {"owner", "luthier"},
    ("put", "/api/shelf/{family}/{name}"): {"owner", "luthier"},
    ("post", "/api/recipes/{family}/{name}/retire"): {"owner", "luthier"},
    ("post", "/api/recipes/{family}/{name}/follow"): {"owner", "luthier"},
    ("put", "/api/figures"): {"owner"},
    ("post", "/api/figures/withdraw"): {"owner"},
    ("post", "/api/figures/undo"): {"owner"},
    ("post", "/api/many/hand-over"): {"owner", "luthier"},
    ("post", "/api/many/hand-over/take-back"): {"owner", "luthier"},
    ("post", "/api/many/pass-over"): {"owner", "luthier"},
    ("put", "/api/many/targets"): ALL - {"desk"},
    ("post", "/api/people"): {"owner"},
    ("put", "/api/people/{person_id}"): {"owner"},
    ("post", "/api/browsers/{browser_id}/revoke"): {"owner"},
    ("get", "/api/audit"): {"owner", "luthier"},
}
"""Who may, where not everyone who works here may."""


def sign_in(door: TestClient, name: str, password: str | None = None, status: int = 204) -> Any:
    answer = door.post("/api/session", json={"name": name, "password": password or PASSWORDS[name]})
    assert answer.status_code == status, answer.text
    if status == 204:
        door.headers["X-Fidicula-Form"] = session(door)["form_token"]
    return answer


def session(door: TestClient) -> dict[str, Any]:
    return dict(door.get("/api/session").json()["signed_in"])


def id_of(door: TestClient, name: str) -> str:
    return str(next(person["id"] for person in session(door)["people"] if person["name"] == name))


def reading(**changes: Any) -> dict[str, Any]:
    return {
        "id": str(uuid4()), "measure": "projection", "position": None, "typed": "27", "tool": "caliper",
        "taken_at": "2026-11-23T09:00:00Z", "after_work": 0, "shown": None, **changes,
    }  # fmt: skip


def routes(app: Any) -> list[tuple[str, str]]:
    document = app.openapi()
    return [(method, path) for path, methods in document["paths"].items() for method in methods]


def ask(client: TestClient, method: str, path: str) -> int:
    values = {"ticket": "RW-102", "family": "violin", "name": "Soloist", "kind": "spacing"}
    filled = path
    for part in path.split("{")[1:]:
        name = part.split("}")[0]
        filled = filled.replace(f"{{{name}}}", values.get(name, str(uuid4())))
    return client.request(method, filled, json={} if method in ("post", "put") else None).status_code


FIGURE = {
    "id": str(uuid4()), "family": "violin", "size": "4/4", "measure": "projection", "question": "", "school": "",
    "page_size": "4/4", "low": "27", "aim": "27.6", "high": "28", "source": "the shop's own", "confirmed": True,
}  # fmt: skip


def person(**changes: Any) -> dict[str, Any]:
    return {
        "name": "Øystein Ðe Nuñez 王",
        "role": "apprentice",
        "password": "a new workbench",
        "pin": "500529",
        **changes,
    }


def signed(name: str = ILSE, **more: Any) -> dict[str, Any]:
    """A hand-over signed by somebody who says of all that is open why it stays so."""
    return {"id": str(uuid4()), "pin": PINS[name], "left_open": {"": "the owner wants it back today"}, **more}
