"""Targets that were read on an instrument: as found, as at an earlier visit, as another instrument here."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import replace

from fidicula.codes import MeasureCode
from fidicula.core.geometry.board import HeightDirection
from fidicula.core.readings.estimate import NO_REPEATS, Repeats, repeats_of, rounding_of, scatter_of
from fidicula.core.readings.states import (
    LoggedReading,
    LoggedWork,
    MeasurementKey,
    ReadingState,
    contradict,
    groups_of,
    reading_states,
)
from fidicula.domain.readings import Reading
from fidicula.domain.work_details import positions_of
from fidicula.domain.works import WorkDone
from fidicula.judgement.measures import CARD, MEASURES
from fidicula.judgement.targets.gauges import UNCHECKED, Gauges
from fidicula.judgement.targets.wanted import Taken
from fidicula.tables.work import Tool, invalidations, tools

Hand = tuple[str, str]
"""A person and a tool."""


def logged(
    readings: Sequence[Reading], before: Mapping[Hand, Repeats] | None = None, gauges: Gauges = UNCHECKED
) -> list[LoggedReading]:
    """Readings as the core judges them, without those taken back; each with what its hand's repeats show.

    before : what they showed at earlier visits.  gauges : what the tools are off.
    """
    standing, shown = _with_repeats(readings, gauges)
    hands = {one.number: (one.taken_by, one.tool) for one in readings}
    known = before or {}
    own = {
        hand: scatter_of(
            shown.get(hand, NO_REPEATS), start=tools()[hand[1]].scatter, before=known.get(hand, NO_REPEATS)
        )
        for hand in set(hands.values())
        if hand in shown or hand in known
    }
    return [
        replace(one, scatter=scatter_at(one.place[0], own[hands[one.number]])) if hands[one.number] in own else one
        for one in standing
    ]


def scatter_at(measure: MeasureCode, of_hand: float) -> float:
    """How far single readings of a measure lie from their mean: standard deviation. [its unit]

    of_hand : of the hand with its tool; what the thing itself adds to it is the measure's.
    """
    own = MEASURES[measure].scatter
    return of_hand if own is None else math.hypot(of_hand, own)


def repeats_shown(readings: Sequence[Reading]) -> dict[Hand, Repeats]:
    """What the repeats among some readings show of each hand with each tool."""
    return _with_repeats(readings)[1]


def _with_repeats(
    readings: Sequence[Reading], gauges: Gauges = UNCHECKED
) -> tuple[list[LoggedReading], dict[Hand, Repeats]]:
    standing = [_logged(one, tools()[one.tool], gauges) for one in readings if not one.taken_back]
    hands = {one.number: (one.taken_by, one.tool) for one in readings}
    shown: dict[Hand, list[list[float]]] = {}
    by_place: dict[MeasurementKey, list[LoggedReading]] = {}
    for one in standing:
        by_place.setdefault(one.place, []).append(one)
    for place, log in by_place.items():
        if len(log) < 2 or MEASURES[place[0]].scatter is not None:
            continue
        for group in groups_of(log):
            sound = [one for one in group if not one.doubted]
            same = {hands[one.number] for one in sound}
            values = [one.value for one in sound]
            if len(values) < 2 or len(same) != 1:
                continue
            if not contradict(max(values) - min(values), sound[0].scatter, len(values)):
                shown.setdefault(next(iter(same)), []).append(values)
    return standing, {hand: repeats_of(groups) for hand, groups in shown.items()}


def _logged(reading: Reading, tool: Tool, gauges: Gauges) -> LoggedReading:
    return LoggedReading(
        number=reading.number,
        place=(reading.measure, reading.position),
        value=reading.value,
        after_work=reading.after_work or 0,
        repeats=reading.repeats,
        doubted=reading.doubt is not None and not reading.confirmed,
        scatter=scatter_at(reading.measure, tool.scatter),
        rounding=rounding_of(tool.resolution),
        gauge=gauges.at(tool.tool, reading.taken_at),
        tool=tool.tool,
    )


def reading_states_of(
    log: Sequence[LoggedReading], works: Sequence[WorkDone], *, only: MeasurementKey | None = None
) -> dict[MeasurementKey, ReadingState]:
    """What every read place of a visit holds. log : as `logged` gives it.  only : the one place that is judged."""
    log = [one for one in log if only is None or one.place == only]
    return reading_states(readings=log, works=works_logged(works), invalidations=invalidations())


def works_logged(works: Sequence[WorkDone]) -> list[LoggedWork]:
    """The works that stand, each with the strings that it touched where it says so."""
    return [
        LoggedWork(number=work.number, work=work.work, positions=positions_of(work.detail))
        for work in works
        if not work.taken_back
    ]


def first_of_each(readings: Sequence[Reading]) -> list[Reading]:
    """The readings of each place that were taken before any later work of the visit: as it came."""
    kept = [reading for reading in readings if not reading.taken_back and reading.corrected_by is None]
    first: dict[MeasurementKey, int] = {}
    for reading in kept:
        place = (reading.measure, reading.position)
        first[place] = min(first.get(place, reading.after_work or 0), reading.after_work or 0)
    return [r for r in kept if (r.after_work or 0) == first[r.measure, r.position]]


def taken_of(
    readings: Sequence[Reading], held: Mapping[MeasurementKey, ReadingState], words: str
) -> dict[MeasurementKey, Taken]:
    by_number = {reading.number: reading for reading in readings}
    found = {}
    for place, stand in held.items():
        direction: HeightDirection = (
            "shortest" if by_number[stand.reading.number].direction == "shortest" else "vertical"
        )
        known_to = stand.known_to
        said = words if stand.usable is not None else f"{words}: {stand.stale_because or 'the reading is doubted'}"
        found[place] = Taken(stand.usable, known_to, direction, said)
    return found


AS_FOUND, EARLIER_VISIT, ANOTHER = "as_found", "visit", "instrument"


SOURCES = (AS_FOUND, EARLIER_VISIT, ANOTHER)


MEASURES_FROM_ELSEWHERE = tuple(key for key in CARD if key not in ("slot_depth", "fingerboard_radius"))
"""What can be wanted as it was read somewhere; a slot follows its string, a radius the board."""
