"""The rail: every instrument in the house as a tag, and those that have been here, found while typing."""

from __future__ import annotations

import json
from collections.abc import Mapping

import psycopg
from sqlalchemy import ColumnElement, Connection, Text, bindparam, cast, func, literal_column, select, text
from sqlalchemy.dialects.postgresql import JSONB, aggregate_order_by

from fidicula.db import schema
from fidicula.db.instruments import VISIT_COLUMNS, instrument_of
from fidicula.domain.visits import OpenVisit, Visit

OF_OWNER = frozenset({"estimate", "approval"})
"""Questions that wait for the owner's word."""

COMPLAINT_SHOWN = 200
"""Of a long complaint, so much goes with its tag. [characters]"""


def _holding(word: str) -> str:
    """A word as a pattern for itself, whatever stands in it."""
    return "".join(f"\\{letter}" if letter in "\\%_" else letter for letter in word)


_KNOWN = """
SELECT coalesce(json_agg(row_to_json(here)), '[]')::text FROM (
    SELECT i.ticket, i.family, i.size, i.owner, i.description, i.last_opened_at AS last_opened,
        newest.last_complaint, newest.closed_at IS NULL AS in_house
    FROM instrument i JOIN LATERAL (
        SELECT left(complaint, %s) AS last_complaint, closed_at FROM visit
        WHERE instrument_id = i.id ORDER BY closed_at IS NOT NULL, opened_at DESC LIMIT 1
    ) newest ON true
    WHERE {holds}
    ORDER BY i.last_opened_at DESC, i.ticket LIMIT %s
) here"""


def _json_list(rows: str) -> ColumnElement[str]:
    """All rows of a subquery as one JSON list, put together by the database."""
    return cast(func.coalesce(func.json_agg(func.row_to_json(literal_column(rows))), text("'[]'")), Text)


_STAMP = text(
    "SELECT count(*) || '-' || coalesce(sum(stamp), 0) || '-' || coalesce(max(stamp), 0) "
    "FROM visit WHERE closed_at IS NULL"
)

_WORDS = cast(bindparam("words", type_=Text), JSONB)


def _said(code: ColumnElement[str], subject: ColumnElement[str] | None = None) -> ColumnElement[str]:
    """What a code is called, by the words that come with the question; with a subject, what both are called."""
    words = _WORDS.op("->>")(code)
    if subject is None:
        return func.coalesce(words, code)
    return func.coalesce(_WORDS.op("->>")(func.concat(code, ":", subject)), words, code)


_DONE = (
    select(
        func.coalesce(
            func.json_agg(
                aggregate_order_by(
                    func.json_build_object(
                        "at",
                        schema.work_done.c.done_at,
                        "work",
                        _said(func.concat("done:", schema.work_done.c.work)),
                        "by",
                        schema.work_done.c.done_by,
                    ),
                    schema.work_done.c.number,
                )
            ),
            text("'[]'"),
        )
    )
    .where(schema.work_done.c.visit_id == schema.visit.c.id, schema.work_done.c.taken_back_at.is_(None))
    .correlate(schema.visit)
    .scalar_subquery()
)
"""What was done at a visit: when, what and by whom."""

_TAG = (
    select(
        schema.instrument.c.ticket,
        schema.instrument.c.family,
        schema.instrument.c.size,
        schema.instrument.c.owner,
        schema.instrument.c.left_handed,
        schema.instrument.c.is_fleet,
        func.left(schema.visit.c.complaint, COMPLAINT_SHOWN).label("complaint"),
        func.coalesce(
            cast(bindparam("kinds", type_=Text), JSONB).op("->>")(schema.visit.c.kind), schema.visit.c.kind
        ).label("kind"),
        _said(schema.visit.c.instruction, schema.visit.c.subject).label("step"),
        _said(schema.visit.c.waits_for).label("waits_for"),
        schema.visit.c.waits_until,
        schema.visit.c.deadline,
        schema.visit.c.promised,
        schema.visit.c.opened_at,
        schema.visit.c.subject.in_(sorted(OF_OWNER)).label("of_owner"),
        _DONE.label("done"),
    )
    .join(schema.visit, schema.visit.c.instrument_id == schema.instrument.c.id)
    .where(schema.visit.c.closed_at.is_(None))
    .order_by(schema.instrument.c.ticket)
    .subquery("tag")
)

_RAIL = select(
    _json_list("tag").label("tags"),
    func.bool_or((_TAG.c.step == "") & (_TAG.c.waits_for == "")).label("unsaid"),
).select_from(_TAG)


class OpenVisits:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def known(self, words: str, *, limit: int) -> str:
        """Instruments whose ticket, owner or description holds every word, newest visit first, as a JSON list."""
        held = [f"%{_holding(word)}%" for word in words.lower().split()]
        statement = _KNOWN.format(holds=" AND ".join(["i.known_by LIKE %s"] * len(held)) or "true")
        # Bound here and not by the server, so that it is planned for these words: what many have is looked for among
        # the newest, what few have by its letters.
        driver: psycopg.Connection = self._connection.connection.driver_connection  # type: ignore[assignment]
        with psycopg.ClientCursor(driver) as cursor:
            row = cursor.execute(statement, [COMPLAINT_SHOWN, *held, limit]).fetchone()
        return str(row[0]) if row else "[]"

    def stamp(self) -> str:
        """What changes whenever anything on the rail does."""
        return str(self._connection.execute(_STAMP).scalar_one())

    def tags(self, kinds: Mapping[str, str], words: Mapping[str, str]) -> tuple[str, bool]:
        """Every tag, by ticket, as a JSON list; and whether any of them does not say yet where it stands.

        kinds : label of each kind of visit.  words : what each instruction, and each step waited for, is called.
        The list is put together by the database: it goes to the rail as it is,
        and five hundred tags take longer to make again here than to fetch.
        """
        row = self._connection.execute(
            _RAIL, {"kinds": json.dumps(dict(kinds)), "words": json.dumps(dict(words))}
        ).one()
        return row.tags, bool(row.unsaid)

    def in_house(self) -> list[OpenVisit]:
        """Every instrument with an open visit, by ticket."""
        visit = schema.visit
        rows = self._connection.execute(
            select(schema.instrument, visit.c.id.label("visit_id"), *(visit.c[name] for name in VISIT_COLUMNS))
            .join(visit, visit.c.instrument_id == schema.instrument.c.id)
            .where(visit.c.closed_at.is_(None))
            .order_by(schema.instrument.c.ticket)
        )
        return [
            OpenVisit(
                instrument=instrument_of(row._mapping),
                visit=Visit(
                    id=row.visit_id,
                    instrument_id=row.id,
                    **{name: row._mapping[name] for name in VISIT_COLUMNS},
                ),
            )
            for row in rows
        ]
