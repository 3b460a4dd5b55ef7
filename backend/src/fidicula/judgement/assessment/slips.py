"""What looks like a slip: it corrects nothing; what could spoil wood stops the cut until it is put right."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from datetime import datetime, timedelta

from fidicula.codes import MeasureCode
from fidicula.core.readings.doubt import leap_from, unevenness_of
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.readings import Reading, ToolCheck
from fidicula.judgement.assessment.contradictions import contradictions
from fidicula.judgement.assessment.model import Slip
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.assessment.thresholds import OTHER_AIR
from fidicula.judgement.targets.gauges import found_by, last_checks
from fidicula.tables.work import tools

MIRRORED: tuple[MeasureCode, ...] = ("end_height", "nut_height")
"""Heights of which the low string's is wanted higher."""
TELLING: tuple[MeasureCode, ...] = (
    "string_length",
    "fingerboard_length",
    "fingerboard_radius",
    "nut_spread",
    "neck_length",
)
"""Single measures that no work of the bench changes by much."""
SWAPPED_SHARE = 0.5
"""Read from the other side, heights lie along their targets: by less than this share of how they do as read."""
_MANY = 3
"""So many doubted readings at once are of another instrument."""


def slips_of(state: BenchState, tool_checks: Sequence[ToolCheck], *, now: datetime) -> tuple[Slip, ...]:
    """One each, those that stop a cut first."""
    found = [
        *_wrong_instrument(state),
        *_swapped(state),
        *_strings_swapped(state),
        *_changed(state),
        *contradictions(state),
        *_other_air(state),
        *_unchecked(state, last_checks(tool_checks), now),
    ]
    return tuple(sorted(found, key=lambda slip: not slip.stops))


def last_reading(state: BenchState, key: MeasurementKey) -> Reading | None:
    stand = state.reading_states.get(key)
    return None if stand is None else state.by_number[stand.reading.number]


def _swapped(state: BenchState) -> Iterator[Slip]:
    """Heights that would fit their targets if the strings were counted from the other side."""
    last = state.count - 1
    for measure in MIRRORED:
        read: dict[int, float] = {}
        aims: dict[int, float] = {}
        for position in range(state.count):
            stand, wanted = state.reading_states.get((measure, position)), state.wanted_as_read((measure, position))
            reading = last_reading(state, (measure, position))
            if reading is not None and reading.confirmed:
                break
            if stand is not None and stand.usable is not None and wanted is not None:
                read[position], aims[position] = stand.usable, wanted.band.aim
        if not {0, last} <= read.keys() or read[0] >= read[last] or aims[0] <= aims[last]:
            continue
        both = [position for position in read if last - position in read]
        as_read = unevenness_of([read[i] - aims[i] for i in both])
        mirrored = unevenness_of([read[last - i] - aims[i] for i in both])
        if mirrored < SWAPPED_SHARE * as_read:
            keys = tuple((measure, i) for i in range(state.count) if (measure, i) in state.reading_states)
            yield Slip("bass_treble_swapped", keys, (read[last], read[0]), act="swap", stops=True)


def _strings_swapped(state: BenchState) -> Iterator[Slip]:
    """Two strings of the set the other way round: a higher one is thicker than any below it has to be."""
    diameters = state.diameters
    if len(diameters) > 2 and diameters[0] < diameters[-1]:
        yield Slip("strings_swapped", (), (diameters[0], diameters[-1]), act="choose_strings", stops=True)


def _wrong_instrument(state: BenchState) -> Iterator[Slip]:
    """Single measures that no work explains and that were others last time, or many readings that changed at once."""
    keys: list[MeasurementKey] = []
    values, before = [], []
    for measure in TELLING:
        reading, earlier = last_reading(state, (measure, None)), state.last_time.get((measure, None))
        if reading is None or earlier is None or reading.confirmed:
            continue
        if leap_from(value=reading.value, before=earlier.value) is not None:
            keys.append((measure, None))
            values.append(reading.value)
            before.append(earlier.value)
    if len(keys) >= 2:
        yield Slip("wrong_instrument", tuple(keys), tuple(values), tuple(before), act="move", stops=True)
        return
    changed = _doubted(state, ("changed", "leap"))
    if len(changed) >= _MANY:
        yield Slip(
            "wrong_instrument",
            tuple((r.measure, r.position) for r in changed),
            tuple(r.value for r in changed),
            tuple(r.doubt_about or 0.0 for r in changed),
            act="move",
            stops=True,
        )


def _doubted(state: BenchState, codes: tuple[str, ...]) -> list[Reading]:
    """The readings that wait for a word, of the last at each place."""
    last = [last_reading(state, key) for key in state.reading_states]
    return [one for one in last if one is not None and one.doubt in codes and not one.confirmed]


def _changed(state: BenchState) -> Iterator[Slip]:
    """Heights that changed though nothing was done: was it cut, or is it a slip?"""
    changed = _doubted(state, ("changed",))
    if not changed or len(changed) >= _MANY:
        return
    yield Slip(
        "changed_without_work",
        tuple((r.measure, r.position) for r in changed),
        tuple(r.value for r in changed),
        tuple(r.doubt_about or 0.0 for r in changed),
        act="record_cut" if all(r.measure == "end_height" for r in changed) else "",
        stops=True,
    )


def _other_air(state: BenchState) -> Iterator[Slip]:
    """Wood follows the air: what was read in another one may not hold any more."""
    now, before = state.held("humidity"), state.last_time.get(("humidity", None))
    if now is not None and before is not None and abs(now.value - before.value) >= OTHER_AIR:
        yield Slip("other_air", (("humidity", None),), (now.value,), (before.value,))


def _unchecked(state: BenchState, checks: Mapping[str, ToolCheck], now: datetime) -> Iterator[Slip]:
    """Tools that this visit was measured with and that are to be checked, or were found off and are still to be set.

    One that is held to no known length and was never checked says nothing.
    """
    for tool in dict.fromkeys(reading.tool for reading in state.readings):
        row, last = tools().get(tool), checks.get(tool)
        if row is None or row.check_days is None or (last is None and row.on_block is None):
            continue
        due = None if last is None else last.checked_at + timedelta(days=row.check_days)
        found = None if last is None else found_by(last)
        if due is None or now > due:
            yield Slip("tool_unchecked", act="check_tool", subject=tool, at=due)
        elif found is not None and not found.is_true:
            yield Slip("tool_off", values=(found.off,), act="check_tool", subject=tool)
