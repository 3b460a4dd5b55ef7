"""The measures: those of the bench card, in the order in which the bench takes them, and those of a full measuring."""

from __future__ import annotations

from functools import cache

from fidicula.codes import FigureCode, MeasureCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.errors import RefusedError
from fidicula.domain.instruments import Instrument
from fidicula.tables.figures import figure_measures
from fidicula.tables.measures import MeasureRow, measures
from fidicula.tables.rows import code_of

MEASURES: dict[MeasureCode, MeasureRow] = measures()
CARD: dict[MeasureCode, MeasureRow] = {
    row.measure: row for row in sorted(MEASURES.values(), key=lambda row: row.card or 0) if row.needed
}
"""What a bridge needs."""


def measure_code(typed: str, *, field: str = "measure") -> MeasureCode:
    """A measure by its code. Raises RefusedError for what is none."""
    found = code_of(MEASURES, typed)
    if found is None:
        raise RefusedError(f"there is no measure “{typed}”", field=field)
    return found


def figure_code(typed: str) -> FigureCode:
    """What there are figures for, by its code. Raises RefusedError for what is none."""
    found = code_of(figure_measures(), typed)
    if found is None:
        raise RefusedError(f"“{typed}” is nothing that the shop has figures of", field="measure")
    return found


def said_of_all(measure: MeasureCode) -> str:
    """What a measure is called for all strings together: “heights at the nut”, “projection”."""
    row = MEASURES[measure]
    return f"heights {row.label}" if row.height else row.label


def name_of(measure: MeasureRow, string_names: tuple[str, ...], position: int | None) -> str:
    """What a reading is called: “G at the board's end”, “projection”, “scoop, bass, in the middle”."""
    if position is None:
        return measure.label
    place = measure.place_name(position, string_names)
    return (
        f"{place} {measure.label}" if measure.for_each_string or measure.for_each_gap else f"{measure.label}, {place}"
    )


def places(instrument: Instrument) -> list[MeasurementKey]:
    """Every place that is read: those of the bench card in their order, then what only a full measuring takes."""
    return list(_places(instrument.family, len(instrument.string_names)))


@cache
def _places(family: str, count: int) -> tuple[MeasurementKey, ...]:
    full = [row for row in MEASURES.values() if not row.needed and row.fits(family)]
    return tuple((row.measure, position) for row in (*CARD.values(), *full) for position in row.positions(count))
