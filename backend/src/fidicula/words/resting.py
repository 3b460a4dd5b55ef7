"""Why nothing is read under tension now, in words."""

from __future__ import annotations

from fidicula.codes import StepCode
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.inspection import without_tension
from fidicula.judgement.assessment.workflow import rest_at
from fidicula.tables.workflow import questions
from fidicula.words.instructions import wait_words
from fidicula.words.numbers import day_and_clock, sentence

_READ_AT: StepCode = "measure"
"""The step at which heights are read."""


def rests_words(a: Assessment) -> str:
    """“The bridge is down: nothing is read under tension.” Empty where it can be read."""
    found = without_tension(a.state)
    if found:
        return f"{questions()[found].title}: nothing is read under tension."
    rest = rest_at(a.state, _READ_AT, a.now)
    if rest is None:
        return ""
    why = wait_words(rest.step, rest.after, rest.reason)
    return sentence(f"{why}, until {day_and_clock(rest.until)}: nothing is read under tension")
