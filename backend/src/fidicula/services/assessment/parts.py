"""Each part of the instrument by itself: what is to be decided, worked on or read again there, and what is assumed."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Literal

from fidicula.core.readings.states import MeasurementKey
from fidicula.services.assessment.inspection import open_findings, standing_seen
from fidicula.services.assessment.model import CutFacts, Question
from fidicula.services.assessment.state import BenchState
from fidicula.services.measures import MEASURES
from fidicula.tables.parts import PARTS, Part
from fidicula.tables.signs import findings, items

PartState = Literal["decide", "work", "read_again", "in_order", "unknown"]
"""The first of these that holds: somebody has to decide, something was found to work on, a reading holds no more,
it was read or looked at and is in order, nothing is known of it."""

_OF_MEASURES: Mapping[str, Part] = {
    "neck": "neck",
    "board": "board",
    "strings": "strings",
    "spacing": "strings",
    "bridge": "bridge",
    "post and bar": "post",
    "tail": "tailpiece",
    "what presses": "body",
    "nut and pegs": "nut",
}
_BY_THEMSELVES: Mapping[str, Part] = {
    "nut_height": "nut",
    "nut_spread": "nut",
    "slot_depth": "bridge",
    "bridge_spread": "bridge",
    "bar_inset": "bar",
}


@dataclass(frozen=True)
class PartAssessment:
    """questions : open, about this part, each with what is recommended.  findings : open, by name.

    again : places whose reading is stale or doubted.  assumed : places that the cut rests on and nobody read now.
    """

    part: Part
    state: PartState
    questions: tuple[Question, ...]
    findings: tuple[str, ...]
    again: tuple[MeasurementKey, ...]
    assumed: tuple[MeasurementKey, ...]


def part_of(measure: str) -> Part | None:
    """None for what is of the day."""
    return _BY_THEMSELVES.get(measure) or _OF_MEASURES.get(MEASURES[measure].part)


def parts_of(state: BenchState, cut: CutFacts, questions: tuple[Question, ...]) -> tuple[PartAssessment, ...]:
    """Every part, in the order of the table."""
    found, seen = open_findings(state), standing_seen(state)
    return tuple(_part(part, state, cut, questions, found, frozenset(seen)) for part in PARTS)


def _part(
    part: Part,
    state: BenchState,
    cut: CutFacts,
    questions: tuple[Question, ...],
    found: frozenset[str],
    seen: frozenset[str],
) -> PartAssessment:
    asked = tuple(one for one in questions if one.deciding.part == part and one.outcome is None)
    its_items = {item for item, row in items().items() if row.part == part}
    its_findings = tuple(name for name, row in findings().items() if name in found and row.item in its_items)
    read = {place: stand for place, stand in state.reading_states.items() if part_of(place[0]) == part}
    again = tuple(place for place, stand in read.items() if stand.state != "current")
    to_work = any(findings()[name].verdict == "work" for name in its_findings) or any(
        line.verdict == "work" and not line.findings for line in standing_seen(state).values() if line.item in its_items
    )
    which: PartState = "unknown"
    if asked:
        which = "decide"
    elif to_work:
        which = "work"
    elif again:
        which = "read_again"
    elif read or its_items & seen:
        which = "in_order"
    assumed = tuple(one.key for one in cut.assumed if part_of(one.key[0]) == part)
    return PartAssessment(part, which, asked, its_findings, again, assumed)
