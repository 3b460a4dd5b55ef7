"""The stops of a visit as the screen shows them."""

from __future__ import annotations

from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.model import StepAssessment
from fidicula.tables.work import works
from fidicula.tables.workflow import questions, steps
from fidicula.views.sheet.model import Stop
from fidicula.words.instructions import wait_words
from fidicula.words.numbers import lower_first
from fidicula.words.pricing import ON_THE_PLAN, PLANNED


def stop_views(a: Assessment) -> list[Stop]:
    return [_view(a, stop) for stop in a.stops]


def _view(a: Assessment, stop: StepAssessment) -> Stop:
    return Stop(
        key=stop.key,
        label=stop_label(stop),
        note=_note(a, stop),
        state=stop.state,
        says=_says(stop),
        until=stop.until,
        is_question=stop.is_question,
        is_decided=stop.is_decided,
        by_hand=stop.by_hand,
        mark_id=stop.mark_id,
    )


def stop_label(stop: StepAssessment) -> str:
    """What a stop is called: the step, the question, or the planned work."""
    if stop.planned:
        return works()[stop.planned].label
    return questions()[stop.question].short if stop.is_question else steps()[stop.step].label


def _note(a: Assessment, stop: StepAssessment) -> str:
    if stop.planned:
        return "" if stop.state == "done" else PLANNED
    if stop.is_question:
        option = next((row for row in questions()[stop.question].outcomes if row.outcome == stop.outcome), None)
        return "to decide" if option is None else lower_first(option.label)
    if stop.redone_after:
        return f"since {works()[stop.redone_after].done_label}"
    if stop.is_lost:
        return "not measured"
    if stop.key == "strings":
        return a.state.string_set.name if a.state.string_set else ""
    if stop.of is not None:
        return f"{stop.count} of {stop.of}"
    if stop.count:
        return f"{stop.count} left" if stop.key == "look" else f"{stop.count} stale"
    return ""


def _says(stop: StepAssessment) -> str:
    if stop.planned:
        return ON_THE_PLAN
    if not stop.is_question:
        return wait_words(stop.step, stop.waits_after, stop.reason) or steps()[stop.step].why
    deciding = questions()[stop.question]
    option = next((row for row in deciding.outcomes if row.outcome == stop.outcome), None)
    return deciding.says if option is None else option.says
