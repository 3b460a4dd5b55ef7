"""What a cut rests on that was not measured, in words."""

from __future__ import annotations

from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.model import Assumption
from fidicula.numerals import number, short
from fidicula.words.names import key_name

_READING = {"stale": "the reading is stale", "doubted": "the reading is doubted", "current": "the device is simulated"}


def assumed_words(a: Assessment) -> list[str]:
    """Each single measure, then heights at the nut and slots with all their strings; each with why."""
    return assumptions_words(a.cut.assumed, a)


def assumptions_words(assumed: tuple[Assumption, ...], a: Assessment) -> list[str]:
    names, instrument = a.state.instrument.string_names, a.state.instrument
    said = []
    by_measure: dict[str, list[str]] = {}
    for one in assumed:
        measure, position = one.key
        if position is None:
            said.append(f"{key_name(instrument, one.key)} {short(one.value)}{_why(one)}")
        else:
            by_measure.setdefault(measure, []).append(f"{names[position]} {number(one.value, 2)}{_why(one)}")
    labels = {"nut_height": "at the nut", "slot_depth": "slot depth"}
    return said + [f"{labels[measure]}: {', '.join(each)}" for measure, each in by_measure.items()]


def _why(one: Assumption) -> str:
    if one.is_last_visit:
        return " (last visit)"
    return "" if one.reading is None else f" ({_READING[one.reading]})"
