"""An instrument of which all is read but one thing: everything answers still, and says nothing of what it rests on."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import replace
from functools import cache

import pytest
from fidicula.codes import MeasureCode
from fidicula.judgement.assessment.assess import Assessment
from fidicula.judgement.assessment.held import ResolvedValue
from fidicula.judgement.assessment.state import BenchState
from fidicula.judgement.instruction.instruct import instruct
from fidicula.judgement.measures import CARD
from fidicula.services.visits.pages import PAGES
from fidicula.views.sheet.views import views
from fidicula.words.whys import whys

from ..scenario import Bench
from .test_looked_over_pages import paged, whole

FAMILIES = ("violin", "bass")


read = cache(whole)


def assessed(bench: Bench) -> Assessment:
    """Assessed once for all its pages."""
    a = bench.assess(blanks=(40.0, 41.0, 42.0))
    bench.assess = lambda **_: a  # type: ignore[method-assign]
    return a


@cache
def asking(family: str) -> dict[str, set[str]]:
    """The pages that ask for each measure."""
    found: dict[str, set[str]] = defaultdict(set)
    bench = replace(read(family))
    assessed(bench)
    held = BenchState.held
    for name in PAGES:
        if name != "wheels" or family == "bass":

            def noted(
                self: BenchState, measure: MeasureCode, position: int | None = None, page: str = name
            ) -> ResolvedValue | None:
                found[measure].add(page)
                return held(self, measure, position)

            with pytest.MonkeyPatch.context() as patched:
                patched.setattr(BenchState, "held", noted)
                paged(bench, name, {})
    return found


@pytest.mark.parametrize("family", FAMILIES)
def test_everything_answers_whatever_is_not_read(family: str) -> None:
    """Of each measure nothing, or its first place."""
    there_are = {(one.measure, one.position) for one in read(family).readings}
    for measure, place in sorted(
        {(measure, "all") for measure, _ in there_are} | {(m, "0") for m, p in there_are if p == 0}
    ):
        bench = replace(
            read(family),
            readings=[
                one
                for one in read(family).readings
                if one.measure != measure or (place != "all" and str(one.position) != place)
            ],
        )
        a = assessed(bench)
        taken = there_are - {(one.measure, one.position) for one in bench.readings}
        there = [cell for cell in bench.sheet().cells if (cell.measure, cell.position) in taken]
        assert {(cell.state, cell.value) for cell in there} == {("missing", None)}, measure
        assert whys(a.state, a.computed), measure
        assert views(a.state), measure
        if measure in CARD and all(cell.told is None for cell in there):
            assert a.cut.state != "firm", measure
        assert instruct(a).code, measure
        for name in asking(family)[measure]:
            assert paged(bench, name, {}).title, (measure, name)
