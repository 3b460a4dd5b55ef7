"""What was heard along a trail: by whom, what each act changed, where it sounded best."""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from fidicula.core.sound.places import Direction
from fidicula.core.sound.ratings import Heard as Quality
from fidicula.core.sound.ratings import answered, changes, mean_rating
from fidicula.domain.sound import Heard
from fidicula.domain.work_details import PostMoved
from fidicula.views.adjustments.model import ChangedView, HeardView
from fidicula.views.adjustments.places import Trail, TrailLine
from fidicula.words import trail as say

TOLD_APART = frozenset({"post_moved", "post_set", "bridge_trial", "bridge_trial_off", "bridge_wood", "strings_changed"})
"""Acts of which one wants to know what they did."""


def rated_of(heard: Heard) -> dict[Quality, int]:
    """What was rated, as the core has it."""
    found: dict[Quality, int] = {}
    for key, value in heard.rated.items():
        quality, _, position = key.partition("/")
        found[quality, int(position) if position else None] = value
    return found


def heard_view(heard: Heard, player: str, strings: Sequence[str]) -> HeardView:
    """player : of the session.  strings : their names, low first."""
    return HeardView(
        id=str(heard.id),
        player=heard.player,
        rated=dict(heard.rated),
        mean=mean_rating(rated_of(heard)),
        words=list(heard.player_words),
        remark=heard.remark,
        manner=say.manner(heard.listened, strings),
        by=heard.written_by,
        at=heard.heard_at,
        is_other=heard.player != player,
    )


def by_player(line: TrailLine, player: str) -> Heard | None:
    """What the player said last of how it was after an act."""
    return next((h for h in reversed(line.heard) if h.player == player and h.rated), None)


def changed_by(trail: Trail, line: TrailLine, player: str) -> dict[Quality, int]:
    """What an act changed: only where the same player was heard right before it and after it."""
    if line.work is None or line.index == 0:
        return {}
    before, after = trail.lines[line.index - 1], by_player(line, player)
    earlier = by_player(before, player)
    if after is None or earlier is None or before.visit.id != line.visit.id:
        return {}
    return changes(before=rated_of(earlier), after=rated_of(after))


def changed_views(changed: dict[Quality, int], names: Sequence[str]) -> list[ChangedView]:
    """The largest first; what stayed is left out."""
    told = sorted(((quality, by) for quality, by in changed.items() if by), key=lambda one: -abs(one[1]))
    return [ChangedView(say.quality(quality, names), by) for quality, by in told]


def marks_of(trail: Trail, line: TrailLine, player: str) -> list[str]:
    """What is missing of an act, or to be heeded."""
    if line.work is None:
        return []
    found = []
    if isinstance(line.work.detail, PostMoved) and not line.work.detail.says_how:
        found.append(say.NOT_SAID_HOW)
    if line.kind in TOLD_APART:
        found += _unheard(trail, line, player)
    return found


def _unheard(trail: Trail, line: TrailLine, player: str) -> Iterator[str]:
    is_last = line.index == len(trail.lines) - 1
    if by_player(line, player) is None:
        if any(h.rated for h in line.heard):
            yield say.BY_OTHERS
        else:
            yield say.NOT_YET if is_last else say.NOT_HEARD
        return
    before = trail.lines[line.index - 1]
    if by_player(before, player) is not None:
        return
    acts = 0
    for earlier in reversed(trail.lines[: line.index]):
        if by_player(earlier, player) is not None:
            yield say.unheard(acts + 1)
            return
        acts += earlier.kind in TOLD_APART
    yield say.NOT_BEFORE


def best_line(trail: Trail, player: str, *, comparable: bool) -> TrailLine | None:
    """Where it sounded best to a player; of equals the later. comparable : only where nothing broke it off since.

    Like with like: what was heard with something tried on counts while that is on, and no longer.
    """
    best: tuple[float, TrailLine] | None = None
    for line in trail.lines:
        if line.on != trail.lines[-1].on:
            continue
        heard = by_player(line, player)
        mean = None if heard is None else mean_rating(rated_of(heard))
        if mean is None or (comparable and any(trail.breaks_since(line.index))):
            continue
        if best is None or mean >= best[0]:
            best = (mean, line)
    return None if best is None else best[1]


def answers(trail: Trail, player: str, *, end: str, direction: Direction, names: Sequence[str]) -> list[str]:
    """What this instrument answered to earlier moves of an end in a direction, in numbers."""
    told = [
        (line.work.detail, changed)
        for line in trail.lines
        if line.work is not None
        and isinstance(line.work.detail, PostMoved)
        and (line.work.detail.end, line.work.detail.direction) == (end, direction)
        and (changed := changed_by(trail, line, player))
    ]
    if not told:
        return []
    brought = [(say.quality(one.heard, names), one.mean) for one in answered([by for _, by in told])]
    return [say.answered(end, direction, [how for how, _ in told], brought[:6])]
