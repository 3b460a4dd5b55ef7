"""The log of a visit: every reading and work in the order in which they came, whatever became of them."""

from __future__ import annotations

from collections.abc import Sequence

from fidicula.db.records import Reading
from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.model import LogLine, LogState
from fidicula.tables.work import tools
from fidicula.tables.work import works as work_rows


def log_lines(state: BenchState, readings: Sequence[Reading]) -> list[LogLine]:
    """Readings and works, newest first.

    state : of the bench now.  readings : all of the visit's.
    """
    lines = [
        LogLine(
            what=state.name((reading.measure, reading.position)),
            value=reading.typed,
            by=reading.taken_by,
            at=reading.taken_at,
            tool=tools()[reading.tool].label,
            state=_reading_state(reading),
            recorded_at=reading.recorded_at,
        )
        for reading in readings
    ]
    lines += [
        LogLine(
            what=work_rows()[work.work].done_label,
            value=str(work.detail.get("set", "")),
            by=work.done_by,
            at=work.done_at,
            tool="",
            state="taken back" if work.taken_back else "work",
            recorded_at=work.done_at,
        )
        for work in state.works
    ]
    return sorted(lines, key=lambda line: line.recorded_at, reverse=True)


def _reading_state(reading: Reading) -> LogState:
    if reading.taken_back:
        return "taken back"
    if reading.corrected_by is not None:
        return "corrected"
    return "doubted" if reading.doubt is not None and not reading.confirmed else "taken"
