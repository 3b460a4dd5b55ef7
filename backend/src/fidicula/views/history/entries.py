"""What was written down at each visit, in words, newest visit first."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from uuid import UUID

from fidicula.domain.billing import Document, Payment
from fidicula.domain.damage import DamageLook
from fidicula.domain.leaving import Addition, Seal
from fidicula.domain.photos import Photo
from fidicula.domain.sound import Heard, PostEntry
from fidicula.domain.visits import Decision, Seen, Visit
from fidicula.domain.works import WorkDone
from fidicula.tables.signs import items
from fidicula.tables.work import works as work_rows
from fidicula.tables.workflow import visit_kinds
from fidicula.views.history.view import HistoryDocument, HistoryEntry, HistoryPhoto, HistoryVisit
from fidicula.words import billing as about_money
from fidicula.words import damage as about
from fidicula.words import history as say
from fidicula.words.numbers import money

_NAMES_STRINGS = frozenset({"strings_named", "strings_changed"})


@dataclass(frozen=True)
class Lines:
    """All visits' lines, each kind in order. counts : of readings, by visit."""

    counts: Mapping[UUID, int]
    works: Sequence[WorkDone]
    decisions: Sequence[Decision]
    seen: Sequence[Seen]
    posts: Sequence[PostEntry]
    heard: Sequence[Heard]
    photos: Sequence[Photo]
    seals: Sequence[Seal]
    additions: Sequence[Addition]
    damage: Sequence[DamageLook]
    documents: Sequence[Document]
    payments: Sequence[Payment]

    def works_at(self, visit_id: UUID) -> list[WorkDone]:
        """What was done at a visit and stands, without what only names the strings that are there."""
        return [
            work
            for work in self.works
            if work.visit_id == visit_id and not work.taken_back and work.work != "strings_named"
        ]


def entries(lines: Lines) -> dict[UUID, list[HistoryEntry]]:
    """What was done, decided, found and heard at each visit, without what was taken back."""
    found: dict[UUID, list[HistoryEntry]] = defaultdict(list)
    for work in lines.works:
        if not work.taken_back:
            kind = "strings" if work.work in _NAMES_STRINGS else "post" if _is_of_post(work) else "works"
            found[work.visit_id].append(HistoryEntry(kind, say.work(work), work.done_by, work.done_at))
    for post in lines.posts:
        found[post.visit_id].append(HistoryEntry("post", say.post(post), post.entered_by, post.entered_at))
    for made in lines.decisions:
        if not made.taken_back:
            found[made.visit_id].append(HistoryEntry("decided", say.decided(made), made.decided_by, made.decided_at))
    for line in lines.seen:
        if not line.taken_back and line.verdict != "not_looked_at":
            found[line.visit_id].append(HistoryEntry("found", say.seen(line), line.seen_by, line.seen_at))
    for look in lines.damage:
        found[look.visit_id].append(HistoryEntry("found", about.history(look), look.seen_by, look.seen_at))
    for note in lines.heard:
        found[note.visit_id].append(HistoryEntry("heard", say.heard(note), note.written_by, note.heard_at))
    return found


def _is_of_post(work: WorkDone) -> bool:
    return work_rows()[work.work].part == "post"


def visit_label(visit: Visit) -> str:
    return visit_kinds()[visit.kind].label if visit.kind in visit_kinds() else visit.kind


def visit_views(
    visits: Sequence[Visit], lines: Lines, written: Mapping[UUID, list[HistoryEntry]]
) -> list[HistoryVisit]:
    sealed = {seal.visit_id for seal in lines.seals if seal.opened_again_at is None}
    return [
        HistoryVisit(
            id=str(visit.id),
            kind=visit.kind,
            label=visit_label(visit),
            complaint=visit.complaint,
            opened_at=visit.opened_at,
            closed_at=visit.closed_at,
            closed_by=visit.closed_by or "",
            readings=lines.counts.get(visit.id, 0),
            is_sealed=visit.id in sealed,
            entries=written.get(visit.id, []),
            photos=[_photo(photo) for photo in lines.photos if photo.visit_id == visit.id],
            additions=[
                HistoryEntry("added", one.words, one.added_by, one.added_at)
                for one in lines.additions
                if one.visit_id == visit.id
            ],
            documents=[_document(one, lines.documents) for one in lines.documents if one.visit_id == visit.id],
            cost=_cost(visit.id, lines),
        )
        for visit in visits
    ]


def _document(document: Document, others: Sequence[Document]) -> HistoryDocument:
    by, currency = next((one for one in others if one.cancels == document.id), None), document.currency
    return HistoryDocument(
        str(document.id),
        about_money.with_total(
            document.kind,
            document.code,
            money(document.total, currency),
            "" if by is None else about_money.taken_back_by(by.code),
        ),
        [
            about_money.with_amount(line.label, line.detail, money(line.amount, currency))
            for line in document.content.lines
        ],
    )


def _cost(visit_id: UUID, lines: Lines) -> str:
    """What a visit cost: invoices less what was taken back, and what was paid at it."""
    billed = [one for one in lines.documents if one.visit_id == visit_id and one.kind != "estimate"]
    paid = [one for one in lines.payments if one.visit_id == visit_id]
    if not billed and not paid:
        return ""
    currency = (billed or paid)[0].currency
    return about_money.cost(
        money(sum((one.total for one in billed), Decimal(0)), currency),
        money(sum((one.amount for one in paid), Decimal(0)), currency),
    )


def _photo(photo: Photo) -> HistoryPhoto:
    label = items()[photo.item].label if photo.item in items() else photo.item
    return HistoryPhoto(str(photo.id), photo.item, label, photo.words, photo.taken_at)
