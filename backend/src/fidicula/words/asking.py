"""A question about the house said back in plain words, and what each instrument that it finds shows."""

from __future__ import annotations

from collections.abc import Sequence
from datetime import date, datetime
from typing import Any

from fidicula.codes import MeasureCode
from fidicula.domain.asking import (
    CameFor,
    Condition,
    HasWords,
    IsDue,
    IsHere,
    Measured,
    OfFamily,
    OfSize,
    TensionChanged,
    WasDone,
)
from fidicula.judgement.measures import MEASURES
from fidicula.numerals import number, of_unit, short
from fidicula.tables.work import works
from fidicula.tables.workflow import visit_kinds
from fidicula.words.names import of_all
from fidicula.words.numbers import day_and_year, listed, lower_first, plural, sentence, times

AFTER_MEASURE = ("under", "over", "between", "at least", "at most")
AFTER_WORK = ("once", "twice", "3 times", "this year", "since", "in the last 30 days", "last year")
AFTER_DUE = ("this week", "this month", "within 30 days", "until")
STARTS = (
    *("due this month", "overdue", "in the house", "handed over"),
    *("tensions changed since", "no", "owner:", "strings:"),
)
"""What may come next as a question is typed."""
EVERYTHING = "Every instrument that was ever here."
_MANY = {"violin": "violins", "viola": "violas", "cello": "cellos", "bass": "basses"}
_WHERE = {
    "owner": "the owner's name holds",
    "ticket": "the ticket holds",
    "strings": "the strings on it are called",
    "kind": "it came for",
    "": "ticket, owner or description hold",
}


def explained(conditions: Sequence[Condition]) -> list[str]:
    """A sentence for each condition; all of them hold."""
    return [sentence(_says(one)) for one in conditions] or [EVERYTHING]


def _says(condition: Condition) -> str:
    match condition:
        case OfFamily(families):
            return f"only {listed([_MANY[family] for family in families])}"
        case OfSize(size):
            return f"of the size {size}"
        case HasWords(where, words):
            return f"{_WHERE[where]} “{words}”"
        case Measured():
            return _measured(condition)
        case WasDone():
            return _was_done(condition)
        case TensionChanged(since):
            return f"strings of another tension went on{_within(since, None)}"
        case IsDue(_, until):
            return f"it should come again by {day_and_year(until)}, or should have come"
        case CameFor(kind, since, until):
            label = visit_kinds()[kind].label if kind in visit_kinds() else kind
            return f"it came for a {label}{_within(since, until)}"
        case IsHere(is_here):
            return "it is in the house" if is_here else "it is not in the house"


def _measured(asked: Measured) -> str:
    row = MEASURES[asked.measure]
    of = lower_first(of_all(asked.measure))
    what = f"the last reading of {of}{f' at {asked.place}' if asked.place else ''}"
    low, high = asked.low, asked.high
    if low is None and high is None:
        return f"{what} is known"
    if low is not None and high is not None:
        if low == high:
            return f"{what} is {of_unit(short(low), row.unit)}"
        return f"{what} is from {short(low)} to {of_unit(short(high), row.unit)}"
    if high is not None:
        return f"{what} is {'under' if asked.is_strict else 'at most'} {of_unit(short(high), row.unit)}"
    return f"{what} is {'over' if asked.is_strict else 'at least'} {of_unit(short(low or 0.0), row.unit)}"


def _was_done(asked: WasDone) -> str:
    done = works()[asked.work].done_label
    within = _within(asked.since, asked.until)
    if asked.most == 0:
        return f"it was not so that {done}{within}"
    often = "" if asked.least <= 1 else f" at least {times(asked.least)}"
    return f"{done}{often}{within}"


def _within(since: date | None, until: date | None) -> str:
    if since is not None and until is not None:
        return f" from {day_and_year(since)} to {day_and_year(until)}"
    if since is not None:
        return f" since {day_and_year(since)}"
    return "" if until is None else f" by {day_and_year(until)}"


def shows(condition: Condition, value: Any) -> str:
    """What an instrument shows of a condition. value : as the database found it."""
    if value is None:
        return ""
    match condition:
        case Measured(measure):
            return "; ".join(_reading(measure, *one) for one in value)
        case WasDone():
            last = max(datetime.fromisoformat(at) for at in value)
            return f"{times(len(value))}, last on {day_and_year(last.astimezone().date())}"
        case TensionChanged():
            before, now, at = value[-1]
            on = day_and_year(datetime.fromisoformat(at).astimezone().date())
            return f"{number(before, 0)} to {number(now, 0)} N on {on}"
        case IsDue():
            return f"due {day_and_year(value)}"
        case CameFor():
            return day_and_year(value.astimezone().date())
    return str(value)


def _reading(measure: MeasureCode, position: int, value: float, at: str) -> str:
    row = MEASURES[measure]
    places = "" if position < 0 or row.for_each_string else f"{(row.places or ('',))[position]} "
    on = day_and_year(datetime.fromisoformat(at).astimezone().date())
    return f"{places}{of_unit(short(value), row.unit)} on {on}"


def unknown(word: str, meant: str) -> str:
    """A word that means nothing in a question. meant : what it may have been, empty where nothing is like it."""
    told = f"; did you mean “{meant}”?" if meant else "; in quotes it is looked for in owner and description"
    return f"“{word}” is nothing that can be asked for{told}"


def counted(count: int, most: int) -> str:
    if not count:
        return "no instrument"
    if count > most:
        return f"more than {most} instruments, the first {most} of them"
    return plural(count, "instrument", "instruments")
