"""A seal that was made before a record had a field still holds; what is said in that field is sealed as well."""

from __future__ import annotations

from datetime import UTC, datetime
from uuid import UUID

from fidicula.documents.dossier.record import HeardLine, VisitHead, VisitRecord
from fidicula.documents.dossier.seal import hashed, hashes_of

AT = datetime(2026, 11, 20, 10, 0, tzinfo=UTC)


def record(**listened: str) -> VisitRecord:
    line = HeardLine(
        id=UUID(int=1), after_work=None, player="Pia", rated={}, player_words=["open"], remark="", listened=listened,
        written_by="Ilse", heard_at=AT, taken_back_at=None, taken_back_by=None,
    )  # fmt: skip
    head = VisitHead(
        id=UUID(int=2), kind="sound", complaint="", opened_at=AT, closed_at=None, closed_by=None, climate="",
        deadline=None, freeze_days=0, promised=None,
    )  # fmt: skip
    return VisitRecord(visit=head, listening_notes=[line])


def test_a_listening_note_without_the_later_field_hashes_as_it_did() -> None:
    (line,) = record().model_dump(mode="json")["listening_notes"]
    assert line.pop("listened") == {}
    assert hashes_of(record())["listening_notes"] == hashed([line])


def test_what_is_said_there_is_part_of_the_seal() -> None:
    assert hashes_of(record(where="room"))["listening_notes"] != hashes_of(record())["listening_notes"]
    assert hashes_of(record(where="room"))["listening_notes"] != hashes_of(record(where="felt"))["listening_notes"]
