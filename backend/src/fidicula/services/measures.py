"""The measures of the bench card, in the order in which the bench takes them."""

from __future__ import annotations

from dataclasses import dataclass

HEIGHT_LIMIT = 100.0
LENGTH_LIMIT = 3000.0


@dataclass(frozen=True)
class Measure:
    """One kind of reading.

    for_each_string : whether every string has its own.  has_direction : a height over the board's curve.
    largest : no such measure can exceed it. [mm]  zero_will_do : 0 is a plain reading, not a slip.
    """

    key: str
    label: str
    for_each_string: bool
    largest: float
    has_direction: bool = False
    zero_will_do: bool = False


MEASURES: dict[str, Measure] = {
    measure.key: measure
    for measure in (
        Measure("end_height", "at the board's end", True, HEIGHT_LIMIT, has_direction=True),
        Measure("nut_height", "at the nut", True, HEIGHT_LIMIT, has_direction=True),
        Measure("slot_depth", "slot depth", True, HEIGHT_LIMIT, zero_will_do=True),
        Measure("projection", "projection", False, LENGTH_LIMIT),
        Measure("string_length", "string length", False, LENGTH_LIMIT),
        Measure("fingerboard_length", "board length", False, LENGTH_LIMIT),
        Measure("fingerboard_radius", "board radius", False, 5000.0),
        Measure("nut_spread", "spread at the nut", False, LENGTH_LIMIT),
        Measure("bridge_spread", "spread at the bridge", False, LENGTH_LIMIT),
    )
}


def said_of_all(measure: str) -> str:
    """What a measure is called for all strings together: “heights at the nut”, “projection”."""
    row = MEASURES[measure]
    return f"heights {row.label}" if row.has_direction else row.label


def name_of(measure: Measure, string_names: tuple[str, ...], position: int | None) -> str:
    """What a reading is called: “G at the board's end”, “projection”."""
    return measure.label if position is None else f"{string_names[position]} {measure.label}"
