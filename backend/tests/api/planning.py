"""One instrument's plan over HTTP, as a browser works on it."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from fastapi.testclient import TestClient

OF = "/api/instruments/{}/plan"


class Plan:
    """One instrument's plan, as a browser works on it."""

    def __init__(self, client: TestClient, ticket: str) -> None:
        self.client, self.at = client, OF.format(ticket)
        self.ticket = ticket

    def view(self) -> dict[str, Any]:
        return dict(self.client.get(self.at).json())

    def post(self, path: str, status: int = 200, **body: Any) -> dict[str, Any]:
        answer = self.client.post(f"{self.at}/{path}", json=body)
        assert answer.status_code == status, answer.text
        return dict(answer.json())

    def add(self, *works: str, status: int = 200, **more: Any) -> dict[str, Any]:
        return self.post("lines", status, id=str(uuid4()), works=list(works), **more)

    def line(self, work: str) -> dict[str, Any]:
        return next(line for line in self.view()["lines"] if line["work"] == work)

    def do(self, work: str, act: str, status: int = 200, **body: Any) -> dict[str, Any]:
        return self.post(f"lines/{self.line(work)['id']}/{act}", status, **body)

    def begin(self, work: str, status: int = 200) -> dict[str, Any]:
        return self.do(work, "begin", status, id=str(uuid4()))

    def finish(self, work: str, minutes: str, status: int = 200) -> dict[str, Any]:
        return self.do(work, "finish", status, id=str(uuid4()), minutes=minutes)

    def approve(self, status: int = 200, **more: Any) -> dict[str, Any]:
        body = {"who": "the owner", "how": "phone", "total": self.view()["total"], **more}
        return self.post("approvals", status, id=str(uuid4()), **body)

    def variant(self, grade: str) -> dict[str, Any]:
        return next(one for one in self.view()["variants"] if one["grade"] == grade)


def refusal(answer: dict[str, Any]) -> tuple[list[Any], str]:
    return answer["detail"][0]["loc"], answer["detail"][0]["msg"]


def settings(client: TestClient, **values: str) -> None:
    for name, value in values.items():
        answer = client.put(f"/api/settings/{name}", json={"id": str(uuid4()), "value": value})
        assert answer.status_code == 200, answer.text
