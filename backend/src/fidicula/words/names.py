"""What things are called: readings, signs, slots of a visit. Names come from the tables; here they are put together."""

from __future__ import annotations

from collections.abc import Sequence
from typing import cast

from fidicula.codes import ComputedSignCode, MeasureCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.instruments import Instrument
from fidicula.judgement.measures import MEASURES, name_of
from fidicula.tables.rows import row_of
from fidicula.tables.signs import computed_signs, findings
from fidicula.words.numbers import lower_first

FOLLOWS_CROWN = "between the outer strings, along the crown"
"""Where the target of an inner string comes from."""


def key_name(instrument: Instrument, key: MeasurementKey) -> str:
    """What a reading is called: “G at the board's end”, “projection”."""
    return name_of(MEASURES[key[0]], instrument.string_names, key[1])


def key_names(instrument: Instrument, keys: Sequence[MeasurementKey]) -> list[str]:
    """Each measure once, with its strings: “at the board's end (G D A E)”."""
    by_measure: dict[MeasureCode, list[str]] = {}
    for measure, position in keys:
        places = by_measure.setdefault(measure, [])
        if position is not None:
            places.append(MEASURES[measure].place_name(position, instrument.string_names))
    return [f"{of_all(measure)} ({', '.join(places)})" if places else of_all(measure) for measure, places in
            by_measure.items()]  # fmt: skip


def of_all(measure: MeasureCode) -> str:
    """What a measure is called for all strings together: “heights at the nut”, “projection”."""
    row = MEASURES[measure]
    return f"heights {row.label}" if row.height else row.label


def sign_name(sign: str) -> str:
    """A sign in words."""
    row = row_of(findings(), sign)
    if row is not None:
        return f"{row.item}: {lower_first(row.label)}"
    return computed_signs()[cast(ComputedSignCode, sign)].says


_DERIVED_BY = {
    "marks": "the strings' marks",
    "centres": "the steps from middle to middle",
    "gaps": "the air between the strings",
    "chord_and_rise": "chord and rise",
    "cards": "two cards",
    "filed": "what was read before, and filed since",
    "stop_to_middle": "the stop to the foot's middle",
    "stop_to_back": "the stop to the foot's back",
    "stop_to_third": "the stop to the foot's third",
}


def derived_by(code: str) -> str:
    """The other readings that tell a place."""
    return _DERIVED_BY[code]


ACCEPTED = "Accepted with a reason"
RESET = "back to the starting value"
