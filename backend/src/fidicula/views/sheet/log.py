"""The log of a visit: every reading and work in the order in which they came, whatever became of them."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import datetime

from fidicula.domain.instruments import Particular
from fidicula.domain.readings import Reading
from fidicula.domain.targets import TargetChoice
from fidicula.domain.visits import Decision
from fidicula.domain.works import WorkDone
from fidicula.judgement.assessment.questions import outcome_of
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.measures import said_of_all
from fidicula.tables.schools import school
from fidicula.tables.signs import VERDICTS, findings
from fidicula.tables.work import tools
from fidicula.tables.work import works as work_rows
from fidicula.tables.workflow import questions, steps
from fidicula.views.sheet.model import LogLine, LogState
from fidicula.words.acts import act_words, set_out_words
from fidicula.words.following import SOURCE_WORDS
from fidicula.words.names import key_name
from fidicula.words.undoing import MARK_WORDS


def _work_words(state: BenchState, work: WorkDone) -> str:
    """What was set out to be taken, string by string, or what else is told of a work."""
    by_string = set_out_words(work.detail, state.instrument.string_names)
    said = act_words(work.work, work.detail)
    return by_string or (said if said != work_rows()[work.work].done_label else "")


def log_lines(
    state: BenchState,
    readings: Sequence[Reading],
    choices: Sequence[tuple[TargetChoice, bool]],
    particulars: Sequence[Particular] = (),
) -> list[LogLine]:
    """Everything that was written down, newest first.

    state : of the bench now.  readings : all of the visit's.  choices : each with whether it was taken back.
    """
    lines = [
        LogLine(
            what=key_name(state.instrument, (reading.measure, reading.position)),
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
            value=_work_words(state, work),
            by=work.done_by,
            at=work.done_at,
            tool="",
            state="taken back" if work.taken_back else "work",
            recorded_at=work.done_at,
        )
        for work in state.works
    ]
    lines += _said(state, choices, particulars)
    return sorted(lines, key=lambda line: line.recorded_at, reverse=True)


def _said(
    state: BenchState, choices: Sequence[tuple[TargetChoice, bool]], particulars: Sequence[Particular]
) -> list[LogLine]:
    """What was decided, marked, seen, chosen and written down of it."""
    lines = [
        _written(
            f"{_question_words(decision.question)} decided",
            _with_reason(_outcome_words(decision), decision.reason),
            decision.decided_by,
            decision.decided_at or state.now,
            taken_back=decision.taken_back,
        )
        for decision in state.decisions
    ]
    lines += [
        _written(
            f"step {steps()[mark.step].label.lower() if mark.step in steps() else mark.step}",
            _with_reason(MARK_WORDS[mark.mark], mark.reason),
            mark.made_by,
            mark.made_at or state.now,
            taken_back=mark.taken_back,
        )
        for mark in state.marks
    ]
    lines += [
        _written(
            f"seen: {line.item}",
            _with_reason(", ".join(_finding_words(f) for f in line.findings) or VERDICTS[line.verdict], line.words),
            line.seen_by,
            line.seen_at or state.now,
            taken_back=line.taken_back,
        )
        for line in state.seen
    ]
    lines += [
        _written("targets", _followed(choice), choice.chosen_by, choice.chosen_at, taken_back=taken_back)
        for choice, taken_back in choices
        if choice.chosen_at is not None
    ]
    lines += [
        _written(
            line.field.replace("_", " "),
            f"{line.now or 'nothing'}; before: {line.was or 'nothing'}",
            line.written_by,
            line.written_at or state.now,
        )
        for line in particulars
    ]
    return lines


def _written(what: str, value: str, by: str, at: datetime, *, taken_back: bool = False) -> LogLine:
    """A line that is no reading."""
    return LogLine(
        what=what,
        value=value,
        by=by,
        at=at,
        tool="",
        state="taken back" if taken_back else "work",
        recorded_at=at,
    )


def _with_reason(said: str, reason: str) -> str:
    return f"{said}: {reason}" if reason else said


def _question_words(question: str) -> str:
    return questions()[question].title.lower() if question in questions() else question


def _outcome_words(decision: Decision) -> str:
    outcome = outcome_of(decision)
    return decision.outcome if outcome is None else outcome.label


def _finding_words(finding: str) -> str:
    return findings()[finding].label if finding in findings() else finding


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
    return "doubted" if reading.doubt is not None and not reading.confirmed else "current"
