"""Documents with their numbers, and payments."""

from __future__ import annotations

import re
from datetime import date
from uuid import UUID

from pydantic import TypeAdapter
from sqlalchemy import Connection, func, select, update
from sqlalchemy.dialects.postgresql import insert as upsert

from fidicula.db import schema
from fidicula.db.once import add_once
from fidicula.domain.billing import Content, Document, DocumentKind, Payment

_document, _payment, _series, _visit = schema.document, schema.payment, schema.document_series, schema.visit
_CONTENT = TypeAdapter(Content)
_LETTERS: dict[DocumentKind, str] = {"estimate": "E", "invoice": "I", "credit_note": "C"}
_CODE = re.compile(r"[EIC]-(\d{4})-(\d{4,})")
_KEPT_BACK = ("number", "taken_back_at", "taken_back_by")


class Billing:
    def __init__(self, connection: Connection) -> None:
        self._connection = connection

    def next_code(self, kind: DocumentKind, on: date) -> str:
        """The number of a document that is issued now. Two at once wait for each other; one that fails gives it back.

        A clock that was put back never makes an earlier year go on: the newest year that was used does.
        """
        newest = self._connection.scalar(select(func.max(_series.c.year)).where(_series.c.kind == kind))
        year = max(on.year, newest or 0)
        last = self._connection.execute(
            upsert(_series)
            .values(kind=kind, year=year, last=1)
            .on_conflict_do_update(index_elements=["kind", "year"], set_={"last": _series.c.last + 1})
            .returning(_series.c.last)
        ).scalar_one()
        return f"{_LETTERS[kind]}-{year}-{last:04d}"

    def go_on(self) -> None:
        """After documents came with their numbers: each series goes on from its last."""
        codes = self._connection.execute(select(_document.c.kind, _document.c.code))
        last: dict[tuple[str, int], int] = {}
        for kind, code in codes:
            found = _CODE.fullmatch(code)
            if found is not None:
                series = (kind, int(found[1]))
                last[series] = max(last.get(series, 0), int(found[2]))
        for (kind, year), number in last.items():
            self._connection.execute(
                upsert(_series)
                .values(kind=kind, year=year, last=number)
                .on_conflict_do_update(index_elements=["kind", "year"], set_={"last": number})
            )

    def issue(self, new: Document) -> None:
        values = {name: value for name, value in vars(new).items() if name != "issued_at"}
        values["content"] = _CONTENT.dump_python(new.content, mode="json")
        add_once(self._connection, _document, values, same=("visit_id", "kind"))

    def documents(self, instrument_id: UUID) -> list[Document]:
        """Of all visits of an instrument, oldest first."""
        columns = [column for column in _document.c if column.name != "number"]
        rows = self._connection.execute(
            select(*columns)
            .join(_visit, _visit.c.id == _document.c.visit_id)
            .where(_visit.c.instrument_id == instrument_id)
            .order_by(_document.c.number)
        )
        return [
            Document(**{**row._mapping, "content": _CONTENT.validate_python(row._mapping["content"])}) for row in rows
        ]

    def payments(self, instrument_id: UUID) -> list[Payment]:
        """Those that stand, of all visits of an instrument, oldest first."""
        columns = [column for column in _payment.c if column.name not in _KEPT_BACK]
        rows = self._connection.execute(
            select(*columns)
            .join(_visit, _visit.c.id == _payment.c.visit_id)
            .where(_visit.c.instrument_id == instrument_id, _payment.c.taken_back_at.is_(None))
            .order_by(_payment.c.number)
        )
        return [Payment(**row._mapping) for row in rows]

    def pay(self, new: Payment) -> None:
        values = {name: value for name, value in vars(new).items() if name != "entered_at"}
        add_once(self._connection, _payment, values, same=("visit_id", "amount"))

    def take_back_payment(self, payment_id: UUID, by: str) -> None:
        self._connection.execute(
            update(_payment)
            .where(_payment.c.id == payment_id, _payment.c.taken_back_at.is_(None))
            .values(taken_back_at=func.now(), taken_back_by=by)
        )
