"""A string's height by everything that was read and done: the core's estimate, fed with the log of a visit."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Protocol

from fidicula.codes import MeasureCode
from fidicula.core.geometry.board import HeightDirection, UprightHeight
from fidicula.core.geometry.string_lines import Board
from fidicula.core.readings.estimate import Estimate, Lowered, Read, estimated
from fidicula.core.readings.states import LoggedReading, MeasurementKey, ReadingState
from fidicula.core.work.convergence import missed_by
from fidicula.domain.readings import Reading
from fidicula.domain.work_details import NutFiled, SlotsFiled
from fidicula.domain.works import WorkDone
from fidicula.judgement.targets.sources import works_logged
from fidicula.tables.work import invalidations, tools

_STEP = 0.1
"""Of a height, small beside it. [mm]"""


class Log(Protocol):
    """What of an instrument's state the estimate goes by."""

    @property
    def log(self) -> Sequence[LoggedReading]: ...
    @property
    def readings(self) -> Sequence[Reading]: ...
    @property
    def standing_works(self) -> Sequence[WorkDone]: ...
    @property
    def reading_states(self) -> Mapping[MeasurementKey, ReadingState]: ...
    @property
    def board(self) -> Board | None: ...
    @property
    def roughness(self) -> float: ...
    def direction(self, measure: MeasureCode, position: int | None) -> HeightDirection: ...
    def upright(self, place: MeasurementKey, value: float, direction: HeightDirection) -> UprightHeight: ...


def heights_of_all(log: Log) -> dict[int, Estimate]:
    """As `BenchState.weighed`."""
    read, board = log.log, log.board
    if board is None:
        return {}
    works = {one.number: one for one in works_logged(log.standing_works)}
    details = {one.number: one.detail for one in log.standing_works}
    directions = {one.number: one.direction for one in log.readings}
    found = {}
    for (measure, position), stand in log.reading_states.items():
        if measure != "end_height" or position is None or stand.usable is None or stand.is_wide:
            continue
        here = [one for one in read if one.place == (measure, position) and not one.doubted]
        direction = log.direction(measure, position)
        at_end = board.squareness / board.carry / upright_share(log, position)
        events: list[Read | Lowered] = []
        for number in sorted({0, *works, *(one.after_work for one in here)}):
            work = works.get(number)
            if work is not None and work.work == "nut_filed":
                gone = _off_the_nut(log, details[number], number, position)
                events.append(Lowered(gone * (1 - 1 / board.carry), _NUT_MISSES * (1 - 1 / board.carry)))
            elif work is not None and work.work in invalidations()[measure] and work.touches(position):
                by = _filed_by(details[number], position)
                events = (
                    [*events, Lowered(by * at_end, missed_by(by, log.roughness) * at_end)] if by is not None else []
                )
            events += [
                Read(one.value, one.scatter)
                for one in sorted(here, key=lambda one: one.number)
                if one.after_work == number and directions[one.number] == direction
            ]
        weighed = estimated(events)
        if weighed is not None:
            found[position] = replace(weighed, rounding=stand.rounding, gauge=stand.gauge)
    return found


def roughness_of(log: Sequence[LoggedReading]) -> float:
    """How much more the hand that last read a height scatters than a practised one, 1 or more: so do its cuts."""
    heights = [one for one in log if one.place[0] == "end_height"]
    last = max(heights, key=lambda one: one.number, default=None)
    return 1.0 if last is None or not last.tool else max(1.0, last.scatter / tools()[last.tool].scatter)


def upright_share(log: Log, position: int) -> float:
    """How much a string's height straight up changes with its height as it is read: more than 1 by a wedge."""
    place: MeasurementKey = ("end_height", position)
    direction, stand = log.direction(*place), log.reading_states.get(place)
    if direction == "vertical" or stand is None or stand.value is None:
        return 1.0
    return (log.upright(place, stand.value + _STEP, direction) - log.upright(place, stand.value, direction)) / _STEP


_NUT_MISSES = 0.07
"""How well is known what a nut slot gave: the file, or two readings of it. [mm]"""


def _off_the_nut(log: Log, detail: object, number: int, position: int) -> float:
    """What a nut slot came down by, as somebody said, or as it was read before and after. [mm]

    The string turns about the bridge: its height at the board's end follows by what is left of the way there.
    """
    said = detail.by[position] if isinstance(detail, NutFiled) and position < len(detail.by) else None
    if said is not None:
        return said
    here = sorted((one.number, one) for one in log.log if one.place == ("nut_height", position) and not one.doubted)
    before = [one.value for _, one in here if one.after_work < number]
    after = [one.value for _, one in here if one.after_work >= number]
    return before[-1] - after[0] if before and after else 0.0


def _filed_by(detail: object, position: int) -> float | None:
    """How much deeper a slot was to be filed, at the bridge; None where the work says nothing of it. [mm]"""
    if not isinstance(detail, SlotsFiled) or position >= len(detail.by):
        return None
    return detail.by[position]
