"""What is said as an instrument leaves: the evidence of each point, what stays open, and what a seal says."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from datetime import date, datetime

from fidicula.codes import MeasureCode, Part
from fidicula.core.bands import outside_by
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.visits import Seen
from fidicula.domain.works import WorkDone
from fidicula.judgement.assessment.parts import PartAssessment, part_of
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.measures import MEASURES, said_of_all
from fidicula.numerals import number, of_unit, places_needed
from fidicula.tables.leaving import left_open
from fidicula.tables.signs import VERDICTS, findings, items
from fidicula.words.acts import act_words
from fidicula.words.numbers import day, day_and_clock, listed, plural, sentence

NOT_LOOKED_AT = "nobody has looked at it since the last work"
NOT_RIGHT = "not right"
RIGHT = "right"
WAIT_MEANS = "it is not settled: heights and pitch may change at home"
PLANNED_MEANS = "the owner expects it to be done"
NOT_MEASURED_MEANS = "it was not measured again, so that nothing is said of how it stands"
BY_APPRENTICE_LOOK = "as if it were your own work"
BY_APPRENTICE_MEANS = "a luthier has not checked it"


def means_of(part: PartAssessment) -> str:
    """What follows from what is open at a part; what was only not read says nothing of the instrument."""
    if not part.is_open:
        return ""
    return NOT_MEASURED_MEANS if part.state in ("stale", "doubted") else left_open()[part.part]


def by_apprentice(work: str, name: str) -> str:
    return f"{work}, by {name}: a luthier checks it"


LISTS: Mapping[str, str] = {
    "visit": "the visit's kind and dates",
    "works": "works",
    "readings": "readings",
    "decisions": "decisions",
    "inspection": "the inspection",
    "steps": "steps",
    "checks": "the check at pitch",
    "photographs": "photographs",
    "retunings": "retunings",
    "posts": "sound posts",
    "belongings": "fittings and belongings",
    "damage": "the damage map",
    "damage_signed": "who signed for the damage",
    "players": "players",
    "listening_notes": "listening notes",
    "recordings": "recordings",
    "blind_comparisons": "blind comparisons",
    "plan": "the plan",
    "plan_parts": "parts used",
    "plan_times": "working time",
    "approvals": "approvals",
    "discounts": "discounts",
    "statement": "what was signed",
}
"""Lists of a visit's record."""


def readings_of(state: BenchState, part: Part) -> list[str]:
    """What was read of a part at this visit, a line for each measure: values, and how they stand to their band."""
    by_measure: dict[MeasureCode, list[MeasurementKey]] = {}
    for place in state.reading_states:
        if part_of(place[0]) == part:
            by_measure.setdefault(place[0], []).append(place)
    return [_measure_line(state, measure, places) for measure, places in by_measure.items()]


def _measure_line(state: BenchState, measure: MeasureCode, places: Sequence[MeasurementKey]) -> str:
    row = MEASURES[measure]
    values, off, again, wanted = [], [], 0, 0
    decimals = places_needed([_value(state, place) for place in places])
    for place in sorted(places, key=lambda one: one[1] if one[1] is not None else -1):
        stand = state.reading_states[place]
        value = _value(state, place)
        name = row.place_name(place[1], state.instrument.string_names) if place[1] is not None else ""
        values.append(f"{name} {number(value, decimals)}".strip())
        again += stand.state != "current"
        target = state.wanted_as_read(place)
        if target is None:
            continue
        wanted += 1
        by = outside_by(value=value, band=target.band)
        if by:
            off.append(f"{f'{name} ' if name else ''}{'above' if by > 0 else 'below'} by {number(abs(by), 2)}")
    told = f"{sentence(said_of_all(measure))[:-1]}: {of_unit(', '.join(values), row.unit)}"
    if again:
        return f"{told}; {plural(again, 'reading holds', 'readings hold')} no more"
    if off:
        return f"{told}; {', '.join(off)}"
    return f"{told}; in band" if wanted else told


def _value(state: BenchState, place: MeasurementKey) -> float:
    stand = state.reading_states[place]
    return stand.reading.value if stand.usable is None else stand.usable


def seen_line(line: Seen) -> str:
    """“Sound post: work needed, leans to the bass; Ilse, 28 November”"""
    label = items()[line.item].label if line.item in items() else line.item
    found = listed([findings()[name].label for name in line.findings if name in findings()]) if line.findings else ""
    said = ", ".join(part for part in (VERDICTS[line.verdict], found, line.words) if part)
    return _by(f"{sentence(label)[:-1]}: {said}", line.seen_by, line.seen_at)


def work_line(work: WorkDone) -> str:
    return _by(sentence(act_words(work.work, work.detail))[:-1], work.done_by, work.done_at)


def decided_line(outcome: str, reason: str, by: str, at: datetime | None) -> str:
    return _by(f"{outcome}: {reason}" if reason else outcome, by, at)


def against(recommended: str) -> str:
    """What the readings spoke for, where somebody decided otherwise."""
    return f"the readings spoke for: {recommended}"


def waiting(label: str, until: datetime | None) -> str:
    return f"{label} until {day_and_clock(until)}" if until is not None else f"{label}, until somebody says so"


def _by(said: str, by: str, at: datetime | None) -> str:
    return f"{said}; {by}, {day(at.astimezone().date())}" if at is not None else f"{said}; {by}"


def needs_reason(labels: Sequence[str]) -> str:
    """Refused: points are open and nobody said why."""
    return f"say why it leaves with this open: {listed(labels)}"


def intact(at: datetime, late: int) -> str:
    more = f"; {plural(late, 'reading', 'readings')} came later from a browser where it waited" if late else ""
    return f"the record is as it was sealed on {day(at.astimezone().date())}{more}"


def tampered(lists: Sequence[str]) -> str:
    """The record is not as it was sealed."""
    return f"the record was changed after it was sealed: {listed([LISTS.get(name, name) for name in lists])}"


def opened_again(by: str, at: datetime) -> str:
    return f"{by} took the hand-over back on {day(at.astimezone().date())}"


def due_words(when: date, today: date) -> str:
    """“due today”, “due in 12 days”, “3 days overdue”"""
    days = (when - today).days
    if days == 0:
        return "due today"
    return f"due in {plural(days, 'day', 'days')}" if days > 0 else f"{plural(-days, 'day', 'days')} overdue"
