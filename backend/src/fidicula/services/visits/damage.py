"""The damage map: what is marked, how each mark stands at every look, and who signed for it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import get_args
from uuid import UUID

from fidicula.core.errors import CoreError
from fidicula.core.readings.typed import millimetres, signed_millimetres
from fidicula.db.unit_of_work import Engine, UnitOfWork
from fidicula.domain.damage import DamageLook, DamageSigned
from fidicula.domain.errors import ConflictError, NotFoundError, RefusedError
from fidicula.domain.photos import Photo
from fidicula.judgement.assessment.damage import DamageMark, damage_marks
from fidicula.judgement.assessment.inspection import without_tension
from fidicula.judgement.visit_record import VisitRecord
from fidicula.services.loading.records import changed_sheet, check_in_house, load_bench, load_to_change
from fidicula.services.people.ranks import check_undo
from fidicula.tables.damage import ENDS, FACES, STATES, DamageKind, DamageState, damage_kinds
from fidicula.tables.figures import body_length
from fidicula.tables.signs import findings
from fidicula.words import damage as say
from fidicula.words.inspection import led_to
from fidicula.words.numbers import sentence

_FARTHEST = {"neck": 0.5, "scroll": 0.4}
_OF_BODY = 1.02
_ASIDE, _LONGEST = 0.35, 1.2
"""As shares of the body's length: a place from its end by its face, a place from the middle, a crack."""
_OF_REPAIRS = "repairs"


@dataclass(frozen=True)
class LookTyped:
    """A look as it was typed. thing : the mark; a new one for new damage.  along to to_across, length : in mm, may be
    empty where nobody measured."""

    thing: UUID
    kind: str
    face: str
    along: str
    across: str
    to_along: str
    to_across: str
    length: str
    ends: str
    state: str
    under_tension: bool
    words: str


@dataclass(frozen=True)
class LookView:
    """says : what was seen, in words.  is_here : at this visit, so that it can be undone."""

    id: str
    says: str
    by: str
    at: datetime | None
    length: float | None
    under_tension: bool
    words: str
    is_here: bool


@dataclass(frozen=True)
class MarkView:
    """One mark, as it was last seen. place : its number on the map.  along to to_across : [mm]

    where, how : in words.  leads_to : what its finding asks for.  to_see : why it is looked at again; empty where not.
    item : of the inspection, under which its photographs stand.
    """

    thing: str
    place: int
    kind: str
    label: str
    face: str
    along: float
    across: float
    to_along: float | None
    to_across: float | None
    ends: str
    state: str
    where: str
    how: str
    leads_to: str
    to_see: str
    is_open: bool
    item: str
    looks: list[LookView]
    photos: list[str]


@dataclass(frozen=True)
class NamedView:
    key: str
    label: str


@dataclass(frozen=True)
class DamageKindView:
    """long : it has two ends.  faces, states : that it can be on and in.  careful : what to heed."""

    kind: str
    label: str
    long: bool
    faces: list[str]
    states: list[str]
    careful: str


@dataclass(frozen=True)
class DamageSignedView:
    """is_whole : everything that is marked now was there as it was signed."""

    id: str
    says: str
    who: str
    by: str
    at: datetime | None
    signature: str
    is_here: bool
    is_whole: bool


@dataclass(frozen=True)
class DamageView:
    """body_length : of this size. [mm]  may_mark : the visit is open."""

    body_length: float
    marks: list[MarkView]
    kinds: list[DamageKindView]
    faces: list[NamedView]
    states: list[NamedView]
    ends: list[NamedView]
    signed: list[DamageSignedView]
    owner: str
    may_mark: bool


class Damages:
    """Use cases. Every change answers with the whole map. by : who enters it."""

    def __init__(self, engine: Engine) -> None:
        self._engine = engine

    def view(self, ticket: str) -> DamageView:
        with UnitOfWork(self._engine, only_reads=True) as uow:
            return _view(uow, load_bench(uow, ticket))

    def look(self, ticket: str, typed: LookTyped, *, look_id: UUID, by: str) -> DamageView:
        """Mark damage, or say how a mark stands now. Raises RefusedError naming the field."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            if not any(one.id == look_id for one in loaded.damage):
                uow.damage.add(_checked(loaded, typed, look_id, by))
            changed_sheet(uow, ticket)
        return self.view(ticket)

    def sign(self, ticket: str, *, signed_id: UUID, who: str, signature: str, by: str) -> DamageView:
        """Somebody has seen what is marked, and signs for it."""
        if not who.strip():
            raise RefusedError("say who signs", field="who")
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            lines = tuple(mark.last.id for mark in damage_marks(loaded.damage))
            uow.damage.add(DamageSigned(signed_id, loaded.visit.id, who.strip(), lines, signature, by))
            uow.commit()
        return self.view(ticket)

    def take_back(self, ticket: str, entry_id: UUID, by: str) -> DamageView:
        """Undo a look or a signature of this visit: what was seen before stands again."""
        with UnitOfWork(self._engine) as uow:
            loaded = load_to_change(uow, ticket)
            check_in_house(loaded)
            made = next((one.seen_by for one in loaded.damage if one.id == entry_id), None) or next(
                (one.entered_by for one in uow.damage.signed(loaded.instrument.id) if one.id == entry_id), None
            )
            if made is not None:
                check_undo(uow, "this mark", of=made, by=by)
            if not uow.damage.take_back(entry_id, loaded.visit.id, by):
                raise NotFoundError("that was not written down at this visit")
            changed_sheet(uow, ticket)
        return self.view(ticket)


def _checked(loaded: VisitRecord, typed: LookTyped, look_id: UUID, by: str) -> DamageLook:
    before = next((mark for mark in damage_marks(loaded.damage) if mark.thing == typed.thing), None)
    kind = damage_kinds().get(typed.kind)
    if kind is None or not kind.fits(loaded.instrument.family):
        raise RefusedError("choose what it is", field="kind")
    if before is not None and before.last.kind != kind.kind:
        told = f"this mark is a {before.kind.label}: undo it, or mark the {kind.label} beside it"
        raise ConflictError(told)
    if typed.face not in kind.on:
        raise RefusedError(f"a {kind.label} is on the {_or([FACES[one] for one in kind.on])}", field="face")
    if typed.state not in kind.states:
        raise RefusedError(f"say how it is: {_or([STATES[one] for one in kind.states])}", field="state")
    if typed.ends not in ENDS:
        raise RefusedError(f"say of its ends: {_or(list(ENDS.values()))}", field="ends")
    body = body_length(loaded.instrument.family, loaded.instrument.size)
    along, across = _along(typed.along, "along", body, typed.face), _across(typed.across, "across", body)
    end: tuple[float | None, float | None] = (None, None)
    if kind.is_long and (typed.to_along.strip() or typed.to_across.strip()):
        end = _along(typed.to_along, "to_along", body, typed.face), _across(typed.to_across, "to_across", body)
    return DamageLook(
        id=look_id,
        visit_id=loaded.visit.id,
        thing=typed.thing,
        kind=kind.kind,
        face=typed.face,
        along=along,
        across=across,
        to_along=end[0],
        to_across=end[1],
        length=_length(typed.length, body) if kind.is_long else None,
        ends=typed.ends if kind.is_long else "",
        state=typed.state,
        under_tension=typed.under_tension,
        words=typed.words.strip(),
        after_work=loaded.state().last_work,
        seen_by=by,
    )


def _or(labels: Sequence[str]) -> str:
    return " or ".join((", ".join(labels[:-1]), labels[-1])) if len(labels) > 1 else "".join(labels)


def _along(typed: str, field: str, body: float, face: str) -> float:
    if not typed.strip():
        raise RefusedError("say where it is, in mm from the end, or click it on the drawing", field=field)
    try:
        value = signed_millimetres(typed, what="the place")
    except CoreError as error:
        raise RefusedError(error.sentence, field=field) from error
    most = _FARTHEST.get(face, _OF_BODY) * body
    if not 0 <= value <= most:
        raise RefusedError(say.off_the_face(face, most), field=field)
    return value


def _across(typed: str, field: str, body: float) -> float:
    try:
        value = signed_millimetres(typed, what="the place") if typed.strip() else 0.0
    except CoreError as error:
        raise RefusedError(error.sentence, field=field) from error
    if abs(value) > _ASIDE * body:
        raise RefusedError(f"it is at most {_ASIDE * body:.0f} mm from the middle", field=field)
    return value


def _length(typed: str, body: float) -> float | None:
    if not typed.strip():
        return None
    try:
        value = millimetres(typed, what="the length")
    except CoreError as error:
        raise RefusedError(error.sentence, field="length") from error
    if not 0 < value <= _LONGEST * body:
        raise RefusedError(f"its length is over 0 and up to {_LONGEST * body:.0f} mm", field="length")
    return value


def _view(uow: UnitOfWork, loaded: VisitRecord) -> DamageView:
    marks = damage_marks(loaded.damage)
    photos = uow.history.photos(loaded.instrument.id)
    standing = {mark.last.id for mark in marks}
    return DamageView(
        body_length=body_length(loaded.instrument.family, loaded.instrument.size),
        marks=[_mark(place, mark, loaded, photos) for place, mark in enumerate(marks, 1)],
        kinds=[_kind(row) for row in damage_kinds().values() if row.fits(loaded.instrument.family)],
        faces=[NamedView(key, label) for key, label in FACES.items()],
        states=[NamedView(key, STATES[key]) for key in get_args(DamageState)],
        ends=[NamedView(key, label) for key, label in ENDS.items()],
        signed=[
            DamageSignedView(
                id=str(one.id),
                says=say.signed(one.who, len(one.lines)),
                who=one.who,
                by=one.entered_by,
                at=one.signed_at,
                signature=one.signature,
                is_here=one.visit_id == loaded.visit.id,
                is_whole=standing <= set(one.lines),
            )
            for one in uow.damage.signed(loaded.instrument.id)
        ],
        owner=loaded.instrument.owner,
        may_mark=loaded.visit.closed_at is None,
    )


def _kind(row: DamageKind) -> DamageKindView:
    return DamageKindView(row.kind, row.label, row.is_long, list(row.on), list(row.states), row.careful)


def _mark(place: int, mark: DamageMark, loaded: VisitRecord, photos: Sequence[Photo]) -> MarkView:
    last, found = mark.last, mark.finding
    why = mark.to_see(loaded.visit.id) if loaded.visit.closed_at is None else None
    if why == "tension" and without_tension(loaded.state()):
        why = None
    return MarkView(
        thing=str(mark.thing),
        place=place,
        kind=mark.kind.kind,
        label=mark.kind.label,
        face=last.face,
        along=last.along,
        across=last.across,
        to_along=last.to_along,
        to_across=last.to_across,
        ends=last.ends,
        state=last.state,
        where=say.where(last),
        how=say.how(mark),
        leads_to="" if found is None else sentence(led_to(findings()[found])),
        to_see="" if why is None else sentence(say.TO_SEE[why]),
        is_open=found is not None and findings()[found].verdict == "work",
        item=_OF_REPAIRS if found is None else findings()[found].item,
        looks=[
            LookView(
                id=str(look.id),
                says=say.seen_line(look),
                by=look.seen_by,
                at=look.seen_at,
                length=look.length,
                under_tension=look.under_tension,
                words=look.words,
                is_here=look.visit_id == loaded.visit.id,
            )
            for look in mark.looks
        ],
        photos=[str(photo.id) for photo in photos if photo.thing == mark.thing],
    )
