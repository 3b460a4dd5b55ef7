"""The bench card's cells."""

from __future__ import annotations

from fidicula.core.bands import outside_by, standing
from fidicula.core.readings.standing import Place
from fidicula.db.records import Reading
from fidicula.services.measures import MEASURES
from fidicula.services.sheet.held import BenchState, places
from fidicula.services.sheet.model import BandView, Cell, DoubtView


def cells(state: BenchState) -> list[Cell]:
    """Every place of the card, in the course of measuring."""
    by_number = {reading.number: reading for reading in state.readings}
    return [_cell(state, place, by_number) for place in places(state.count)]


def band_view(state: BenchState, place: Place, value: float | None) -> BandView | None:
    """What is wanted at a place, and how a value stands to it."""
    wanted = state.wanted_as_read(place)
    if wanted is None:
        return None
    return BandView(
        low=wanted.band.low,
        aim=wanted.band.aim,
        high=wanted.band.high,
        source=wanted.source,
        standing=None if value is None else standing(value=value, band=wanted.band),
        outside_by=0.0 if value is None else outside_by(value=value, band=wanted.band),
    )


def _cell(state: BenchState, place: Place, by_number: dict[int, Reading]) -> Cell:
    stand = state.standings.get(place)
    last = by_number[stand.reading.number] if stand is not None else None
    usable = stand.usable if stand is not None else None
    value = None
    if stand is not None:
        value = stand.value if stand.value is not None else stand.reading.value
    doubt = None
    if stand is not None and stand.state == "doubted" and last is not None and last.doubt is not None:
        doubt = DoubtView(
            sentence=last.doubt,
            suggested=last.suggested,
            may_be_kept=0 <= last.value <= MEASURES[place[0]].largest,
        )
    return Cell(
        measure=place[0],
        position=place[1],
        name=state.name(place),
        state=stand.state if stand is not None else "missing",
        typed=last.typed if last else None,
        value=value,
        assumed=state.assumed(place) if usable is None else None,
        band=band_view(state, place, usable),
        doubt=doubt,
        stale_because=stand.stale_because if stand is not None else None,
        reading_id=str(last.id) if last else None,
        taken_by=last.taken_by if last else None,
        taken_at=last.taken_at if last else None,
        tool=last.tool if last else None,
        direction=last.direction if last else None,
        count=stand.count if stand is not None else 0,
        last_time=state.last_time[place].value if place in state.last_time else None,
        last_time_at=state.last_time[place].taken_at if place in state.last_time else None,
        repeat_spread=stand.repeat_spread if stand is not None else 0.0,
    )
