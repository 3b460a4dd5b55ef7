"""What was found at each item of an instrument, what of it is still open, and what was left blank."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Literal

from fidicula.codes import FindingCode, ItemCode, VisitKindCode
from fidicula.domain.visits import Seen
from fidicula.judgement.assessment.damage import damage_findings, damage_marks
from fidicula.judgement.assessment.state import BenchState
from fidicula.tables.signs import findings, findings_of, items

_HARDEST = ("work", "watch", "fine")
POST_FALLEN: Literal["post_fallen"] = "post_fallen"
_POST_READINGS = ("post_setback", "post_inset")


def standing_seen(state: BenchState) -> Mapping[str, Seen]:
    """The last word on every item that was inspected."""
    return {line.item: line for line in state.seen if not line.taken_back}


def open_findings(state: BenchState) -> frozenset[FindingCode]:
    """What was found and no work has mended since; a post that was gauged since does not lie inside. What is marked as
    damage counts as it was last seen."""
    return damage_findings(damage_marks(state.damage)) | frozenset(
        finding
        for line in standing_seen(state).values()
        for finding in line.findings
        if finding in findings() and not is_mended(state, line, finding)
    )


def is_mended(state: BenchState, line: Seen, finding: FindingCode) -> bool:
    """Whether a work that mends it was done after it was found."""
    works = findings()[finding].works
    if any(work.work in works and work.number > line.after_work for work in state.standing_works):
        return True
    return finding == POST_FALLEN and _was_gauged_since(state, line)


def _was_gauged_since(state: BenchState, line: Seen) -> bool:
    seen_at = line.seen_at
    return seen_at is not None and any(
        reading.measure in _POST_READINGS and reading.taken_at > seen_at and not reading.taken_back
        for reading in state.readings
    )


def post_is_down(state: BenchState) -> bool:
    """Whether the post lies inside, by what was last found and what was done since."""
    return POST_FALLEN in open_findings(state)


Stateless = Literal["strings_off", "bridge_down", "post_fallen"]
"""Findings, and the questions that they ask, for which nothing can be read under tension."""
_WITHOUT_TENSION: tuple[Stateless, ...] = ("strings_off", "bridge_down", POST_FALLEN)


def without_tension(state: BenchState) -> Stateless | Literal[""]:
    """The finding for which nothing can be read under tension now; empty where it can."""
    found = open_findings(state)
    return next((name for name in _WITHOUT_TENSION if name in found), "")


def came_without_tension(state: BenchState) -> bool:
    """Whether there was no tension to read anything under before it was let go."""
    first = min((work.number for work in state.standing_works), default=None)
    return any(
        name in _WITHOUT_TENSION
        for line in standing_seen(state).values()
        if first is None or line.after_work < first
        for name in line.findings
    )


def left_blank(state: BenchState, kind: VisitKindCode) -> list[ItemCode]:
    """The items that a kind of visit asks for and that nobody has said anything of."""
    seen = standing_seen(state)
    return [
        row.item
        for row in items().values()
        if row.fits(state.instrument.family) and kind in row.kinds.split() and row.item not in seen
    ]


def verdict_of(family: str, item: ItemCode, found: list[str]) -> str:
    """What the findings at an item ask for: the hardest of them; fine without any."""
    asked = {row.verdict for row in findings_of(family).get(item, ()) if row.finding in found}
    return next((verdict for verdict in _HARDEST if verdict in asked), "fine")
