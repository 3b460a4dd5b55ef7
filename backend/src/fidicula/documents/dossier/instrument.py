"""A dossier: one instrument with every visit, as plain JSON that needs no program to be read."""

from __future__ import annotations

from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import AfterValidator, Field, TypeAdapter

from fidicula import limits
from fidicula.codes import Family
from fidicula.documents.dossier.record import VisitRecord
from fidicula.documents.dossier.values import (
    Amount,
    At,
    Day,
    Detail,
    Line,
    Mm,
    Name,
    Number,
    Sha256,
    Strokes,
    UndoableLine,
    Words,
)
from fidicula.domain.billing import Content

FORMAT = 2
"""Of dossiers: raised when what is written could not be read by a program that knows the number before."""
_CONTENT = TypeAdapter(Content)


def _readable(content: dict[str, Any]) -> dict[str, Any]:
    """A document's content as it came, where it can be printed."""
    _CONTENT.validate_python(content, strict=False)
    return content


StringName = Annotated[str, Field(min_length=1, max_length=limits.STRING_NAME)]


class InstrumentHead(Line):
    """The instrument. string_names : from the lowest.  opposite_build : post and bar lie as for the other hand."""

    id: UUID
    ticket: Annotated[str, Field(pattern=r"^[^\W_][\w.-]{0,19}$")]
    family: Family
    size: Annotated[str, Field(min_length=1, max_length=20)]
    string_names: Annotated[list[StringName], Field(min_length=limits.FEWEST_STRINGS, max_length=limits.MOST_STRINGS)]
    left_handed: bool
    opposite_build: bool
    is_new: bool
    is_fleet: bool
    serial: Name
    owner: Words
    description: Words
    contact: Words
    plays: Words
    label_read: Words
    believed: Words
    worth: Name
    left_as_found: Words
    created_at: At


class FollowedLine(Line):
    """What its targets followed, from then on. schools : by question.  sources : by measure."""

    id: UUID
    recipe: Name | None
    schools: Detail
    sources: Detail
    reason: Words
    chosen_by: Name
    chosen_at: At
    taken_back_at: At | None
    taken_back_by: Name | None


class ParticularLine(Line):
    """A word of its particulars that was changed."""

    id: UUID
    visit_id: UUID
    field: Name
    was: Words
    now: Words
    written_by: Name
    written_at: At


class SealLine(Line):
    """A visit that was signed. hashes : of each list of its record.  hash : of those and of what was signed."""

    id: UUID
    format: Annotated[int, Field(ge=1, le=limits.MOST_COUNTED)]
    hashes: dict[Name, Sha256]
    hash: Sha256
    points: list[Detail]
    next_check: Day | None
    next_check_why: Words
    received_by: Name
    signature: Strokes
    signed_by: Name
    signed_at: At
    opened_again_at: At | None
    opened_again_by: Name | None


class AdditionLine(Line):
    """What was added to a sealed visit."""

    id: UUID
    words: Words
    added_by: Name
    added_at: At


class HandLine(Line):
    """How far one hand's repeats with a tool lay apart at a visit: sum of squares, and how many were free."""

    person: Name
    tool: Name
    squares: Annotated[float, Field(ge=0, allow_inf_nan=False)]
    free: Annotated[int, Field(gt=0, le=limits.MOST_COUNTED)]


class DocumentLine(Line):
    """An estimate, invoice or credit note as it was issued. content : all that stands on it."""

    id: UUID
    kind: Literal["estimate", "invoice", "credit_note"]
    code: Annotated[str, Field(min_length=1, max_length=40)]
    issued_on: Day
    due_on: Day | None
    cancels: UUID | None
    total: Amount
    currency: Name
    content: Annotated[dict[Name, Any], AfterValidator(_readable)]
    issued_by: Name
    issued_at: At


class PaymentLine(UndoableLine):
    """What was paid at a visit; below zero for money that went back."""

    amount: Amount
    currency: Name
    way: Literal["cash", "card", "transfer"]
    paid_on: Day
    remark: Words
    entered_by: Name
    entered_at: At


class VisitDossier(Line):
    """One visit. record : everything that was entered at it.  settled : what strings came down by, mm.

    documents, payments : they go on after a visit was sealed, and are not under its seal.
    """

    record: VisitRecord
    seals: list[SealLine] = Field(default_factory=list)
    additions: list[AdditionLine] = Field(default_factory=list)
    hands: list[HandLine] = Field(default_factory=list)
    settled: list[Number] = Field(default_factory=list)
    documents: list[DocumentLine] = Field(default_factory=list)
    payments: list[PaymentLine] = Field(default_factory=list)


class SetStringLine(Line):
    """One string of a set: mm, N, g/m."""

    position: Annotated[int, Field(ge=0, lt=limits.MOST_STRINGS)]
    name: Name
    diameter: Annotated[float, Field(gt=0, allow_inf_nan=False)]
    tension: Mm | None
    linear_density: Mm | None


class StringSetLine(Line):
    """A set of strings. is_mixed : put together string by string, not sold as one."""

    id: UUID
    name: Name
    family: Name
    material: Name
    is_mixed: bool
    created_at: At
    strings: list[SetStringLine]


class StockItemLine(Line):
    """A thing in the drawers."""

    id: UUID
    kind: Name
    family: Name
    label: Name
    figure: Amount | None
    details: Detail
    place: Name
    reorder_at: Amount
    supplier: Name
    string_set_id: UUID | None
    added_by: Name
    added_at: At


class AuditLine(Line):
    """An act on the instrument as the audit has it."""

    at: At
    act: Name
    subject: Name
    detail: Detail
    by: Name
    browser: Name
    request_id: Name


class Dossier(Line):
    """One instrument with everything that was ever written down of it, oldest visit first.

    string_sets, stock_items : those that its lines name.
    """

    instrument: InstrumentHead
    targets: list[FollowedLine] = Field(default_factory=list)
    particulars: list[ParticularLine] = Field(default_factory=list)
    visits: Annotated[list[VisitDossier], Field(min_length=1)]
    string_sets: list[StringSetLine] = Field(default_factory=list)
    stock_items: list[StockItemLine] = Field(default_factory=list)
    audit: list[AuditLine] = Field(default_factory=list)
