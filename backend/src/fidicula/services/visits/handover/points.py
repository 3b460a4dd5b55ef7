"""The checklist of a visit, made from what it inspected, measured, decided and did."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from fidicula.codes import WorkCode
from fidicula.domain.belongings import BelongingEntry
from fidicula.domain.leaving import PointCheck, PointEntry
from fidicula.domain.photos import Photo
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.damage import damage_marks
from fidicula.judgement.assessment.inspection import standing_seen
from fidicula.judgement.assessment.parts import PartAssessment, PartState
from fidicula.tables.belongings import belonging_kinds
from fidicula.tables.leaving import ClosingPoint, closing_points, next_checks
from fidicula.tables.pricing import jobs
from fidicula.tables.signs import items
from fidicula.tables.work import works
from fidicula.views.handover import ClosingPointView, PointEvidence, PointGroup, PointState
from fidicula.views.sheet.stops import stop_label
from fidicula.words import belongings as about
from fidicula.words import damage as damaged
from fidicula.words import leaving as say
from fidicula.words.parts import label_of, part_words


@dataclass(frozen=True)
class Ending:
    """What a checklist is made of. unplanned : labels of planned works that nobody has done, by line.

    own : the shop's own points.  things : what belongs to it, as it was last written down.
    apprentices : who is one, by name.
    """

    assessment: Assessment
    checks: Sequence[PointCheck]
    own: Sequence[PointEntry]
    photos: Sequence[Photo]
    things: Sequence[BelongingEntry]
    to_do: Sequence[tuple[str, WorkCode]]
    apprentices: frozenset[str] = frozenset()


def points_of(own: Sequence[PointEntry], family: str) -> list[ClosingPoint]:
    """The points that the shop asks for at an instrument of a family: those that come along, changed by its own."""
    by_own = {entry.point: entry for entry in own}
    found = [row for row in closing_points().values() if row.point not in by_own]
    found += [_row(entry) for entry in own if not entry.retired]
    order = {name: i for i, name in enumerate(closing_points())}
    found.sort(key=lambda row: order.get(row.point, len(order)))
    return [row for row in found if row.fits(family)]


BY_APPRENTICE = "by_apprentice_"
"""How a point begins that a luthier alone checks."""


def by_apprentices(a: Assessment, apprentices: frozenset[str]) -> list[ClosingPoint]:
    """What a luthier does by jobs.csv and an apprentice did: a luthier looks at it before it leaves."""
    return [
        ClosingPoint(
            point=f"{BY_APPRENTICE}{done.work}",
            label=say.by_apprentice(works()[done.work].label, done.done_by),
            look=say.BY_APPRENTICE_LOOK,
            means=say.BY_APPRENTICE_MEANS,
            part=works()[done.work].part,
            families=None,
        )
        for done in {work.work: work for work in a.state.standing_works}.values()
        if done.done_by in apprentices and done.work in jobs() and jobs()[done.work].who == "luthier"
    ]


def checklist_points(ending: Ending) -> list[ClosingPointView]:
    """Parts in the order of the map, the check at pitch, what waits, what is planned, what was decided otherwise."""
    return [
        *(_part_point(ending, part) for part in ending.assessment.parts),
        *(_pitch_point(ending, row) for row in points_of(ending.own, ending.assessment.state.instrument.family)),
        *(_pitch_point(ending, row) for row in by_apprentices(ending.assessment, ending.apprentices)),
        *_things(ending.things),
        *_damage(ending.assessment),
        *_waiting(ending.assessment),
        *_planned(ending),
        *_decided(ending.assessment),
    ]


def proposed_check(a: Assessment) -> tuple[date, str]:
    """When it should come again by what was done, and why: the soonest of all."""
    done = {work.work for work in a.state.standing_works}
    family = a.state.instrument.family
    rows = [row for row in next_checks() if (row.work is None or row.work in done) and row.fits(family)]
    soonest = min(rows, key=lambda row: row.weeks)
    return a.now.astimezone().date() + timedelta(weeks=soonest.weeks), soonest.why


def _row(entry: PointEntry) -> ClosingPoint:
    shipped = closing_points().get(entry.point)
    return ClosingPoint(
        point=entry.point,
        label=entry.label,
        look=entry.look or None,
        means=entry.means or None,
        part=None if shipped is None else shipped.part,
        families=" ".join(entry.families) or None,
    )


_CLOSED: Mapping[PartState, PointState] = {"unknown": "not_read", "assumed": "assumed", "left": "noted"}
"""What nobody has to answer for and is not right by its readings either."""


def _part_point(ending: Ending, part: PartAssessment) -> ClosingPointView:
    state = ending.assessment.state
    its_items = {name for name, row in items().items() if row.part == part.part}
    seen = [line for line in standing_seen(state).values() if line.item in its_items]
    done = [work for work in state.standing_works if works()[work.work].part == part.part]
    evidence = [PointEvidence("reading", line) for line in say.readings_of(state, part.part)]
    evidence += [PointEvidence("seen", say.seen_line(line)) for line in seen]
    evidence += [PointEvidence("work", say.work_line(work)) for work in done]
    evidence += [
        PointEvidence("photo", photo.words or items()[photo.item].label, str(photo.id))
        for photo in ending.photos
        if photo.item in its_items
    ]
    return ClosingPointView(
        key=f"part:{part.part}",
        group="part",
        label=label_of(part.part, state.instrument.family),
        part=part.part,
        state="open" if part.is_open else _CLOSED.get(part.state, "right"),
        is_open=part.is_open,
        says=part_words(part, state),
        look="",
        means=say.means_of(part),
        evidence=evidence,
    )


def _pitch_point(ending: Ending, row: ClosingPoint) -> ClosingPointView:
    things = [thing for thing in ending.things if thing.kind in belonging_kinds()]
    last = next((one for one in reversed(ending.checks) if one.point == row.point), None)
    # A work after it may have moved what was looked at.
    stands = last is not None and last.after_work >= ending.assessment.state.last_work
    verdict = last.verdict if last is not None and stands else None
    return ClosingPointView(
        key=f"pitch:{row.point}",
        group="pitch",
        label=row.label,
        part=row.part,
        state="unchecked" if verdict is None else verdict,
        is_open=verdict != "right",
        says=say.NOT_LOOKED_AT if verdict is None else say.RIGHT if verdict == "right" else say.NOT_RIGHT,
        look=row.look or "",
        means=row.means or "",
        evidence=[
            PointEvidence("thing", about.thing(thing))
            for thing in things
            if row.point == "came_along" and belonging_kinds()[thing.kind].group == "along" and thing.place != "gone"
        ],
        verdict=verdict,
        words=last.words if last is not None and stands else "",
        by=last.checked_by if last is not None and stands else "",
        at=last.checked_at if last is not None and stands else None,
    )


def _things(things: Sequence[BelongingEntry]) -> Iterator[ClosingPointView]:
    """What was taken off and is not back, and what the shop lent: each is open until it is written down otherwise."""
    off = [thing for thing in things if thing.place == "off"]
    if off:
        yield _open("things:off", "things", about.OFF_LABEL, about.off_now(off), about.OFF_MEANS)
    lent = [t for t in things if t.place == "with_it" and belonging_kinds()[t.kind].group == "shop"]
    if lent:
        yield _open("things:lent", "things", about.LENT_LABEL, about.lent(lent), about.LENT_MEANS)


def _damage(a: Assessment) -> Iterator[ClosingPointView]:
    """Marks of the damage map that somebody looks at once more before it leaves."""
    marks = [mark for mark in damage_marks(a.state.damage) if mark.to_see(a.visit.id) is not None]
    if marks:
        yield _open("damage:to_see", "damage", damaged.TO_SEE_LABEL, damaged.to_see(marks), damaged.TO_SEE_MEANS)


def _waiting(a: Assessment) -> Iterator[ClosingPointView]:
    for stop in a.stops:
        if stop.state == "waiting":
            label = stop_label(stop)
            yield _open(f"waiting:{stop.key}", "waiting", label, say.waiting(label, stop.until), say.WAIT_MEANS)


def _planned(ending: Ending) -> Iterator[ClosingPointView]:
    for line_id, work in ending.to_do:
        yield _open(f"planned:{line_id}", "planned", works()[work].label, works()[work].label, say.PLANNED_MEANS)


def _decided(a: Assessment) -> Iterator[ClosingPointView]:
    """What was decided, above all otherwise than the readings spoke for."""
    for one in a.questions:
        if one.outcome is None or one.decision is None:
            continue
        made, label = one.decision, one.outcome.label
        against = "" if one.recommended in (None, one.outcome) else one.recommended.label
        decided = say.decided_line(label, made.reason, made.decided_by, made.decided_at)
        yield ClosingPointView(
            key=f"decided:{one.question}",
            group="decided",
            label=one.deciding.title,
            part=one.deciding.part,
            state="noted",
            is_open=False,
            says=say.against(against) if against else label,
            look="",
            means="",
            evidence=[PointEvidence("decision", decided)],
        )


def _open(key: str, group: PointGroup, label: str, says: str, means: str) -> ClosingPointView:
    return ClosingPointView(
        key=key,
        group=group,
        label=label,
        part=None,
        state="open",
        is_open=True,
        says=says,
        look="",
        means=means,
        evidence=[],
    )
