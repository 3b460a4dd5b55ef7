"""Readings as tables of a paper: strings side by side, and everything else a line each."""

from __future__ import annotations

from collections.abc import Sequence

from fidicula.codes import MeasureCode
from fidicula.core.bands import outside_by
from fidicula.core.readings.states import MeasurementKey
from fidicula.documents.paper.model import Block, Grid, Heading, Text
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.measures import MEASURES, said_of_all
from fidicula.numerals import number, of_unit, places_needed
from fidicula.tables.work import tools
from fidicula.views.history.changes import changed_places
from fidicula.views.papers.source import PaperSource
from fidicula.words import papers as say
from fidicula.words.names import key_name
from fidicula.words.numbers import sentence


def measured(source: PaperSource) -> list[Block]:
    """Everything that was read at this visit and holds, with what is wanted."""
    state = source.assessment.state
    held = [place for place, stand in state.reading_states.items() if stand.usable is not None]
    if not held:
        return [Text(say.NOTHING_READ)]
    blocks: list[Block] = []
    by_string = {place[0] for place in held if MEASURES[place[0]].for_each_string}
    if by_string:
        blocks += [Heading(say.STRINGS), _strings(state, [one for one in MEASURES if one in by_string])]
    others = [place for measure in MEASURES for place in held if place[0] == measure and measure not in by_string]
    if others:
        blocks += [Heading(say.MEASURES), _others(state, others)]
    return blocks


def _strings(state: BenchState, measures: Sequence[MeasureCode]) -> Grid:
    """A column for each string, from the lowest; a line of what was read, and one of what is wanted."""
    names = state.instrument.string_names
    rows: list[list[str]] = []
    strong: list[int] = []
    for measure in measures:
        row = MEASURES[measure]
        places = [(measure, i) for i in range(len(names))]
        values = [None if place not in state.reading_states else state.reading_states[place].usable for place in places]
        decimals = places_needed([value for value in values if value is not None])
        strong.append(len(rows))
        rows.append(
            [
                f"{sentence(said_of_all(measure))[:-1]}, {row.unit}",
                *("" if value is None else number(value, decimals) for value in values),
            ]
        )
        wanted = [state.wanted_as_read(place) for place in places]
        if any(wanted):
            rows.append([say.WANTED, *("" if w is None else say.band_words(w.band.low, w.band.high) for w in wanted)])
    count = len(names)
    return Grid(
        head=["", *names], rows=rows, right=list(range(1, count + 1)), widths=[2.2, *[1.0] * count], strong=strong
    )


def _others(state: BenchState, places: Sequence[MeasurementKey]) -> Grid:
    rows = []
    for place in places:
        stand, wanted = state.reading_states[place], state.wanted_as_read(place)
        value = stand.usable if stand.usable is not None else 0.0
        by = 0.0 if wanted is None else outside_by(value=value, band=wanted.band)
        reading = next((one for one in state.readings if one.number == stand.reading.number), None)
        rows.append(
            [
                sentence(key_name(state.instrument, place))[:-1],
                of_unit(number(value, places_needed([value])), MEASURES[place[0]].unit),
                "" if wanted is None else say.band_words(wanted.band.low, wanted.band.high),
                "" if wanted is None else say.outside(by),
                "" if reading is None else tools()[reading.tool].label,
            ]
        )
    return Grid(
        head=["", say.READ, say.WANTED, "", say.TOOL], rows=rows, right=(1, 2), widths=(3.2, 1.1, 1.2, 1.4, 1.6)
    )


def compared(source: PaperSource) -> list[Block]:
    """What holds now beside what was read first at this visit, and at the last one."""
    places = changed_places(source.assessment.state, source.came)
    if not places:
        return [Text(say.NOTHING_COMPARED)]
    rows = [[one.what, one.before, one.came, one.now, one.change] for one in places]
    head = ["", say.LAST_VISIT, say.CAME, say.NOW, say.CHANGE]
    return [Grid(head=head, rows=rows, right=(1, 2, 3, 4), widths=(3, 1.2, 1.2, 1.2, 1)), Text(say.REST_AS_IT_WAS)]
