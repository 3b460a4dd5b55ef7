"""Measures through the seasons: each place's last value at every visit, heights all in one direction."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from fidicula.codes import MeasureCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.readings import Reading
from fidicula.judgement.assessment.columns import columns
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.measures import MEASURES, said_of_all
from fidicula.numerals import places_needed
from fidicula.views.history.view import Chart, ChartLine, ChartPoint
from fidicula.words.numbers import sentence

HUMIDITY: MeasureCode = "humidity"

Measured = Mapping[MeasurementKey, list[ChartPoint]]


def last_of_each(state: BenchState, readings: Sequence[Reading]) -> Measured:
    """The last value of each place at each visit, oldest visit first. readings : one of each place at each visit."""
    of, newest = columns(state), {}
    for reading in readings:
        newest[(reading.measure, reading.position), reading.visit_id] = reading
    found: dict[MeasurementKey, list[ChartPoint]] = {}
    for (place, visit_id), reading in newest.items():
        column, value = of.get(place[0]), reading.value
        if column is not None:
            value = column.value(state, place[1], value, reading.direction)[0]
        found.setdefault(place, []).append(ChartPoint(reading.taken_at, round(value, 3), str(visit_id)))
    return {place: sorted(points, key=lambda point: point.at) for place, points in found.items()}


def charts(state: BenchState, measured: Measured) -> list[Chart]:
    """A chart for each measure that was read at more than one visit, in the order of the measures."""
    found = []
    for measure, row in MEASURES.items():
        places = [place for place in measured if place[0] == measure]
        if measure == HUMIDITY or not any(len(measured[place]) > 1 for place in places):
            continue
        places.sort(key=lambda place: place[1] or 0)
        found.append(
            Chart(
                measure=measure,
                label=sentence(said_of_all(measure))[:-1],
                unit=row.unit,
                places=places_needed([point.value for place in places for point in measured[place]]),
                lines=[_line(state, place, measured[place]) for place in places],
            )
        )
    return found


def _line(state: BenchState, place: MeasurementKey, points: list[ChartPoint]) -> ChartLine:
    wanted = state.wanted_as_read(place)
    name = "" if place[1] is None else MEASURES[place[0]].place_name(place[1], state.instrument.string_names)
    low, high = (None, None) if wanted is None else (wanted.band.low, wanted.band.high)
    return ChartLine(name, points, low, high)
