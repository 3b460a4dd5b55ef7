"""The trail itself: acts in their order over all visits, and where the post stood after each."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from datetime import date, datetime
from typing import Literal
from uuid import UUID

from fidicula.core.fitting.post import Point, post_place
from fidicula.core.readings.states import ReadingState, reading_states
from fidicula.core.sound.places import (
    A_TAP,
    NOWHERE,
    OPPOSITE,
    UNIT,
    Direction,
    EndPlace,
    TapLength,
    gauged,
    moved,
    shifted,
    tap_length,
    way,
)
from fidicula.db.records import Reading, Visit, WorkDone
from fidicula.db.sound_records import Heard, Recording
from fidicula.db.work_details import BridgeTrial, End, PostMoved
from fidicula.services.phrasing.acts import ENDS
from fidicula.services.targets.sources import logged
from fidicula.services.trail.records import TrailRecords

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
BREAKS: Mapping[str, str] = {
    "bridge_moved": "the bridge was moved",
    "new_bridge": "there is another bridge",
    "neck_reset": "the neck was reset",
    "feet_refitted": "the bridge's feet were fitted again",
    "bridge_straightened": "the bridge was straightened",
    "strings_changed": "the strings were changed",
    "tension_let_off": "the tension was let off",
    "post_set": "the post was set anew",
    "bridge_wood": "wood was taken off the bridge",
    "crown_cut": "the crown was cut",
    "tailgut_changed": "the tailgut was changed",
}
"""After these an earlier place does not sound as it did, or is told from elsewhere."""
SURE_MM = 0.1
"""How well a move that was said in mm is known. [mm]"""


@dataclass
class TrailLine:
    """One act, or how it came. index : among all lines.  work : None for how it came.

    other_post, other_strings : another post was described here than before, other strings named.
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

    @property
    def breaks(self) -> str:
        """With what things no longer compare from here on, in words; empty where they do."""
        if self.kind in BREAKS:
            return BREAKS[self.kind]
        said = ["there is another post"] * self.other_post + ["there are other strings on it"] * self.other_strings
        return ", ".join(said)

    @property
    def kind(self) -> str:
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
    return max(max(one.resolution, one.repeat_spread / 2) for one in read)


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
    length, known_to = _length(how.taps, how.mm, tap)
    ends = list(before)
    i = ENDS.index(how.end)
    ends[i] = moved(ends[i], direction=how.direction, length=length, known_to=known_to)
    return ends[0], ends[1]


def _length(taps: float | None, mm: float | None, tap: TapLength | None) -> tuple[float, float]:
    """How far a move went, and ± of that. [mm]"""
    if mm is not None:
        return mm, SURE_MM
    count = taps or 0.0
    if tap is None:
        return count * A_TAP, count * A_TAP
    return count * tap.mean, count * tap.known_to


def half_of(line: TrailLine) -> PostMoved | None:
    """What takes half of an act back; None where it was not said how it went."""
    how = None if line.work is None else line.work.detail
    if not isinstance(how, PostMoved) or not how.says_how or line.work is None:
        return None
    of = line.work.id
    if how.vector is not None:
        return PostMoved(vector={end: (-v[0] / 2, -v[1] / 2) for end, v in how.vector.items()}, half_of=of)
    assert how.direction is not None
    back = OPPOSITE[how.direction]
    if how.mm is not None:
        return PostMoved(end=how.end, direction=back, mm=round(how.mm / 2, 3), half_of=of)
    return PostMoved(end=how.end, direction=back, taps=(how.taps or 0.0) / 2, half_of=of)


@dataclass(frozen=True)
class WayBack:
    """The way to an earlier place. ways : by end, [toward the tailpiece, toward the treble side]. [mm]

    taps : the same as taps, [end, direction, how many], where the moves since were all tapped.
    known_to : ± of it, 0 where it begins and ends at gauged places. [mm]
    """

    ways: Mapping[End, Point]
    taps: tuple[tuple[End, Direction, float], ...] = ()
    known_to: float = 0.0

    @property
    def is_estimate(self) -> bool:
        return self.known_to > 0


def way_back(trail: Trail, spot: Spot) -> WayBack | None:
    """The way of both ends from where the post stands to an earlier place; None where nothing says it. [mm]

    Between gauged places it is read off; else the acts since are taken back, as an estimate with its ±.
    """
    known = [one for one in (*trail.now.ends, *spot.ends) if one.at is not None]
    taken_back = _acts_taken_back(trail, spot)
    if len(known) == 2 * len(ENDS):
        ways = {
            name: way(start=start.at, goal=goal.at)
            for name, start, goal in zip(ENDS, trail.now.ends, spot.ends, strict=True)
            if start.at is not None and goal.at is not None
        }
        if all(one.known == "gauged" for one in known):
            return WayBack(ways)
        if taken_back is None:
            return WayBack(ways, known_to=max(one.known_to for one in known))
    return taken_back


def _acts_taken_back(trail: Trail, spot: Spot) -> WayBack | None:
    """Every move since a place the other way; None where one of them was not a tapped or measured move of an end."""
    ways: dict[End, Point] = dict.fromkeys(ENDS, (0.0, 0.0))
    tapped: dict[tuple[End, Direction], float] = {}
    known_to, all_tapped = 0.0, True
    for line in trail.lines[spot.last_index + 1 :]:
        how = None if line.work is None else line.work.detail
        if not line.is_new_place:
            continue
        if not isinstance(how, PostMoved) or how.end is None or how.direction is None:
            return None
        length, sure_to = _length(how.taps, how.mm, trail.tap)
        back = OPPOSITE[how.direction]
        along, across = ways[how.end]
        ways[how.end] = (along + UNIT[back][0] * length, across + UNIT[back][1] * length)
        known_to += sure_to
        all_tapped = all_tapped and how.taps is not None
        other = (how.end, how.direction)
        if other in tapped:
            tapped[other] -= how.taps or 0.0
        else:
            tapped[how.end, back] = tapped.get((how.end, back), 0.0) + (how.taps or 0.0)
    taps = tuple(
        (end, direction if count > 0 else OPPOSITE[direction], abs(count))
        for (end, direction), count in tapped.items()
        if count
    )
    return WayBack(ways, taps if all_tapped else (), known_to)


BlockedBack = Literal["", "post_fallen", "no_earlier"]
BlockedHalf = Literal["", "post_fallen", "not_moved", "way_unknown"]


def why_not_back(trail: Trail, *, fallen: bool) -> BlockedBack:
    """Why no way leads to an earlier place; empty where one may. fallen : the post lies inside."""
    if fallen:
        return "post_fallen"
    return "no_earlier" if len(trail.spots) < 2 else ""


def why_not_half(trail: Trail, *, fallen: bool) -> BlockedHalf:
    """Why the last act cannot be halved; empty where it can. fallen : the post lies inside."""
    if fallen:
        return "post_fallen"
    if trail.now.first.kind != "post_moved":
        return "not_moved"
    return "way_unknown" if half_of(trail.now.first) is None else ""


def open_trials(trail: Trail) -> list[WorkDone]:
    """What is being tried on the bridge now, each until it comes off or the bridge is another one; oldest first."""
    found: list[WorkDone] = []
    for line in trail.lines:
        if line.work is None:
            continue
        detail = line.work.detail
        if line.kind == "new_bridge":
            found = []
        elif line.kind == "bridge_trial":
            found.append(line.work)
        elif line.kind == "bridge_trial_off" and isinstance(detail, BridgeTrial) and found:
            # One that does not say which it ends took off the last.
            ended = detail.trial if detail.trial is not None else found[-1].id
            found = [one for one in found if one.id != ended]
    return found
