"""What looks like a slip, asked quietly: it corrects nothing and bars nothing."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from datetime import datetime, timedelta

from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.thresholds import OTHER_AIR, SAME_PROJECTION
from fidicula.tables.work import tools

_MIRRORED = {"end_height": "at the board's end", "nut_height": "at the nut"}


def asks(state: BenchState, tool_checks: Mapping[str, datetime], *, now: datetime) -> list[str]:
    """One question each."""
    return [*_other_air(state), *_swapped(state), *_wrong_instrument(state), *_unchecked(state, tool_checks, now)]


def _swapped(state: BenchState) -> Iterator[str]:
    """Heights that would fit their targets if the strings were counted from the other side."""
    last = state.count - 1
    for measure, where in _MIRRORED.items():
        found = []
        for position in (0, last):
            stand, wanted = state.standings.get((measure, position)), state.wanted_as_read((measure, position))
            if stand is None or stand.usable is None or wanted is None:
                break
            found.append((stand.usable, wanted.band.aim))
        if len(found) < 2:
            continue
        (low, low_aim), (high, high_aim) = found
        if low < high and low_aim > high_aim and high - low > (low_aim - high_aim) / 3:
            names = state.instrument.string_names
            yield (
                f"{names[last]} stands higher than {names[0]} {where}: {high:g} over {low:g}. "
                "Were bass and treble swapped?"
            )
    diameters = state.diameters
    if len(diameters) > 2 and diameters[0] < diameters[-1]:
        yield (
            f"{state.instrument.string_names[0]} is thinner than {state.instrument.string_names[-1]}: "
            f"{diameters[0]:g} and {diameters[-1]:g}. Were two strings of the set swapped?"
        )


def _other_air(state: BenchState) -> Iterator[str]:
    """Wood follows the air: what was read in another one may not hold any more."""
    now, before = state.held("humidity"), state.last_time.get(("humidity", None))
    if now is not None and before is not None and abs(now.value - before.value) >= OTHER_AIR:
        yield (
            f"The air is at {now.value:g} %, last time it was {before.value:g} %: "
            "projection, heights, pegs and post may have moved. Does it need days in this air first?"
        )


def _wrong_instrument(state: BenchState) -> Iterator[str]:
    """Single measures that no work explains and that were others last time: four of these are another instrument."""
    moved = []
    for measure in ("string_length", "fingerboard_length", "fingerboard_radius", "nut_spread"):
        held, before = state.held(measure), state.last_time.get((measure, None))
        if held is None or held.assumed or before is None:
            continue
        if abs(held.value - before.value) > max(SAME_PROJECTION * 4, 0.02 * before.value):
            moved.append(f"{state.name((measure, None))} {held.value:g}, last time {before.value:g}")
    if len(moved) >= 2:
        yield f"Is this {state.instrument.ticket}? Not as last time: {'; '.join(moved)}."


def _unchecked(state: BenchState, tool_checks: Mapping[str, datetime], now: datetime) -> Iterator[str]:
    """Tools that this visit was measured with and whose check is overdue. One that was never checked says nothing."""
    for tool in dict.fromkeys(reading.tool for reading in state.readings):
        row = tools().get(tool)
        checked = tool_checks.get(tool)
        if row is None or row.check_days is None or checked is None:
            continue
        due = checked + timedelta(days=row.check_days)
        if now > due:
            day = due.astimezone()
            yield f"The {row.label}'s check was due on {day.day} {day:%B}: does it still read true?"
