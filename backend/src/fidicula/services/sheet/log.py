"""The log of a visit: every reading and work in the order in which they came, whatever became of them."""

from __future__ import annotations

from collections.abc import Sequence

from fidicula.db.records import Reading, TargetChoice
from fidicula.services.measures import said_of_all
from fidicula.services.sheet.gate import outcome_of
from fidicula.services.sheet.held import BenchState
from fidicula.services.sheet.model import LogLine, LogState
from fidicula.services.targets.sources import SOURCE_WORDS
from fidicula.tables.schools import school
from fidicula.tables.work import tools
from fidicula.tables.work import works as work_rows


def log_lines(
    state: BenchState, readings: Sequence[Reading], choices: Sequence[tuple[TargetChoice, bool]]
) -> list[LogLine]:
    """Readings, works, decisions and choices of targets, newest first.

    state : of the bench now.  readings : all of the visit's.  choices : each with whether it was taken back.
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
    lines += [
        LogLine(
            what=f"{decision.question} decided",
            value=": ".join(filter(None, [outcome_of(decision).label, decision.reason])),
            by=decision.decided_by,
            at=decision.decided_at,
            tool="",
            state="taken back" if decision.taken_back else "work",
            recorded_at=decision.decided_at,
        )
        for decision in state.decisions
        if decision.decided_at is not None
    ]
    lines += [
        LogLine(
            what="targets",
            value=_followed(choice),
            by=choice.chosen_by,
            at=choice.chosen_at,
            tool="",
            state="taken back" if taken_back else "work",
            recorded_at=choice.chosen_at,
        )
        for choice, taken_back in choices
        if choice.chosen_at is not None
    ]
    return sorted(lines, key=lambda line: line.recorded_at, reverse=True)


def _followed(choice: TargetChoice) -> str:
    """What was to be followed, in words, with its reason."""
    own = [row.label for pair in choice.schools.items() if (row := school(*pair)) is not None]
    own += [
        f"{said_of_all(measure)} {SOURCE_WORDS[source['from']].format(of=source.get('of', ''))}"
        for measure, source in choice.sources.items()
    ]
    said = ", ".join([choice.recipe or "the shop's recipe", *own])
    return f"{said}: {choice.reason}" if choice.reason else said


def _reading_state(reading: Reading) -> LogState:
    if reading.taken_back:
        return "taken back"
    if reading.corrected_by is not None:
        return "corrected"
    return "doubted" if reading.doubt is not None and not reading.confirmed else "taken"
