"""Works that the assessment speaks for: what was found, what was decided, what was read."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from fidicula.codes import WorkCode
from fidicula.core.readings.states import MeasurementKey
from fidicula.domain.plan import Origin
from fidicula.judgement.assessment.assess import Assessment
from fidicula.tables.pricing import jobs
from fidicula.tables.signs import findings
from fidicula.tables.workflow import instructions


@dataclass(frozen=True)
class Proposal:
    """A work that something speaks for. because : a finding, a question, or a measure, by name."""

    work: WorkCode
    origin: Origin
    because: str


def proposals(a: Assessment) -> list[Proposal]:
    """Each work once, by the first that speaks for it: findings, then decisions, then readings."""
    found: dict[str, Proposal] = {}
    for one in (*_of_findings(a), *_of_decisions(a), *_of_readings(a)):
        if one.work in jobs():
            found.setdefault(one.work, one)
    return list(found.values())


def _of_findings(a: Assessment) -> Iterator[Proposal]:
    for part in a.parts:
        for name in part.findings:
            found = findings()[name]
            works = found.works if found.verdict == "work" else ()
            if works:
                yield Proposal(works[0], "finding", name)
    for job in jobs().values():
        for sign in job.mends:
            if sign in a.signs and sign in findings():
                yield Proposal(job.work, "finding", sign)


def _of_decisions(a: Assessment) -> Iterator[Proposal]:
    for question in a.questions:
        chosen = question.outcome or question.recommended
        told = None if chosen is None or not chosen.instructs else instructions().get(chosen.instructs)
        if told is not None and told.records is not None:
            yield Proposal(told.records, "decision", question.question)


def _of_readings(a: Assessment) -> Iterator[Proposal]:
    for job in jobs().values():
        for mended in job.mends:
            measure, _, side = mended.partition(":")
            if side and any(_is_off(key, by, measure, side) for part in a.parts for key, by in part.off):
                yield Proposal(job.work, "reading", measure)


def _is_off(key: MeasurementKey, by: float, measure: str, side: str) -> bool:
    return key[0] == measure and (by > 0) == (side == "above")
