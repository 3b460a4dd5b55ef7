"""The seal of a visit: made over its record as it is signed, and checked against the record as it is now."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date, datetime
from typing import Any
from uuid import UUID

from fidicula.db.unit_of_work import UnitOfWork
from fidicula.documents.dossier.record import VisitRecord
from fidicula.documents.dossier.seal import FORMAT, as_of, changed_since, hashes_of, seal_hash
from fidicula.domain.leaving import Seal
from fidicula.views.handover import SealView
from fidicula.words import leaving as say

SHORT = 16
"""So many digits of a hash stand on paper."""


def records_of(uow: UnitOfWork, visit_ids: Sequence[UUID]) -> dict[UUID, VisitRecord]:
    """The records of visits as they are now."""
    heads, lines = uow.visit_lines.heads(visit_ids), uow.visit_lines.lines(visit_ids)
    return {one: VisitRecord.model_validate({"visit": heads[one], **lines[one]}) for one in visit_ids if one in heads}


def statement_of(seal: Seal) -> dict[str, Any]:
    """What was signed, as plain values."""
    return {
        "signed_by": seal.signed_by,
        "signed_at": seal.signed_at.timestamp(),
        "points": list(seal.points),
        "next_check": None if seal.next_check is None else seal.next_check.isoformat(),
        "next_check_why": seal.next_check_why,
        "received_by": seal.received_by,
        "signature": seal.signature,
    }


def sealed(
    uow: UnitOfWork,
    *,
    id: UUID,
    visit_id: UUID,
    points: Sequence[Mapping[str, Any]],
    next_check: date | None,
    next_check_why: str,
    received_by: str,
    signature: str,
    by: str,
    at: datetime,
) -> Seal:
    """A seal over the record of a visit as it stands in this unit of work, the visit closed."""
    hashes = hashes_of(as_of(records_of(uow, [visit_id])[visit_id], at))
    seal = Seal(
        id=id,
        visit_id=visit_id,
        format=FORMAT,
        hashes=hashes,
        hash="",
        points=points,
        next_check=next_check,
        next_check_why=next_check_why,
        received_by=received_by,
        signature=signature,
        signed_by=by,
        signed_at=at,
    )
    return with_hash(seal)


def with_hash(seal: Seal) -> Seal:
    return Seal(**{**vars(seal), "hash": seal_hash(seal.hashes, statement_of(seal))})


def checked(seal: Seal, record: VisitRecord) -> SealView:
    """The seal beside the record as it is now."""
    changed = changed_since(seal.hashes, hashes_of(as_of(record, seal.signed_at)))
    if with_hash(seal).hash != seal.hash:
        changed = [*changed, "statement"]
    late = sum(line.recorded_at > seal.signed_at for line in record.readings)
    if seal.opened_again_at is not None:
        verdict, says = "opened_again", say.opened_again(seal.opened_again_by or "", seal.opened_again_at)
    elif changed:
        verdict, says = "changed", say.tampered(changed)
    else:
        verdict, says = "intact", say.intact(seal.signed_at, late)
    return SealView(
        visit_id=str(seal.visit_id),
        signed_by=seal.signed_by,
        signed_at=seal.signed_at,
        hash=seal.hash,
        short=seal.hash[:SHORT],
        verdict="opened_again" if verdict == "opened_again" else "changed" if verdict == "changed" else "intact",
        says=says,
        changed=[say.LISTS.get(name, name) for name in changed] if verdict == "changed" else [],
        late=late,
        next_check=seal.next_check,
        next_check_why=seal.next_check_why,
        received_by=seal.received_by,
        signature=seal.signature,
    )
