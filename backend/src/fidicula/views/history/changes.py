"""What is not as it was: readings of now beside those of the last visit, and beside how it came."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime

from fidicula.codes import MeasureCode
from fidicula.core.geometry.board import HeightDirection
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.visits import Visit
from fidicula.judgement.assessment.columns import Column, columns
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.measures import MEASURES
from fidicula.judgement.targets.wanted import Taken
from fidicula.numerals import number, places_needed, signed
from fidicula.words.names import key_name
from fidicula.words.numbers import sentence


@dataclass(frozen=True)
class ChangedPlace:
    """One place, in words. before : at the last visit, or as it came where there was none.  came : at this visit."""

    what: str
    measure: MeasureCode
    position: int | None
    before: str
    came: str
    now: str
    change: str


def changed_places(state: BenchState, came: Mapping[MeasurementKey, Taken]) -> list[ChangedPlace]:
    """Places that were read now and earlier and differ, in the order of the measures; heights in one direction.

    came : what was read first at this visit.
    """
    order, of = list(MEASURES), columns(state)
    found = []
    for place, stand in sorted(state.reading_states.items(), key=lambda one: (order.index(one[0][0]), one[0][1] or 0)):
        first, last = came.get(place), state.last_time.get(place)
        now = _turned(state, of, place, stand.usable, state.direction(*place))
        at_last = None if last is None else _turned(state, of, place, last.value, last.direction)
        at_first = None if first is None else _turned(state, of, place, first.value, first.direction)
        before = at_last if at_last is not None else at_first
        if now is None or before is None:
            continue
        decimals, unit = places_needed([before, now]), MEASURES[place[0]].unit
        if not round(now - before, 2):
            continue
        found.append(
            ChangedPlace(
                what=sentence(key_name(state.instrument, place))[:-1],
                measure=place[0],
                position=place[1],
                before="" if at_last is None else f"{number(at_last, decimals)} {unit}",
                came="" if at_first is None or at_first == now else f"{number(at_first, decimals)} {unit}",
                now=f"{number(now, decimals)} {unit}",
                change=signed(now - before, decimals),
            )
        )
    return found


def _turned(
    state: BenchState,
    of: Mapping[str, Column],
    place: MeasurementKey,
    value: float | None,
    direction: HeightDirection | None,
) -> float | None:
    """A value the way its column stands now. of : the columns, by measure."""
    column = of.get(place[0])
    return value if value is None or column is None else column.value(state, place[1], value, direction)[0]


def changes_since(state: BenchState, visits: Sequence[Visit]) -> tuple[list[ChangedPlace], datetime | None]:
    """What changed since the visit before the newest, and when that began; nothing where there was none.

    visits : newest first.
    """
    if len(visits) < 2:
        return [], None
    return changed_places(state, {}), visits[1].opened_at
