"""The seal of a visit: hashes over its record and over what was signed, so that a later change shows.

Each list of the record is hashed by itself, so that the check can say where it was changed: SHA-256 over its JSON with
sorted keys, without spaces, in UTF-8. The seal's own hash goes over those and over the statement, in the same way.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Mapping
from datetime import datetime
from typing import Any

from fidicula.documents.dossier.record import VisitRecord

FORMAT = 1
"""Of the way in which a seal is computed. It is kept with each seal."""


def hashed(value: object) -> str:
    """SHA-256 of plain values as canonical JSON, in hexadecimal digits."""
    text = json.dumps(value, sort_keys=True, separators=(",", ":"), ensure_ascii=False, allow_nan=False)
    return hashlib.sha256(text.encode()).hexdigest()


def as_of(record: VisitRecord, signed_at: datetime) -> VisitRecord:
    """The record without readings that arrived after the signature, nor their marks on those before."""
    there = [line for line in record.readings if line.recorded_at <= signed_at]
    known = {line.id for line in there}
    readings = [
        line if line.corrected_by in known else line.model_copy(update={"corrected_by": None}) for line in there
    ]
    return record.model_copy(update={"readings": readings})


def hashes_of(record: VisitRecord) -> dict[str, str]:
    """By the name of each list that holds anything."""
    return {name: hashed(_as_before(name, lines)) for name, lines in record.model_dump(mode="json").items() if lines}


_CAME_LATER: Mapping[str, Mapping[str, object]] = {
    "listening_notes": {"listened": {}},
    "blind_comparisons": {"series_id": None},
    "photographs": {"thing": None},
    "plan": {"terms": {}, "refused": None},
    "approvals": {"terms": {}, "prices": {}},
}
"""By list: fields that a record did not have at first, with what they say where nothing was said."""


def _as_before(name: str, lines: Any) -> Any:
    """Lines without later fields that say nothing: a seal made before there were such fields still holds."""
    later = _CAME_LATER.get(name)
    if later is None:
        return lines
    return [{key: value for key, value in line.items() if later.get(key, ...) != value} for line in lines]


def seal_hash(hashes: Mapping[str, str], statement: Mapping[str, Any]) -> str:
    """statement : who signed what, as plain values."""
    return hashed({"format": FORMAT, "record": dict(hashes), "statement": dict(statement)})


def changed_since(hashes: Mapping[str, str], now: Mapping[str, str]) -> list[str]:
    """Names of the lists that are not as they were sealed, sorted."""
    return sorted(name for name in {*hashes, *now} if hashes.get(name) != now.get(name))
