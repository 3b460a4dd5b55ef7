"""Each part of the instrument by itself: what is to be decided, worked on or read again there, and what is assumed."""

from __future__ import annotations

from collections import defaultdict
from collections.abc import Mapping
from dataclasses import dataclass
from functools import cache
from typing import Literal

from fidicula.codes import FindingCode, MeasureCode, Part, WorkCode
from fidicula.core.bands import outside_by
from fidicula.core.readings.states import MeasurementKey, ReadingState
from fidicula.domain.visits import Seen
from fidicula.judgement.assessment.inspection import open_findings, standing_seen
from fidicula.judgement.assessment.model import CutFacts, Question
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.assessment.thresholds import strings_in_band
from fidicula.judgement.measures import MEASURES
from fidicula.tables.parts import parts
from fidicula.tables.signs import findings, items
from fidicula.tables.work import works

PartState = Literal["decide", "work", "doubted", "stale", "above", "below", "left", "assumed", "in_order", "unknown"]
"""The first of these that holds: somebody has to decide before the work goes on; something was found to work on; a
reading is doubted; one holds no more; one is out of its band; that was decided to stay; what the cut rests on is
assumed; all is in band, was looked at and is fine, or is named; nothing is known of it."""

_OF_MEASURES: Mapping[str, Part] = {
    "neck": "neck",
    "board": "board",
    "strings": "strings",
    "spacing": "strings",
    "bridge": "bridge",
    "post and bar": "post",
    "tail": "tailpiece",
    "bridge's place": "bridge",
    "what presses": "body",
    "nut and pegs": "nut",
}
_BY_THEMSELVES: Mapping[str, Part] = {
    "end_height": "bridge",
    "nut_height": "nut",
    "nut_spread": "nut",
    "slot_depth": "bridge",
    "bridge_spread": "bridge",
    "bar_inset": "bar",
    "peg_standout": "pegs",
}


OPEN: frozenset[PartState] = frozenset({"decide", "work", "doubted", "stale", "above", "below"})
"""Somebody who hands the instrument over is told of these first."""


@dataclass(frozen=True)
class PartAssessment:
    """questions : open, about this part, each with what is recommended.  findings : open, by name.

    again : places whose reading is stale or doubted.  off : read and out of band, each by how much, the farthest first.
    assumed : places that the cut rests on and nobody read now.  done : works on it at this visit, in their order.
    """

    part: Part
    state: PartState
    questions: tuple[Question, ...]
    findings: tuple[FindingCode, ...]
    again: tuple[MeasurementKey, ...]
    off: tuple[tuple[MeasurementKey, float], ...]
    assumed: tuple[MeasurementKey, ...]
    done: tuple[WorkCode, ...]

    @property
    def is_open(self) -> bool:
        return self.state in OPEN


def part_of(measure: MeasureCode) -> Part | None:
    """None for what is of the day."""
    return _BY_THEMSELVES.get(measure) or _OF_MEASURES.get(MEASURES[measure].part)


def parts_of(state: BenchState, cut: CutFacts, questions: tuple[Question, ...]) -> tuple[PartAssessment, ...]:
    """Every part, in the order of the table."""
    found, seen = open_findings(state), standing_seen(state)
    read: defaultdict[Part | None, dict[MeasurementKey, ReadingState]] = defaultdict(dict)
    for place, stand in state.reading_states.items():
        read[part_of(place[0])][place] = stand
    return tuple(_part(part, state, cut, questions, found, seen, read[part]) for part in parts())


@cache
def _items_of(part: Part) -> frozenset[str]:
    """What is inspected of a part."""
    return frozenset(item for item, row in items().items() if row.part == part)


@cache
def _findings_of(part: Part) -> tuple[FindingCode, ...]:
    return tuple(name for name, row in findings().items() if row.item in _items_of(part))


def _part(
    part: Part,
    state: BenchState,
    cut: CutFacts,
    questions: tuple[Question, ...],
    found: frozenset[str],
    seen: Mapping[str, Seen],
    read: Mapping[MeasurementKey, ReadingState],
) -> PartAssessment:
    asked = tuple(one for one in questions if one.deciding.part == part and one.outcome is None)
    its_items = _items_of(part)
    its_findings = tuple(name for name in _findings_of(part) if name in found)
    again = tuple(
        place
        for place, stand in read.items()
        if stand.state != "current" and not _shows(place, cut) and not (stand.state == "stale" and state.derived(place))
    )
    to_work = any(findings()[name].verdict == "work" for name in its_findings) or any(
        line.verdict == "work" and not line.findings for line in seen.values() if line.item in its_items
    )
    off = _counting(_off(state, tuple(read)), state, cut)
    assumed = tuple(one.key for one in cut.assumed if part_of(one.key[0]) == part)
    which: PartState = "unknown"
    if any(one.deciding.bars or one.recommended is None for one in asked):
        which = "decide"
    elif to_work:
        which = "work"
    elif any(stand.state == "doubted" for stand in read.values()):
        which = "doubted"
    elif again:
        which = "stale"
    elif off:
        which = "left" if _was_left(part, questions) else "above" if off[0][1] > 0 else "below"
    elif assumed:
        which = "assumed"
    elif read or its_items & seen.keys() or (part == "strings" and state.string_set is not None):
        which = "in_order"
    done = tuple(work.work for work in state.standing_works if works()[work.work].part == part)
    return PartAssessment(part, which, asked, its_findings, again, off, assumed, done)


def _shows(place: MeasurementKey, cut: CutFacts) -> bool:
    """Whether the eye tells what a stale reading would: how a string sits, once the crown was lowered beside it."""
    return place[0] == "slot_depth" and cut.beside_done


def _off(state: BenchState, places: tuple[MeasurementKey, ...]) -> tuple[tuple[MeasurementKey, float], ...]:
    """What stands out of its band, each by how much, the farthest first."""
    found = []
    for place in places:
        usable, wanted = state.reading_states[place].usable, state.wanted_as_read(place)
        by = 0.0 if usable is None or wanted is None else outside_by(value=usable, band=wanted.band)
        if by:
            found.append((place, by))
    return tuple(sorted(found, key=lambda one: -abs(one[1])))


def _counting(
    off: tuple[tuple[MeasurementKey, float], ...], state: BenchState, cut: CutFacts
) -> tuple[tuple[MeasurementKey, float], ...]:
    """Strings that stand right with what is known of them are in band, whatever one reading of a height says."""
    heights = any(place[0] == "end_height" for place, _ in off)
    if not heights or not strings_in_band(state, cut):
        return off
    return tuple(one for one in off if one[0][0] != "end_height")


def _was_left(part: Part, questions: tuple[Question, ...]) -> bool:
    """Whether somebody decided that it stays as it is."""
    return any(
        one.deciding.part == part and one.outcome is not None and one.outcome.opens_gate and not one.outcome.instructs
        for one in questions
    )
