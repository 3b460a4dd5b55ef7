"""The bench card's cells."""

from __future__ import annotations

from fidicula.core.bands import outside_by, side_of_band
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.instruments import Instrument
from fidicula.domain.readings import Reading
from fidicula.judgement.assessment.columns import Column, columns
from fidicula.judgement.assessment.likely import likely_at
from fidicula.judgement.assessment.model import CutFacts
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.assessment.thresholds import ends_wanted
from fidicula.judgement.measures import MEASURES, name_of, places
from fidicula.judgement.targets.wanted import Wanted
from fidicula.views.sheet.cell import BandView, CardPlace, Cell, DoubtView
from fidicula.words.doubts import doubt_words
from fidicula.words.names import FOLLOWS_CROWN, derived_by

_TURNS = {measure: i for i, measure in enumerate(MEASURES)}


def cells(state: BenchState, cut: CutFacts) -> list[Cell]:
    """Every place of the card, in the course of measuring."""
    of = columns(state)
    ends: dict[MeasurementKey, Wanted | None] = {
        ("end_height", i): one for i, one in enumerate(ends_wanted(state, cut))
    }
    return [
        _untouched_cell(state, place)
        if state.is_untouched(place)
        else _cell(state, place, of.get(place[0]), ends.get(place))
        for place in places(state.instrument)
    ]


def _untouched_cell(state: BenchState, place: MeasurementKey) -> Cell:
    """The same for every sheet under these targets, and most of them are: made once."""
    key = ("cell", place, state.instrument.string_names)
    found: Cell | None = state.targets.untouched.get(key)
    if found is None:
        found = state.targets.untouched[key] = _cell(state, place, None)
    return found


def _band_view(wanted: Wanted | None, value: float | None) -> BandView | None:
    """What is wanted at a place, and how a value stands to it."""
    if wanted is None:
        return None
    return BandView(
        low=wanted.band.low,
        aim=wanted.band.aim,
        high=wanted.band.high,
        source=wanted.source or FOLLOWS_CROWN,
        side=None if value is None else side_of_band(value=value, band=wanted.band),
        outside_by=0.0 if value is None else outside_by(value=value, band=wanted.band),
    )


def _cell(state: BenchState, place: MeasurementKey, column: Column | None, end: Wanted | None = None) -> Cell:
    """column : of a height.  end : what is wanted at the board's end, straight up."""
    row = MEASURES[place[0]]
    stand = state.reading_states.get(place)
    last = state.by_number[stand.reading.number] if stand is not None else None
    usable = stand.usable if stand is not None else None
    told = state.derived(place) if usable is None else None
    value = None if stand is None else stand.value if stand.value is not None else stand.reading.value
    read = direction = None if last is None else last.direction
    earlier, wanted = state.last_time.get(place), state.wanted_as_read(place)
    last_time = None if earlier is None else earlier.value
    if column is not None and place[1] is not None:
        wanted = column.wanted(state, place[1], end or state.wanted_upright(place))
        direction = column.direction or read
        if value is not None:
            value, direction = column.value(state, place[1], value, read)
        if earlier is not None:
            last_time, _ = column.value(state, place[1], earlier.value, earlier.direction)
        usable = value if usable is not None else None
    may_be = likely_at(state, place)
    is_doubted = stand is not None and stand.state == "doubted"
    return Cell(
        measure=place[0],
        position=place[1],
        name=state.name(place),
        on_card=row.card is not None,
        needed=row.needed,
        turn=_TURNS[place[0]],
        part=row.part,
        label=row.label,
        place=row.place_name(place[1], state.instrument.string_names),
        unit=row.unit,
        form=row.form or "",
        tools=list(row.tools),
        recheck=row.recheck,
        state=stand.state if stand is not None else "missing",
        typed=last.typed if last else None,
        value=value,
        assumed=state.assumed(place) if usable is None and told is None else None,
        told=None if told is None else told.value,
        told_by="" if told is None else derived_by(told.by),
        band=_band_view(wanted, usable if told is None else told.value),
        doubt=_doubt_view(state, place, last) if is_doubted else None,
        stale_because=stand.stale_because if stand is not None else None,
        reading_id=str(last.id) if last else None,
        taken_by=last.taken_by if last else None,
        taken_at=last.taken_at if last else None,
        tool=last.tool if last else None,
        direction=direction,
        read=read if read != direction else None,
        count=stand.count if stand is not None else 0,
        last_time=last_time,
        last_time_at=None if earlier is None else earlier.taken_at,
        repeat_spread=stand.repeat_spread if stand is not None else 0.0,
        spread_is_wide=stand is not None and stand.is_wide,
        is_last_visit=usable is None and told is None and state.last_visit(place) is not None,
        simulated=last is not None and last.simulated,
        likely=None if may_be is None else [round(may_be.low, 2), round(may_be.high, 2)],
    )


def _doubt_view(state: BenchState, place: MeasurementKey, reading: Reading | None) -> DoubtView | None:
    if reading is None or reading.doubt is None:
        return None
    row = MEASURES[place[0]]
    return DoubtView(
        code=reading.doubt,
        value=reading.value,
        sentence=doubt_words(reading, state.name(place), row.unit),
        suggested=reading.suggested,
        may_be_kept=(row.signed or reading.value >= 0) and abs(reading.value) <= row.largest,
    )


def card_places(instrument: Instrument) -> list[CardPlace]:
    """Every place that is read on an instrument, in the course of measuring."""
    names = instrument.string_names
    return [
        CardPlace(
            measure=key[0],
            position=key[1],
            name=name_of(MEASURES[key[0]], names, key[1]),
            on_card=MEASURES[key[0]].card is not None,
            needed=MEASURES[key[0]].needed,
            turn=_TURNS[key[0]],
            part=MEASURES[key[0]].part,
            label=MEASURES[key[0]].label,
            place=MEASURES[key[0]].place_name(key[1], names),
            unit=MEASURES[key[0]].unit,
            form=MEASURES[key[0]].form or "",
            tools=list(MEASURES[key[0]].tools),
            recheck=MEASURES[key[0]].recheck,
        )
        for key in places(instrument)
    ]
