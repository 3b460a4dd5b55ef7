"""Which readings a sheet is made of, and when they are read again."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
from typing import Any
from uuid import uuid4

import pytest
from fastapi.testclient import TestClient
from fidicula.db.one_sheet import _STATEMENT, OneSheet
from fidicula.db.unit_of_work import UnitOfWork
from sqlalchemy import Engine, Table, text
from sqlalchemy.sql.visitors import iterate


def test_a_height_typed_again_within_the_hour_is_left_behind_and_a_later_one_is_not(client: TestClient) -> None:
    """At 9:00, at 9:30 and at 11:00: only the first says nothing of how the strings settled."""
    for typed, at in (("5.1", "09:00"), ("5.0", "09:30"), ("4.9", "11:00")):
        body = {
            "id": str(uuid4()), "measure": "end_height", "position": 0, "typed": typed, "tool": "caliper",
            "taken_at": f"2026-11-23T{at}:00Z", "shown": None,
        }  # fmt: skip
        assert client.post("/api/instruments/RW-115/readings", json=body).status_code == 200
    with UnitOfWork(client.app.state.engine) as uow:  # type: ignore[attr-defined]
        found = uow.one_sheet.of("RW-115")
    assert found is not None
    heights = [one for one in found.readings if (one.measure, one.position) == ("end_height", 0)]
    assert [(one.typed, one.corrected_by is None) for one in heights] == [("5.0", False), ("4.9", True)]


def test_records_are_read_again_once_something_changed_and_not_before(
    client: TestClient, monkeypatch: pytest.MonkeyPatch
) -> None:
    of = OneSheet.of
    read: list[str] = []

    def noted(self: OneSheet, ticket: str) -> Any:
        read.append(ticket)
        return of(self, ticket)

    monkeypatch.setattr(OneSheet, "of", noted)

    def readings_of(act: Callable[[], Any]) -> int:
        read.clear()
        assert act().status_code == 200
        return len(read)

    def sheet() -> Any:
        return client.get("/api/instruments/RW-115/sheet")

    def take(typed: str) -> Any:
        body = {
            "id": str(uuid4()), "measure": "end_height", "position": 0, "typed": typed, "tool": "caliper",
            "taken_at": "2026-11-23T09:00:00Z", "shown": None,
        }  # fmt: skip
        return client.post("/api/instruments/RW-115/readings", json=body)

    assert [readings_of(act) for act in (sheet, sheet, lambda: take("5.1"), sheet, lambda: take("5.0"), sheet)] == [
        *(1, 0, 0, 0, 0, 0)
    ]
    with client.app.state.engine.begin() as connection:  # type: ignore[attr-defined]
        connection.execute(text("UPDATE reading SET doubt = 'small', suggested = 5 WHERE typed = '5.0'"))
    assert [readings_of(act) for act in (sheet, sheet)] == [1, 0]
    assert sheet().json()["cells"][0]["state"] == "doubted"


NEVER_CHANGED = {"string_set", "string_of_set"}
READ_EACH_TIME = {"hand_repeats", "rules_stamp"}


def test_a_change_of_every_table_that_a_sheet_is_made_of_is_counted(empty: Engine) -> None:
    tables = {table.name for table in iterate(_STATEMENT) if isinstance(table, Table)}
    with empty.connect() as connection:
        counted = Counter(
            connection.execute(
                text(
                    "SELECT c.relname FROM pg_trigger t JOIN pg_class c ON c.oid = t.tgrelid "
                    "WHERE t.tgname ~ '^counted_(insert|update|delete|first)$'"
                )
            ).scalars()
        )
    assert {**dict.fromkeys(tables - NEVER_CHANGED - READ_EACH_TIME, 3), "instrument": 2} == dict(counted)
