"""What may be typed at a place without a doubt, so that a slip stops where it is typed."""

from __future__ import annotations

from dataclasses import replace

from fidicula.core.readings.doubt import Plausible, changed_from, leapt_from, plausible_around
from fidicula.core.readings.states import MeasurementKey
from fidicula.judgement.assessment.geometry import SINGLES
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.measures import MEASURES
from fidicula.tables.measures import MeasureRow

LEAPING = frozenset({*SINGLES, "neck_length"})
"""Lengths that nothing changes far."""


def plausible_at(measure: MeasureRow, usual: float) -> Plausible:
    """Around what such an instrument has. usual : above 0. [the measure's unit]"""
    found = plausible_around(usual)
    if measure.signed:
        found = replace(found, low=-found.high)
    elif measure.zero_will_do:
        found = replace(found, low=0.0)
    return Plausible(found.low, min(found.high, measure.largest))


def likely_at(state: BenchState, key: MeasurementKey) -> Plausible | None:
    """What is not asked about where it is read now, as far as that is known before; None where anything may be.

    Narrower than what is doubted in the end: whoever corrects a reading of one's own at once is not asked.
    """
    measure, usual = MEASURES[key[0]], state.usual(key)
    if usual is None:
        return None
    found = plausible_at(measure, usual)
    stand = state.reading_states.get(key)
    before = None if stand is None or stand.state != "current" else stand.value
    if before is None and key[0] in LEAPING and (earlier := state.last_visit(key)) is not None:
        before = earlier.value
    if before is None:
        return found
    if key[0] in LEAPING:
        return _within(found, before, leapt_from(before))
    if key[0] == "end_height" and stand is not None:
        return _within(found, before, changed_from(stand.known_to))
    return found


def _within(found: Plausible, middle: float, by: float) -> Plausible:
    return Plausible(max(found.low, middle - by), min(found.high, middle + by))
