"""What was entered, by an account of its own, held against what is on record.

An entry is known by its mark: a text, or a figure, that stands in no other. What an entry left empty has to be empty on
record as well. Nothing here is taken from the application but the rows of its tables.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Mapping
from dataclasses import dataclass, field
from typing import Any

from sqlalchemy import Engine, text

AT = "JOIN visit v ON v.id = t.visit_id JOIN instrument i ON i.id = v.instrument_id"
RECORDS: Mapping[str, tuple[str, str]] = {
    "arrival": (
        "owner",
        "SELECT t.owner AS mark, t.ticket, v.kind, t.description FROM instrument t "
        "JOIN visit v ON v.instrument_id = t.id",
    ),
    "reading": (
        "typed",
        f"SELECT t.typed AS mark, i.ticket, t.measure, t.repeats, t.taken_back_at IS NOT NULL AS undone "
        f"FROM reading t {AT}",
    ),
    "rating": (
        "remark",
        f"SELECT t.remark AS mark, i.ticket, t.player_words AS words, t.rated, t.listened FROM heard t {AT}",
    ),
    "belonging": ("which", f"SELECT t.which AS mark, i.ticket, t.kind, t.lies, t.material FROM belonging t {AT}"),
    "damage": (
        "words",
        f"SELECT t.words AS mark, i.ticket, t.kind, t.face, t.state, t.along, t.under_tension FROM damage t {AT}",
    ),
    "approval": (
        "words",
        f"SELECT t.words AS mark, i.ticket, t.how, t.signature <> '' AS signed FROM approval t {AT}",
    ),
    "plan_line": ("reason", f"SELECT t.reason AS mark, i.ticket, t.work FROM plan_line t {AT}"),
    "move": (
        "words",
        f"SELECT t.detail->>'words' AS mark, i.ticket, t.detail->>'taps' AS taps, t.detail->>'end' AS end "
        f"FROM work_done t {AT} WHERE t.work = 'post_moved'",
    ),
    "retuning": ("remark", f"SELECT t.remark AS mark, i.ticket, t.cents FROM retuning t {AT}"),
    "recipe": (
        "reason",
        "SELECT t.reason AS mark, i.ticket, t.recipe FROM target_choice t JOIN instrument i ON i.id = t.instrument_id",
    ),
    "inspection": (
        "words",
        f"SELECT t.words AS mark, i.ticket, t.item, t.verdict, cardinality(t.findings) AS found FROM seen t {AT}",
    ),
    "stringing": (
        "name",
        f"SELECT s.name AS mark, i.ticket, s.material, t.work = 'strings_changed' AS put_on_now, "
        f"t.detail->>'since' AS since FROM work_done t {AT} JOIN string_set s ON s.id = t.string_set_id "
        f"WHERE NOT s.is_mixed",
    ),
    "check": ("words", f"SELECT t.words AS mark, i.ticket, t.point, t.verdict FROM point_check t {AT}"),
    "other_work": (
        "words",
        f"SELECT t.detail->>'words' AS mark, i.ticket FROM work_done t {AT} WHERE t.work = 'other_work'",
    ),
    "point": ("label", "SELECT t.label AS mark, '' AS ticket, t.look, t.means FROM point_entry t"),
    # What the owner approves answers a question by itself.
    "decision": (
        "reason",
        f"SELECT t.reason AS mark, i.ticket, t.question, t.outcome FROM decision t {AT} "
        f"WHERE t.reason NOT LIKE '% approved up to %'",
    ),
    "item": ("label", "SELECT t.label AS mark, '' AS ticket, t.kind, t.place, t.supplier FROM stock_item t"),
    "question": ("name", "SELECT t.name AS mark, '' AS ticket, t.words FROM question_entry t"),
}
"""By kind of entry: the column that holds its mark, and its rows with what else was entered."""


@dataclass
class Entry:
    """fields : what else was entered, and what was left empty.  is_sure : whether it was pressed."""

    kind: str
    mark: str
    ticket: str
    fields: dict[str, Any] = field(default_factory=dict)
    is_sure: bool = True


@dataclass
class Account:
    """What became of the entries of a walk. told : a line for each fault."""

    acts: int = 0
    lost: int = 0
    wrong_place: int = 0
    doubled: int = 0
    invented: int = 0
    carried_over: int = 0
    told: list[str] = field(default_factory=list)

    def add(self, kind: str, said: str) -> None:
        setattr(self, kind, getattr(self, kind) + 1)
        self.told.append(f"{kind}: {said}")

    @property
    def faults(self) -> int:
        return self.lost + self.wrong_place + self.doubled + self.invented + self.carried_over


class Ledger:
    """Written beside the walk."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine
        self.entries: list[Entry] = []
        self._before = {kind: Counter(row["mark"] for row in self._rows(kind)) for kind in RECORDS}

    def enter(self, kind: str, mark: str, ticket: str, /, **fields: Any) -> Entry:
        entry = Entry(kind, mark, ticket, fields)
        self.entries.append(entry)
        return entry

    def account(self, acts: int) -> Account:
        """What is on record, held against what was entered."""
        found = Account(acts)
        for kind in RECORDS:
            rows: dict[str, list[dict[str, Any]]] = {}
            for row in self._rows(kind):
                rows.setdefault(row["mark"], []).append(row)
            entries = [entry for entry in self.entries if entry.kind == kind]
            for entry in entries:
                _judge(found, entry, rows.pop(entry.mark, []))
            for mark, there in rows.items():
                for _ in range(len(there) - self._before[kind][mark]):
                    found.add("invented", f"{kind} “{mark}” at {there[-1]['ticket']}: nobody entered it")
        return found

    def _rows(self, kind: str) -> list[dict[str, Any]]:
        with self._engine.connect() as connection:
            return [dict(row) for row in connection.execute(text(RECORDS[kind][1])).mappings()]


def _judge(found: Account, entry: Entry, rows: list[dict[str, Any]]) -> None:
    name = f"{entry.kind} “{entry.mark}” of {entry.ticket or 'the shop'}"
    here = [row for row in rows if entry.ticket in ("", row["ticket"])]
    if not rows and entry.is_sure:
        found.add("lost", name)
    elif not rows:
        return
    elif not here:
        found.add("wrong_place", f"{name} stands at {rows[0]['ticket']}")
    if len(rows) > 1:
        found.add("doubled", f"{name} stands {len(rows)} times")
    for row in here[:1]:
        for field_, meant in entry.fields.items():
            if row[field_] != meant:
                found.add("carried_over", f"{name}: {field_} is {row[field_]!r}, entered was {meant!r}")
