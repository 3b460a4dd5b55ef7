"""The ways back to an earlier place, and what stands in their way."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from fidicula.core.fitting.post import Point
from fidicula.core.sound.places import OPPOSITE, UNIT, Direction, way
from fidicula.domain.work_details import End, PostMoved
from fidicula.domain.works import WorkDone
from fidicula.views.adjustments.places import Spot, Trail, TrailLine, way_length
from fidicula.words.acts import ENDS

BlockedHalf = Literal["", "post_fallen", "not_moved", "way_unknown"]


BlockedBack = Literal["", "post_fallen", "no_earlier"]


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
        length, sure_to = way_length(how.taps, how.mm, trail.tap)
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
    return list(trail.lines[-1].on)
