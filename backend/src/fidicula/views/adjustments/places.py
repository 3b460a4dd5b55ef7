"""The trail itself: acts in their order over all visits, and where the post stood after each."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Literal
from uuid import UUID

from fidicula.codes import WorkCode
from fidicula.core.fitting.post import post_place
from fidicula.core.readings.states import ReadingState, reading_states
from fidicula.core.sound.places import (
    A_TAP,
    NOWHERE,
    UNIT,
    EndPlace,
    TapLength,
    gauged,
    moved,
    shifted,
    tap_length,
    way,
)
from fidicula.domain.readings import Reading
from fidicula.domain.sound import Heard, Recording
from fidicula.domain.visits import Visit
from fidicula.domain.work_details import BridgeTrial, PostMoved
from fidicula.domain.works import WorkDone
from fidicula.judgement.targets.sources import logged
from fidicula.views.adjustments.records import TrailRecords
from fidicula.words.acts import ENDS

FRAME_WORKS = frozenset({"bridge_moved", "new_bridge", "neck_reset", "feet_refitted", "bridge_straightened"})
"""After these the post is told from a foot that stands elsewhere, or is another one."""
POST_WORKS = frozenset({"post_moved", "post_set"})
TONE_WORKS = frozenset(
    {
        "bridge_trial",
        "bridge_trial_off",
        "bridge_wood",
        "strings_changed",
        "tension_let_off",
        "crown_cut",
        "tailgut_changed",
    }
)
TRAIL_WORKS = FRAME_WORKS | POST_WORKS | TONE_WORKS
BREAKS = FRAME_WORKS | TONE_WORKS - {"bridge_trial", "bridge_trial_off"} | {"post_set"}
"""After these an earlier place does not sound as it did, or is told from elsewhere."""
SURE_MM = 0.1
"""How well a move that was said in mm is known. [mm]"""


@dataclass
class TrailLine:
    """One act, or how it came. index : among all lines.  work : None for how it came.

    other_post, other_strings : another post was described here than before, other strings named.
    on : what was being tried as it was heard, by the works that put it on; oldest first.
    """

    index: int
    visit: Visit
    work: WorkDone | None
    at: datetime
    spot: int
    is_new_place: bool
    heard: list[Heard] = field(default_factory=list)
    recordings: list[Recording] = field(default_factory=list)
    readings: list[Reading] = field(default_factory=list)
    other_post: bool = False
    other_strings: bool = False
    on: tuple[WorkDone, ...] = ()

    @property
    def breaks(self) -> list[str]:
        """With what things no longer compare from here on, by code; empty where they do."""
        if self.kind in BREAKS:
            return [self.kind]
        return ["other_post"] * self.other_post + ["other_strings"] * self.other_strings

    @property
    def kind(self) -> WorkCode | Literal[""]:
        return "" if self.work is None else self.work.work


@dataclass
class Spot:
    """One place of the post. number : from 1.  ends : top and bottom."""

    number: int
    first: TrailLine
    ends: tuple[EndPlace, EndPlace] = (NOWHERE, NOWHERE)
    last_index: int = 0


@dataclass(frozen=True)
class Trail:
    """lines : in order.  spots : by number from 1.  tap : what a tap moved here, None before it was gauged."""

    lines: Sequence[TrailLine]
    spots: Sequence[Spot]
    tap: TapLength | None
    foot_width: float | None
    post_diameter: float

    @property
    def now(self) -> Spot:
        return self.spots[-1]

    def breaks_since(self, index: int) -> Iterator[TrailLine]:
        """Lines after one with which things no longer compare."""
        return (line for line in self.lines[index + 1 :] if line.breaks)


def trail_of(records: TrailRecords, *, current: UUID, foot_width: float | None, post_diameter: float) -> Trail:
    """Put a trail together.

    current : this visit, which is on it even before anything happened.
    foot_width : where no visit read it; None where there is no figure either. [mm]  post_diameter : the same. [mm]
    """
    lines = list(_lines(records, current))
    _say_what_is_on(lines)
    spots: list[Spot] = []
    for line in lines:
        if line.is_new_place:
            spots.append(Spot(line.spot, line))
        spots[-1].last_index = line.index
    diameter = next((p.diameter for p in reversed(records.posts) if p.diameter is not None), post_diameter)
    gauges = [_gauge(_of(lines, spot), _foot(records, spot, foot_width), diameter) for spot in spots]
    tap = tap_length(list(_shown_taps(spots, gauges)))
    for i, spot in enumerate(spots):
        before = spots[i - 1].ends if i else (NOWHERE, NOWHERE)
        carried = _carried(spot.first, before, tap)
        spot.ends = (gauges[i][0] or carried[0], gauges[i][1] or carried[1])
    return Trail(lines, spots, tap, _foot(records, spots[-1], foot_width), diameter)


def _lines(records: TrailRecords, current: UUID) -> Iterator[TrailLine]:
    index = number = 0
    known_post: date | None = None
    strings: UUID | None = None
    for visit in records.visits:
        works = [w for w in records.works if w.visit_id == visit.id and w.work in TRAIL_WORKS]
        heard = [h for h in records.heard if h.visit_id == visit.id]
        recordings = [r for r in records.recordings if r.visit_id == visit.id]
        readings = [r for r in records.readings if r.visit_id == visit.id and r.measure != "bridge_foot_width"]
        posts = [p for p in records.posts if p.visit_id == visit.id]
        named = [w.string_set_id for w in records.works if w.visit_id == visit.id and w.work == "strings_named"]
        before, strings = strings, (named[0] if named else strings)
        changed = before is not None and strings != before
        strings = next((w.string_set_id for w in reversed(works) if w.string_set_id is not None), strings)
        if not (works or heard or recordings or readings or posts or visit.id == current):
            continue
        for work in (None, *sorted(works, key=lambda one: one.number)):
            is_new = work is None or work.work in POST_WORKS | FRAME_WORKS
            number += is_new
            after = 0 if work is None else work.number
            until = next((w.number for w in works if w.number > after), None)
            line = TrailLine(index, visit, work, visit.opened_at if work is None else work.done_at, number, is_new)
            line.other_strings = changed and work is None
            line.heard = [h for h in heard if _between(h.after_work, after, until)]
            line.recordings = [r for r in recordings if _between(r.after_work, after, until)]
            line.readings = [r for r in readings if _between(r.after_work or 0, after, until)]
            for post in (p for p in posts if _between(p.after_work, after, until)):
                line.other_post = line.other_post or (index > 0 and known_post not in (None, post.fitted_on))
                known_post = post.fitted_on
            yield line
            index += 1


def _say_what_is_on(lines: Sequence[TrailLine]) -> None:
    """What is tried stays on until it comes off, or the bridge is another one."""
    on: list[WorkDone] = []
    for line in lines:
        detail = None if line.work is None else line.work.detail
        if line.kind == "new_bridge":
            on = []
        elif line.kind == "bridge_trial" and line.work is not None:
            on = [*on, line.work]
        elif line.kind == "bridge_trial_off" and isinstance(detail, BridgeTrial) and on:
            # One that does not say which it ends took off the last.
            ended = detail.trial if detail.trial is not None else on[-1].id
            on = [one for one in on if one.id != ended]
        line.on = tuple(on)


def _between(number: int, after: int, until: int | None) -> bool:
    return number >= after and (until is None or number < until)


def _of(lines: Sequence[TrailLine], spot: Spot) -> list[Reading]:
    return [r for line in lines if line.spot == spot.number for r in line.readings]


def _foot(records: TrailRecords, spot: Spot, otherwise: float | None) -> float | None:
    """The width over the feet that the place is told with: read at its visit, or last before. [mm]"""
    opened = spot.first.visit.opened_at
    known = {visit.id for visit in records.visits if visit.opened_at <= opened}
    read = [r.value for r in records.readings if r.measure == "bridge_foot_width" and r.visit_id in known]
    return read[-1] if read else otherwise


def _gauge(readings: Sequence[Reading], foot: float | None, diameter: float) -> tuple[EndPlace | None, EndPlace | None]:
    """Both ends as they were read last; None for one that was not, or whose readings are doubted."""
    held = reading_states(readings=logged(readings), works=[], invalidations={})
    found: list[EndPlace | None] = []
    for i in range(2):
        setback, inset = held.get(("post_setback", i)), held.get(("post_inset", i))
        if foot is None or setback is None or inset is None or setback.value is None or inset.value is None:
            found.append(None)
            continue
        at = post_place(setback=setback.value, inset=inset.value, foot_width=foot, post_diameter=diameter)
        found.append(gauged(at, known_to=_known_to(setback, inset)))
    return found[0], found[1]


def _known_to(*read: ReadingState) -> float:
    """± of what was gauged: the tool's, or half of what its repeats lie apart. [mm]"""
    return max(one.known_to for one in read)


def _shown_taps(
    spots: Sequence[Spot], gauges: Sequence[tuple[EndPlace | None, EndPlace | None]]
) -> Iterator[tuple[float, float]]:
    """Taps whose end was gauged before and after, and how far it went in their direction. [mm]"""
    for i in range(1, len(spots)):
        work = spots[i].first.work
        how = None if work is None else work.detail
        if not isinstance(how, PostMoved) or not how.taps or how.end is None or how.direction is None:
            continue
        end = ENDS.index(how.end)
        before, after = gauges[i - 1][end], gauges[i][end]
        if before is None or after is None or before.at is None or after.at is None:
            continue
        along, across = way(start=before.at, goal=after.at)
        unit = UNIT[how.direction]
        yield how.taps, along * unit[0] + across * unit[1]


def _carried(line: TrailLine, before: tuple[EndPlace, EndPlace], tap: TapLength | None) -> tuple[EndPlace, EndPlace]:
    """Where the ends are after an act that nobody gauged yet."""
    if line.work is None:
        top, bottom = (shifted(end, by=(0.0, 0.0), known_to=0.0) for end in before)
        return top, bottom
    how = line.work.detail
    if not isinstance(how, PostMoved):
        return NOWHERE, NOWHERE
    if how.vector is not None:
        known_to = SURE_MM if how.estimated is None else how.estimated
        top, bottom = (
            shifted(end, by=how.vector.get(name, (0.0, 0.0)), known_to=known_to)
            for end, name in zip(before, ENDS, strict=True)
        )
        return top, bottom
    if how.end is None or how.direction is None:
        return NOWHERE, NOWHERE
    length, known_to = way_length(how.taps, how.mm, tap)
    ends = list(before)
    i = ENDS.index(how.end)
    ends[i] = moved(ends[i], direction=how.direction, length=length, known_to=known_to)
    return ends[0], ends[1]


def way_length(taps: float | None, mm: float | None, tap: TapLength | None) -> tuple[float, float]:
    """How far a move went, and ± of that. [mm]"""
    if mm is not None:
        return mm, SURE_MM
    count = taps or 0.0
    if tap is None:
        return count * A_TAP, count * A_TAP
    return count * tap.mean, count * tap.known_to
